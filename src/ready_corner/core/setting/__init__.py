"""Which adjusters to turn, by how much; learning from what the car did."""
