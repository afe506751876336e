"""Positions and angles of a wheel over its travel and steering; what each point and each link is worth.

An upright, or an axle, is a rigid body held by constraints. A layout is data that says which; one solver serves all of them.
"""
