"""What was read at the places of a car, by spell: the repeats at its places between two changes; and what a figure made of them is.

Source: docs/choices.md (Figures).
"""

import math
from bisect import bisect_left, bisect_right
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import groupby
from operator import attrgetter
from typing import NamedTuple, cast

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.judge.memory import Memory, note, remembered
from ready_corner.core.plan.corners import Corner
from ready_corner.core.plan.marks import CORNER_KINDS, MARK_KINDS, OfMark, ReadBy
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import Measured, combine
from ready_corner.core.quantities.tools import EYE, SPANS, Tool, odd_repeat
from ready_corner.core.record.logbook import CarState
from ready_corner.core.record.readings import QUANTITIES, Place, Quantity, Taken

EVERY_PLACE = cast(Mapping[str, tuple[Quantity, ...]], {k: MARK_KINDS[k].every for k in CORNER_KINDS})
EDGES: tuple[Quantity, ...] = ("gap_front", "gap_back")
WAYS_APART = "ways apart"
TURNED_BACK = 1e-9  # turns; sums of flats are no binary fractions
APART = 2.5  # standard uncertainties of their difference beyond which two ways of reading do not agree

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]
_spell_of = attrgetter("spell")


@dataclass(frozen=True)
class Group:
    """Repeats at one place in one spell, with the tool of the latest of them; other tools' repeats are set aside.

    ``odd``: entry number of a repeat that does not agree with the rest, or None.
    """

    place: Place
    spell: int
    rows: tuple[Taken, ...]
    tool: Tool

    @cached_property
    def estimate(self) -> Measured:
        """Mean of the repeats in mm or degrees; of a wheel that was read at several turns of it what its rim reads without its run-out, as far as they tell."""
        name = f"{self.place[0]}.{self.place[1]}.{self.spell}"
        found = [self.tool.estimate(rows, f"{name}.{deg:g}" if deg else name) for deg, rows in self.by_turn.items()]
        return self._known_taken_out(combine(found, self._shares.tolist()))

    def _known_taken_out(self, found: Measured) -> Measured:
        """Return a figure without what its gauge was known to read too much, by turning it end for end: with the doubt about that instead of its zero's."""
        known = self.rows[-1].known
        if known is None or any(t.known != known for t in self.rows):
            return found
        bare = replace(self.tool, zero=0.0)
        u = math.hypot(*(bare.estimate([v], "own").u for v in known)) / 2
        return Measured(found.value - sum(known) / 2, {**found.parts, f"{self.tool.id} zero": u})

    @cached_property
    def by_turn(self) -> dict[float, list[float]]:
        """What was read at each turn of the wheel, by how far round it stood, degrees."""
        found: dict[float, list[float]] = {}
        for t in self.rows:
            found.setdefault(t.reading.turned_deg, []).append(t.reading.figure)
        return dict(sorted(found.items()))

    @cached_property
    def _shares(self) -> FloatArray:
        """The share of each turn of the wheel in the figure: by least squares that of a rim that runs out once a turn, where they tell it; else alike.

        Source: least squares over a constant and the first harmonic of the turn.
        """
        if len(self.by_turn) == 1:
            return np.ones(1)
        waves = _waves(self.by_turn)
        shares: FloatArray = np.linalg.pinv(waves)[0]
        told = np.allclose(waves.T @ shares, (1.0, 0.0, 0.0), atol=1e-9)
        return shares if told else np.full(len(waves), 1 / len(waves))

    @cached_property
    def rim_left(self) -> float:
        """The share of the rim's run-out that is left in the figure: 1 as it stood, 0 where the turns of the wheel free it of that."""
        if len(self.by_turn) == 1:
            return 1.0
        left = float(np.hypot(*(self._shares @ _waves(self.by_turn)[:, 1:])))
        return left if left > 1e-9 else 0.0

    @property
    def is_halved(self) -> bool:
        """Whether run-out of the rim falls out of the figure."""
        return not self.rim_left

    @property
    def runs_out(self) -> float | None:
        """By how much the rim was found to run out in all, mm or degrees, as far as the turns that were read tell; None where they do not free the figure of it."""
        if self.rim_left:
            return None
        read = np.array([np.mean(rows) for rows in self.by_turn.values()])
        return 2 * float(np.hypot(*(np.linalg.pinv(_waves(self.by_turn)) @ read)[1:]))

    @cached_property
    def why(self) -> tuple[Finding, ...]:
        """Why it is provisional: what the car was not yet at one of the repeats."""
        return tuple(dict.fromkeys(w for t in self.rows for w in t.why))

    @cached_property
    def odd(self) -> int | None:
        """Entry number of the repeat that disagrees, if one does."""
        for deg, rows in self.by_turn.items():
            if (i := odd_repeat(rows, self.tool)) is not None:
                return [t for t in self.rows if t.reading.turned_deg == deg][i].number
        return None


