"""The car that a plan describes, made with the engines."""
