"""Rake and cross difference of four ride heights, and what a spring perch is worth."""

import math


def rake_deg(front_height: float, rear_height: float, between: float) -> float:
    """Return rake in degrees, positive when the nose is lower: atan((rear − front) / distance between the stations), in mm.

    Source: plane geometry; docs/choices.md.
    """
    return math.degrees(math.atan2(rear_height - front_height, between))


def cross_share(lf: float, rf: float, lr: float, rr: float) -> float:
    """Return cross weight as a share: (RF + LR) over all four loads, whatever their unit.

    Source: plane geometry; docs/choices.md.
    """
    return (rf + lr) / (lf + rf + lr + rr)