@dataclass(frozen=True)
class Figure:
    """A figure of one corner: what it is, the groups of repeats read for it, and in which ways; ``apart``: two ways that do not agree, said."""

    measured: Measured
    groups: tuple[Group, ...]
    ways: tuple[ReadBy, ...] = ()
    apart: Finding | None = None

    @property
    def number(self) -> int:
        """Entry number of the latest reading in it."""
        return max(g.rows[-1].number for g in self.groups)

    @property
    def why(self) -> tuple[Finding, ...]:
        """Why it is provisional: what the car was not yet at a reading in it."""
        return tuple(dict.fromkeys(w for g in self.groups for w in g.why))


class Seen(NamedTuple):
    """A figure as it was in every spell in which it can be made (n), oldest first: value, the standard uncertainty of its own readings (zeros of
    tools, which all share, left out), latest entry, and whether it was counted from the frame."""

    spell: IntArray
    value: FloatArray
    u: FloatArray
    number: IntArray
    on_frame: NDArray[np.bool_]

    def only(self, which: NDArray[np.bool_]) -> "Seen":
        """Return the rows of a mask."""
        return Seen._make(column[which] for column in self)


def columns(rows: Sequence[tuple[int, float, float, int, bool]]) -> Seen:
    """Return rows of spell, value, u, entry and whether from the frame as columns."""
    spell, value, u, number, on_frame = zip(*rows, strict=True) if rows else ((),) * 5
    return Seen(
        np.array(spell, dtype=np.int64),
        np.array(value, dtype=np.float64),
        np.array(u, dtype=np.float64),
        np.array(number, dtype=np.int64),
        np.array(on_frame, dtype=np.bool_),
    )


def nearest(numbers: IntArray, to: IntArray) -> IntArray:
    """Return which of some entries (ascending, at least one) lies nearest to each of others; of two as near, the later."""
    after = np.minimum(np.searchsorted(numbers, to), len(numbers) - 1)
    before = np.maximum(after - 1, 0)
    nearer = np.abs(to - numbers[before]) < np.abs(numbers[after] - to)
    return np.where(nearer, before, after)


def _waves(turns: Iterable[float]) -> FloatArray:
    """Return a constant and the first harmonic at turns of a wheel in degrees (n, 3)."""
    at = np.radians(np.array(list(turns), dtype=np.float64))
    return np.column_stack([np.ones_like(at), np.cos(at), np.sin(at)])


def default_tool(plan: Plan, quantity: Quantity) -> Tool:
    """Return the tool a quantity is read with unless another is chosen."""
    facts = QUANTITIES[quantity]
    wanted = plan.tool_for.get(quantity, facts.tool)
    fitting = [t for t in plan.toolbox if t.measures == facts.measures]
    return next((t for t in fitting if t.id == wanted), fitting[0])


def tools_for(plan: Plan, quantity: Quantity) -> list[Tool]:
    """Return the tools of a plan that can read a quantity."""
    facts = QUANTITIES[quantity]
    return [t for t in plan.toolbox if t.measures == facts.measures and (facts.spanned or t.id not in SPANS)]


def joined(mark: str, made: Sequence[Figure]) -> Figure:
    """Return one figure of several ways: by their weights where they agree; where two do not, half their difference stands in U, and it is said.

    Source: weighted mean by 1/u², JCGM 100:2008, 5.1.2; docs/readings.md.
    """
    if len(made) == 1:
        return made[0]
    weights = np.array([1 / max(f.measured.u, 1e-9) ** 2 for f in made])
    whole = combine([f.measured for f in made], [float(w) for w in weights / weights.sum()])
    groups, ways = tuple(g for f in made for g in f.groups), tuple(w for f in made for w in f.ways)
    by = [(f, g, combine([f.measured, g.measured], [1.0, -1.0])) for i, f in enumerate(made) for g in made[:i]]
    first, second, off = max(by, key=lambda pair: abs(pair[2].value) / max(pair[2].u, 1e-9))
    if abs(off.value) <= APART * off.u:
        return Figure(whole, groups, ways)
    told = finding(
        "mark.ways-apart", first=second.ways[0].words, second=first.ways[0].words, off=OfMark(mark, abs(off.value), 0)
    )
    return Figure(Measured(whole.value, {**whole.parts, WAYS_APART: abs(off.value) / 2}), groups, ways, told)


def _known_tool(state: CarState, id_: str) -> Tool | None:
    """Return a tool of the plan, or of an earlier one; None where there never was one of this name."""
    return state.gone.known(state.plan, id_)


def best_of(rows: Sequence[Taken]) -> list[Taken]:
    """Return the repeats that count: those read when the car was ready, else those nearest to it that were read alike.

    What was read before the car had settled, or in another state than the plan's, is never averaged with what was read after; nor an angle
    counted from the frame with one from gravity.
    """
    rows = [t for t in rows if t.on_frame == rows[-1].on_frame]
    least = min(len(t.why) for t in rows)
    why = next(t.why for t in reversed(rows) if len(t.why) == least)
    return [t for t in rows if t.why == why]


class OfState:
    """Whatever is worked out of one state of a car when it is asked for, and kept in its ``memory``."""

    def __init__(self, memory: Memory) -> None:
        self.memory, self.state = memory, memory.state

    @property
    def plan(self) -> Plan:
        """The plan in force."""
        return self.state.plan


