"""What happened: the kinds of entries, and folding them to the state of a car."""
