"""In, out, or too close to call: the guard band of ISO 14253-1, and what would settle it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ready_corner.core.errors import PlannedError
from ready_corner.core.metrology.measured import Measured
from ready_corner.core.metrology.tools import Tool

Verdict = Literal["holds", "out", "too close to call"]


Trust = Literal["", "sure", "fair", "doubtful"]


@dataclass(frozen=True)
class Aim:
    """What is wanted of one mark: ``aim`` with ``tolerance`` either side, in mm or degrees.

    Two limits that are not even about the aim are kept as the middle of the two and half their distance. ``source`` says where it
    is from, ``trust`` how far that is trusted, ``other`` what another source says and why it was not taken. ``typed``: a toe
    that was typed as a length over a span, as it was typed.
    """

    mark: str
    aim: float
    tolerance: float
    source: str = ""
    trust: Trust = ""
    other: str = ""
    typed: str = ""

    def __post_init__(self) -> None:
        if not math.isfinite(self.aim):
            raise PlannedError("The aim has no figure. Type what is wanted.", path=f"aims.{self.mark}.aim")
        if not (math.isfinite(self.tolerance) and self.tolerance > 0):
            raise PlannedError(
                f"A tolerance of {self.tolerance:g} asks for the impossible. Type how far either side still does, more than 0.",
                path=f"aims.{self.mark}.tolerance",
                numbers={"tolerance": self.tolerance},
            )


@dataclass(frozen=True)
class Judgement:
    """A figure held against its aim; ``deviation`` is value minus aim, ``expanded`` is U, in the unit of the mark."""

    verdict: Verdict
    deviation: float
    expanded: float


def judge(figure: Measured, aim: Aim) -> Judgement:
    """Return the verdict on a figure: |deviation| ≤ T − U holds, ≥ T + U is out, between is too close to call."""
    deviation, expanded = figure.value - aim.aim, figure.expanded
    # 1e-12 of the tolerance: equality belongs to the outer verdicts, and must not hang on the last bit of a sum.
    slack = 1e-12 * max(1.0, abs(figure.value), aim.tolerance)
    if abs(deviation) <= aim.tolerance - expanded + slack:
        return Judgement("holds", deviation, expanded)
    if abs(deviation) >= aim.tolerance + expanded - slack:
        return Judgement("out", deviation, expanded)
    return Judgement("too close to call", deviation, expanded)


@dataclass(frozen=True)
class Settle:
    """What would settle a verdict: ``repeats`` in all with the tool in use, or the finer ``tool``; neither where nothing would."""

    repeats: int | None = None
    tool: str | None = None


MOST_REPEATS = 6  # more than this at one place and a finer tool is the honest answer


def what_settles(
    figure: Measured, aim: Aim, readings: Sequence[int], tool: Tool, others: Sequence[Tool], weight: float
) -> Settle:
    """Return what brings U under |T − |deviation||, the deviation staying as it is.

    readings: number taken at each place that feeds the figure; weight: |d(figure)/d(reading)| of one such place, all alike.
    Proposes repeats with the tool in use first (at most MOST_REPEATS at each place), else the coarsest tool that would do.
    """
    wanted = abs(aim.tolerance - abs(figure.value - aim.aim)) / 2
    # The sources other than these readings (track, string) stay; what is left is shared by the places alike.
    own = weight**2 * math.fsum(_spread(tool, n) ** 2 for n in readings)
    rest = max(figure.u**2 - own, 0.0)
    if (room := wanted**2 - rest) <= 0 or not readings or weight == 0:
        return Settle()
    each = math.sqrt(room / len(readings)) / weight
    needed = tool.repeats_needed(each)
    if needed is not None and needed <= MOST_REPEATS:
        return Settle(repeats=max(needed, max(readings) + 1))
    finer = [t for t in others if t.measures == tool.measures and _spread(t, 1) <= each and t.step < tool.step]
    return Settle(tool=max(finer, key=lambda t: t.step).name) if finer else Settle()


def can_hold(expanded: float, aim: Aim) -> bool:
    """Return whether any value could hold: where U > T nothing can, and that is said before measuring."""
    return expanded <= aim.tolerance


def _spread(tool: Tool, n: int) -> float:
    """Return the standard uncertainty of the mean of n readings with a tool."""
    return tool.estimate([0.0] * n, "").u
