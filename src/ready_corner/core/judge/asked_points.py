"""What any measured points of a frame tell when they are asked: how far apart, how square a member or a bay, the middle of a hole by its rim.

Figures in mm and degrees in the axes of the car, their U from the full covariance of the survey.
Source: rigid geometry of measured points, JCGM 100:2008, 5.1.2; the circle by least squares in its plane; docs/survey.md.
"""

from collections.abc import Callable, Mapping, Sequence
from typing import Literal

import numpy as np

from ready_corner.core.engines.survey.datum import Laid
from ready_corner.core.engines.survey.readings import Array
from ready_corner.core.engines.survey.square import ahead_by_cross, derived
from ready_corner.core.judge.bay import BY_RULE, told_of_bay
from ready_corner.core.judge.frame import Frame, as_measured
from ready_corner.core.quantities.errors import CalledError, MeasuredError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import COVERAGE, Measured

AskOf = Literal["apart", "member", "bay", "hole"]
WANTED: Mapping[AskOf, tuple[int, int]] = {"apart": (2, 2), "member": (2, 2), "bay": (4, 4), "hole": (3, 12)}
FLAT = 1e-3  # of the longest side: three points nearer to one line than that have no circle


def told_of(frame: Frame, ask: AskOf, names: Sequence[str]) -> tuple[Finding, ...]:
    """Return what the points tell, in the order given: of a member its left end first; of a bay left front, right front, left rear, right rear.

    Raises CalledError for too few or too many of them or one twice, MeasuredError where they are not fixed by readings yet or have no circle.
    Source: rigid geometry of measured points, JCGM 100:2008; docs/survey.md.
    """
    least, most = WANTED[ask]
    if not least <= len(names) <= most or len(set(names)) < len(names):
        raise CalledError(finding("points.wanted", least=least, most=most, given=len(set(names))), path="points")
    if ask == "member" and (told := _by_cross(frame, names)):
        return told
    laid, why = frame.laid
    loose = tuple(n for n in names if frame.network is None or n not in frame.network.determined)
    if laid is None or loose:
        raise MeasuredError(
            finding("points.loose", points=loose, why=why if laid is None and not loose else None), path="points"
        )
    return _ASKS[ask](frame, laid, tuple(names))


def _planned(frame: Frame, names: Sequence[str], of: Callable[[Sequence[Array]], Array]) -> Array | None:
    if any(n not in frame.planned for n in names):
        return None
    return np.atleast_1d(of([np.asarray(frame.planned[n], dtype=float) for n in names]))


def _apart(frame: Frame, laid: Laid, names: tuple[str, ...]) -> tuple[Finding, ...]:
    def size(p: Sequence[Array]) -> Array:
        return np.array([np.linalg.norm(p[0] - p[1])])

    found, planned = derived(laid, names, size)[0], _planned(frame, names, size)
    off = (
        None
        if planned is None
        else finding("points.off-plan", off=found.value - float(planned[0]), plus=found.value > planned[0])
    )
    return (finding("points.apart", size=found.value, sure=found.expanded, off=off),)


def _member(frame: Frame, laid: Laid, names: tuple[str, ...]) -> tuple[Finding, ...]:
    """Of a member across the car: which end is ahead, and which is higher; against the plan where that has both ends."""

    def ends(p: Sequence[Array]) -> Array:
        return np.array([p[0][0] - p[1][0], p[0][2] - p[1][2]])

    laid = _beside(frame, names)
    planned = _planned(frame, names, ends)
    wide = float(np.hypot(*(laid.place(names[0]) - laid.place(names[1]))[1:]))
    lines = []
    for i, found in enumerate(derived(laid, names, ends)):
        if found.expanded <= BY_RULE:
            lines.append(finding("points.by-datum", ahead=i == 0))
            continue
        if i == 1 and frame.flat:
            continue  # nothing was read of heights
        off = found.value - (0.0 if planned is None else float(planned[i]))
        end = names[0] if off > 0 else names[1]
        lines.append(
            finding(
                "points.member",
                ahead=i == 0,
                out=abs(off) > found.expanded,
                end=end,
                off=abs(off),
                sure=found.expanded,
                angle=float(np.degrees(np.arctan2(abs(off), wide))),
                plan=planned is not None,
            )
        )
    return tuple(lines)


