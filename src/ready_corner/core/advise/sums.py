"""Sums a builder asks for beside the car: a spring by frequency or sag, whether a damper fits, splines of a torsion bar, an anti-roll bar, a rod's tube.

Each answer is lines of what and how much. Lengths in mm, loads in kg, rates in N/mm, angles in degrees.

Source: Hooke's law, torsion and bending of bars, levers; docs/stance.md.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import singledispatch

import numpy as np

from ready_corner.core.advise.standing import Stance, sprung_load
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
from ready_corner.core.engines.statics.springs import GRAVITY, damper_fit, frequency_hz, rate_for_frequency, wheel_rate
from ready_corner.core.model.bodies import body_named
from ready_corner.core.model.movement import movement
from ready_corner.core.model.ride_heights import heights_by_features
from ready_corner.core.model.springwork import free_length_for, rate_for_sag, sag_of, working
from ready_corner.core.plan.corners import CORNERS, END_OF, Corner, End
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import Finding, finding

Lines = tuple[Finding, ...]


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
        raise MeasuredError(finding("sums.no-bar", end=end), path="bar")
    return BarAsked(end, bar, left, right)


@singledispatch
def answer_of(asked: Asked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    """Return the answer to one sum; ``now`` gives how the car stands, where it is needed. Raises MeasuredError, PlannedError with a sentence."""
    raise TypeError(asked)


@answer_of.register
def _spring(asked: SpringAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    found = now()
    load = sprung_load(plan, asked.corner, found.loads)
    move = movement(plan, asked.corner)
    if load is None:
        raise MeasuredError(finding("sums.no-load"), path="corner")
    end = plan.footing.end(END_OF[asked.corner])
    strip = found.corners[CORNERS.index(asked.corner)].strip
    travel = 0.0 if strip is None else strip.wanted
    work = working(move, move.spring, load, travel, -end.droop if end.droop else None)
    change = move.at(f"{move.spring.name}.ratio_per_mm", travel)
    if asked.hz is not None:
        if not asked.hz > 0:
            raise MeasuredError(finding("sums.no-swing"), path="hz")
        rate = rate_for_frequency(asked.hz, load / GRAVITY, work.ratio, work.settled.force, change)
    elif asked.sag is not None:
        rate = rate_for_sag(move, move.spring, load, travel, asked.sag, asked.preload)
    else:
        raise MeasuredError(finding("sums.hz-or-sag"), path="hz")
    at_wheel = wheel_rate(rate, work.ratio, work.settled.force, change)
    lines = [
        finding("sum.spring", rate=rate),
        finding("sum.free-length", length=free_length_for(work.settled, rate, load / work.ratio)),
        finding("sum.at-wheel", rate=at_wheel),
        finding("sum.swings", hz=frequency_hz(at_wheel, load / GRAVITY) if at_wheel > 0 else 0.0),
    ]
    if asked.sag is None and (sag := sag_of(move, move.spring, load, travel, rate)) is not None:
        lines.append(finding("sum.sag", sag=sag))
    return (*lines, finding("sum.preload"))


@answer_of.register
def _damper(asked: DamperAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    move = movement(plan, asked.corner)
    end = plan.footing.end(END_OF[asked.corner])
    if end.bump is None or end.droop is None:
        raise MeasuredError(finding("sums.no-stops"), path="closed")
    bump, droop = (move.at(f"{move.spring.name}.length", t) for t in (end.bump, -end.droop))
    fit = damper_fit(asked.closed, asked.open, bump, droop)
    return (
        finding("sum.at-bump", length=bump),
        finding("sum.closing", room=fit.closing, short=fit.closing < 0),
        finding("sum.at-droop", length=droop),
        finding("sum.opening", room=fit.opening, short=fit.opening < 0),
        finding("sum.so", fit=fit.said),
    )


@answer_of.register
def _torsion(asked: TorsionAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    if not asked.arm > 0:
        raise MeasuredError(finding("sums.no-arm"), path="arm")
    force = asked.load * GRAVITY
    hang = free_hang_deg(asked.loaded_deg, force, asked.arm, asked.rate)
    lines = [
        finding("sum.hangs", angle=hang, under=hang > 0),
        finding("sum.finest", angle=finest_step_deg(asked.inner, asked.outer)),
    ]
    if asked.low:
        sine = np.sin(np.radians(asked.loaded_deg)) + asked.low / asked.arm
        if abs(sine) >= 1:
            raise MeasuredError(finding("sums.arm-too-short"), path="low")
        stands = float(np.degrees(np.arcsin(sine)))
        wanted = free_hang_deg(stands, force, asked.arm, asked.rate) - hang
        step = spline_steps(wanted, asked.inner, asked.outer)
        at_end = float(abs(step.left_deg) * np.pi / 180 * asked.arm * np.cos(np.radians(asked.loaded_deg)))
        covers = abs(step.left_deg) <= asked.fine_deg
        lines += [
            finding("sum.to-come", size=asked.low, up=asked.low > 0, angle=wanted),
            finding("sum.shift", inner=_splines(step.inner), outer=_splines(step.outer)),
            finding("sum.left-over", angle=abs(step.left_deg), at_end=at_end, covers=covers),
        ]
    return (*lines, finding("sum.mark-both"))


@answer_of.register
def _bar(asked: BarAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    bar = asked.bar
    ratio = asked.ratio if asked.ratio is not None else _link_ratio(plan, asked.end)
    lines = [
        finding("sum.twist", angle=twist_deg(asked.left, asked.right, bar.arm)),
        finding("sum.end-force", force=abs(end_force(bar, asked.left, asked.right))),
        finding("sum.end-rate", rate=bar.end_rate),
    ]
    if ratio is not None:
        rate = bar_rate_at_wheel(bar.end_rate, ratio)
        lines += [finding("sum.bar-ratio", ratio=ratio), finding("sum.bar-at-wheel", rate=rate)]
    return (*lines, finding("sum.arm", arm=bar.arm))


@answer_of.register
def _tube(asked: TubeAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    if not 0 < asked.thread <= asked.joint:
        raise MeasuredError(finding("sums.thread-in-joint"), path="thread")
    tube = asked.length - 2 * (asked.joint - asked.thread)
    if tube <= 2 * asked.thread:
        raise MeasuredError(finding("sums.tube-too-short", tube=tube), path="joint")
    return (
        finding("sum.cut", length=tube),
        finding("sum.eye-to-eye", length=asked.length),
        finding("sum.either-way", thread=asked.thread),
    )


@answer_of.register
def _heights(asked: HeightsAsked, plan: Plan, now: Callable[[], Stance]) -> Lines:
    arms = {}
    for corner, angle in asked.arms.items():
        linkage = plan.linkage(END_OF[corner])
        arms[corner] = movement(plan, corner), linkage.loaded_radius if linkage else 0.0, angle
    found = heights_by_features(plan, asked.features, arms)
    return tuple(finding("sum.height", corner=c, at=plan.height_place(c).name, height=h) for c, h in found.items())


def _link_ratio(plan: Plan, end: End) -> float | None:
    """Return bar end travel over wheel travel by the plan's linkage, whose own arm turns the bar; None where it has no bar. Another arm is held to
    move with the link as the drawn one does: with the same travel it twists the bar by another angle."""
    linkage = plan.linkage(end)
    if linkage is None or linkage.bar is None:
        return None
    body = body_named(plan, "LF" if end == "front" else "LR")
    per = sweep(body, np.zeros(1)).answers["bar.deg_per_mm"][0]
    assert body.bar is not None
    first, second, tip = (body.shape.point(n) for n in (body.bar.first, body.bar.second, body.bar.arm))
    axis = (second - first) / np.linalg.norm(second - first)
    return link_ratio(float(per), float(np.linalg.norm(np.cross(axis, tip - first))))


def _splines(n: int) -> Finding:
    return finding("sum.splines", count=abs(n), several=abs(n) != 1, down=n > 0)
