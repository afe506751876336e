"""What to do: turn, measure, move, and in which order."""
