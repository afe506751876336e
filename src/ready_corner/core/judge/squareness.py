"""How square the frame is: pivot axes of both sides against each other and the plan, and the bay between front and rear pivots.

Source: distances and angles between measured points, their U by JCGM 100:2008, 5.1.2.
"""

from collections.abc import Iterator

import numpy as np

from ready_corner.core.engines.linkage.layouts import LAYOUTS
from ready_corner.core.engines.survey.datum import Laid
from ready_corner.core.engines.survey.readings import Array
from ready_corner.core.engines.survey.square import axes_apart
from ready_corner.core.judge.bay import Bay, told_of_bay, verdict_of_bay
from ready_corner.core.judge.frame import Frame
from ready_corner.core.plan.bays import Corners, bays
from ready_corner.core.plan.corners import ENDS, End
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.verdict import Verdict

WORST_FIRST: tuple[Verdict, ...] = ("out", "too close to call", "holds")


def square(frame: Frame) -> tuple[Finding, ...]:
    """Return what can be told of squareness yet; empty while too little is measured."""
    laid = _laid(frame)
    if laid is None:
        return ()
    told = (line for names, pivots in _bays(frame).values() for line in told_of_bay(frame, laid, names, pivots))
    return (*_axes(frame, laid), *told)


def bays_told(frame: Frame) -> tuple[Finding, ...]:
    """Return whether each bay whose corners are known is square, what is not before what is; empty while none is."""
    laid = _laid(frame)
    if laid is None:
        return ()
    told = [verdict_of_bay(name, Bay(frame, laid, names)) for name, (names, _) in _bays(frame).items()]
    return tuple(sorted(told, key=lambda f: WORST_FIRST.index(f.figure("verdict"))))


def _laid(frame: Frame) -> Laid | None:
    """Return the survey as laid, where its squareness can be told by it."""
    return None if frame.unexplained else frame.laid[0]


def _known(frame: Frame, names: tuple[str, ...]) -> bool:
    return frame.network is not None and all(n in frame.network.determined for n in names)


def _axes(frame: Frame, laid: Laid) -> Iterator[Finding]:
    for end in ENDS:
        linkage = frame.plan.linkage(end)
        if linkage is None:
            continue
        left, right = ("LF", "RF") if end == "front" else ("LR", "RR")
        for name, arm in LAYOUTS[linkage.layout].arms.items() if LAYOUTS[linkage.layout].arms else ():
            names = (f"{left}.{arm.first}", f"{left}.{arm.second}", f"{right}.{arm.first}", f"{right}.{arm.second}")
            if not _known(frame, names):
                continue
            axes = axes_apart((names[0], names[1]), (names[2], names[3]), laid)
            p = [np.asarray(frame.planned[n]) for n in names]
            planned = _apart(p)
            parts = [
                finding(
                    "square.axes-off", off=found.value - plan, sure=found.expanded, heading=heading, plus=found.value > plan
                )
                for found, plan, heading in ((axes.splay_deg, planned[0], True), (axes.tilt_deg, planned[1], False))
                if abs(found.value - plan) > found.expanded
            ]
            yield finding("square.axes", end=end, arm=name, parts=parts)


def _apart(p: list[Array]) -> tuple[float, float]:
    a, b = p[0] - p[1], p[2] - p[3]
    heading = np.arctan2(a[1], a[0]) - np.arctan2(b[1], b[0])
    slope = np.arctan2(a[2], np.hypot(a[0], a[1])) - np.arctan2(b[2], np.hypot(b[0], b[1]))
    return float(np.degrees(heading)), float(np.degrees(slope))


def _bays(frame: Frame) -> dict[str, tuple[Corners, bool]]:
    """Return every bay whose corners are known, by its name; with whether it is that of the pivots, which goes by none."""
    named = {name: (corners, False) for name, corners in bays(frame.planned).items()}
    pivots = _pivots(frame)
    every = {**({"": (pivots, True)} if pivots else {}), **named}
    return {name: (corners, own) for name, (corners, own) in every.items() if _known(frame, corners)}


def _pivots(frame: Frame) -> Corners | None:
    """Return the corners of the bay between front and rear pivots; None where the plan has none."""
    at: dict[End, str] = {}
    for end in ENDS:
        linkage = frame.plan.linkage(end)
        arms = LAYOUTS[linkage.layout].arms if linkage else None
        if not arms:
            return None
        arm = arms.get("lower") or next(iter(arms.values()))
        at[end] = arm.first if end == "front" else arm.second
    return f"LF.{at['front']}", f"RF.{at['front']}", f"LR.{at['rear']}", f"RR.{at['rear']}"
