"""What a figure is: as typed, as measured with its U, with what, and the verdict on it; and what a refusal is."""
