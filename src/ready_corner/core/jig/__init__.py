"""Stage Jig: the frame surveyed, its datum, its pickup points against the plan, and what welding did to them."""
