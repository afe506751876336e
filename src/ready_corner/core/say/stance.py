"""What is said of springs, rods, hubs and travel, as lines of what and how much in the car's units."""

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.advise.perches import Perches
from ready_corner.core.engines.linkage.named import say_rate
from ready_corner.core.engines.statics.springs import GRAVITY
from ready_corner.core.model.limits import Strip
from ready_corner.core.model.movement import Movement
from ready_corner.core.model.ride_heights import Hub, arm_angles
from ready_corner.core.model.springwork import Seat, Working, seats
from ready_corner.core.model.struts import AtWork
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.notation import Units, say_angle, say_mass, say_small_length

FloatArray = NDArray[np.float64]
Line = tuple[str, str]


def say_off(share: float) -> str:
    """Return how far the rough formula is off, as a share of the true rate; empty where there is none."""
    return f"{abs(share) * 100:.0f} % {'over' if share > 0 else 'under'}" if np.isfinite(share) else ""


def say_preload(mm: float, units: Units) -> str:
    """Return a preload, or by how much a coil is loose with the damper open."""
    if mm >= 0:
        return f"{say_small_length(mm, units)} preload"
    return f"loose by {say_small_length(-mm, units)}: a coil may fall out"


def say_hub(hub: Hub, units: Units) -> tuple[str, ...]:
    """Return what a hub that was set will give, and against what; empty words where none was."""
    if hub.ride is None:
        return ("",)
    if abs(hub.ride) < 0.05:  # mm; nearer than the tape tells
        return ("as wanted",)
    return f"{say_small_length(abs(hub.ride), units)} {'higher' if hub.ride > 0 else 'lower'}", "than wanted"


def spring_lines(work: Working, rough: AtWork | None, units: Units) -> tuple[Line, ...]:
    """Return how a spring sits under its corner; ``rough``: that of the drawing, for the common formula beside the true rate."""
    lines = [
        ("carries at the wheel", say_mass(work.load / GRAVITY, units)),
        ("spring travel over wheel travel", f"{work.ratio:.3f}"),
        ("coil under it", say_small_length(work.settled.length, units)),
        (f"at the wheel, carrying {say_mass(work.load / GRAVITY, units)}", say_rate(work.rate, units)),
    ]
    if rough is not None and np.isfinite(rough.rough):
        lines.append(("rough formula", f"{say_rate(rough.rough, units)}, {say_off(rough.off)}"))
    lines.append(("swings, without its tyre, at", f"{work.hz:.2f} Hz" if np.isfinite(work.hz) else "—"))
    if work.sag is not None:
        lines.append(("sag from full droop", say_small_length(work.sag, units)))
    if work.preload is not None:
        lines.append(("with the damper open", say_preload(work.preload, units)))
    if work.solid_travel is not None:
        lines.append(("coil solid at", f"{say_small_length(work.solid_travel, units)} bump"))
    if work.change is not None:
        way = "bump" if work.change > 0 else "droop"
        lines.append(("helper binds at", f"{say_small_length(abs(work.change), units)} {way}"))
    return tuple(lines)


def seat_lines(plan: Plan, move: Movement, strip: Strip, work: Working) -> tuple[tuple[str, str, str, str], ...]:
    """Return state, shift along, shift across and bow of a spring whose seats are centred at ride height: arm level, and full bump."""
    spring = next(s for s in move.springs if s.name == work.name)
    if spring.open is not None or spring.closed is not None:
        return ()  # it sits on its damper, and both its seats go with that: nothing bows it
    full = strip.bump[0].travel if strip.bump else strip.wanted
    level = move.level if np.isfinite(move.level) else strip.wanted
    key = ("seats", spring.name, strip.wanted, level, full)
    if key not in move.kept:
        move.kept[key] = seats(move.body, spring, strip.wanted, np.array([level, full]))
    found: tuple[Seat, ...] = move.kept[key]

    def way(mm: float, plus: str, minus: str) -> str:
        return f"{say_small_length(abs(mm), plan.units)} {plus if mm >= 0 else minus}"

    return tuple(
        (words, way(s.shift[0], "forward", "aft"), way(s.shift[1], "left", "right"), say_angle(s.bow_deg))
        for words, s in zip(("arm level", "full bump"), found, strict=True)
    )


def arm_lines(move: Movement, travel: float) -> tuple[Line, ...]:
    """Return the angle of every arm to the chassis at a travel."""
    found: Mapping[str, float] = arm_angles(move, travel)
    return tuple((name, f"{say_angle(abs(a))} {'up' if a > 0 else 'down'} to the wheel") for name, a in found.items())


def say_perch(plan: Plan, does: Perches, i: int) -> tuple[str, ...]:
    """Return what one turn up of a perch does to the four heights and to the cross weight, in words."""
    heights = [f"{'up' if h > 0 else 'down'} {say_small_length(abs(h), plan.units)}" for h in does.heights[:, i]]
    more = does.cross[i]
    said = f"{'+' if more > 0 else '−'}{abs(more):.2f} %"
    return (*heights, said)


def say_loads(loads: FloatArray, units: Units) -> tuple[str, ...]:
    """Return four loads and what they come to in words: each, then all, front, left and cross weight."""
    total = float(loads.sum())
    shares = [
        f"{name} {100 * part / total:.1f} %"
        for name, part in (
            ("rear", loads[2] + loads[3]),
            ("left", loads[0] + loads[2]),
            ("cross", loads[1] + loads[2]),
        )
        if total > 0  # scales that carry nothing share nothing
    ]
    return (*(say_mass(float(v), units) for v in loads), say_mass(total, units), *shares)