def _bay(frame: Frame, laid: Laid, names: tuple[str, ...]) -> tuple[Finding, ...]:
    return tuple(told_of_bay(frame, laid, names))


def _beside(frame: Frame, names: tuple[str, ...]) -> Laid:
    """Return the survey in axes that do not hang on what is asked about; raises MeasuredError where there are none."""
    laid = frame.laid_beside(names)
    if laid is None:
        raise MeasuredError(finding("points.no-axes"), path="points")
    return laid


def _by_cross(frame: Frame, names: Sequence[str]) -> tuple[Finding, ...]:
    """Return which end of a member is ahead by two distances from one point of the centreline, where no more is read; empty where these are not."""
    if (
        frame.network is None
        or len(names) != 2
        or set(names) <= frame.network.determined
        or any(n not in frame.planned for n in names)
    ):
        return ()
    rows = [r for r in frame.readings if r.kind == "distance"]
    far = {n: {next(p for p in r.points if p != n): r for r in rows if n in r.points} for n in names}
    middle = (frame.planned[names[0]][1] + frame.planned[names[1]][1]) / 2
    common = [
        c
        for c in far[names[0]]
        if c in far[names[1]] and abs(frame.planned.get(c, (0, np.inf))[1] - middle) < frame.plan.point_tolerance
    ]
    if not common:
        return ()
    left, right = sorted(names, key=lambda n: -frame.planned[n][1])
    between = next((r for r in rows if set(r.points) == set(names)), None)
    wide = float(np.linalg.norm(np.subtract(frame.planned[left], frame.planned[right])))
    span = as_measured(frame, between) if between else Measured(wide, {"plan": frame.plan.point_tolerance / COVERAGE})
    found = ahead_by_cross(as_measured(frame, far[left][common[0]]), as_measured(frame, far[right][common[0]]), span)
    behind = frame.planned[common[0]][0] < (frame.planned[left][0] + frame.planned[right][0]) / 2
    off = found.value if behind else -found.value
    planned = frame.planned[left][0] - frame.planned[right][0]
    end = left if off > planned else right
    return (
        finding(
            "points.cross", out=abs(off - planned) > found.expanded, end=end, off=abs(off - planned), sure=found.expanded,
            angle=float(np.degrees(np.arctan2(abs(off - planned), span.value))), point=common[0],
        ),
    )  # fmt: skip


def _hole(frame: Frame, laid: Laid, names: tuple[str, ...]) -> tuple[Finding, ...]:
    """Of points of a rim: its middle and diameter, and how far from round the points lie."""
    laid = _beside(frame, names)
    places = np.array([laid.place(n) for n in names])
    _, sizes, axes = np.linalg.svd(places - places.mean(axis=0))
    if sizes[1] < FLAT * sizes[0]:
        raise MeasuredError(finding("points.in-line"), path="points")
    across, along = axes[0], axes[1]

    def circle(p: Sequence[Array]) -> Array:
        at = np.array(p)
        mean = at.mean(axis=0)
        u, v = (at - mean) @ across, (at - mean) @ along
        rows = np.column_stack([2 * u, 2 * v, np.ones(len(u))])
        a, b, c = np.linalg.lstsq(rows, u**2 + v**2, rcond=None)[0]
        middle = mean + a * across + b * along
        return np.array([*middle, 2 * np.sqrt(c + a**2 + b**2)])

    x, y, z, wide = derived(laid, names, circle)
    middle = np.array([x.value, y.value, z.value])
    round_ = np.linalg.norm(places - middle, axis=1) - wide.value / 2
    return (
        finding("points.middle", x=x.value, y=y.value, z=z.value, sure=max(m.expanded for m in (x, y, z))),
        finding("points.wide", wide=wide.value, sure=wide.expanded, more=len(names) > 3, off=float(np.abs(round_).max())),
    )


_ASKS: Mapping[AskOf, Callable[[Frame, Laid, tuple[str, ...]], tuple[Finding, ...]]] = {
    "apart": _apart,
    "member": _member,
    "bay": _bay,
    "hole": _hole,
}
