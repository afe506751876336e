"""A bay of the frame by its four corners: in what it is off square, each told apart, against the plan where that has all four.

Figures in mm in the axes of the car, or by its own sides where nothing says what along is; their U from the full covariance of the survey.
Source: rigid geometry of measured points, JCGM 100:2008, 5.1.2; docs/survey.md.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import ceil, inf
from typing import Any

import numpy as np

from ready_corner.core.engines.survey.datum import Laid
from ready_corner.core.engines.survey.readings import Array
from ready_corner.core.engines.survey.square import BAY, bay_of, derived
from ready_corner.core.judge.frame import Frame
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import Measured
from ready_corner.core.quantities.verdict import MOST_REPEATS, Aim, Verdict, judge

TOLD = {"shift": "bay.shift", "longer": "bay.longer"}
BY_RULE = 1e-6  # mm; what is surer than this is so by the choice of the datum, and not by a reading


@dataclass(frozen=True)
class Bay:
    """A bay by its corners left front, right front, left rear, right rear, all determined: every degree in which it may be off square, with its U, and
    what it is off the plan by, where that has all four."""

    frame: Frame
    laid: Laid
    names: tuple[str, ...]

    @cached_property
    def _beside(self) -> Laid | None:
        return self.frame.laid_beside(self.names)

    @property
    def by_its_sides(self) -> bool:
        """Whether nothing but its own sides says what along is."""
        return self._beside is None

    def _of(self, p: Sequence[Array]) -> Array:
        return bay_of(p, self.by_its_sides)

    @cached_property
    def found(self) -> dict[str, Measured]:
        """Every degree as found, mm."""
        return dict(zip(BAY, derived(self._beside or self.laid, self.names, self._of), strict=True))

    @cached_property
    def planned(self) -> Array | None:
        """Every degree as planned, mm."""
        at = [np.asarray(self.frame.planned[n], dtype=float) for n in self.names if n in self.frame.planned]
        return self._of(at) if len(at) == len(self.names) else None

    def off(self, degree: str) -> float:
        """Return by how much it is off in this degree, mm."""
        return self.found[degree].value - (0.0 if self.planned is None else float(self.planned[BAY.index(degree)]))

    def out(self, degree: str) -> bool:
        """Whether it is off by more than is in doubt."""
        return abs(self.off(degree)) > self.found[degree].expanded

    @property
    def untold(self) -> bool:
        """Whether by how much it is askew as a whole cannot be told: without a datum, where its sides are not alike."""
        return self.by_its_sides and self.out("longer")


def verdict_of_bay(name: str, bay: Bay) -> Finding:
    """Return whether a bay is square within the tolerance of a point: neither its front aside of its rear nor one side longer by more; too close where
    their U does not let it be told.

    Source: see the module.
    """
    tolerance = bay.frame.plan.point_tolerance
    asked = [d for d in TOLD if bay.found[d].expanded > BY_RULE and not (d == "shift" and bay.untold)]
    judged = {d: judge(bay.found[d], Aim(d, bay.found[d].value - bay.off(d), tolerance)) for d in asked}
    found = {j.verdict for j in judged.values()}
    close = [j for j in judged.values() if j.verdict == "too close to call"]
    verdict: Verdict = "out" if "out" in found else "too close to call" if close or bay.untold else "holds"
    room = [(abs(tolerance - abs(j.deviation)), j.expanded) for j in close if verdict != "out"]
    times = max((ceil((sure / left) ** 2) if left else inf for left, sure in room), default=0)
    return finding(
        "bay.verdict", bay=name, verdict=verdict, tolerance=tolerance, untold=verdict != "out" and bay.untold,
        parts=[finding(TOLD[d], **_figures(bay.found[d], bay.off(d), bay.out(d))) for d in asked],
        times=times if times <= MOST_REPEATS else 0, coarse=times > MOST_REPEATS,
    )  # fmt: skip


def told_of_bay(frame: Frame, laid: Laid, names: Sequence[str], pivots: bool = False) -> Iterator[Finding]:
    """Yield what a bay tells by its corners left front, right front, left rear, right rear, all determined; ``pivots``: of front and rear ones.

    Source: see the module.
    """
    bay = Bay(frame, laid, tuple(names))
    first, second = (
        float(np.linalg.norm(laid.place(a) - laid.place(b))) for a, b in ((names[0], names[3]), (names[1], names[2]))
    )
    axes = "sides" if bay.by_its_sides else "datum" if frame.log.datum else "others"
    yield finding("points.diagonals", first=first, second=second, plan=bay.planned is not None, axes=axes, pivots=pivots)
    if bay.untold:  # which of its ends is out of square, and so what it is askew by, only a datum can say
        yield finding("points.shift-untold")
    elif bay.found["shift"].expanded > BY_RULE:
        yield finding("points.shift", **_figures(bay.found["shift"], bay.off("shift"), bay.out("shift")))
    for k in ("front", "rear"):
        if bay.out(k) and bay.found[k].expanded > BY_RULE:
            yield finding("points.skew", front=k == "front", **_figures(bay.found[k], bay.off(k), True))
    yield finding("points.longer", **_figures(bay.found["longer"], bay.off("longer"), bay.out("longer")))
    if bay.out("wider"):
        yield finding("points.wider", **_figures(bay.found["wider"], bay.off("wider"), True))
    if not frame.flat:
        high, sure = bay.off("left_front_high"), bay.found["left_front_high"].expanded
        corner, up = _twisted(frame, names, high)
        yield finding("points.twist", out=abs(high) > sure, off=abs(high), sure=sure, corner=corner, high=up)


def _figures(found: Measured, off: float, out: bool) -> dict[str, Any]:
    return {"out": out, "off": abs(off), "sure": found.expanded, "left": off > 0}


def _twisted(frame: Frame, names: Sequence[str], high: float) -> tuple[str, bool]:
    """Return the corner that a twist is told of, and whether it stands high: the one that is not of the datum's plane, else the left front one."""
    plane = frame.log.datum.plane if frame.log.datum else ()
    loose = [n for n in names if n not in plane]
    corner = loose[0] if len(loose) == 1 else names[0]
    return corner, (high > 0) == (corner in (names[0], names[3]))
