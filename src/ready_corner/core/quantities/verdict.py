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
Beyond = Literal["", "over", "under"]


@dataclass(frozen=True)
class Aim:
    """What is wanted of one mark: ``aim`` with ``tolerance`` either side, in mm or degrees.

    Two limits that are not even about the aim are kept as the middle of the two and half their distance. ``source`` says where it
    is from, ``trust`` how far that is trusted, ``other`` what another source says and why it was not taken. ``typed``: a toe
    that was typed as a length over a span, as it was typed. ``beyond``: on that side of the aim everything does (a limit of one side), else the
    tolerance goes for both.
    """

    mark: str
    aim: float
    tolerance: float
    source: str = ""
    trust: Trust = ""
    other: str = ""
    typed: str = ""
    beyond: Beyond = ""

    def margin(self, deviation: float) -> float:
        """Return how far inside the nearest limit a deviation lies, minus outside, in the unit of the mark."""
        off = {"over": -deviation, "under": deviation}.get(self.beyond, abs(deviation))
        return self.tolerance - off

    def room(self, deviation: float) -> float:
        """Return how far a figure may go from its place, or from the aim where it is not on the side on which everything does."""
        return max(self.tolerance, self.margin(deviation)) if self.beyond else self.tolerance

    def to_go(self, deviation: float) -> float:
        """Return what is to be gained to come to the aim, with its sign; 0 on the side on which everything does."""
        on_open_side = (self.beyond == "over" and deviation > 0) or (self.beyond == "under" and deviation < 0)
        return 0.0 if on_open_side else -deviation

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
    """Return the verdict on a figure: |deviation| ≤ T − U holds, ≥ T + U is out, between is too close to call; of a limit of one side by that side alone.

    Source: ISO 14253-1, guard bands of U either side; docs/choices.md.
    """
    deviation, expanded = figure.value - aim.aim, figure.expanded
    # 1e-12 of the tolerance: equality belongs to the outer verdicts, and must not hang on the last bit of a sum.
    slack = 1e-12 * max(1.0, abs(figure.value), aim.tolerance)
    margin = aim.margin(deviation)
    if margin >= expanded - slack:
        return Judgement("holds", deviation, expanded)
    if margin <= -expanded + slack:
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


SPOILS = 0.25  # share of the tolerance beyond which the computed effect of a change spoils a mark
HARDLY = 0.05  # share of the tolerance up to which a change hardly moves a mark: one that does not hold is read again beyond it
MOST_REPEATS = 6  # more than this at one place and a finer tool is the honest answer
LIKELY, EVEN = 0.7, 0.4  # chances from which something is likely to settle it, or as likely as not
SPARES = 0.2  # chance from which it is read again all the same: a reading costs a minute, a lift for a turn that was not needed an hour


@dataclass(frozen=True)
class ReadWith:
    """A place that feeds a figure: the tool it was read with, and how often."""

    tool: Tool
    times: int

    @property
    def u(self) -> float:
        """Standard uncertainty of the mean of what was read there."""
        return self.tool.estimate([0.0] * self.times, "").u

    def again(self, times: int) -> "ReadWith":
        """Return it read so often in all."""
        return ReadWith(self.tool, max(times, self.times))

    def by(self, tool: Tool, times: int = 1) -> "ReadWith":
        """Return it read anew with a tool, where that is finer."""
        return ReadWith(tool, times) if tool.step < self.tool.step else self


def spread(places: Sequence[ReadWith], weight: float) -> float:
    """Return the standard uncertainty that readings at places put into a figure, each weighing ``weight``.

    Source: JCGM 100:2008, 5.1.2.
    """
    return weight * math.sqrt(math.fsum(p.u**2 for p in places))


def what_settles(figure: Measured, aim: Aim, places: Sequence[ReadWith], others: Sequence[Tool], weight: float) -> Settle:
    """Return what would settle a figure that is too close to call, and how probably.

    places: those that feed the figure; weight: |d(figure)/d(reading)| of one such place, all alike.
    The fewest repeats with the tools in use that are likely to do (at most MOST_REPEATS at each place), else the coarsest tool finer than the
    coarsest in use that is likely to, else whatever is the likeliest. Repeats draw the value no further than the scatter they
    average away; another tool reads anew. Under one in five nothing is told: a reading more is then no better than a turn.
    Source: ISO 14253-1, guard bands of U either side; docs/choices.md.
    """
    # The sources other than these readings (track, string) stay.
    rest = math.sqrt(max(figure.u**2 - spread(places, weight) ** 2, 0.0))
    tries = []
    for n in range(max((p.times for p in places), default=MOST_REPEATS) + 1, MOST_REPEATS + 1):
        then = math.hypot(rest, spread([p.again(n) for p in places], weight))
        drawn = math.sqrt(max(figure.u**2 - then**2, 0.0))
        tries.append(Settle(n, None, chance_anew(figure.value, drawn, then, aim)))
    for one in finer_than(places, others):
        anew = [p.by(one) for p in places]
        changed = [q for p, q in zip(places, anew, strict=True) if q is not p]
        drawn = spread([*(p for p, q in zip(places, anew, strict=True) if q is not p), *changed], weight)
        tries.append(Settle(None, one.name, chance_anew(figure.value, drawn, math.hypot(rest, spread(anew, weight)), aim)))
    likely = next((t for t in tries if t.chance >= LIKELY), None)
    best = max(tries, key=lambda t: t.chance, default=Settle())
    return likely or (best if best.chance >= SPARES else Settle())


def finer_than(places: Sequence[ReadWith], others: Sequence[Tool]) -> list[Tool]:
    """Return the tools that are finer than the coarsest in use at places, coarsest first.

    Source: docs/choices.md, Uncertainty.
    """
    coarsest = max((p.tool for p in places), key=lambda t: t.step, default=None)
    found = [t for t in others if coarsest and t.measures == coarsest.measures and t.step < coarsest.step]
    return sorted(found, key=lambda t: -t.step)


def chance_anew(value: float, drawn: float, u: float, aim: Aim) -> float:
    """Return how probable a verdict is when the value is read anew: as drawn about the present one by so much (standard), with its u then.

    Source: ISO 14253-1, guard bands of U either side; docs/choices.md.
    """

    def below(x: float) -> float:
        off = x - (value - aim.aim)
        return float(ndtr(off / drawn)) if drawn > 0 else float(off >= 0)

    inner, outer = aim.tolerance - COVERAGE * u, aim.tolerance + COVERAGE * u
    if aim.beyond == "over":
        return 1 - below(-inner) + below(-outer)
    if aim.beyond == "under":
        return below(inner) + 1 - below(outer)
    holds = max(below(inner) - below(-inner), 0.0) if inner > 0 else 0.0
    return holds + below(-outer) + 1 - below(outer)


def chance_to_hold(expanded: float, aim: Aim) -> float:
    """Return how probable it is that a figure which is truly on its aim is read as holding, with this U.

    Source: ISO 14253-1, guard bands of U either side; docs/choices.md.
    """
    if expanded <= 0:
        return 1.0
    room = (aim.tolerance - expanded) / (expanded / COVERAGE)
    return float(ndtr(room)) if aim.beyond else math.erf(max(room, 0.0) / math.sqrt(2))


def can_hold(expanded: float, aim: Aim) -> bool:
    """Return whether any value could hold: where U > T nothing can, and that is said before measuring; of a limit of one side something always can.

    Source: ISO 14253-1, guard bands of U either side; docs/choices.md.
    """
    return bool(aim.beyond) or expanded <= aim.tolerance
