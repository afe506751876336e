"""Caster and steering-axis inclination: of the line between two ball joints, and from a sweep of the steering on plates.

The axis k points up; caster ν = atan2(−k_x, k_z), inclination κ = atan2(−s · k_y, k_z), s = +1 left, −1 right; in the axes of the plane
the car stands on (x forward, y left, z up), ISO 8855. Everything but the sweep accepts arrays of any shape and broadcasts.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ready_corner.core.engines.alignment.camber import LEVEL_UP
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding

FloatArray = NDArray[np.float64]

LEAST_SWEEP_DEG = 5.0  # between the two ends of a sweep; under that a caster is all noise
MOST_SWEEP_DEG = 60.0  # off straight ahead; no wheel of a car is steered further
SHOP_CONSTANT = 1.5  # degrees of caster a degree of camber, of a sweep of 20° either way, as it is handed on


def axis(caster_deg: ArrayLike, inclination_deg: ArrayLike, side: ArrayLike) -> FloatArray:
    """Return the unit steering axis pointing up, shape (..., 3), of caster and inclination in degrees; side +1 left, −1 right.

    Source: ISO 8855 definitions of caster and steering-axis inclination.
    """
    v, i, s = np.broadcast_arrays(np.radians(caster_deg), np.radians(inclination_deg), np.asarray(side, dtype=float))
    k = np.stack([-np.tan(v), -s * np.tan(i), np.ones_like(v)], axis=-1)
    return np.asarray(k / np.linalg.norm(k, axis=-1, keepdims=True))


def angles_of_axis(k: ArrayLike, side: ArrayLike) -> tuple[FloatArray, FloatArray]:
    """Return caster (plus: top behind) and inclination (plus: top in) in degrees of axes of shape (..., 3) pointing up, any length.

    Source: ISO 8855 definitions of caster and steering-axis inclination.
    """
    x, y, z = np.moveaxis(np.asarray(k, dtype=float), -1, 0)
    return np.asarray(np.degrees(np.arctan2(-x, z))), np.asarray(np.degrees(np.arctan2(-np.asarray(side) * y, z)))


def angle_of_offset_deg(offset: ArrayLike, height: ArrayLike) -> FloatArray:
    """Return how far a line leans in degrees, its upper end standing off by ``offset`` and over the lower one by ``height``, both in mm.

    Raises MeasuredError where the height is nothing or less.
    Source: plane trigonometry of a plumb line, docs/readings.md.
    """
    high = np.asarray(height, dtype=float)
    if np.any(high <= 0):
        raise MeasuredError(finding("axis.no-height"), path="typed", numbers={"height": float(np.min(high))})
    return np.asarray(np.degrees(np.arctan2(np.asarray(offset, dtype=float), high)))


def level_axes(up: ArrayLike = LEVEL_UP) -> FloatArray:
    """Return the level axes of the workshop in the car's axes, as columns (3, 3): ahead, left, and up along gravity.

    up: gravity's upward unit vector in the car's axes. Ahead is the car's own x with its fall taken out of it.
    Source: ISO 8855 axes; the steering axis against gravity, docs/readings.md.
    """
    z = np.asarray(up, dtype=float)
    x = np.array([1.0, 0.0, 0.0]) - z[0] * z
    x /= np.linalg.norm(x)
    return np.column_stack([x, np.cross(z, x), z])


def from_gravity_deg(
    caster: ArrayLike, inclination: ArrayLike, side: ArrayLike, up: ArrayLike = LEVEL_UP
) -> tuple[FloatArray, FloatArray]:
    """Return caster and inclination in the car's plane from those against gravity, in degrees; the floor taken out exactly.

    Source: ISO 8855 axes; the steering axis against gravity, docs/readings.md.
    """
    return angles_of_axis(axis(caster, inclination, side) @ level_axes(up).T, side)


def camber_when_steered_deg(
    caster: ArrayLike, inclination: ArrayLike, toe: ArrayLike, camber: ArrayLike, steer: ArrayLike
) -> FloatArray:
    """Return the camber of a wheel once it is turned about its axis until it points ``steer`` in; all in degrees, toe-in plus.

    toe, camber: as it stands. n · k stays, so cos c · (tan ν · sin t + tan κ · cos t) + sin c keeps its value; solved for c.
    Source: rotation about a fixed axis, docs/readings.md.
    """
    v, i, t0, c0, t = (np.radians(np.asarray(a, dtype=float)) for a in (caster, inclination, toe, camber, steer))

    def across(turned: FloatArray) -> FloatArray:
        return np.asarray(np.tan(v) * np.sin(turned) + np.tan(i) * np.cos(turned))

    kept = np.cos(c0) * across(t0) + np.sin(c0)
    return np.asarray(np.degrees(np.arcsin(kept / np.hypot(1.0, across(t))) - np.arctan(across(t))))


@dataclass(frozen=True)
class Known:
    """An inclination that is known from elsewhere, with its standard uncertainty, degrees."""

    deg: float
    u: float


def axis_from_sweep(steer: ArrayLike, camber: ArrayLike, known: Known | None = None, u: float = 0.05) -> FloatArray:
    """Return caster and inclination of a wheel, (2,) degrees, from its camber at two or more steer angles, unequal ones allowed.

    steer (toe-in plus), camber: (n,) degrees each, in the car's plane. known: an inclination from elsewhere, which two positions need; with
    more it counts by its weight, against ``u`` of a camber. Exact for a fixed axis: n · k stays, which is linear in tan ν, tan κ and what
    it keeps. Raises MeasuredError where positions are too few, too far out, or too near each other to tell.
    Source: rotation about a fixed axis, docs/readings.md.
    """
    refuse_sweep(np.asarray(steer, dtype=float), known is not None)
    t, c = np.radians(steer), np.radians(camber)
    rows = np.column_stack([np.cos(c) * np.sin(t), np.cos(c) * np.cos(t), -np.ones_like(t)])
    wanted = -np.sin(c)
    if known:  # each in units of its own uncertainty; with two positions the weight tells nothing
        weight = u / max(known.u, u / 1000) * np.cos(np.radians(known.deg)) ** 2
        rows = np.vstack([rows, [0.0, weight, 0.0]])
        wanted = np.append(wanted, weight * np.tan(np.radians(known.deg)))
    found = np.linalg.lstsq(rows, wanted, rcond=None)[0]
    return np.asarray(np.degrees(np.arctan(found[:2])))


def refuse_sweep(steer: FloatArray, known: bool) -> None:
    """Raise MeasuredError where no steering axis can be told from positions (degrees, toe-in plus); ``known``: its inclination is.

    Source: docs/readings.md.
    """
    if len(steer) < (2 if known else 3):
        raise MeasuredError(finding("sweep.too-few", positions=len(steer)), path="typed")
    if (far := float(np.max(np.abs(steer)))) > MOST_SWEEP_DEG:
        raise MeasuredError(finding("sweep.too-far", steer=far, most=MOST_SWEEP_DEG), path="typed", numbers={"steer": far})
    if (apart := float(np.ptp(steer))) < LEAST_SWEEP_DEG:
        told = finding("sweep.too-small", apart=apart, least=LEAST_SWEEP_DEG)
        raise MeasuredError(told, path="typed", numbers={"apart": apart})


def shop_caster_deg(camber_out: float, camber_in: float) -> float:
    """Return caster as the usual constant has it, in degrees: 1.5 times the change of camber from 20° in to 20° out.

    Shown beside the exact figure with what it is off by, and never used. Source: shop practice; docs/readings.md.
    """
    return SHOP_CONSTANT * (camber_out - camber_in)
