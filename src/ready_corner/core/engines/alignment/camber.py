"""Camber of a standing car from a gauge zeroed on gravity, with the lie of the floor taken out.

Axes of the car stand on the plane through the four contact points: x forward, y left, z square to the plane (ISO 8855).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding

FloatArray = NDArray[np.float64]


def camber_deg(spin_axis: ArrayLike) -> FloatArray:
    """Return camber in degrees, negative when the top leans in, from axes of shape (..., 3) pointing outboard, any length.

    Source: ISO 8855 axes; the wheel axis against gravity, derived in docs/choices.md.
    """
    x, y, z = np.moveaxis(np.asarray(spin_axis, dtype=float), -1, 0)
    # Not asin(-z): that needs a unit axis and loses half its digits near upright wheels lying down.
    return np.asarray(np.degrees(np.arctan2(-z, np.hypot(x, y))), dtype=float)


def toe_deg(spin_axis: ArrayLike) -> FloatArray:
    """Return toe in degrees, positive front in, from axes of shape (..., 3) pointing outboard, any length.

    Source: ISO 8855 axes; the wheel axis against gravity, derived in docs/choices.md.
    """
    x, y, _ = np.moveaxis(np.asarray(spin_axis, dtype=float), -1, 0)
    return np.asarray(np.degrees(np.arctan2(x, np.abs(y))), dtype=float)


@dataclass(frozen=True)
class Floor:
    """The floor under a car: ``up`` is gravity's upward unit vector in the car's axes, ``residual`` the height of each pad over
    the best plane, in mm, in the order given; ``slope_deg`` is (nose-down, left-side-up) tilt of the plane."""

    up: FloatArray
    residual: FloatArray
    slope_deg: tuple[float, float]


LEVEL_UP = np.array([0.0, 0.0, 1.0])


def floor_from_pads(places: ArrayLike, heights: ArrayLike) -> Floor:
    """Return the floor from three or more pads: places (n, 2) as station and offset, heights (n,), all in mm.

    The best plane through the pads by least squares in height; the car's x axis is the centreline dropped square onto it.
    Raises MeasuredError where the pads lie on one line.
    Source: ISO 8855 axes; the wheel axis against gravity, derived in docs/choices.md.
    """
    xy, z = np.asarray(places, dtype=float), np.asarray(heights, dtype=float)
    design = np.column_stack([np.ones(len(xy)), xy])
    (level, along, across), _, rank, _ = np.linalg.lstsq(design, z, rcond=1e-9)  # 1e-9: pads nearer than that to one line
    if rank < 3:
        raise MeasuredError(finding("pads.on-one-line"), path="typed")
    normal = np.array([-along, -across, 1.0]) / np.sqrt(along**2 + across**2 + 1)
    ahead = np.array([1.0, 0.0, along]) / np.hypot(1.0, along)
    left = np.cross(normal, ahead)
    up = np.array([ahead[2], left[2], normal[2]])
    residual = z - (level + along * xy[:, 0] + across * xy[:, 1])
    return Floor(up, residual, (float(-np.degrees(np.arctan(along))), float(np.degrees(np.arctan(across)))))


def camber_from_gravity_deg(
    reading_deg: ArrayLike, side: ArrayLike, up: ArrayLike = LEVEL_UP, toe: ArrayLike = 0.0
) -> FloatArray:
    """Return camber to the car's plane in degrees from a gauge zeroed on gravity, reading minus when the top leans in.

    side +1 left, −1 right; up: gravity's upward unit vector in the car's axes, shape (..., 3); toe in degrees. Exact: with the
    wheel axis n(t, c) the gauge shows asin(−n · up) = asin(A sin c − B cos c).
    Raises MeasuredError where the floor is too steep for such a reading.
    Source: ISO 8855 axes; the wheel axis against gravity, derived in docs/choices.md.
    """
    g, t, s = (np.asarray(a, dtype=float) for a in (reading_deg, toe, side))
    ux, uy, uz = np.moveaxis(np.asarray(up, dtype=float), -1, 0)
    b = np.sin(np.radians(t)) * ux + s * np.cos(np.radians(t)) * uy
    sine = np.sin(np.radians(g)) / np.hypot(uz, b)
    if np.any(np.abs(sine) > 1):
        raise MeasuredError(finding("camber.impossible"), path="typed")
    return np.asarray(np.degrees(np.arcsin(sine) + np.arctan2(b, uz)), dtype=float)