@dataclass(frozen=True)
class Sums:
    """How far everything was turned in all: after every change by its ``numbers`` (n + 1, 0 first), of what is named in ``adjusters`` (m,), ``turns`` (n + 1, m)."""

    numbers: list[int]
    adjusters: tuple[str, ...]
    turns: FloatArray

    def of(self, adjusters: Sequence[str]) -> FloatArray:
        """Return the turns of some adjusters after every change, (n + 1, adjusters); zeros of one that never was turned."""
        still = np.zeros(len(self.turns))
        rows = [self.turns[:, self.adjusters.index(a)] if a in self.adjusters else still for a in adjusters]
        return np.column_stack(rows) if rows else np.zeros((len(still), 0))

    def at(self, number: int) -> FloatArray:
        """Return the turns of every adjuster by an entry, (m,)."""
        return np.asarray(self.turns[bisect_right(self.numbers, number) - 1])

    def between(self, after: int, until: int | None = None) -> dict[str, float]:
        """Return how far everything was turned after an entry, until another; what was turned back is none."""
        net = (self.turns[-1] if until is None else self.at(until)) - self.at(after)
        return {a: float(by) for a, by in zip(self.adjusters, net, strict=True) if abs(by) > TURNED_BACK}


class Read(OfState):
    """What was read, by place and spell."""

    @property
    @remembered
    def turned(self) -> Sums:
        """How far everything was turned in all, after every change."""
        moves = self.state.moves
        names = tuple(dict.fromkeys(m.adjuster for m in moves if m.adjuster))
        at = {name: k for k, name in enumerate(names)}
        turns = np.zeros((len(moves) + 1, len(names)))
        for i, m in enumerate(moves, start=1):
            if m.adjuster:
                turns[i, at[m.adjuster]] = m.amount
        return Sums([0, *(m.number for m in moves)], names, np.cumsum(turns, axis=0))

    @remembered
    def at(self, place: Place) -> dict[int, tuple[Taken, ...]]:
        """Return what was read at a place, by spell, oldest first."""
        return {n: tuple(rows) for n, rows in groupby(self.state.taken.get(place, ()), _spell_of)}

    @remembered
    def spells(self, corner: Corner, quantities: tuple[Quantity, ...]) -> list[int]:
        """Return the spells in which all these places of a corner were read, oldest first."""
        first, *others = [self.at((corner, q)) for q in quantities]
        return [n for n in first if all(n in other for other in others)]

    @remembered
    def group(self, place: Place, spell: int) -> Group:
        """Return the repeats at a place in a spell in which it was read."""
        note("taken", place, spell)  # and of the place nothing else: other spells do not change it
        every = self.memory.given.taken[place]
        rows = every[bisect_left(every, spell, key=_spell_of) : bisect_right(every, spell, key=_spell_of)]
        by_tool = [
            t.reading.tool for t in rows if t.reading.tool != EYE.id
        ]  # what an eye says counts where nothing else was read
        id_ = by_tool[-1] if by_tool else EYE.id
        tool = _known_tool(self.state, id_) or default_tool(self.plan, place[1])
        own = [t for t in rows if t.reading.tool == id_]
        return Group(place, spell, tuple(best_of(own)), tool)

    @remembered
    def spells_of(self, kind: str, corner: Corner) -> list[int]:
        """Return the spells in which a mark of a corner was read in one of its ways, oldest first."""
        read = [spells for way in MARK_KINDS[kind].ways if (spells := self.spells(corner, way.read))]  # type: ignore[arg-type]
        return read[0] if len(read) == 1 else sorted({n for spells in read for n in spells})

    def ways_in(self, kind: str, corner: Corner, spell: int) -> tuple[ReadBy, ...]:
        """Return the ways in which a mark was read whole in a spell."""
        ways = MARK_KINDS[kind].ways
        return ways if len(ways) == 1 else tuple(w for w in ways if all(spell in self.at((corner, q)) for q in w.read))  # type: ignore[arg-type]

    @remembered
    def toes_read(self, corner: Corner) -> tuple[IntArray, IntArray]:
        """Return the spells in which toe was read at a corner (n), and the entry at which each was, in the order of these."""
        rows: dict[int, int] = {}
        for way in MARK_KINDS["toe"].ways:
            at = self.at((corner, way.read[1]))  # type: ignore[arg-type]
            rows |= {n: max(at[n][-1].number, rows.get(n, 0)) for n in self.spells(corner, way.read)}  # type: ignore[arg-type]
        found = sorted(rows.items(), key=lambda row: row[1])
        return np.array([n for n, _ in found], dtype=np.int64), np.array([e for _, e in found], dtype=np.int64)

    def toe_beside(self, corner: Corner, number: int) -> int | None:
        """Return the spell of toe that was read next to an entry; None where toe never was."""
        spells, numbers = self.toes_read(corner)
        return int(spells[nearest(numbers, np.array([number]))[0]]) if len(spells) else None
