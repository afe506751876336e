"""How square the frame is, in words: pivot axes of both sides against each other and the plan, and the bay between front and rear pivots."""

from collections.abc import Iterator

import numpy as np

from ready_corner.core.engines.linkage.layouts import LAYOUTS
from ready_corner.core.engines.survey.datum import Laid
from ready_corner.core.engines.survey.readings import Array
from ready_corner.core.engines.survey.square import axes_apart, bay, derived
from ready_corner.core.judge.frame import Frame
from ready_corner.core.plan.corners import ENDS, End
from ready_corner.core.quantities.measured import Measured
from ready_corner.core.quantities.notation import say_angle, say_length


def say_square(frame: Frame) -> tuple[str, ...]:
    """Return sentences about what can be told of squareness yet; empty while too little is measured."""
    laid, _ = frame.laid
    if laid is None or frame.network is None or frame.unexplained:
        return ()
    return (*_axes(frame, laid), *_bay(frame, laid))


def _known(frame: Frame, names: tuple[str, ...]) -> bool:
    return frame.network is not None and all(n in frame.network.determined for n in names)


def _axes(frame: Frame, laid: Laid) -> Iterator[str]:
    for end in ENDS:
        linkage = frame.plan.linkage(end)
        if linkage is None:
            continue
        left, right = ("LF", "RF") if end == "front" else ("LR", "RR")
        for name, arm in LAYOUTS[linkage.layout].arms.items() if LAYOUTS[linkage.layout].arms else ():
            names = (f"{left}.{arm.first}", f"{left}.{arm.second}", f"{right}.{arm.first}", f"{right}.{arm.second}")
            if not _known(frame, names):
                continue
            found = axes_apart((names[0], names[1]), (names[2], names[3]), laid)
            p = [np.asarray(frame.planned[n]) for n in names]
            planned = _apart(p)
            parts = [
                _said(found.splay_deg, planned[0], "wider in front", "wider behind"),
                _said(found.tilt_deg, planned[1], "the left rising more forward", "the right rising more forward"),
            ]
            said = "; ".join(x for x in parts if x)
            yield f"{end.capitalize()} {name} pivot axes: {said or 'as planned to each other, as far as the readings tell'}."


def _apart(p: list[Array]) -> tuple[float, float]:
    a, b = p[0] - p[1], p[2] - p[3]
    heading = np.arctan2(a[1], a[0]) - np.arctan2(b[1], b[0])
    slope = np.arctan2(a[2], np.hypot(a[0], a[1])) - np.arctan2(b[2], np.hypot(b[0], b[1]))
    return float(np.degrees(heading)), float(np.degrees(slope))


def _said(found: Measured, planned: float, plus: str, minus: str) -> str:
    off = found.value - planned
    return (
        f"{say_angle(abs(off))} ± {say_angle(found.expanded)} {plus if off > 0 else minus} than planned"
        if abs(off) > found.expanded
        else ""
    )


def _bay(frame: Frame, laid: Laid) -> Iterator[str]:
    corner: dict[End, str] = {}
    for end in ENDS:
        linkage = frame.plan.linkage(end)
        arms = LAYOUTS[linkage.layout].arms if linkage else None
        if not arms:
            return
        arm = arms.get("lower") or next(iter(arms.values()))
        corner[end] = arm.first if end == "front" else arm.second
    lf, rf, lr, rr = names = f"LF.{corner['front']}", f"RF.{corner['front']}", f"LR.{corner['rear']}", f"RR.{corner['rear']}"
    if not _known(frame, names):
        return
    units = frame.plan.units

    def shift(p: list[Array]) -> Array:
        d = [Measured(float(np.linalg.norm(a - b))) for a, b in ((p[0], p[3]), (p[1], p[2]), (p[0], p[1]), (p[2], p[3]))]
        return np.array([bay(d[0], d[1], d[2], d[3]).shift.value])

    off = derived(laid, names, shift)[0]
    d1, d2 = (float(np.linalg.norm(laid.place(a) - laid.place(b))) for a, b in ((lf, rr), (rf, lr)))
    how = (
        f"the front stands {say_length(abs(off.value), units, denominator=0, unit=True)} ± {say_length(off.expanded, units, denominator=0)} to the {'left' if off.value > 0 else 'right'} of the rear"
        if abs(off.value) > off.expanded
        else "square as far as the readings tell"
    )
    yield f"Between front and rear pivots: diagonals {say_length(d1, units, denominator=0)} and {say_length(d2, units, denominator=0)}; {how}."
