"""What any measured points of a frame tell when they are asked: how far apart, how square a member or a bay, the middle of a hole by its rim.

Figures in mm and degrees in the axes of the car, their U from the full covariance of the survey.
Source: rigid geometry of measured points, JCGM 100:2008, 5.1.2; the circle by least squares in its plane; docs/survey.md.
"""

from collections.abc import Callable, Mapping, Sequence
from typing import Literal

import numpy as np

from ready_corner.core.engines.survey.datum import Laid
from ready_corner.core.engines.survey.readings import Array
from ready_corner.core.engines.survey.square import derived, shift_of
from ready_corner.core.judge.frame import Frame
from ready_corner.core.quantities.errors import CalledError, MeasuredError
from ready_corner.core.quantities.finding import Finding, finding

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

    planned = _planned(frame, names, ends)
    wide = float(np.hypot(*(laid.place(names[0]) - laid.place(names[1]))[1:]))
    lines = []
    for i, found in enumerate(derived(laid, names, ends)):
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
    """Of four points: the front sideways against the rear, one side longer than the other, and the twist of the four."""

    def figures(p: Sequence[Array]) -> Array:
        lf, rf, lr, rr = p
        d1, d2 = np.linalg.norm(lf - rr), np.linalg.norm(rf - lr)
        left, right = np.linalg.norm(lf - lr), np.linalg.norm(rf - rr)
        normal = np.cross(rr - lf, rf - lr)
        twist = float((lf - lr) @ normal / np.linalg.norm(normal))  # how far the two diagonals pass each other
        return np.array([shift_of(p), left - right, twist, d1, d2])

    found, planned = derived(laid, names, figures), _planned(frame, names, figures)
    plan = np.zeros(5) if planned is None else planned
    shift, longer, twist = (f.value - p for f, p in zip(found[:3], plan[:3], strict=True))
    sure = [f.expanded for f in found]
    return (
        finding("points.diagonals", first=found[3].value, second=found[4].value, plan=planned is not None),
        finding("points.shift", out=abs(shift) > sure[0], off=abs(shift), sure=sure[0], left=shift > 0),
        finding("points.longer", out=abs(longer) > sure[1], off=abs(longer), sure=sure[1], left=longer > 0),
        finding("points.twist", out=abs(twist) > sure[2], off=abs(twist), sure=sure[2]),
    )


def _hole(frame: Frame, laid: Laid, names: tuple[str, ...]) -> tuple[Finding, ...]:
    """Of points of a rim: its middle and diameter, and how far from round the points lie."""
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
