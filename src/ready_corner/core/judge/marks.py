"""Every mark of a car with its state: unread, out, too close to call, holds, moved since; and the reason in words."""

from bisect import bisect_left, bisect_right
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.engines.learning import Observation, Worth, learn
from ready_corner.core.judge.figures import OWN_PLACES, Figure, Figures, Group
from ready_corner.core.judge.memory import Memory, remembered
from ready_corner.core.judge.reach import reach
from ready_corner.core.model.predicted import completed
from ready_corner.core.plan.aims import say_aim
from ready_corner.core.plan.corners import CORNERS, Corner
from ready_corner.core.plan.marks import (
    CORNER_KINDS,
    MARKS,
    kind_of,
    say_do,
    say_mark,
    say_need,
    say_size,
    say_uncertainty,
    say_value,
)
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.measured import COVERAGE, Measured
from ready_corner.core.quantities.notation import in_units
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.quantities.verdict import (
    EVEN,
    LIKELY,
    MOST_REPEATS,
    Aim,
    Settle,
    can_hold,
    chance_to_hold,
    judge,
    what_settles,
)
from ready_corner.core.record.logbook import CarState
from ready_corner.core.record.moves import Move
from ready_corner.core.record.readings import Taken

IntArray = NDArray[np.int_]
State = Literal["unread", "out", "too close to call", "holds", "moved since"]
# How a mark that is too close to call is settled: read again, with another tool, once the car is ready, by turning, by a finer tool or wider tolerance.
Way = Literal["", "read", "tool", "ready", "turn", "plan"]
Settling = tuple[Way, str, float | None, str]
NO_AIM = "no aim in the plan"
NOTHING_CARRIED = "the scales carry nothing: put the car on them"
TURNED_BACK = 1e-9  # turns; sums of flats are no binary fractions
SPOILS = 0.25  # share of the tolerance beyond which the computed effect of a change spoils a mark


@dataclass(frozen=True)
class MarkState:
    """One mark with its verdict. Value, U and deviation in mm or degrees; None where there is none yet.

    ``state`` is None for a figure the plan has no aim for. ``say`` is the value in words, ``reason`` why the mark stands as it
    does, ``do`` what an out mark needs, shortly, ``settle`` what would decide it, by ``way``, and ``chance`` how probably. ``odd`` is the entry number of a repeat that disagrees with its fellows. ``moved``: something has moved it since. ``read_with``: what
    would have to be read with for a turn to be told from noise.
    """

    mark: str
    state: State | None
    value: float | None = None
    expanded: float | None = None
    deviation: float | None = None
    aim: Aim | None = None
    say: str = "—"
    say_u: str = ""
    say_aim: str = ""
    reason: str = ""
    do: str = ""
    settle: str = ""
    way: Way = ""
    chance: float | None = None
    number: int = 0
    repeats: int = 0
    odd: int | None = None
    provisional: bool = False
    moved: bool = False
    read_with: str = ""

    @property
    def fresh(self) -> bool:
        """Whether its value counts now: read, and nothing has moved it since."""
        return self.value is not None and not self.moved and self.state != "unread"


@dataclass(frozen=True)
class _Effect:
    """What changes after a reading come to: their computed sum with its U, and the words of the first whose effect is not known."""

    total: float = 0.0
    words: tuple[str, ...] = ()
    unknown: str = ""
    expanded: float = 0.0


