"""Sums a builder asks for beside the car: a spring by frequency or sag, whether a damper fits, splines of a torsion bar, an anti-roll bar, a rod's tube.

Each answer is lines of what and how much, in the car's units. Lengths in mm, loads in kg, rates in N/mm, angles in degrees.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import singledispatch

import numpy as np

from ready_corner.core.advise.standing import Stance, sprung_load
from ready_corner.core.engines.linkage.named import say_rate
from ready_corner.core.engines.linkage.sweep import sweep
from ready_corner.core.engines.statics.bars import (
    RollBar,
    bar_rate_at_wheel,
    end_force,
    finest_step_deg,
    free_hang_deg,
    link_ratio,
    spline_steps,
    twist_deg,
)
from ready_corner.core.engines.statics.springs import GRAVITY, damper_fit, frequency_hz, rate_for_frequency
from ready_corner.core.model.bodies import body_named
from ready_corner.core.model.movement import movement
from ready_corner.core.model.ride_heights import heights_by_features
from ready_corner.core.model.springwork import free_length_for, rate_for_sag, working
from ready_corner.core.plan.corners import CORNER_WORDS, CORNERS, END_OF, Corner, End
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.notation import Units, say_angle, say_small_length

Lines = tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class SpringAsked:
    """Which spring gives a corner this frequency, or this sag from full droop with this preload there."""

    corner: Corner
    hz: float | None = None
    sag: float | None = None
    preload: float = 0.0


@dataclass(frozen=True)
class DamperAsked:
    """Whether a damper of this closed and open length fits a corner; the part in hand is measured, not its list."""

    corner: Corner
    closed: float
    open: float


@dataclass(frozen=True)
class TorsionAsked:
    """Splines of a torsion bar: ``load`` at the end of its ``arm``, which is to stand ``loaded_deg`` under level; found ``low`` by so much there (minus: high)."""

    inner: int
    outer: int
    arm: float
    rate: float
    load: float
    loaded_deg: float
    low: float = 0.0
    fine_deg: float = 0.0


@dataclass(frozen=True)
class BarAsked:
    """An anti-roll bar of an end, its ends moved so far; ``ratio``: bar end travel over wheel travel, None: that of the plan's linkage."""

    end: End
    bar: RollBar
    left: float
    right: float
    ratio: float | None = None


@dataclass(frozen=True)
class TubeAsked:
    """The tube of a rod so long from eye to eye: ``joint`` from the eye's centre to the end of its thread, ``thread`` of it screwed in, at each end."""

    length: float
    joint: float
    thread: float


@dataclass(frozen=True)
class HeightsAsked:
    """The four ride heights that heights of other features, or angles of lower arms in degrees, come to."""

    features: Mapping[str, float]
    arms: Mapping[Corner, float] = field(default_factory=dict)


Asked = SpringAsked | DamperAsked | TorsionAsked | BarAsked | TubeAsked | HeightsAsked


def bar_asked(end: End, bar: RollBar | None, left: float, right: float) -> BarAsked:
    """Return the question about a bar; raises MeasuredError where neither the plan nor whoever asks gives one."""
    if bar is None:
        raise MeasuredError(f"The plan has no anti-roll bar at the {end}. Type its size.", path="bar")
    return BarAsked(end, bar, left, right)


