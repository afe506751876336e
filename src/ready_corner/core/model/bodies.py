"""From a plan to bodies that can be solved.

Source: constraint equations of rigid bodies; docs/linkage.md.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ready_corner.core.engines.linkage.answers import Answers
from ready_corner.core.engines.linkage.body import Body, Joint, Wheel, body_of
from ready_corner.core.engines.linkage.layouts import LAYOUTS, LEFT_WHEEL, RIGHT_WHEEL, WHEEL
from ready_corner.core.engines.linkage.mechanism import BOX_POINTS
from ready_corner.core.engines.linkage.pair import ackermann_percent, anti_percent, axle_roll_centre, roll_centre
from ready_corner.core.engines.linkage.space import Array
from ready_corner.core.engines.linkage.sweep import Sweep, sweep
from ready_corner.core.plan.corners import ENDS, End, Point
from ready_corner.core.plan.plan import Linkage, Plan, twin_of
from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.finding import finding

CORNERS_OF: Mapping[End, tuple[str, str]] = {"front": ("LF", "RF"), "rear": ("LR", "RR")}


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


def bodies_by_name(plan: Plan) -> dict[str, Body]:
    """Return every body of the car by its corner or end. Raises PlannedError for points that are missing."""
    return {body.name: body for end in ENDS for body in bodies_of(plan, end)}


def _has_box(plan: Plan, end: End) -> bool:
    """Whether an end is steered by a box. Raises PlannedError for a point of it that is missing."""
    linkage = plan.linkage(end)
    if linkage is None or linkage.steering != "box":
        return False
    if missing := [n for n in BOX_POINTS if n not in _named(plan, end)]:
        raise PlannedError(finding("box.points-missing", end=end, missing=tuple(missing)), path=f"points.{end}.{missing[0]}")
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
    raise PlannedError(finding("linkage.not-said", end=end), path=f"{end}_linkage")


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
        raise PlannedError(finding("linkage.not-said", end=end), path=f"{end}_linkage")
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


__all__ = ["EndSweep", "bodies_of", "body_named", "points_of", "sweep_end"]
