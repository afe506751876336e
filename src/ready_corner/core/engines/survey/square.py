"""Squareness in words: bays by their diagonals, a member by its ends, two axes against each other, left against right.

Lengths in mm, angles in degrees; x forward, y left.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.survey.datum import Laid
from ready_corner.core.engines.survey.readings import Array
from ready_corner.core.quantities.errors import CalledError, MeasuredError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.measured import Measured, propagate


@dataclass(frozen=True)
class Bay:
    """A bay of a frame by its six lengths. ``shift``: its front end sideways against its rear, plus to the left; ``skew_deg`` the angle of that.

    ``splay_deg``: its ends against each other, plus where the left side is the longer. ``proved``: whether ends and sides were measured,
    for equal diagonals alone do not prove a bay square.
    """

    shift: Measured
    skew_deg: Measured
    splay_deg: Measured | None
    proved: bool


def bay(
    left_front_to_right_rear: Measured,
    right_front_to_left_rear: Measured,
    front: Measured | None,
    rear: Measured | None,
    left: Measured | None = None,
    right: Measured | None = None,
) -> Bay:
    """Return how square a bay is: shift = (d1² − d2²) / (2 (front + rear)).

    Raises MeasuredError where an end was not measured, or the lengths cannot close.
    Source: rigid geometry of measured points, JCGM 100:2008; docs/survey.md.
    """
    d1, d2 = left_front_to_right_rear, right_front_to_left_rear
    if front is None or rear is None:
        raise MeasuredError(finding("square.two-diagonals"), path="front")
    ends = front.value + rear.value
    value = (d1.value**2 - d2.value**2) / (2 * ends)
    shift = propagate(value, [d1, d2, front, rear], [d1.value / ends, -d2.value / ends, -value / ends, -value / ends])
    length2 = (d1.value**2 + d2.value**2) / 2 - ends**2 / 4 - value**2
    if not length2 > 0:
        raise MeasuredError(finding("square.diagonals-too-short"), path="diagonals")
    length = float(np.sqrt(length2))
    skew = propagate(float(np.degrees(np.arctan(value / length))), [shift], [float(np.degrees(length / (length2 + value**2)))])
    splay = None
    if left is not None and right is not None:
        width = ends / 2
        angle = (left.value - right.value) / width
        splay = propagate(
            float(np.degrees(np.arctan(angle))), [left, right], [float(np.degrees(1 / width)), -float(np.degrees(1 / width))]
        )
    return Bay(shift, skew, splay, splay is not None)


def shift_of(corners: Sequence[Array]) -> float:
    """Return how far the front of a bay stands to the left of its rear, mm: its corners (3,) left front, right front, left rear, right rear.

    Source: rigid geometry of measured points, JCGM 100:2008; docs/survey.md.
    """
    lf, rf, lr, rr = corners
    d = [Measured(float(np.linalg.norm(a - b))) for a, b in ((lf, rr), (rf, lr), (lf, rf), (lr, rr))]
    return bay(d[0], d[1], d[2], d[3]).shift.value


@dataclass(frozen=True)
class AxesApart:
    """Two pivot axes against each other: ``splay_deg`` in plan view, plus where they open to the front; ``tilt_deg`` in side view."""

    splay_deg: Measured
    tilt_deg: Measured


def axes_apart(first: tuple[str, str], second: tuple[str, str], laid: Laid) -> AxesApart:
    """Return how two axes, each by its front and rear point, lie to each other, with U from the full covariance of the survey.

    The first is that on the left.
    Source: rigid geometry of measured points, JCGM 100:2008; docs/survey.md.
    """
    names = (*first, *second)

    def angles(p: Sequence[Array]) -> Array:
        a, b = p[0] - p[1], p[2] - p[3]
        heading = np.arctan2(a[1], a[0]) - np.arctan2(b[1], b[0])
        slope = np.arctan2(a[2], np.hypot(a[0], a[1])) - np.arctan2(b[2], np.hypot(b[0], b[1]))
        return np.asarray(np.degrees(np.array([heading, slope])))

    splay, tilt = derived(laid, names, angles)
    return AxesApart(splay, tilt)


def derived(laid: Laid, names: Sequence[str], of: object) -> list[Measured]:
    """Return what a function of some places comes to, each with its u by the full covariance; a derivative by central differences of 0.01 mm.

    Source: rigid geometry of measured points, JCGM 100:2008; docs/survey.md.
    """
    places = [laid.place(n) for n in names]
    value = np.atleast_1d(of(places))  # type: ignore[operator]
    slopes = np.zeros((len(value), 3 * len(names)))
    step = 0.01
    for i in range(len(names)):
        for k in range(3):
            ends = []
            for d in (step, -step):
                moved = [p.copy() for p in places]
                moved[i][k] += d
                ends.append(np.atleast_1d(of(moved)))  # type: ignore[operator]
            slopes[:, 3 * i + k] = (ends[0] - ends[1]) / (2 * step)
    q = np.block([[laid.cov(a, b) for b in names] for a in names])
    u = np.sqrt(np.maximum(np.einsum("ij,jk,ik->i", slopes, q, slopes), 0.0))
    return [Measured(float(v), {"survey": float(s)}) for v, s in zip(value, u, strict=True)]


def mirror_difference(left: str, right: str, laid: Laid) -> tuple[list[Measured], Measured]:
    """Return the right point reflected in the centreline minus the left one, along x, y, z; and the offset of the middle of the pair.

    Raises CalledError for a point against itself.
    Source: rigid geometry of measured points, JCGM 100:2008; docs/survey.md.
    """
    if left == right:
        raise CalledError(finding("square.no-other-side", point=left), path="points")
    rows = derived(laid, (left, right), lambda p: np.array([*(p[1] * [1, -1, 1] - p[0]), (p[0][1] + p[1][1]) / 2]))
    return rows[:3], rows[3]