@singledispatch
def reckon(asked: Asked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    """Return the answer to one sum; ``now`` gives how the car stands, where it is needed. Raises MeasuredError, PlannedError with a sentence."""
    raise TypeError(asked)


@reckon.register
def _spring(asked: SpringAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    units, found = plan.units, now()
    load = sprung_load(plan, asked.corner, found.loads)
    move = movement(plan, asked.corner)
    if load is None:
        raise MeasuredError(
            "What the corner carries is not known. Put it on scales, or give the car a weight in the plan.", path="corner"
        )
    end = plan.footing.end(END_OF[asked.corner])
    strip = found.corners[CORNERS.index(asked.corner)].strip
    travel = 0.0 if strip is None else strip.wanted
    work = working(move, move.spring, load, travel, -end.droop if end.droop else None)
    if asked.hz is not None:
        if not asked.hz > 0:
            raise MeasuredError("A corner that does not swing has no frequency. Type one, such as 1.8.", path="hz")
        rate = rate_for_frequency(asked.hz, load / GRAVITY, work.ratio)
    elif asked.sag is not None:
        rate = rate_for_sag(load, work.ratio, asked.sag, asked.preload)
    else:
        raise MeasuredError("Type the frequency or the sag that is wanted.", path="hz")
    at_wheel = rate * work.ratio**2
    lines = [
        ("Spring", say_rate(rate, units)),
        (
            "Free length, the perch left where it is",
            say_small_length(free_length_for(work.settled, rate, load / work.ratio), units),
        ),
        ("At the wheel", say_rate(at_wheel, units)),
        ("The corner swings at", f"{frequency_hz(at_wheel, load / GRAVITY):.2f} Hz without its tyre"),
    ]
    if asked.sag is None:
        lines.append(("Sag from full droop, without preload", say_small_length(load / work.ratio / rate / work.ratio, units)))
    return (*lines, ("Preload changes the height", "and never the rate"))


@reckon.register
def _damper(asked: DamperAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    units, move = plan.units, movement(plan, asked.corner)
    end = plan.footing.end(END_OF[asked.corner])
    if end.bump is None or end.droop is None:
        raise MeasuredError(
            "Give the plan its bump and droop stops first: the damper is measured against what they leave.", path="closed"
        )
    bump, droop = (move.at(f"{move.spring.name}.length", t) for t in (end.bump, -end.droop))
    fit = damper_fit(asked.closed, asked.open, bump, droop)
    return (
        ("Between its eyes at the bump stop", say_small_length(bump, units)),
        ("Room left closing", _signed(fit.closing, units)),
        ("Between its eyes at the droop stop", say_small_length(droop, units)),
        ("Room left opening", _signed(fit.opening, units)),
        ("So", fit.words),
    )


@reckon.register
def _torsion(asked: TorsionAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    if not asked.arm > 0:
        raise MeasuredError("An arm without a length turns no bar. Measure from the bar's axis to its end.", path="arm")
    force = asked.load * GRAVITY
    hang = free_hang_deg(asked.loaded_deg, force, asked.arm, asked.rate)
    lines = [
        ("Hangs free", f"{say_angle(abs(hang))} {'under' if hang > 0 else 'over'} level"),
        ("Finest step with both ends", say_angle(finest_step_deg(asked.inner, asked.outer), 3)),
    ]
    if asked.low:
        sine = np.sin(np.radians(asked.loaded_deg)) + asked.low / asked.arm
        if abs(sine) >= 1:
            raise MeasuredError("No arm so short makes up so much. Look at both figures again.", path="low")
        stands = float(np.degrees(np.arcsin(sine)))
        wanted = free_hang_deg(stands, force, asked.arm, asked.rate) - hang
        step = spline_steps(wanted, asked.inner, asked.outer)
        left = say_small_length(abs(step.left_deg) * np.pi / 180 * asked.arm * np.cos(np.radians(asked.loaded_deg)), plan.units)
        covers = abs(step.left_deg) <= asked.fine_deg
        lines += [
            (
                f"To come {say_small_length(abs(asked.low), plan.units)} {'up' if asked.low > 0 else 'down'}",
                f"turn it {say_angle(abs(wanted))}",
            ),
            ("Shift", f"inner {_splines(step.inner)}, outer {_splines(step.outer)}"),
            (
                "Left for the fine adjuster",
                f"{say_angle(abs(step.left_deg), 3)}, {left} at the end of the arm: {'it covers that' if covers else 'it does not cover that'}",
            ),
        ]
    return (
        *lines,
        ("Before anything is drawn out", "mark both ends against their seats; the bar holds energy until the car is up"),
    )


@reckon.register
def _bar(asked: BarAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    units, bar = plan.units, asked.bar
    ratio = asked.ratio if asked.ratio is not None else _link_ratio(plan, asked.end, bar)
    lines = [
        ("Twist, both arms counted", say_angle(twist_deg(asked.left, asked.right, bar.arm))),
        ("Force at the left end, rigid arms", f"{abs(end_force(bar, asked.left, asked.right)):.0f} N"),
        ("At its end, per difference of the two ends", say_rate(bar.end_rate, units)),
    ]
    if ratio is not None:
        lines += [
            ("Bar end over wheel", f"{ratio:.3f}"),
            ("At the wheel, per difference of the two wheels", say_rate(bar_rate_at_wheel(bar.end_rate, ratio), units)),
        ]
    return (*lines, ("Arm", f"{say_small_length(bar.arm, units)} in every line"))


@reckon.register
def _tube(asked: TubeAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    units = plan.units
    if not 0 < asked.thread <= asked.joint:
        raise MeasuredError(
            "The thread that is screwed in is part of the joint: type more than nothing, and no more than the joint is long.",
            path="thread",
        )
    tube = asked.length - 2 * (asked.joint - asked.thread)
    if tube <= 2 * asked.thread:
        raise MeasuredError(
            f"Between such joints a tube of {say_small_length(tube, units)} is left, too short for its threads. Take shorter joints.",
            path="joint",
        )
    return (
        ("Cut the tube", say_small_length(tube, units)),
        ("Eye to eye then", say_small_length(asked.length, units)),
        ("Either way", f"{say_small_length(asked.thread, units)} of thread at each end"),
    )


@reckon.register
def _heights(asked: HeightsAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    arms = {}
    for corner, angle in asked.arms.items():
        linkage = plan.linkage(END_OF[corner])
        arms[corner] = movement(plan, corner), linkage.loaded_radius if linkage else 0.0, angle
    found = heights_by_features(plan, asked.features, arms)
    return tuple(
        (f"{CORNER_WORDS[c].capitalize()}, {plan.height_place(c).name}", say_small_length(h, plan.units))
        for c, h in found.items()
    )


def _link_ratio(plan: Plan, end: End, bar: RollBar) -> float | None:
    """Return bar end travel over wheel travel by the plan's linkage; None where it has no bar."""
    linkage = plan.linkage(end)
    if linkage is None or linkage.bar is None:
        return None
    per = sweep(body_named(plan, "LF" if end == "front" else "LR"), np.zeros(1)).answers["bar.deg_per_mm"][0]
    return link_ratio(float(per), bar.arm)


def _splines(n: int) -> str:
    return "none" if n == 0 else f"{abs(n)} spline{'s' * (abs(n) != 1)} {'down at the arm' if n > 0 else 'up at the arm'}"


def _signed(value: float, units: Units) -> str:
    return say_small_length(value, units) if value >= 0 else f"{say_small_length(-value, units)} short"
