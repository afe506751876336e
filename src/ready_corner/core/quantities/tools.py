"""Measuring tools: the step of the scale, how well a repeat comes back, how well its zero is known."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from typing import Literal

from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.measured import Measured

Measures = Literal["length", "angle", "mass", "steer"]
STEP_TO_U = 1 / math.sqrt(12)  # standard uncertainty of a rectangular step; JCGM 100:2008, 4.3.7
INCH = 25.4  # mm, exact
LB = 0.45359237  # kg, exact
SPANS = ("trammel",)  # tools that reach from mark to mark, and read no gap and no height
PRIOR = 8  # what a tool is stated to repeat to counts as much as so many repeats


@dataclass(frozen=True)
class Tool:
    """A tool as the car's plan keeps it: lengths in mm, angles in degrees, loads in kg.

    ``step``: smallest step of its scale; ``repeatability``: standard deviation of repeats by a careful hand; ``zero``: standard
    uncertainty of its zero, shared by every reading taken with it.
    """

    id: str
    name: str
    measures: Measures
    step: float
    repeatability: float
    zero: float = 0.0

    def __post_init__(self) -> None:
        for field in ("step", "repeatability", "zero"):
            value = getattr(self, field)
            if not math.isfinite(value) or value < 0 or (field == "step" and value == 0):
                raise PlannedError(
                    finding("tool.impossible", name=self.name, field=field, value=value),
                    path=f"tools.{self.id}.{field}",
                    numbers={field: value},
                )

    def estimate(self, readings: Sequence[float], source: str) -> Measured:
        """Return the mean of repeats at one place with its uncertainty.

        Repeats average the scatter; the step and the zero stay whole. The scatter is what the tool states joined with that of the
        repeats: a few of them say little, so the tool's figure counts as much as PRIOR repeats would. ``source`` names the place;
        the zero is shared by all readings of this tool. Source: Gelman et al., Bayesian Data Analysis, 3.3.
        """
        n = len(readings)
        mean = math.fsum(readings) / n
        step2 = (self.step * STEP_TO_U) ** 2  # repeats show the step as well as the scatter
        seen = (PRIOR * (self.repeatability**2 + step2) + (n - 1) * scatter_of(readings) ** 2) / (PRIOR + n - 1)
        scatter = self.repeatability if n == 1 else math.sqrt(max(seen - step2, 0.0))
        return Measured(mean, {
            f"{source} step": self.step * STEP_TO_U,
            f"{source} scatter": scatter / math.sqrt(n),
            f"{self.id} zero": self.zero,
        })  # fmt: skip


def scatter_of(readings: Sequence[float]) -> float:
    """Return the sample standard deviation of repeats; 0 for a single one.

    Source: JCGM 100:2008, 4.3.7 (rectangular step), 4.2 (repeats); docs/choices.md.
    """
    n = len(readings)
    mean = math.fsum(readings) / n
    return math.sqrt(math.fsum((r - mean) ** 2 for r in readings) / (n - 1)) if n > 1 else 0.0


def odd_repeat(readings: Sequence[float], tool: Tool) -> int | None:
    """Return the index of the repeat furthest from the middle one, where it is too far for this tool; else None.

    Too far: beyond three standard deviations of a difference of two single readings (step and repeatability).
    Source: JCGM 100:2008, 4.3.7 (rectangular step), 4.2 (repeats); docs/choices.md.
    """
    if len(readings) < 2:
        return None
    middle = sorted(readings)[(len(readings) - 1) // 2]
    far = max(range(len(readings)), key=lambda i: (abs(readings[i] - middle), i))
    allowed = 3 * math.sqrt(2) * math.hypot(tool.step * STEP_TO_U, tool.repeatability)
    return far if abs(readings[far] - middle) > allowed else None


# No tool: a practised eye misses by most of a degree. What it says is kept as a note, and no aim is met by it.
EYE = Tool("eye", "By eye", "angle", 0.5, 0.7, 0.5)


@cache
def default_tools(inches: bool) -> tuple[Tool, ...]:
    """Return the table of tools a new car begins with; every figure may be changed in the plan.

    Steps are those of ordinary shop tools; repeatabilities are what a careful hand gets with them, and are the builder's to mend.
    Source: JCGM 100:2008, 4.3.7 (rectangular step), 4.2 (repeats); docs/choices.md.
    """
    thou = INCH / 1000
    lengths = (
        (("rule", "Steel rule", INCH / 32, 8 * thou), ("tape", "Tape", INCH / 16, 20 * thou),
         ("caliper", "Depth caliper", thou, 4 * thou), ("trammel", "Trammel bar", INCH / 64, 6 * thou))
        if inches
        else (("rule", "Steel rule", 0.5, 0.2), ("tape", "Tape", 1.0, 0.5), ("caliper", "Depth caliper", 0.1, 0.1), ("trammel", "Trammel bar", 0.2, 0.15))
    )  # fmt: skip
    return (
        *(Tool(id_, name, "length", step, repeat) for id_, name, step, repeat in lengths),
        Tool("bubble", "Bubble gauge", "angle", 0.1, 0.05, 0.03),
        Tool("digital", "Digital gauge", "angle", 0.05, 0.03, 0.02),
        Tool("plate", "Turn plate", "steer", 0.5, 0.2, 0.2),
        Tool("scales", "Wheel scales", "mass", LB if inches else 0.5, 0.4),
    )
