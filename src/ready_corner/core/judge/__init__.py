"""What was measured, held against what is wanted."""