@dataclass(frozen=True)
class Evaluation:
    """A state of a car judged: every figure and mark, worked out when asked for and kept in its memory."""

    memory: Memory
    figures: Figures

    @property
    def state(self) -> CarState:
        """The state that is judged; what looks at it is kept for as long as what it looked at stays."""
        return self.memory.state

    @property
    def given(self) -> CarState:
        """The state as it was given, for whoever folds on from it."""
        return self.memory.given

    @remembered
    def mark(self, mark: str) -> MarkState:
        """Return one mark; see :class:`MarkState`."""
        return self._corner_mark(mark) if kind_of(mark) in CORNER_KINDS else self._whole_mark(mark)

    @property
    def marks(self) -> tuple[MarkState, ...]:
        """All marks, in the order of the walk-round."""
        return tuple(self.mark(m) for m in MARKS)

    @property
    @remembered
    def _turns(self) -> tuple[tuple[int, ...], tuple[Mapping[str, float], ...]]:
        """The number of every change, and the cumulative turns of every adjuster after it; nothing at 0."""
        sums: dict[str, float] = {}
        rows: list[tuple[int, Mapping[str, float]]] = [(0, {})]
        for move in self.state.moves:
            if move.adjuster:
                sums[move.adjuster] = sums.get(move.adjuster, 0.0) + move.amount
            rows.append((move.number, dict(sums)))
        return tuple(n for n, _ in rows), tuple(s for _, s in rows)

    @remembered
    def _touching(self, mark: str) -> list[Move]:
        """Return the changes that could move a corner mark."""
        corner, kind = split(mark)
        places = {(corner, q) for q in OWN_PLACES[kind]}
        return [m for m in self.state.moves if (m.adjuster or m.unknown) and not places.isdisjoint(m.moves)]

    @remembered
    def worth(self, mark: str) -> Worth:
        """Return what turns are worth to a corner mark, learned from its readings before and after them."""
        return learn(self.observations(mark)) if self._touching(mark) else Worth()

    @remembered
    def observations(self, mark: str) -> list[Observation]:
        """Return the figures of a corner mark in every spell in which it was read whole, with the turns that went before."""
        corner, kind = split(mark)
        seen, (changes, turned, unknown) = self.figures.seen(kind, corner), self._lessons(mark)
        numbers = [row.number for row in seen]
        after = np.searchsorted(changes, numbers, side="left") - 1
        stretch = np.searchsorted(unknown, numbers, side="left").tolist()
        return [Observation(row.value, row.u, k, turned[i], row.number) for row, i, k in zip(seen, after, stretch, strict=True)]

    @remembered
    def _lessons(self, mark: str) -> tuple[IntArray, list[Mapping[str, float]], IntArray]:
        """Return the entry of every change, how far those adjusters had been turned after it that could move a mark, and the entries of what else could."""
        moves, (numbers, sums) = self._touching(mark), self._turns
        adjusters = tuple(dict.fromkeys(m.adjuster for m in moves if m.adjuster))
        turned: list[Mapping[str, float]] = [{a: row.get(a, 0.0) for a in adjusters} for row in sums]
        return np.array(numbers), turned, np.array([m.number for m in moves if m.unknown], dtype=int)

    def turned_at(self, adjuster: str, number: int) -> float:
        """Return how far an adjuster had been turned in all by an entry, in turns."""
        numbers, sums = self._turns
        return sums[bisect_left(numbers, number + 1) - 1].get(adjuster, 0.0)

    def _effect(self, mark: str, number: int) -> _Effect:
        """Return what the changes after a reading of a corner mark come to, by what was learned on this car."""
        worth, turned, words = self.worth_now(mark), dict[str, float](), dict[str, str]()
        corner, kind = split(mark)
        places = {(corner, q) for q in OWN_PLACES[kind]}
        for move in self.state.moves[bisect_right(self._moved_at, number) :]:
            if not (move.adjuster or move.unknown):
                continue
            hit = not places.isdisjoint(move.moves)
            if move.unknown and hit:
                return _Effect(0.0, (), move.words)
            if not move.unknown and (hit or worth.of(move.adjuster) is not None):
                turned[move.adjuster] = turned.get(move.adjuster, 0.0) + move.amount
                words[move.adjuster] = move.words
        # There and back moves nothing, however little is known of it.
        net = {a: n for a, n in turned.items() if abs(n) > TURNED_BACK}
        if not net:
            return _Effect()
        if untold := next((a for a in net if worth.of(a) is None), ""):
            return _Effect(0.0, (), words[untold])
        amounts, covariance = np.array(list(net.values())), worth.covariance_of(list(net))
        by = {a: (worth.of(a) or 0.0) * n for a, n in net.items()}
        most = max(net, key=lambda a: abs(by[a]) + COVERAGE * worth.u(a) * abs(net[a]))
        expanded = COVERAGE * float(np.sqrt(max(float(amounts @ covariance @ amounts), 0.0)))
        return _Effect(sum(by.values()), (words[most],), "", expanded)

    @remembered
    def worth_now(self, mark: str) -> Worth:
        """Return what turns are worth to a corner mark: as learned on the car, and by the plan for as long as that is surer."""
        return completed(self.worth(mark), self._reach(self.state.condition.bar_connected).get(mark))

    @remembered
    def _reach(self, bar_on: bool) -> Mapping[str, Worth]:
        try:
            return reach(self.state.plan, self.figures.springs, bar_on)
        except ReadyCornerError:
            return {}

    @property
    @remembered
    def _moved_at(self) -> list[int]:
        return [m.number for m in self.state.moves]

    def _corner_mark(self, mark: str) -> MarkState:
        corner, kind = split(mark)
        figure = self.figures.figure(kind, corner)
        if figure is None:
            return MarkState(
                mark, "unread", aim=self.state.plan.aim(mark), say_aim=self._say_aim(mark), reason=self._missing(corner, kind)
            )
        return self._judged(mark, figure.measured, figure, self._effect(mark, figure.number))

    def _whole_mark(self, mark: str) -> MarkState:
        parts = [(self.mark(name), weight) for name, weight in self.figures.whole(mark)]
        measured = self.figures.whole_value(mark)
        unread = [m for m, _ in parts if m.value is None]
        if measured is None or unread:
            reason = f"{say_mark(unread[0].mark)}: {unread[0].reason}" if unread else NOTHING_CARRIED
            return MarkState(
                mark,
                "unread" if self.state.plan.aim(mark) else None,
                aim=self.state.plan.aim(mark),
                say_aim=self._say_aim(mark),
                reason=reason,
            )
        effects = [(self._effect(m.mark, m.number), weight) for m, weight in parts]
        unknown = next((e.unknown for e, _ in effects if e.unknown), "")
        total = sum(e.total * weight for e, weight in effects)
        figures = [f for m, _ in parts if (f := self.figures.figure(kind_of(m.mark), split(m.mark)[0]))]
        whole = Figure(measured, tuple(g for f in figures for g in f.groups))
        words = tuple(w for e, _ in effects for w in e.words)
        expanded = float(np.sqrt(sum((e.expanded * weight) ** 2 for e, weight in effects)))
        return self._judged(mark, measured, whole, _Effect(total, words, unknown, expanded))

    def _judged(self, mark: str, measured: Measured, figure: Figure, effect: _Effect) -> MarkState:
        aim, units = self.state.plan.aim(mark), self.state.plan.units
        denominator = 0 if any(t.reading.denominator == 0 for t in _latest(figure.groups)) else None
        row = MarkState(
            mark, None, measured.value, measured.expanded, None if aim is None else measured.value - aim.aim, aim,
            say=say_value(mark, measured.value, units, denominator), say_u=say_uncertainty(mark, measured.expanded, units),
            say_aim=self._say_aim(mark), number=figure.number, repeats=max(len(g.rows) for g in figure.groups),
            odd=next((g.odd for g in figure.groups if g.odd is not None), None), provisional=bool(figure.why),
        )  # fmt: skip
        if effect.unknown or (effect.words and aim is None and effect.total):
            return _with(row, state="moved since" if aim else None, reason=effect.unknown or effect.words[-1], moved=True)
        if aim is None:
            return _with(row, reason=NO_AIM)
        # What could have moved it counts as having moved it: the effect, or the doubt about it, beyond the limit.
        if max(abs(effect.total), effect.expanded) > SPOILS * aim.tolerance:
            about = f"worth about {say_size(mark, effect.total, units, 0)}"
            if abs(effect.total) <= SPOILS * aim.tolerance:
                about += f", sure only to {say_uncertainty(mark, effect.expanded, units)}"
            return _with(row, state="moved since", reason=f"{effect.words[-1]}, {about}", moved=True)
        judgement = judge(measured, aim)
        if judgement.verdict == "holds":
            if row.provisional:
                return _with(
                    row,
                    state="too close to call",
                    reason=f"read {' and '.join(figure.why)}",
                    settling=("ready", _say_ready(figure.why), None, ""),
                )
            return _with(row, state="holds", reason="within tolerance beyond doubt")
        if judgement.verdict == "out":
            return _with(
                row, state="out", reason=say_need(mark, judgement.deviation, units), do=say_do(mark, judgement.deviation, units)
            )
        return _with(
            row,
            state="too close to call",
            reason=f"{say_need(mark, judgement.deviation, units)}, sure to {row.say_u}",
            settling=self._settling(row, measured, aim, figure.groups),
        )

    def _settling(self, row: MarkState, measured: Measured, aim: Aim, groups: tuple[Group, ...]) -> Settling:
        """Return what would settle a mark that is too close to call: by what way, in words, and how probably."""
        if row.odd is not None:
            return (
                "read",
                f"One repeat (entry {row.odd}) does not agree with its fellows: strike it out, or read it once more.",
                None,
                "",
            )
        tool = groups[0].tool
        own = tuple(
            f"{c}.{q}." for g in groups for c, q in [g.place]
        )  # not the pads behind a height, nor the strings behind a toe
        steps = [abs(part) for name, part in measured.parts.items() if name.endswith(" step") and name.startswith(own)]
        weight = max(steps) / tool.estimate([0.0], "a").parts["a step"]
        found: Settle = what_settles(measured, aim, [len(g.rows) for g in groups], tool, self.state.plan.toolbox, weight)
        word = "likely" if found.chance >= LIKELY else "as likely as not"
        if found.repeats:
            return "read", f"Read it {found.repeats} times in all: {word} to settle it.", found.chance, ""
        if found.tool:
            return "tool", f"Read it with a {found.tool.lower()}: {word} to settle it.", found.chance, ""
        if chance_to_hold(measured.expanded, aim) >= EVEN:
            return "turn", "It lies on the edge: move it nearer to the aim.", None, ""
        size = say_size(aim.mark, aim.tolerance, self.state.plan.units, 0)
        better = self._provable(measured, aim, [len(g.rows) for g in groups], tool, weight)
        if better:
            can = f"{better[1]}, which can tell ± {size}"
            return better[0], f"A turn could not be told from noise yet: {can}.", None, can
        if not can_hold(measured.expanded, aim):
            said = f"No reading with these tools can hold ± {size}. Widen the tolerance or use a finer tool."
        else:
            said = f"A further turn cannot be told from noise with {say_uncertainty(aim.mark, measured.expanded, self.state.plan.units)} against a tolerance of {size}. Widen the tolerance or use a finer tool."
        return "plan", said, None, ""

    def _provable(
        self, measured: Measured, aim: Aim, readings: Sequence[int], tool: Tool, weight: float
    ) -> tuple[Way, str] | None:
        """Return with what a figure on its aim would be read as holding, in words; None where nothing in the plan does."""
        own2 = weight**2 * sum(tool.estimate([0.0] * n, "").u ** 2 for n in readings)
        rest2 = max(measured.u**2 - own2, 0.0)

        def holds(one: Tool, n: int) -> bool:
            u2 = rest2 + weight**2 * len(readings) * one.estimate([0.0] * n, "").u ** 2
            return chance_to_hold(COVERAGE * float(np.sqrt(u2)), aim) >= EVEN

        for n in range(max(readings) + 1, MOST_REPEATS + 1):
            if holds(tool, n):
                return "read", f"read it {n} times in all"
        finer = [t for t in self.state.plan.toolbox if t.measures == tool.measures and t.step < tool.step]
        ways = [(n, -t.step, t.name) for t in finer for n in range(1, MOST_REPEATS + 1) if holds(t, n)]
        if not ways:
            return None
        n, _, name = min(ways)
        return "tool", f"read it with a {name.lower()}{f', {n} times' if n > 1 else ''}"

    def _say_aim(self, mark: str) -> str:
        said = say_aim(self.state.plan, mark)
        return f"aim {said}" if said else ""

    def _missing(self, corner: Corner, kind: str) -> str:
        if refusal := self.figures.refusal(kind, corner):
            return refusal.say(in_units(self.state.plan.units))
        if kind != "toe":
            return "not read yet"
        read = [q for q in OWN_PLACES[kind] if self.state.taken.get((corner, q))]
        if len(read) == 1:
            return f"{'front' if read[0] == 'gap_front' else 'back'} edge read, {'back' if read[0] == 'gap_front' else 'front'} edge still to read"
        if not read:
            return "not read yet"
        if not self.figures.spells(corner, OWN_PLACES[kind]):
            return "the two edges were read with a change between: read both again"
        return "the string's own angle is not known: read the hub gaps"


def _say_ready(why: Sequence[str]) -> str:
    """Return what to do so that a reading is no longer provisional."""
    if why == ("before the car had settled",):
        return "Roll and bounce the car, say it has settled, and read again."
    return "Provisional: bring the car to the state it is to be set in, roll and bounce it, and read again."


def split(mark: str) -> tuple[Corner, str]:
    """Return corner and kind of a corner mark."""
    place, kind = mark.rsplit(".", 1)
    return next(c for c in CORNERS if c == place), kind


def _latest(groups: Sequence[Group]) -> list[Taken]:
    return [g.rows[-1] for g in groups]


def _with(
    row: MarkState,
    *,
    state: State | None = None,
    reason: str = "",
    do: str = "",
    settling: Settling = ("", "", None, ""),
    moved: bool = False,
) -> MarkState:
    way, settle, chance, with_ = settling
    return replace(row, state=state, reason=reason, do=do, settle=settle, way=way, chance=chance, moved=moved, read_with=with_)


def evaluate(state: CarState, before: Evaluation | None = None) -> Evaluation:
    """Return the judged state of a car; what was learned in the evaluation of an earlier state is kept where it still follows."""
    memory = Memory(state, before.memory if before else None)
    return Evaluation(memory, Figures(memory))
