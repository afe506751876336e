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

BAY = ("shift", "front", "rear", "longer", "wider", "left_front_high")


def bay_of(corners: Sequence[Array], by_its_sides: bool = False) -> Array:
    """Return in what a bay is off square, (6,) mm in the order of BAY: its corners (3,) left front, right front, left rear, right rear in the axes
    of the car, of any shape.

    The middle of its front end to the left of that of its rear; by how much the left end of its front, and of its rear, is ahead of the right
    one; the left side longer than the right; the front wider than the rear; how high the left front corner stands over the plane of the others.
    ``by_its_sides``: along is not x but the mean of its two sides, where no datum says what along is; what it is askew as a whole by then shows
    in both ends alike, and its front is shifted by what these lean in common, over its length.
    Source: rigid geometry of measured points; docs/survey.md.
    """
    lf, rf, lr, rr = (np.asarray(p, dtype=float) for p in corners)
    sides = lf - lr, rf - rr
    along, across = np.array([1.0, 0, 0]), np.array([0, 1.0, 0])
    if by_its_sides:
        along = sum(s / np.linalg.norm(s) for s in sides)
        along = along / np.linalg.norm(along)
        normal = np.cross(along, lf - rf + lr - rr)
        across = np.cross(normal / np.linalg.norm(normal), along)
    front, rear = float((lf - rf) @ along), float((lr - rr) @ along)
    shift = float((lf + rf - lr - rr) @ across) / 2
    if by_its_sides:
        leans = front / float((lf - rf) @ across), rear / float((lr - rr) @ across)
        shift = float((lf + rf - lr - rr) @ along) / 2 * float(np.tan(np.mean(np.arctan(leans))))
    plane = np.cross(rf - rr, lr - rr)
    high = float((lf - rr) @ plane / np.linalg.norm(plane))
    lengths = [float(np.linalg.norm(s)) for s in sides]
    wide = [float(np.linalg.norm(w)) for w in (lf - rf, lr - rr)]
    return np.array([shift, front, rear, lengths[0] - lengths[1], wide[0] - wide[1], high])


def ahead_by_cross(left: Measured, right: Measured, span: Measured) -> Measured:
    """Return by how much the left end of a member is ahead of the right one, mm, by the distances of both from one point of the centreline behind
    it (ahead of it: with the other sign) and its span, its middle on the centreline.

    Raises MeasuredError where the distances do not reach. Source: (left² − right²) / 2 over the distance along; docs/survey.md.
    """
    along2 = (left.value**2 + right.value**2) / 2 - span.value**2 / 4
    if not along2 > 0:
        raise MeasuredError(finding("square.diagonals-too-short"), path="diagonals")
    along = float(np.sqrt(along2))
    ahead = (left.value**2 - right.value**2) / (2 * along)
    by_along = -ahead / along
    slopes = [
        left.value / along + by_along * left.value / (2 * along),
        -right.value / along + by_along * right.value / (2 * along),
        -by_along * span.value / (4 * along),
    ]
    return propagate(ahead, [left, right, span], slopes)


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
