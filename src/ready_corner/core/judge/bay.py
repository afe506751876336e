"""A bay of the frame by its four corners: in what it is off square, each told apart, against the plan where that has all four.

Figures in mm in the axes of the car, or by its own sides where nothing says what along is; their U from the full covariance of the survey.
Source: rigid geometry of measured points, JCGM 100:2008, 5.1.2; docs/survey.md.
"""

from collections.abc import Iterator, Sequence
from typing import Any

import numpy as np

from ready_corner.core.engines.survey.datum import Laid
from ready_corner.core.engines.survey.readings import Array
from ready_corner.core.engines.survey.square import BAY, bay_of, derived
from ready_corner.core.judge.frame import Frame
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import Measured

BY_RULE = 1e-6  # mm; what is surer than this is so by the choice of the datum, and not by a reading


def told_of_bay(frame: Frame, laid: Laid, names: Sequence[str], pivots: bool = False) -> Iterator[Finding]:
    """Yield what a bay tells by its corners left front, right front, left rear, right rear, all determined; ``pivots``: of front and rear ones.

    Source: see the module.
    """
    beside = frame.laid_beside(names)
    by_its_sides = beside is None

    def figures(p: Sequence[Array]) -> Array:
        return bay_of(p, by_its_sides)

    found = dict(zip(BAY, derived(beside or laid, names, figures), strict=True))
    planned = None
    if all(n in frame.planned for n in names):
        planned = figures([np.asarray(frame.planned[n], dtype=float) for n in names])
    off = {k: m.value - (0.0 if planned is None else float(planned[i])) for i, (k, m) in enumerate(found.items())}
    first, second = (
        float(np.linalg.norm(laid.place(a) - laid.place(b))) for a, b in ((names[0], names[3]), (names[1], names[2]))
    )
    axes = "sides" if by_its_sides else "datum" if frame.log.datum else "others"
    yield finding("points.diagonals", first=first, second=second, plan=planned is not None, axes=axes, pivots=pivots)
    out = {k: abs(off[k]) > m.expanded for k, m in found.items()}
    if by_its_sides and out["longer"]:  # which of its ends is out of square, and so what it is askew by, only a datum can say
        yield finding("points.shift-untold")
    elif found["shift"].expanded > BY_RULE:
        yield finding("points.shift", **_figures(found["shift"], off["shift"], out["shift"]))
    for k in ("front", "rear"):
        if out[k] and found[k].expanded > BY_RULE:
            yield finding("points.skew", front=k == "front", **_figures(found[k], off[k], True))
    yield finding("points.longer", **_figures(found["longer"], off["longer"], out["longer"]))
    if out["wider"]:
        yield finding("points.wider", **_figures(found["wider"], off["wider"], True))
    if not frame.flat:
        high = off["left_front_high"]
        corner, up = _twisted(frame, names, high)
        sure = found["left_front_high"].expanded
        yield finding("points.twist", out=abs(high) > sure, off=abs(high), sure=sure, corner=corner, high=up)


def _figures(found: Measured, off: float, out: bool) -> dict[str, Any]:
    return {"out": out, "off": abs(off), "sure": found.expanded, "left": off > 0}


def _twisted(frame: Frame, names: Sequence[str], high: float) -> tuple[str, bool]:
    """Return the corner that a twist is told of, and whether it stands high: the one that is not of the datum's plane, else the left front one."""
    plane = frame.log.datum.plane if frame.log.datum else ()
    loose = [n for n in names if n not in plane]
    corner = loose[0] if len(loose) == 1 else names[0]
    return corner, (high > 0) == (corner in (names[0], names[3]))
