"""Levelling a table, stands or pads: slopes by reversal, heights at feet, twist, and what to turn or pack.

Slopes in degrees: along is plus where it rises forward, across where it rises to the left. Heights in mm.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Literal

import numpy as np

from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.measured import Measured, combine, propagate
from ready_corner.core.quantities.notation import nearest_flats


def by_reversal(first: Measured, second: Measured) -> tuple[Measured, Measured]:
    """Return the slope and the level's own error from two readings end for end: (first − second) / 2 and (first + second) / 2.

    Source: best plane by least squares; levels by reversal; docs/survey.md.
    """
    return combine([first, second], [0.5, -0.5]), combine([first, second], [0.5, 0.5])


def rise_over(slope: Measured, span: float) -> Measured:
    """Return the height over a span in mm that a slope in degrees means: span · tan(slope), to be packed at the lower end.

    Source: best plane by least squares; levels by reversal; docs/survey.md.
    """
    if not span > 0:
        raise MeasuredError(finding("level.no-span"), path="span")
    angle = np.radians(slope.value)
    return propagate(float(span * np.tan(angle)), [slope], [float(np.radians(span / np.cos(angle) ** 2))])


def heights_round(steps: Sequence[Measured]) -> tuple[tuple[Measured, ...], Measured]:
    """Return how high feet stand over the first of them, mm, and by how much a round of steps does not close: each foot over the one before it, the first over the last, at the end.

    Every step takes its even share of what does not close; what a level shows wrongly each time falls out so.
    Source: closed levelling loop, least squares with equal weights; docs/stance.md.
    """
    n = len(steps)
    heights = (combine(steps, [(1.0 if j < k else 0.0) - k / n for j in range(n)]) for k in range(n))
    return tuple(heights), combine(steps, [1.0] * n)


@dataclass(frozen=True)
class Foot:
    """A foot or pad: its name, where it stands (x forward, y left, mm) and its height."""

    name: str
    x: float
    y: float
    height: Measured


@dataclass(frozen=True)
class Levelled:
    """What heights at feet come to: slopes of the best plane in degrees, ``warp`` ± mm about it (four feet), and the ``twist``.

    twist: for every foot, its height over the plane of the other three (four feet only); ``odd`` the one to be raised for it.
    """

    along_deg: Measured
    across_deg: Measured
    warp: Measured | None
    twist: dict[str, Measured]
    odd: str


def level_of(feet: Sequence[Foot]) -> Levelled:
    """Return how level these feet are. Raises MeasuredError for fewer than three, or feet on one line.

    Source: best plane by least squares; levels by reversal; docs/survey.md.
    """
    design = _plane_design(feet)
    inverse = np.linalg.pinv(design)
    heights = [f.height for f in feet]
    slopes = [combine(heights, [float(w) for w in inverse[k]]) for k in (0, 1)]
    along, across = (
        propagate(float(np.degrees(np.arctan(s.value))), [s], [float(np.degrees(1 / (1 + s.value**2)))]) for s in slopes
    )
    if len(feet) != 4:
        return Levelled(along, across, None, {}, "")
    twist = {f.name: _over_others(feet, i) for i, f in enumerate(feet)}
    odd = min(twist, key=lambda n: (twist[n].value >= 0, next(f.height.value for f in feet if f.name == n)))
    residual = np.eye(4) - design @ inverse
    largest = int(np.argmax(np.abs(residual @ np.array([h.value for h in heights]))))
    warp = combine(heights, [float(w) for w in residual[largest]])
    if warp.value < 0:
        warp = combine([warp], [-1.0])
    return Levelled(along, across, warp, twist, odd)


def _plane_design(feet: Sequence[Foot]) -> np.ndarray:
    if len(feet) < 3:
        raise MeasuredError(finding("level.too-few", count=len(feet)), path="feet")
    design = np.array([[f.x, f.y, 1.0] for f in feet])
    s = np.linalg.svd(design[:, :2] - design[:, :2].mean(axis=0), compute_uv=False)
    if s[1] < 1e-6 * max(s[0], 1.0):
        raise MeasuredError(finding("level.on-one-line"), path="feet")
    return design


def _over_others(feet: Sequence[Foot], i: int) -> Measured:
    """Return the height of one foot over the plane of the other three."""
    others = [f for j, f in enumerate(feet) if j != i]
    weights = np.array([feet[i].x, feet[i].y, 1.0]) @ np.linalg.inv(_plane_design(others))
    return combine([feet[i].height, *(f.height for f in others)], [1.0, *(-float(w) for w in weights)])


Keep = Literal["highest", "least"]


@dataclass(frozen=True)
class FootTurn:
    """What to do at one foot: raise it by ``rise`` mm (minus lowers), which is ``turns`` of its screw in whole flats; ``left`` mm remain."""

    name: str
    rise: float
    turns: float
    left: float


def screw_feet(feet: Sequence[Foot], pitch: float, keep: Keep = "highest") -> tuple[FootTurn, ...]:
    """Return the turns of each screw foot that make all feet level: up to the highest, or with the least turning altogether.

    Whole flats, nearest; a tie goes to the smaller movement. Raises MeasuredError for a pitch of nothing.
    Source: best plane by least squares; levels by reversal; docs/survey.md.
    """
    if not pitch > 0:
        raise MeasuredError(finding("level.no-pitch"), path="pitch")
    heights = [f.height.value for f in feet]
    target = max(heights) if keep == "highest" else float(np.median(heights))
    rows = []
    for foot in feet:
        rise = target - foot.height.value
        turns = nearest_flats(rise / pitch)
        rows.append(FootTurn(foot.name, rise, turns, rise - turns * pitch))
    return tuple(rows)


@dataclass(frozen=True)
class Packing:
    """What to put under one pad: ``shims`` of each thickness (mm) that come nearest to ``rise``; ``left`` mm remain."""

    name: str
    rise: float
    shims: tuple[float, ...]
    left: float


MOST_SHIMS = 4


def packing(feet: Sequence[Foot], thicknesses: Sequence[float]) -> tuple[Packing, ...]:
    """Return the shims under each pad that bring all up to the highest: nearest first, then the fewest; at most four under one.

    Source: best plane by least squares; levels by reversal; docs/survey.md.
    """
    sizes = sorted({t for t in thicknesses if t > 0})
    if not sizes:
        raise MeasuredError(finding("level.no-shims"), path="thicknesses")
    top = max(f.height.value for f in feet)
    rows = []
    for foot in feet:
        rise = top - foot.height.value
        chosen = _stack(rise, sizes)
        rows.append(Packing(foot.name, rise, chosen, rise - sum(chosen)))
    return tuple(rows)


def _stack(rise: float, sizes: Sequence[float]) -> tuple[float, ...]:
    """Return the stack of whole plates and up to four shims nearest to a rise."""
    thick = sizes[-1]
    plates = max(int((rise - 2 * sum(sizes[:-1])) // thick), 0)
    rest = rise - plates * thick
    best: tuple[float, ...] = ()
    for count in range(MOST_SHIMS + 1):
        for stack in combinations(sorted([*sizes] * MOST_SHIMS), count) if count else [()]:
            if abs(rest - sum(stack)) < abs(rest - sum(best)) - 1e-9:
                best = stack
    return (*([thick] * plates), *sorted(best, reverse=True))
