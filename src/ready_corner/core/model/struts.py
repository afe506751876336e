"""Springs of a plan at work: what to put in their place on the stands, and their rate at the wheel over its travel."""

from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.linkage.body import Body, Spring
from ready_corner.core.engines.linkage.space import Array
from ready_corner.core.engines.linkage.sweep import sweep, sweep_known
from ready_corner.core.engines.statics.springs import rough_wheel_rate
from ready_corner.core.model.bodies import body_named
from ready_corner.core.model.movement import Movement, movement, own_springs
from ready_corner.core.plan.corners import END_OF, Corner
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.finding import finding


@dataclass(frozen=True)
class DummyStrut:
    """A rod in place of a spring or damper, eye to eye in mm: in the stance of the drawing, in that wanted now, with the arm level, at full bump and droop; nan where it cannot be.

    ``level``: travel at which the arm is level. ``bump`` and ``droop``: wheel travel to the stops, or where the plan has none, at which the damper is closed and open.
    """

    name: str
    at_ride: float
    at_wanted: float
    at_level: float
    at_bump: float
    at_droop: float
    bump: float
    droop: float
    level: float = float("nan")


@dataclass(frozen=True)
class AtWork:
    """A spring over wheel travel (N,): its ratio, and its rate at the wheel with the force the spring has there.

    ``rough``: the common rough figure at ride height, nan through a rocker, for which there is none; ``off``: how far it is off, as a share of the true one.
    """

    name: str
    travel: Array
    length: Array
    ratio: Array
    rate: Array
    rough: float
    off: float


def dummy_struts(plan: Plan, corner: Corner, wanted: float = 0.0, move: Movement | None = None) -> tuple[DummyStrut, ...]:
    """Return the rods that hold a corner while its springs are out, through the rocker where there is one; ``wanted``: travel of the wheel at the stance wanted now.

    Level: the lower arm, or the first member, as in the plan's layout. Raises PlannedError where the plan has no linkage or no spring there.
    Source: lever geometry, docs/stance.md.
    """
    move = movement(plan, corner) if move is None else move
    if not move.springs:
        raise PlannedError(finding("corner.no-spring", corner=corner), path="springs")
    end, found = plan.footing.end(END_OF[corner]), []
    stops = (end.bump, None if end.droop is None else -end.droop)
    for spring in move.springs:
        size = f"{spring.name}.length"
        bump, droop = (
            stop if stop is not None else move.travel_for(size, length) if length else float("nan")
            for stop, length in zip(stops, (spring.closed, spring.open), strict=True)
        )
        ride, now, level, closed, opened = (
            move.at(size, t) if np.isfinite(t) else float("nan") for t in (0.0, wanted, move.level, bump, droop)
        )
        found.append(DummyStrut(spring.name, ride, now, level, closed, opened, bump, droop, move.level))
    return tuple(found)


def at_work(plan: Plan, corner: Corner, travel: Array) -> tuple[AtWork, ...]:
    """Return every spring of a corner that has a rate, over wheel travel in mm (bump positive).

    The rough figure takes the lever of the mount on its arm, in the drawing, and the lean of the spring off the vertical.
    Source: lever geometry, docs/stance.md.
    """
    body = body_named(plan, corner)
    rest = sweep(body, np.zeros(1))
    swept = rest if np.array_equal(travel, np.zeros(1)) else sweep_known(body, travel)
    found = []
    for spring in own_springs(body, corner):
        if spring.rate is None:
            continue
        true = float(rest.shared[f"{spring.name}.wheel_rate"][0])
        rough = rough_wheel_rate(spring.rate, _lever(body, spring), _lean_deg(body, spring))
        length, ratio, rate = (swept.shared[f"{spring.name}.{k}"] for k in ("length", "ratio", "wheel_rate"))
        found.append(AtWork(spring.name, travel, length, ratio, rate, rough, rough / true - 1 if true > 0 else float("nan")))
    return tuple(found)


def at_rest(plan: Plan, corner: Corner) -> dict[str, AtWork]:
    """Return the springs of a corner at the stance of the drawing by name.

    Source: lever geometry, docs/stance.md.
    """
    return {w.name: w for w in at_work(plan, corner, np.zeros(1))}


def _lever(body: Body, spring: Spring) -> float:
    """Return the distance of a spring's mount from the axis of its arm over that of the arm's joint; 1 on the upright or axle, nan on a rocker."""
    on = next((e for e in spring.ends if e.on != "car"), spring.ends[1])
    if on.on == "rocker":
        return float("nan")
    if on.on not in body.layout.arms:
        return 1.0
    arm = body.layout.arms[on.on]
    first, second, joint, mount = (body.shape.point(n) for n in (arm.first, arm.second, arm.joint, on.point))
    axis = (second - first) / np.linalg.norm(second - first)

    def off(p: Array) -> float:
        return float(np.linalg.norm(np.cross(axis, p - first)))

    return off(mount) / off(joint)


def _lean_deg(body: Body, spring: Spring) -> float:
    """Return how far a spring leans off the vertical in the design position, degrees."""
    line = body.shape.point(spring.ends[0].point) - body.shape.point(spring.ends[1].point)
    return float(np.degrees(np.arctan2(np.hypot(line[0], line[1]), abs(line[2]))))
