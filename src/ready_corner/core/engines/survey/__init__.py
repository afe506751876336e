"""From ordinary tools to true positions: readings of every kind adjusted as one network, its datum, and what moved."""
