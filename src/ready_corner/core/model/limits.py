"""What ends the travel of a wheel either way, and in which order: stops, damper, coil, joints, the ground, the tyre against the body.

Wheel travel in mm from the drawing, bump positive.

Source: lengths of dampers and angles of joints over travel; docs/linkage.md.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.statics.attitude import Attitude
from ready_corner.core.model.movement import Movement
from ready_corner.core.model.springwork import Working
from ready_corner.core.plan.corners import END_OF, SIDE, Corner
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.finding import Finding, finding


@dataclass(frozen=True)
class Limit:
    """Something that ends the travel: its name, and the travel at which it does. ``stop``: whether it is meant to."""

    name: str
    travel: float
    stop: bool


@dataclass(frozen=True)
class Strip:
    """The travel of one wheel: where it is wanted and stands now, everything that ends it, nearest first, and what is to be said of it, each with whether it is amiss."""

    corner: Corner
    wanted: float
    now: float | None
    bump: tuple[Limit, ...]
    droop: tuple[Limit, ...]
    bump_left: float | None
    droop_left: float | None
    lines: tuple[tuple[Finding, bool], ...]

    @property
    def fine(self) -> bool:
        """Whether the stops come first, with room to spare."""
        return not any(amiss for _, amiss in self.lines)


def strip(
    plan: Plan,
    move: Movement,
    wanted: Attitude,
    travel: float,
    now: float | None,
    works: tuple[Working, ...] = (),
    thinner: float = 0.0,
) -> Strip:
    """Return the travel of a wheel that is wanted at ``travel`` and stands at ``now``.

    ``thinner``: by how much the loaded radius of a stand-in tyre is short of the planned one. The ground is met by all four wheels going up together.
    """
    corner = move.corner
    found = [k for k in _limits(plan, move, wanted, travel, works, thinner) if np.isfinite(k.travel)]
    bump = tuple(sorted((k for k in found if k.travel > 0), key=lambda k: k.travel))
    droop = tuple(sorted((k for k in found if k.travel <= 0), key=lambda k: -k.travel))
    here = travel if now is None else now
    return Strip(
        corner,
        travel,
        now,
        bump,
        droop,
        bump[0].travel - here if bump else None,
        here - droop[0].travel if droop else None,
        tuple(_order(plan, bump, droop)),
    )


def _limits(
    plan: Plan, move: Movement, wanted: Attitude, travel: float, works: tuple[Working, ...], thinner: float
) -> Iterator[Limit]:
    corner = move.corner
    end = plan.footing.end(END_OF[corner])
    if end.bump is not None:
        yield Limit("bump stop", end.bump, True)
    if end.droop is not None:
        yield Limit("droop stop", -end.droop, True)
    if end.to_body is not None:
        yield Limit("tyre to body", end.to_body + thinner, False)
    low = [
        wanted.height_of(f.place)
        for f in plan.footing.low
        if (f.station > -plan.wheelbase / 2) == (END_OF[corner] == "front") and f.offset * SIDE[corner] >= 0
    ]
    if low:
        yield Limit("ground", travel + min(low), False)
    for spring in move.springs:
        for name, size in (("damper closed", spring.closed), ("damper open", spring.open)):
            if size:
                yield Limit(name, move.travel_for(f"{spring.name}.length", size), False)
        if spring.to_tyre:
            yield Limit("tyre to spring", move.travel_for(f"{spring.name}.to_tyre", 0.0), False)
    for work in works:
        if work.solid_travel is not None:
            yield Limit("coil solid", work.solid_travel, False)
    for name, at in move.joint_ends:
        yield Limit(name, at, False)


def _order(plan: Plan, bump: tuple[Limit, ...], droop: tuple[Limit, ...]) -> Iterator[tuple[Finding, bool]]:
    """Yield what is to be said of the order in which the travel is ended either way, each with whether it is amiss."""
    margin = plan.footing.margin
    for limits, in_bump in ((bump, True), (droop, False)):
        if not limits:
            continue
        first, stop = limits[0], next((k for k in limits if k.stop), None)
        beyond = limits[1] if in_bump and len(limits) > 1 else None
        if stop is None:
            yield finding("travel.no-stop", bump=in_bump, by=first.name), False
        elif not first.stop:
            yield finding("travel.before-stop", bump=in_bump, by=first.name, early=stop.travel - first.travel), True
        elif beyond is None:
            yield finding("travel.stop", bump=in_bump, by=stop.name), False
        elif (room := beyond.travel - stop.travel) < margin:
            yield finding("travel.little-room", room=room, beyond=beyond.name, margin=margin), True
        else:
            yield finding("travel.room", room=room, beyond=beyond.name), False
