"""Springs at work: in series, helpers that bind, preload; sag, frequency, and what is left of the travel.

Lengths in mm, rates in N/mm, forces in N. A spring is as long as its free length unloaded, and never shorter than its solid length.

Source: Hooke's law, springs in series; docs/stance.md.
"""

import math
from dataclasses import dataclass

from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import Finding, finding

GRAVITY = 9.80665  # m/s²


@dataclass(frozen=True)
class Coil:
    """One coil spring: ``rate``, ``free`` and ``solid`` length."""

    rate: float
    free: float
    solid: float = 0.0

    def __post_init__(self) -> None:
        if not self.rate > 0:
            raise MeasuredError(finding("spring.no-rate", rate=self.rate), path="rate")
        if not 0 <= self.solid < self.free:
            raise MeasuredError(
                finding("spring.solid-over-free", free=self.free, solid=self.solid),
                path="solid",
            )

    @property
    def stroke(self) -> float:
        """How far it can be compressed."""
        return self.free - self.solid


@dataclass(frozen=True)
class Stack:
    """Coils one on the other: the same force goes through all; each binds when its coils touch."""

    coils: tuple[Coil, ...]

    @property
    def free(self) -> float:
        """Length without a load."""
        return sum(c.free for c in self.coils)

    @property
    def stroke(self) -> float:
        """How far it can be compressed until every coil touches."""
        return sum(c.stroke for c in self.coils)

    @property
    def changes(self) -> tuple[tuple[float, float], ...]:
        """Force and compression at which each coil binds, in the order in which they do; the last is the end of the stroke."""
        order = sorted(self.coils, key=lambda c: c.rate * c.stroke)
        return tuple((c.rate * c.stroke, self.compression(c.rate * c.stroke)) for c in order)

    def compression(self, force: float) -> float:
        """Return how far a force compresses it."""
        return sum(min(max(force, 0.0) / c.rate, c.stroke) for c in self.coils)

    def force(self, compression: float) -> float:
        """Return the force at a compression; 0 where it is slack. Raises MeasuredError past the end of its stroke."""
        if compression <= 0:
            return 0.0
        if compression > self.stroke + 1e-9:
            raise MeasuredError(
                finding("spring.coils-touch", length=self.free - compression, solid=self.free - self.stroke),
                path="length",
                numbers={"length": self.free - compression, "solid": self.free - self.stroke},
            )
        before_force = before = 0.0
        for force, at in self.changes:
            if compression <= at:
                return before_force + (compression - before) * (force - before_force) / (at - before) if at > before else force
            before_force, before = force, at
        return before_force

    def rate(self, compression: float) -> float:
        """Return the rate at a compression: 1 / Σ (1 / rate) over the coils that have not bound. Infinite at the end of the stroke."""
        force = self.force(compression)
        soft = sum(1 / c.rate for c in self.coils if force < c.rate * c.stroke - 1e-9)
        return 1 / soft if soft else math.inf


@dataclass(frozen=True)
class Settled:
    """A spring under its corner: ``length`` and ``compression``, its ``force`` and ``rate`` there, and what is left until it is solid (``bump``) or slack (``droop``)."""

    length: float
    compression: float
    force: float
    rate: float
    bump: float
    droop: float


def settled(stack: Stack, load: float) -> Settled:
    """Return how a spring sits under a load along its axis. Raises MeasuredError for a negative load or one that makes it solid.

    Source: Hooke's law, springs in series, virtual work; docs/stance.md.
    """
    if load < 0:
        raise MeasuredError(finding("spring.load-below-zero", load=load), path="load")
    compression = stack.compression(load)
    if compression >= stack.stroke - 1e-9:
        raise MeasuredError(finding("spring.bound-by-load", load=load), path="load")
    return Settled(
        stack.free - compression, compression, load, stack.rate(compression), stack.stroke - compression, compression
    )


def wheel_rate(spring_rate: float, ratio: float, force: float = 0.0, ratio_per_mm: float = 0.0) -> float:
    """Return the rate at the wheel: rate · ratio² + force · change of the ratio per mm of wheel travel.

    Source: Hooke's law, springs in series, virtual work; docs/stance.md.
    """
    _require_ratio(ratio)
    return spring_rate * ratio**2 + force * ratio_per_mm


def rough_wheel_rate(spring_rate: float, lever: float, lean_deg: float) -> float:
    """Return the common rough figure: rate · (lever · cos lean)², lever being the spring's mount over the ball joint, both from the arm's pivot.

    Source: Hooke's law, springs in series, virtual work; docs/stance.md.
    """
    return float(spring_rate * (lever * math.cos(math.radians(lean_deg))) ** 2)


def frequency_hz(rate_at_wheel: float, sprung_kg: float) -> float:
    """Return the natural frequency of a corner: √(rate / mass) / 2π, without tyre and damper.

    Source: Hooke's law, springs in series, virtual work; docs/stance.md.
    """
    if not sprung_kg > 0:
        raise MeasuredError(finding("spring.no-mass", mass=sprung_kg), path="mass")
    return math.sqrt(rate_at_wheel * 1000 / sprung_kg) / (2 * math.pi)


def rate_for_frequency(hz: float, sprung_kg: float, ratio: float, force: float = 0.0, ratio_per_mm: float = 0.0) -> float:
    """Return the spring rate that gives a corner a frequency: the inverse of :func:`wheel_rate` and :func:`frequency_hz`, the spring's ``force`` as it
    carries the corner. Raises MeasuredError where the change of ratio alone makes it swing faster.

    Source: Hooke's law, springs in series, virtual work; docs/stance.md.
    """
    _require_ratio(ratio)
    rate = ((2 * math.pi * hz) ** 2 * sprung_kg / 1000 - force * ratio_per_mm) / ratio**2
    if not rate > 0:
        raise MeasuredError(finding("spring.no-such-swing", hz=hz), path="hz")
    return rate


def in_series(first: float, second: float) -> float:
    """Return the rate of two springs one on the other, such as a corner on its tyre.

    Source: Hooke's law, springs in series, virtual work; docs/stance.md.
    """
    return first * second / (first + second)


def _require_ratio(ratio: float) -> None:
    if not ratio > 0:
        raise MeasuredError(finding("spring.no-ratio", ratio=ratio), path="ratio")


@dataclass(frozen=True)
class DamperFit:
    """A damper against the travel at its mount: room at either end (minus: it is the stop), and which end is short."""

    closing: float
    opening: float
    said: Finding


def damper_fit(closed: float, open_: float, at_bump: float, at_droop: float, margin: float = 5.0) -> DamperFit:
    """Return how a damper of closed and open length fits between its mounts, which are so far apart at full bump and full droop.

    Source: Hooke's law, springs in series, virtual work; docs/stance.md.
    """
    if not closed < open_:
        raise MeasuredError(finding("damper.exchanged", closed=closed, open=open_), path="closed")
    closing, opening = at_bump - closed, open_ - at_droop
    short = [finding(k) for room, k in ((closing, "damper.bottoms"), (opening, "damper.stops")) if room < 0]
    tight = [finding(k) for room, k in ((closing, "damper.closing"), (opening, "damper.opening")) if 0 <= room < margin]
    return DamperFit(closing, opening, finding("damper.fit", short=short, tight=tight))
