"""In, out, or too close to call: the guard band of ISO 14253-1, and what would settle it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from scipy.special import ndtr

from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.measured import COVERAGE, Measured
from ready_corner.core.quantities.tools import Tool

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
            raise PlannedError(finding("aim.no-figure"), path=f"aims.{self.mark}.aim")
        if not (math.isfinite(self.tolerance) and self.tolerance > 0):
            raise PlannedError(
                finding("aim.no-tolerance", tolerance=self.tolerance),
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
    """Return the verdict on a figure: |deviation| ≤ T − U holds, ≥ T + U is out, between is too close to call.

    Source: ISO 14253-1, guard bands of U either side; docs/choices.md.
    """
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
    """What would settle a verdict: ``repeats`` in all with the tool in use, or the finer ``tool``; neither where nothing would.

    ``chance``: how probable it is that it does, from the present value and the U that would then hold.
    """

    repeats: int | None = None
    tool: str | None = None
    chance: float = 0.0


MOST_REPEATS = 6  # more than this at one place and a finer tool is the honest answer
LIKELY, EVEN = 0.7, 0.4  # chances from which something is likely to settle it, or as likely as not
SPARES = 0.2  # chance from which it is read again all the same: a reading costs a minute, a lift for a turn that was not needed an hour


def what_settles(
    figure: Measured, aim: Aim, readings: Sequence[int], tool: Tool, others: Sequence[Tool], weight: float
) -> Settle:
    """Return what would settle a figure that is too close to call, and how probably.

    readings: number taken at each place that feeds the figure; weight: |d(figure)/d(reading)| of one such place, all alike.
    The fewest repeats with the tool in use that are likely to do (at most MOST_REPEATS at each place), else the coarsest finer tool
    that is likely to, else whatever is the likeliest. Repeats draw the value no further than the scatter they
    average away; another tool reads anew. Under one in five nothing is told: a reading more is then no better than a turn.
    Source: ISO 14253-1, guard bands of U either side; docs/choices.md.
    """
    # The sources other than these readings (track, string) stay.
    own = weight * math.sqrt(math.fsum(_spread(tool, n) ** 2 for n in readings))
    rest = math.sqrt(max(figure.u**2 - own**2, 0.0))
    tries = []
    for n in range(max(readings, default=MOST_REPEATS) + 1, MOST_REPEATS + 1):
        then = math.hypot(rest, weight * math.sqrt(len(readings)) * _spread(tool, n))
        drawn = math.sqrt(max(figure.u**2 - then**2, 0.0))
        tries.append(Settle(n, None, _chance(figure.value, drawn, then, aim)))
    finer = [t for t in others if t.measures == tool.measures and t.step < tool.step]
    for one in sorted(finer, key=lambda t: -t.step) if readings else ():
        new = weight * math.sqrt(len(readings)) * _spread(one, 1)
        tries.append(Settle(None, one.name, _chance(figure.value, math.hypot(own, new), math.hypot(rest, new), aim)))
    likely = next((t for t in tries if t.chance >= LIKELY), None)
    best = max(tries, key=lambda t: t.chance, default=Settle())
    return likely or (best if best.chance >= SPARES else Settle())


def _chance(value: float, drawn: float, u: float, aim: Aim) -> float:
    """Return how probable a verdict is when the value is read anew: as drawn about the present one by so much (standard), with its u then."""

    def below(x: float) -> float:
        off = x - (value - aim.aim)
        return float(ndtr(off / drawn)) if drawn > 0 else float(off >= 0)

    inner, outer = aim.tolerance - COVERAGE * u, aim.tolerance + COVERAGE * u
    holds = max(below(inner) - below(-inner), 0.0) if inner > 0 else 0.0
    return holds + below(-outer) + 1 - below(outer)


def chance_to_hold(expanded: float, aim: Aim) -> float:
    """Return how probable it is that a figure which is truly on its aim is read as holding, with this U.

    Source: ISO 14253-1, guard bands of U either side; docs/choices.md.
    """
    return math.erf(max(aim.tolerance - expanded, 0.0) / (expanded / COVERAGE) / math.sqrt(2)) if expanded > 0 else 1.0


def can_hold(expanded: float, aim: Aim) -> bool:
    """Return whether any value could hold: where U > T nothing can, and that is said before measuring.

    Source: ISO 14253-1, guard bands of U either side; docs/choices.md.
    """
    return expanded <= aim.tolerance


def _spread(tool: Tool, n: int) -> float:
    """Return the standard uncertainty of the mean of n readings with a tool."""
    return tool.estimate([0.0] * n, "").u
