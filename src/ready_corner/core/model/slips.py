"""What in a plan is hardly meant: each figure that a slip of the hand would explain (side, digit, unit, sign, exchanged points), at its place.

Nothing here is refused: what is meant is confirmed once. A figure that contradicts another says which of the two everything is reckoned with.

Source: sizes of cars and their parts as they are built; docs/choices.md (The plan is doubted too).
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.linkage.layouts import LAYOUTS, WHEEL
from ready_corner.core.model.bodies import bodies_of
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, SIDE, Corner, End
from ready_corner.core.plan.marks import OfMark, kind_of
from ready_corner.core.plan.plan import Plan, twin_of
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.finding import Finding, finding

AGREES_MM = 2.0  # dimensions given twice may differ by what a tape does
INCH = 25.4
TYRE = (300.0, 1100.0)  # mm, outside diameter
RIM_OF_TYRE = (0.42, 0.93)  # rim over its flanges against the tyre
LOADED_OF_TYRE = (0.42, 0.5)  # a tyre squats, by no more than a sixth of its radius
LONG_OF_WIDE = (1.0, 2.6)  # wheelbase against track
TRACKS_APART = 1.35  # one track against the other
HUBS_OF_TRACK = (0.6, 1.4)
SIDE_MM, UNDER_MM, EXCHANGED_MM, TWIN_MM = 40.0, 5.0, 5.0, 60.0
MOST = {"toe": 2.5, "camber": 7.0, "caster": 20.0, "inclination": 25.0, "total_toe": 4.0, "rake": 6.0, "thrust": 2.0}  # degrees
HEIGHT, HEIGHTS_APART = (15.0, 700.0), 40.0  # mm, and of left against right
FAR_OF_WHEELBASE = 0.75  # of the wheelbase ahead of the front or behind the rear axle a height is read at most


@dataclass(frozen=True)
class Slip:
    """A figure that is hardly meant: its path in the plan, and what is said of it."""

    path: str
    said: Finding


def slips(plan: Plan) -> tuple[Slip, ...]:
    """Return everything in a plan that a slip would explain, in the order of the plan.

    Source: see the module.
    """
    found = [*_sizes(plan), *_heights(plan), *_aims(plan)]
    for end in ENDS:
        found += [*_wheels(plan, end), *_bars(plan, end), *_parts(plan, end)]
    return (*found, *_points(plan))


def _within(value: float, low: float, high: float) -> bool:
    return low <= value <= high


def _inch(value: float, low: float, high: float) -> bool:
    """Whether a figure would do were it inches typed as millimetres, or the other way round."""
    return _within(value * INCH, low, high) or _within(value / INCH, low, high)


def _sizes(plan: Plan) -> Iterator[Slip]:
    for end in ENDS:
        axle = plan.axle(end)
        tyre, rim = axle.tyre_diameter, axle.rim_flange_diameter
        if not _within(tyre, *TYRE):
            yield Slip(f"{end}.tyre_diameter", finding("slip.tyre", end=end, size=tyre, inch=_inch(tyre, *TYRE)))
        elif not _within(rim / tyre, *RIM_OF_TYRE):
            inch = _inch(rim, *(share * tyre for share in RIM_OF_TYRE))
            yield Slip(f"{end}.rim_flange_diameter", finding("slip.rim", end=end, size=rim, tyre=tyre, inch=inch))
        if not _within(plan.wheelbase / axle.track, *LONG_OF_WIDE):
            inch = _inch(axle.track, *(plan.wheelbase / r for r in LONG_OF_WIDE[::-1]))
            yield Slip(f"{end}.track", finding("slip.track", end=end, size=axle.track, wheelbase=plan.wheelbase, inch=inch))
        if axle.hub_width is not None and not _within(axle.hub_width / axle.track, *HUBS_OF_TRACK):
            inch = _inch(axle.hub_width, *(share * axle.track for share in HUBS_OF_TRACK))
            yield Slip(f"{end}.hub_width", finding("slip.hubs", end=end, size=axle.hub_width, track=axle.track, inch=inch))
    wide = [plan.axle(end).track for end in ENDS]
    if max(wide) > TRACKS_APART * min(wide) and all(_within(plan.wheelbase / w, *LONG_OF_WIDE) for w in wide):
        end = ENDS[int(np.argmin(wide))]
        yield Slip(f"{end}.track", finding("slip.tracks", end=end, size=min(wide), other=max(wide)))


def _heights(plan: Plan) -> Iterator[Slip]:
    for i, place in enumerate(plan.heights):
        side = SIDE[place.corner]
        if side * place.offset < -SIDE_MM:
            yield Slip(f"heights.{i}.offset", finding("slip.side", name=place.name, left=side > 0, offset=place.offset))
        low, high = -(1 + FAR_OF_WHEELBASE) * plan.wheelbase, FAR_OF_WHEELBASE * plan.wheelbase
        if not _within(place.station, low, high):
            yield Slip(f"heights.{i}.station", finding("slip.station", name=place.name, station=place.station))


def _aims(plan: Plan) -> Iterator[Slip]:
    for name, aims in (("aims", plan.aims), ("build_aims", plan.build_aims)):
        by_mark = {a.mark: a for a in aims}
        for aim in aims:
            kind, path = kind_of(aim.mark), f"{name}.{aim.mark}"
            if kind in MOST and abs(aim.aim) > MOST[kind]:
                yield Slip(path, finding("slip.angle", mark=aim.mark, aim=OfMark(aim.mark, aim.aim, 0), most=MOST[kind]))
            if kind == "height" and not _within(aim.aim, *HEIGHT):
                yield Slip(path, finding("slip.height", mark=aim.mark, aim=OfMark(aim.mark, aim.aim, 0)))
            other = by_mark.get(twin_of(aim.mark))
            if kind == "height" and other and SIDE[_corner(aim.mark)] > 0 and abs(aim.aim - other.aim) > HEIGHTS_APART:
                yield Slip(
                    path,
                    finding(
                        "slip.unlike", mark=aim.mark, aim=OfMark(aim.mark, aim.aim, 0), other=OfMark(other.mark, other.aim, 0)
                    ),
                )


def _corner(mark: str) -> Corner:
    return next(c for c in CORNERS if mark.startswith(f"{c}."))


def _wheels(plan: Plan, end: End) -> Iterator[Slip]:
    linkage, tyre = plan.linkage(end), plan.axle(end).tyre_diameter
    if linkage is None:
        return
    radius, path = linkage.loaded_radius, f"{end}_linkage.loaded_radius"
    if not _within(radius / tyre, *LOADED_OF_TYRE):
        yield Slip(
            path,
            finding("slip.radius", end=end, radius=radius, tyre=tyre, inch=_inch(radius, *(s * tyre for s in LOADED_OF_TYRE))),
        )
        return
    for corner in (c for c in CORNERS if END_OF[c] == end):
        centre = plan.points.get(f"{corner}.{WHEEL}")
        if centre is not None and abs(centre[2] - radius) > AGREES_MM:
            yield Slip(
                path, finding("slip.radius-or-centre", end=end, radius=radius, centre=centre[2], point=f"{corner}.{WHEEL}")
            )
            return


def _bars(plan: Plan, end: End) -> Iterator[Slip]:
    """A bar whose arm is given twice: among its sizes, and by its points."""
    bar = plan.footing.end(end).bar
    body = next(iter(_bodies(plan, end)), None)
    if bar is None or body is None or body.bar is None:
        return
    first, second, tip = (body.shape.point(n) for n in (body.bar.first, body.bar.second, body.bar.arm))
    axis = (second - first) / max(float(np.linalg.norm(second - first)), 1e-9)
    drawn = float(np.linalg.norm(np.cross(axis, tip - first)))
    if abs(drawn - bar.arm) > AGREES_MM:
        yield Slip(f"footing.{end}_end.bar.arm", finding("slip.bar-arm", end=end, arm=bar.arm, drawn=drawn))


def _bodies(plan: Plan, end: End) -> tuple:  # type: ignore[type-arg]
    try:
        return tuple(bodies_of(plan, end))
    except ReadyCornerError:
        return ()


def _parts(plan: Plan, end: End) -> Iterator[Slip]:
    """A damper or a halfshaft that is past its end as drawn."""
    for body in _bodies(plan, end)[:1]:
        place = body.shape.point
        for spring in body.springs:
            size = float(np.linalg.norm(np.subtract(*(place(e.point) for e in spring.ends))))
            for limit, over in ((spring.open, size - (spring.open or size)), (spring.closed, (spring.closed or size) - size)):
                if limit is not None and over > AGREES_MM:
                    yield Slip(
                        f"{end}_linkage.springs", finding("slip.damper", end=end, spring=spring.name, size=size, limit=limit)
                    )
        if body.shaft and min(body.shaft.pushed or 1.0, body.shaft.pulled or 1.0) <= 0:
            yield Slip(f"{end}_linkage.shaft", finding("slip.shaft", end=end))


def _points(plan: Plan) -> Iterator[Slip]:
    for name, (x, y, z) in plan.points.items():
        head, _, rest = name.partition(".")
        if head in CORNERS and rest != WHEEL and SIDE[head] * y < -SIDE_MM:
            yield Slip(f"points.{name}", finding("slip.point-side", point=name, left=SIDE[head] > 0, offset=y))
        if z < -UNDER_MM:
            yield Slip(f"points.{name}", finding("slip.under", point=name, under=-z))
        twin = plan.points.get(twin_of(name))
        if twin is not None and twin_of(name) != name and (head in ("LF", "LR") or ".left" in name):
            off = np.abs(np.array([x - twin[0], y + twin[1], z - twin[2]]))
            if off.max() > TWIN_MM:
                axis = ("station", "offset", "height")[int(np.argmax(off))]
                yield Slip(
                    f"points.{name}", finding("slip.twin", point=name, other=twin_of(name), axis=axis, off=float(off.max()))
                )
    for corner in CORNERS:
        linkage = plan.linkage(END_OF[corner])
        if linkage is not None and linkage.layout in LAYOUTS:
            yield from _exchanged(
                corner, {n.split(".", 1)[1]: p for n, p in plan.points.items() if n.startswith(f"{corner}.")}, linkage.layout
            )


def _exchanged(corner: str, points: Mapping[str, tuple[float, float, float]], layout: str) -> Iterator[Slip]:
    """Points of a corner that are in each other's place: the upper joint under the lower, the front pivot behind the rear."""
    made = LAYOUTS[layout]  # type: ignore[index]
    if made.axis and all(n in points for n in made.axis):
        lower, upper = made.axis
        if points[upper][2] < points[lower][2] - EXCHANGED_MM:
            yield Slip(
                f"points.{corner}.{upper}",
                finding("slip.exchanged", point=f"{corner}.{upper}", other=f"{corner}.{lower}", below=True),
            )
    for arm in (made.arms or {}).values():
        named = arm.first.endswith("front") and arm.second.endswith("rear") and arm.first in points and arm.second in points
        if named and points[arm.first][0] < points[arm.second][0] - EXCHANGED_MM:
            yield Slip(
                f"points.{corner}.{arm.first}",
                finding("slip.exchanged", point=f"{corner}.{arm.first}", other=f"{corner}.{arm.second}", below=False),
            )
