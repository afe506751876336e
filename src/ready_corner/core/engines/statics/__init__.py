"""Springs, bars and how a body lies: what is in balance."""
