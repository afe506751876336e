"""From a plan to bodies that can be solved, and everything that is wrong with its points at once."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import combinations

import numpy as np

from ready_corner.core.errors import PlannedError
from ready_corner.core.linkage.answers import Answers
from ready_corner.core.linkage.body import Body, Joint, Stand, Wheel, body_of
from ready_corner.core.linkage.layouts import LAYOUTS, LEFT_WHEEL, RIGHT_WHEEL, WHEEL
from ready_corner.core.linkage.mechanism import BOX_POINTS, ON_UPRIGHT
from ready_corner.core.linkage.pair import ackermann_percent, anti_percent, axle_roll_centre, roll_centre
from ready_corner.core.linkage.solve import require_held
from ready_corner.core.linkage.space import Array
from ready_corner.core.linkage.sweep import Sweep, sweep
from ready_corner.core.plan import CORNERS, END_OF, ENDS, End, Linkage, Plan, Point, twin_of

CORNERS_OF: Mapping[End, tuple[str, str]] = {"front": ("LF", "RF"), "rear": ("LR", "RR")}
TOGETHER_MM = 0.05  # two points closer than this are one place, for any tool in the shop
DISAGREE_MM = 2.0  # dimensions given twice may differ by what a tape does


def points_of(plan: Plan, corner: str) -> dict[str, Point]:
    """Return the points of a corner without its name; a right one that is not given is the mirror of the left."""
    end: End = "front" if corner.endswith("F") else "rear"
    linkage = plan.linkage(end)
    own = _named(plan, corner)
    if corner.startswith("R") and linkage and linkage.mirrored:
        twin = _named(plan, CORNERS_OF[end][0])
        return {**{n: (x, -y, z) for n, (x, y, z) in twin.items()}, **own}
    return own


def _named(plan: Plan, prefix: str) -> dict[str, Point]:
    start = f"{prefix}."
    return {name.removeprefix(start): place for name, place in plan.points.items() if name.startswith(start)}


def bodies_of(plan: Plan, end: End) -> tuple[Body, ...]:
    """Return the two corners of an end, left first, or its one axle; empty where the plan has no linkage there. Raises PlannedError."""
    linkage = plan.linkage(end)
    if linkage is None:
        return ()
    parts = {k: getattr(linkage, k) for k in ("springs", "torsions", "rocker", "bar", "shaft", "joints")}
    steered = linkage.steering != "none"
    static = linkage.loaded_radius, linkage.toe_deg, linkage.camber_deg
    if LAYOUTS[linkage.layout].axle:
        points = _named(plan, end)
        if linkage.mirrored:
            points = {**{twin_of(n): (x, -y, z) for n, (x, y, z) in points.items() if twin_of(n) != n}, **points}
        wheels = (Wheel(1, LEFT_WHEEL, *static), Wheel(-1, RIGHT_WHEEL, *static))
        return (body_of(end, linkage.layout, points, wheels, steered, _lengths(linkage, end), _has_box(plan, end), **parts),)
    return tuple(
        body_of(
            corner,
            linkage.layout,
            {**points_of(plan, corner), **_box_points(plan, end)},
            (Wheel(side, WHEEL, *static),),
            steered,
            _lengths(linkage, corner),
            _has_box(plan, end),
            **(parts if side > 0 else {**parts, "joints": tuple(map(_mirrored, parts["joints"]))}),
        )
        for corner, side in zip(CORNERS_OF[end], (1, -1), strict=True)
    )


def _has_box(plan: Plan, end: End) -> bool:
    """Whether an end is steered by a box. Raises PlannedError for a point of it that is missing."""
    linkage = plan.linkage(end)
    if linkage is None or linkage.steering != "box":
        return False
    if missing := [n for n in BOX_POINTS if n not in _named(plan, end)]:
        raise PlannedError(
            f"The steering box of the {end} still needs {', '.join(missing)}.", path=f"points.{end}.{missing[0]}"
        )
    return True


def _box_points(plan: Plan, end: End) -> dict[str, Point]:
    """Return the points of the steering box, which both corners share."""
    return {n: place for n, place in _named(plan, end).items() if n in BOX_POINTS} if _has_box(plan, end) else {}


def _mirrored(joint: Joint) -> Joint:
    return replace(joint, stud=(joint.stud[0], -joint.stud[1], joint.stud[2])) if joint.stud else joint


def _lengths(linkage: Linkage, name: str) -> dict[str, float]:
    return {k.split(".", 1)[1]: v for k, v in linkage.lengths.items() if k.split(".", 1)[0] == name}


def body_named(plan: Plan, name: str) -> Body:
    """Return the body a corner belongs to: itself, or its axle. Raises PlannedError where the plan has no linkage there."""
    end: End = "front" if name in ("front", *CORNERS_OF["front"]) else "rear"
    for body in bodies_of(plan, end):
        if body.name in (name, end):
            return body
    raise PlannedError(
        f"The plan says nothing yet of how the {end} wheels are held. Choose a layout for them.", path=f"{end}_linkage"
    )


@dataclass(frozen=True)
class EndSweep:
    """Both wheels of an end over the same rows; ``pair``: what belongs to both, by name (N,)."""

    end: End
    bodies: tuple[Sweep, ...]
    left: Answers
    right: Answers
    pair: Answers


def sweep_end(
    plan: Plan,
    end: End,
    travel: Array,
    steer: Array | float = 0.0,
    roll_deg: Array | float = 0.0,
    bodies: tuple[Body, ...] | None = None,
    before: Sequence[Sweep] = (),
) -> EndSweep:
    """Return both wheels of an end at every heave (mm, bump positive), steer (rack mm) and roll (degrees, left wheel up positive).

    Independent wheels share the roll by their half tracks: left up by half track · tan(roll). ``bodies`` replace those of the plan; ``before``
    are sweeps over the same drives, taken where a body is still the same object.
    """
    bodies = bodies or bodies_of(plan, end)
    if not bodies:
        raise PlannedError(
            f"The plan says nothing yet of how the {end} wheels are held. Choose a layout for them.", path=f"{end}_linkage"
        )
    travel, roll = np.atleast_1d(np.asarray(travel, dtype=float)), np.asarray(roll_deg, dtype=float)
    if len(bodies) == 1:
        swept = sweep(bodies[0], travel, steer, roll)
        left, right = swept.wheels
        height, offset = axle_roll_centre(bodies[0], swept.poses.pose)
        sweeps: tuple[Sweep, ...] = (swept,)
    else:
        tilt = np.tan(np.radians(roll))
        known = {id(s.body): s for s in before}
        sweeps = tuple(
            known.get(id(b)) or sweep(b, travel + w.side * abs(b.shape.point(w.centre)[1]) * tilt, steer)
            for b in bodies
            for w in b.wheels
        )
        left, right = ({**s.wheels[0], **s.shared} for s in sweeps)
        height, offset = roll_centre(left, right)
    pair: Answers = {
        "roll_centre_height": height,
        "roll_centre_offset": offset,
        "track": left["contact_y"] - right["contact_y"],
    }
    if any(b.steered for b in bodies):
        straight = tuple(float(b.wheels[0].toe_deg) for b in (bodies[0], bodies[-1]))
        pair["ackermann_percent"] = ackermann_percent(left, right, plan.wheelbase, (straight[0], straight[1]))
    if plan.loads is not None:
        pair |= anti_percent(end, left, plan.loads, plan.wheelbase)
    return EndSweep(end, sweeps, left, right, pair)


def check_linkages(plan: Plan) -> list[PlannedError]:
    """Return everything that is wrong with the linkages of a plan, each with its path; empty where there is nothing."""
    return [*_check_points(plan), *_check_moves(plan), *(e for end in ENDS if plan.linkage(end) for e in _check_end(plan, end))]


def _check_points(plan: Plan) -> Iterator[PlannedError]:
    for name, place in plan.points.items():
        if not np.all(np.isfinite(place)):
            yield PlannedError(
                f"{name} is not a place: its coordinates are not finite. Type them again.", path=f"points.{name}"
            )
    for (a, p), (b, q) in combinations(plan.points.items(), 2):
        if a.split(".")[0] == b.split(".")[0] and np.all(np.isfinite([*p, *q])) and _apart(p, q) < TOGETHER_MM:
            yield PlannedError(f"{a} and {b} are in the same place. Measure both again, or take one out.", path=f"points.{b}")
    for name, (_, y, _) in plan.points.items():
        side = {"L": 1, "R": -1}[name[0]] if name[:2] in CORNERS and name[2:3] == "." else 0
        if name.endswith(f".{WHEEL}") and side * y < 0:
            yield PlannedError(
                f"{name} is {'left' if y > 0 else 'right'} of the centreline, but belongs to the {'left' if side > 0 else 'right'}. "
                "Are left and right exchanged? Offsets to the left are plus.",
                path=f"points.{name}",
                numbers={"offset": y},
            )


def _check_moves(plan: Plan) -> Iterator[PlannedError]:
    """What adjusters are said to move and the linkage does not have."""
    for adjuster in plan.adjusters:
        if adjuster.moves is None:
            continue
        path, name = f"adjusters.{adjuster.id}.moves", adjuster.moves.name
        try:
            bodies = bodies_of(plan, END_OF[adjuster.corner])
        except PlannedError:
            continue  # said of the linkage itself
        members = [f"{b.name}.{link.name}" for b in bodies for link in b.shape.mechanism.links]
        points = [f"{b.name}.{n}" for b in bodies for n in b.shape.mechanism.points if not n.endswith(ON_UPRIGHT)]
        if name not in (points if adjuster.moves.direction else members):
            what = "point" if adjuster.moves.direction else "member"
            has = f" It has {', '.join(members[:8])}." if what == "member" and members else ""
            yield PlannedError(
                f"{adjuster.name} is said to move “{name}”, which is no {what} of the {END_OF[adjuster.corner]}.{has}",
                path=path,
            )
        elif adjuster.moves.direction and not np.linalg.norm(adjuster.moves.direction) > 0:
            yield PlannedError(
                f"{adjuster.name}: a direction of nothing moves nothing. Say which way the point goes.", path=path
            )


def _check_end(plan: Plan, end: End) -> Iterator[PlannedError]:
    linkage = plan.linkage(end)
    assert linkage
    if not linkage.loaded_radius > 0:
        yield PlannedError(
            f"A loaded radius of {linkage.loaded_radius:g} mm cannot be. Measure from the floor to the hub centre.",
            path=f"{end}_linkage.loaded_radius",
        )
        return
    try:
        bodies = bodies_of(plan, end)
    except PlannedError as wrong:
        yield wrong
        return
    for body in bodies:
        yield from _check_parts(plan, end, body)
        yield from _check_size(plan, end, body)
        try:
            require_held(body.shape)
        except PlannedError as wrong:
            yield wrong


def _check_parts(plan: Plan, end: End, body: Body) -> Iterator[PlannedError]:
    for spring in body.springs:
        if spring.closed and spring.open and not spring.closed < spring.open:
            yield PlannedError(
                f"{body.name}: {spring.name} is {spring.closed:g} mm closed and {spring.open:g} mm open. Are the two exchanged?",
                path=f"{end}_linkage.springs.{spring.name}.closed",
                numbers={"closed": spring.closed, "open": spring.open},
            )
    for spring in body.springs:
        path = f"{end}_linkage.springs.{spring.name}.solid"
        for size, solid in ((spring.free, spring.solid), spring.helper[1:] if spring.helper else (None, None)):
            if size and solid and not solid < size:
                yield PlannedError(
                    f"{body.name}: {spring.name} is {size:g} mm long free, and {solid:g} mm when its coils touch. Measure both again.",
                    path=path,
                    numbers={"free": size, "solid": solid},
                )
        if spring.helper and not spring.helper[0] > 0:
            yield PlannedError(
                f"{body.name}: the helper of {spring.name} has no rate, so it holds nothing up. Type it, or take the helper out.",
                path=path,
            )
    stands: list[tuple[str, Stand]] = [(s.name, e) for s in body.springs for e in s.ends]
    stands += [("the rocker", body.rocker.rod)] if body.rocker else []
    stands += [("the anti-roll bar", body.bar.link)] if body.bar else []
    named = [s.point for _, s in stands]
    named += [body.rocker.first, body.rocker.second, body.rocker.push] if body.rocker else []
    named += [body.bar.first, body.bar.second, body.bar.arm] if body.bar else []
    named += [body.shaft.inner, body.shaft.outer] if body.shaft else []
    for name in dict.fromkeys(named):
        if name not in body.shape.mechanism.points:
            yield PlannedError(f"{body.name} still needs the point {name}.", path=f"points.{body.name}.{name}")
    allowed = {"car", "upright", *body.layout.arms, *(["rocker"] if body.rocker else [])}
    for what, stand in stands:
        if stand.on not in allowed:
            yield PlannedError(
                f"{body.name}: {what} stands on “{stand.on}”, which a {body.layout.name} does not have. It has {', '.join(sorted(allowed))}.",
                path=f"{end}_linkage",
            )


def _check_size(plan: Plan, end: End, body: Body) -> Iterator[PlannedError]:
    """Inches typed as millimetres, and dimensions given twice that disagree."""
    shape = body.shape
    wheels = [shape.point(w.centre) for w in body.wheels]
    for name in body.layout.needed:
        away = min(float(np.linalg.norm(shape.point(name) - w)) for w in wheels)
        if away > 10 * max(plan.axle(end).tyre_diameter, 1.0):
            yield PlannedError(
                f"{body.name}.{name} is {away:.0f} mm from its wheel. Is a unit missing, or an inch typed as a millimetre?",
                path=f"points.{body.name}.{name}",
                numbers={"distance": away},
            )
    track = plan.axle(end).track
    for wheel, place in zip(body.wheels, wheels, strict=True):
        if abs(abs(place[1]) - track / 2) > DISAGREE_MM:
            small = abs(abs(place[1]) * 25.4 - track / 2) < 0.02 * track
            yield PlannedError(
                f"{body.name}.{wheel.centre} is {abs(place[1]):.1f} mm off the centreline, but the track gives {track / 2:.1f}. "
                + ("That is an inch typed as a millimetre." if small else "Measure which of them is right."),
                path=f"points.{body.name}.{wheel.centre}",
                numbers={"offset": float(place[1]), "half_track": track / 2},
            )
        station = 0.0 if end == "front" else -plan.wheelbase
        if abs(place[0] - station) > DISAGREE_MM:
            yield PlannedError(
                f"{body.name}.{wheel.centre} is at station {place[0]:.1f}, but the wheelbase puts it at {station:.1f}. Measure which is right.",
                path=f"points.{body.name}.{wheel.centre}",
                numbers={"station": float(place[0]), "wheelbase": plan.wheelbase},
            )


def _apart(a: Sequence[float], b: Sequence[float]) -> float:
    return float(np.linalg.norm(np.subtract(a, b)))


__all__ = ["EndSweep", "bodies_of", "body_named", "check_linkages", "points_of", "sweep_end"]
