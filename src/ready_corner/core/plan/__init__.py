"""What is wanted of one car, and what it stands on."""
