"""Practice cars: a car with a hidden truth that answers readings and takes turns."""
