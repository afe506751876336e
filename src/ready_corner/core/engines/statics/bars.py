"""Torsion: anti-roll bars and torsion-bar springs. Lengths in mm, moduli in N/mm², angles in degrees.

Source: torsion and bending of bars, elementary strength of materials; docs/stance.md.
"""

import math
from dataclasses import dataclass

from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding

SHEAR_STEEL = 79_300.0  # N/mm²; spring steel
YOUNG_STEEL = 206_000.0


@dataclass(frozen=True)
class RollBar:
    """An anti-roll bar: ``diameter`` and ``bore`` of its middle over ``length``, two arms of ``arm`` square to it, of a flat ``arm_width`` x ``arm_height`` (0: rigid).

    ``shear`` and ``young``: moduli of the material.
    """

    diameter: float
    length: float
    arm: float
    bore: float = 0.0
    arm_width: float = 0.0
    arm_height: float = 0.0
    shear: float = SHEAR_STEEL
    young: float = YOUNG_STEEL

    def __post_init__(self) -> None:
        if not (self.diameter > self.bore >= 0 and self.length > 0 and self.arm > 0):
            raise MeasuredError(finding("bar.no-size"), path="diameter")

    @property
    def moment_per_rad(self) -> float:
        """Moment in N·mm that twists its middle by one radian: G π (D⁴ − d⁴) / (32 L)."""
        return self.shear * math.pi * (self.diameter**4 - self.bore**4) / 32 / self.length

    @property
    def arm_rate(self) -> float:
        """Rate of one arm bending at its end, N/mm: 3 E I / arm³; infinite where rigid."""
        if not (self.arm_width and self.arm_height):
            return math.inf
        return 3 * self.young * self.arm_width * self.arm_height**3 / 12 / self.arm**3

    @property
    def end_rate(self) -> float:
        """Force at one end per mm of difference between both ends, N/mm, near the middle: the twist and both arms in series."""
        twist = self.moment_per_rad / self.arm**2
        bend = 2 / self.arm_rate if math.isfinite(self.arm_rate) else 0.0
        return 1 / (1 / twist + bend)


def twist_deg(left_travel: float, right_travel: float, arm: float) -> float:
    """Return the twist of a bar whose ends have moved: asin(left / arm) − asin(right / arm); with opposite travels the two angles add.

    Raises MeasuredError where an end would go past its arm.
    Source: torsion and bending of bars, elementary strength of materials; docs/stance.md.
    """
    if max(abs(left_travel), abs(right_travel)) >= arm:
        raise MeasuredError(finding("bar.arm-too-short", arm=arm), path="arm")
    return math.degrees(math.asin(left_travel / arm) - math.asin(right_travel / arm))


def end_force(bar: RollBar, left_travel: float, right_travel: float) -> float:
    """Return the force square to the arm at its left end in N, rigid arms: moment of the exact twist over the arm's present reach.

    Source: torsion and bending of bars, elementary strength of materials; docs/stance.md.
    """
    moment = bar.moment_per_rad * math.radians(twist_deg(left_travel, right_travel, bar.arm))
    return moment / (bar.arm * math.cos(math.asin(left_travel / bar.arm)))


def link_ratio(deg_per_mm: float, arm: float) -> float:
    """Return bar end travel over wheel travel, from how far the bar turns a millimetre of wheel travel and the length of its arm.

    Source: torsion and bending of bars, elementary strength of materials; docs/stance.md.
    """
    return abs(deg_per_mm) * math.pi / 180 * arm


def bar_rate_at_wheel(end_rate: float, link_ratio: float) -> float:
    """Return what a bar adds per mm of difference between the two wheels, N/mm: end rate · (bar end travel / wheel travel)².

    Source: torsion and bending of bars, elementary strength of materials; docs/stance.md.
    """
    if not link_ratio > 0:
        raise MeasuredError(finding("bar.no-ratio"), path="ratio")
    return end_rate * link_ratio**2


@dataclass(frozen=True)
class SplineStep:
    """So many splines at the inner and the outer end (plus raises), the angle that makes, and what is left to the wanted one, degrees."""

    inner: int
    outer: int
    angle_deg: float
    left_deg: float


def spline_steps(wanted_deg: float, inner: int, outer: int, most: int = 0) -> SplineStep:
    """Return the pair of shifts whose angle n · 360 / inner + m · 360 / outer comes nearest to the wanted one; the fewest splines among equals.

    ``most``: splines either end may be shifted; 0: as many as there are.
    Source: torsion and bending of bars, elementary strength of materials; docs/stance.md.
    """
    if min(inner, outer) < 2:
        raise MeasuredError(finding("torsion.no-splines"), path="splines")
    most = most or max(inner, outer)
    best: SplineStep | None = None
    for n in range(-most, most + 1):
        rest = wanted_deg - n * 360 / inner
        m = round(rest * outer / 360)
        if abs(m) > most:
            continue
        left = rest - m * 360 / outer
        step = SplineStep(n, m, wanted_deg - left, left)
        if best is None or (round(abs(left), 9), abs(n) + abs(m)) < (
            round(abs(best.left_deg), 9),
            abs(best.inner) + abs(best.outer),
        ):
            best = step
    assert best is not None
    return best


def finest_step_deg(inner: int, outer: int) -> float:
    """Return the smallest step both ends give together: 360 / least common multiple.

    Source: torsion and bending of bars, elementary strength of materials; docs/stance.md.
    """
    return 360 / math.lcm(inner, outer)


def free_hang_deg(loaded_deg: float, load: float, arm: float, moment_per_deg: float) -> float:
    """Return the angle at which an arm hangs free so that it stands at ``loaded_deg`` under a load in N at its end; angles to level, plus end down.

    moment_per_deg: of the bar, N·m. The bar holds load · arm · cos(angle).
    Source: torsion and bending of bars, elementary strength of materials; docs/stance.md.
    """
    if not moment_per_deg > 0:
        raise MeasuredError(finding("torsion.no-rate"), path="rate")
    return loaded_deg + load * arm * math.cos(math.radians(loaded_deg)) / 1000 / moment_per_deg
