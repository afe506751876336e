"""A spring of the plan under its corner: how long it is, what its perch leaves at full droop, what is left of its travel; and its seats.

Lengths in mm, forces in N, rates in N/mm; wheel travel from the drawing, bump positive.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.engines.linkage.answers import motion_of
from ready_corner.core.engines.linkage.body import Body, Spring
from ready_corner.core.engines.linkage.body import Stand as Fastened
from ready_corner.core.engines.linkage.parts import arm_turning, rocker_turning, stand
from ready_corner.core.engines.linkage.space import turned
from ready_corner.core.engines.linkage.sweep import sweep_known
from ready_corner.core.engines.statics.springs import GRAVITY, Coil, Settled, Stack, frequency_hz, settled
from ready_corner.core.model.movement import Movement
from ready_corner.core.quantities.errors import MeasuredError, PlannedError
from ready_corner.core.quantities.finding import finding

FloatArray = NDArray[np.float64]


def stack_of_plan(spring: Spring) -> Stack:
    """Return the coils of a spring, the helper with it. Raises PlannedError where the plan has no rate or free length, MeasuredError where it cannot be.

    Source: virtual work of a spring at its wheel, docs/stance.md.
    """
    if spring.rate is None or spring.free is None:
        raise PlannedError(finding("spring.wants-rate", spring=spring.name), path="springs")
    coils = [Coil(spring.rate, spring.free, spring.solid or 0.0)]
    return Stack((*coils, *([Coil(*spring.helper)] if spring.helper else [])))


@dataclass(frozen=True)
class Working:
    """A spring at ride height under its corner: ``load`` at the wheel, the coil ``settled`` under it, ``rate`` at the wheel and ``hz`` of the corner.

    ``preload``: how far the coil is compressed with the damper open, minus where it is loose by so much; None where the plan has no open length or droop stop.
    ``sag``: wheel travel from there to ride height. ``solid_travel``, ``slack_travel``: where its coils touch and where it goes loose; None beyond the linkage.
    ``change``: travel at which the helper binds or lets go. ``perch``: how far up from its place in the plan the perch must be for it.
    """

    name: str
    load: float
    ratio: float
    settled: Settled
    rate: float
    hz: float
    preload: float | None
    sag: float | None
    solid_travel: float | None
    slack_travel: float | None
    change: float | None
    perch: float


def working(move: Movement, spring: Spring, load: float, travel: float = 0.0, droop: float | None = None) -> Working:
    """Return how a spring sits at a travel under a sprung load at the wheel in N; ``droop``: travel of the droop stop, minus.

    The perch is where it must be for that. Raises MeasuredError where its coils would touch, PlannedError where the plan does not tell them.
    Source: virtual work of a spring at its wheel, docs/stance.md.
    """
    stack, size = stack_of_plan(spring), f"{spring.name}.length"
    ratio, change = (move.at(f"{spring.name}.{k}", travel) for k in ("ratio", "ratio_per_mm"))
    if not ratio > 0:
        raise MeasuredError(finding("spring.not-shortened", spring=spring.name), path="springs")
    under = settled(stack, load / ratio)
    eyes = move.at(size, travel)

    def where(length: float) -> float | None:
        """The travel at which the coil is so long."""
        found = move.travel_for(size, eyes + length - under.length)
        return found if np.isfinite(found) else None

    ends = [droop] if droop is not None else []
    if spring.open and np.isfinite(opened := move.travel_for(size, spring.open)):
        ends.append(opened)
    preload = sag = None
    if ends:
        low = max(ends)
        preload, sag = stack.free - (under.length + move.at(size, low) - eyes), travel - low
    binds = where(stack.free - stack.changes[0][1]) if len(stack.coils) > 1 else None
    rate = under.rate * ratio**2 + under.force * change
    return Working(
        spring.name,
        load,
        ratio,
        under,
        rate,
        frequency_hz(rate, load / GRAVITY) if load > 0 and rate > 0 else float("nan"),
        preload,
        sag,
        where(stack.free - stack.stroke) if all(c.solid for c in stack.coils) else None,
        where(stack.free),
        binds,
        eyes - under.length - spring.seat,
    )


def rates_over(move: Movement, spring: Spring, work: Working, travel: FloatArray, at: float = 0.0) -> FloatArray:
    """Return the rate at the wheel over travel (N,), with the coil as it sits in ``work`` at the travel ``at``; nan where its coils touch, 0 where it is loose.

    Source: virtual work of a spring at its wheel, docs/stance.md.
    """
    stack = stack_of_plan(spring)
    size, ratios, changes = (move.spline(f"{spring.name}.{k}") for k in ("length", "ratio", "ratio_per_mm"))
    pressed = stack.free - (work.settled.length + size(travel) - size(at))
    out = np.full(len(travel), np.nan)
    for i, (compression, ratio, change) in enumerate(zip(pressed, ratios(travel), changes(travel), strict=True)):
        if np.isfinite(compression) and compression < stack.stroke:
            loose = compression <= 0
            out[i] = 0.0 if loose else stack.rate(float(compression)) * ratio**2 + stack.force(float(compression)) * change
    return out


def free_length_for(under: Settled, rate: float, load: float) -> float:
    """Return the free length with which a coil of another rate holds the same load at the same length, its perch left where it is.

    Source: virtual work of a spring at its wheel, docs/stance.md.
    """
    if not rate > 0:
        raise MeasuredError(finding("spring.no-rate", rate=rate), path="rate")
    return under.length + load / rate


def rate_for_sag(move: Movement, spring: Spring, load: float, travel: float, sag: float, preload: float) -> float:
    """Return the spring rate with which a corner sinks by ``sag`` mm of wheel travel from full droop to ``travel``, pressed by ``preload`` mm there:
    its force over how far the linkage shortens it.

    Source: virtual work of a spring at its wheel, docs/stance.md.
    """
    size = f"{spring.name}.length"
    pressed = move.at(size, travel - sag) - move.at(size, travel) + preload
    if not pressed > 0:
        raise MeasuredError(finding("spring.not-compressed"), path="sag")
    return load / move.at(f"{spring.name}.ratio", travel) / pressed


def sag_of(move: Movement, spring: Spring, load: float, travel: float, rate: float) -> float | None:
    """Return the wheel travel from where a spring of a rate is just loose to ``travel``, where it carries the load, mm; None beyond the linkage.

    Source: virtual work of a spring at its wheel, docs/stance.md.
    """
    size = f"{spring.name}.length"
    loose = move.travel_for(size, move.at(size, travel) + load / move.at(f"{spring.name}.ratio", travel) / rate)
    return travel - loose if np.isfinite(loose) else None


SeatState = Literal["level", "working", "full"]


@dataclass(frozen=True)
class Seat:
    """A spring against its seats in one state, centred and squared in another.

    ``shift``: how far its moving end has gone sideways off the axis it was centred on: along the car (forward positive) and across (left positive), mm.
    ``fixed_deg``, ``moving_deg``: angle between the spring and what it sits on at either end; ``bow_deg``: between both seats, which is what bends it.
    """

    travel: float
    shift: tuple[float, float]
    fixed_deg: float
    moving_deg: float
    bow_deg: float


def seats(body: Body, spring: Spring, centred: float, travels: FloatArray) -> tuple[Seat, ...]:
    """Return a spring against its seats at travels (N,), both of them centred on it and square to it at the travel ``centred``.

    Source: virtual work of a spring at its wheel, docs/stance.md.
    """
    table = np.concatenate([[centred], np.asarray(travels, dtype=float)])
    swept = sweep_known(body, table)
    pose, shape = swept.poses.pose, body.shape
    twist = motion_of(body, shape, pose).twist
    ends = sorted(spring.ends, key=lambda e: e.on != "car")  # what stands on the car first, if either does
    first, second = (stand(body, shape, pose, twist, e).place * np.ones((len(table), 1)) for e in ends)
    axis = (second - first) / np.linalg.norm(second - first, axis=1)[:, None]
    normals = [_carried(body, pose, twist, e, axis[0]) for e in ends]
    rows = []
    for i in range(1, len(table)):
        gone = (second[i] - first[i]) - axis[0] * float((second[i] - first[i]) @ axis[0])
        rows.append(
            Seat(
                float(table[i]),
                (float(gone[0]), float(gone[1])),
                _between(axis[i], normals[0][i]),
                _between(axis[i], normals[1][i]),
                _between(normals[0][i], normals[1][i]),
            )
        )
    return tuple(rows)


def _carried(body: Body, pose: object, twist: FloatArray, end: Fastened, axis: FloatArray) -> FloatArray:
    """Return a direction that is fixed to what an end stands on, and was ``axis`` in the first row, at every row (N, 3)."""
    shape, n = body.shape, len(twist)
    if end.on == "car":
        return np.broadcast_to(axis, (n, 3))
    if end.on == "upright":
        rotation = pose.rotation  # type: ignore[attr-defined]
        return np.asarray(turned(rotation, np.broadcast_to(rotation[0].T @ axis, (n, 3))))
    turning = rocker_turning(body, shape, pose, twist, body.rocker) if end.on == "rocker" and body.rocker else arm_turning(shape, pose, twist, body.layout.arms[end.on])  # type: ignore[arg-type] # fmt: skip
    angle = np.asarray(turning.angle) - np.asarray(turning.angle)[0]
    k = np.asarray(turning.axis, dtype=float).reshape(3)
    c, s = np.cos(angle)[:, None], np.sin(angle)[:, None]
    return np.asarray(axis * c + np.cross(k, axis) * s + k * float(k @ axis) * (1 - c))  # Rodrigues


def _between(a: FloatArray, b: FloatArray) -> float:
    return float(np.degrees(np.arctan2(np.linalg.norm(np.cross(a, b)), a @ b)))
