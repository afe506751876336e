"""Every mark of a car with its state: unread, out, too close to call, holds, moved since; and the reason why.

Source: ISO 14253-1, guard bands of U either side; what moves a mark by docs/choices.md (What no longer holds).
"""

import math
from bisect import bisect_right
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any, Literal

import numpy as np

from ready_corner.core.engines.learning import (
    FloatArray,
    IntArray,
    Observations,
    WorthOfTurns,
    contradicted,
    known_otherwise,
    learn,
    with_hardly,
)
from ready_corner.core.judge.doubts import mostly
from ready_corner.core.judge.figures import Figures
from ready_corner.core.judge.hubs import HUB_SET
from ready_corner.core.judge.leans import of_floor
from ready_corner.core.judge.memory import Memory, note, remembered
from ready_corner.core.judge.reach import is_usual
from ready_corner.core.judge.read import EDGES, EVERY_PLACE, TURNED_BACK, Figure, Group, joined, tools_for
from ready_corner.core.judge.strings import HUBS_OFF
from ready_corner.core.plan.corners import CORNERS, SIDE, Corner
from ready_corner.core.plan.marks import CORNER_KINDS, MARK_KINDS, MARKS, OVER_FLOOR, OfMark, kind_of
from ready_corner.core.plan.plan import Adjuster, twin_of
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import COVERAGE, KNOWN_AS_U, Measured
from ready_corner.core.quantities.tools import EYE, Tool
from ready_corner.core.quantities.verdict import (
    EVEN,
    LIKELY,
    MOST_REPEATS,
    SPARES,
    SPOILS,
    Aim,
    ReadWith,
    Settle,
    can_hold,
    chance_anew,
    chance_to_hold,
    finer_than,
    judge,
    spread,
    what_settles,
)
from ready_corner.core.record.happenings import UNSETTLED, Stuck, Turned
from ready_corner.core.record.logbook import CarState, Entry, fold_all
from ready_corner.core.record.moves import Move
from ready_corner.core.record.notes import Correction, Note
from ready_corner.core.record.readings import Taken

SINCE = "moved since"
State = Literal["unread", "out", "too close to call", "holds", "moved since"]
# How a mark that is too close to call is settled: read again, with another tool, once the car is ready, by turning, by a finer tool or wider tolerance.
Way = Literal["", "read", "tool", "half", "hubs", "pads", "ready", "turn", "plan"]
RUNS = ("camber", "toe")  # kinds of marks that half a turn of the wheel frees of run-out
TWINS_UNLIKE = 0.15  # share by which a link does otherwise than its twin on the other side, standard uncertainty: pickups lie 1 to 3 mm off
HUB_ASKED_MM = 0.3  # by which a hub has to have gone for its gap to be worth reading again
HARDLY_LIFTS = 0.5  # mm or kg a turn, standard uncertainty: what a link of which nothing is told does to heights and loads


@dataclass(frozen=True)
class MarkState:
    """One mark with its verdict. Value, U and deviation in mm or degrees; None where there is none yet.

    ``state`` is None for a figure the plan has no aim for. ``reason``: why the mark stands as it does, ``settle``: what would decide it, by
    ``way``, and ``chance`` how probably. ``denominator``: of the fraction its value is said in. ``odd``: entry number of a repeat that disagrees
    with its fellows. ``moved``: something has moved it since; ``effect``: by what as far as that is reckoned, in its unit. ``read_with``: what would have to be read with for a turn to be told from noise. ``mostly``: what its U is mostly made of.
    ``aside``: by how much it is known to be otherwise than it reads, hubs not being where the plan has them yet; ``surely``: its U but for that; ``once_set``: its U but for where the hubs
    stand while links are to be turned yet.
    """

    mark: str
    state: State | None
    value: float | None = None
    expanded: float | None = None
    deviation: float | None = None
    aim: Aim | None = None
    denominator: int | None = None
    reason: Finding | None = None
    settle: Finding | None = None
    way: Way = ""
    chance: float | None = None
    number: int = 0
    repeats: int = 0
    odd: int | None = None
    provisional: bool = False
    moved: bool = False
    effect: float = 0.0
    by_eye: bool = False
    read_with: Finding | None = None
    mostly: Finding | None = None
    aside: float = 0.0
    surely: float | None = None
    once_set: float | None = None

    @property
    def off(self) -> float:
        """How far off its aim it stands as read, what it is known to be read out by taken out, in its unit."""
        return (self.deviation or 0.0) + self.aside

    @property
    def fresh(self) -> bool:
        """Whether its value counts now: read, and nothing has moved it since."""
        return self.value is not None and not self.moved and self.state != "unread"


@dataclass(frozen=True)
class _Effect:
    """What changes after a reading come to: their computed sum with its U, and the first whose effect is not known."""

    total: float = 0.0
    known: tuple[Move, ...] = ()
    unknown: Move | None = None
    expanded: float = 0.0


@dataclass(frozen=True)
class Evaluation:
    """A state of a car judged: every figure and mark, worked out when asked for and kept in its memory."""

    memory: Memory
    figures: Figures
    _begun: "Evaluation | None" = field(default=None, compare=False, repr=False)

    @property
    def before_turns(self) -> "Evaluation":
        """The car as it was before what was turned last: before all turns after which nothing but turns was written down."""
        note("entries")  # it hangs on which of them were turns
        tail = _turns_last(self.given)
        if not tail:
            return self
        if self._begun is not None:
            return self._begun
        return evaluate(fold_all(None, self.given.entries[: -len(tail)]))

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
    @remembered
    def marks(self) -> tuple[MarkState, ...]:
        """All marks, in the order of the walk-round."""
        return tuple(self.mark(m) for m in MARKS)

    @remembered
    def _touching(self, mark: str) -> list[Move]:
        """Return the changes that could move a corner mark."""
        corner, kind = split(mark)
        places = {(corner, q) for q in EVERY_PLACE[kind]}
        return [m for m in self.state.moves if (m.adjuster or m.unknown) and not places.isdisjoint(m.moves)]

    @remembered
    def worth(self, mark: str) -> WorthOfTurns:
        """Return what turns are worth to a corner mark by its readings before and after them alone."""
        return learn(self.observations(mark)) if self._touching(mark) else WorthOfTurns()

    def is_guess(self, mark: str, adjuster: Adjuster) -> bool:
        """Whether what an adjuster does to a corner mark is known only as such links usually are: the plan does not say it, nor has the car."""
        return is_usual(self.state.plan, adjuster) and self.worth(mark).of(adjuster.id) is None

    @remembered
    def observations(self, mark: str) -> Observations:
        """Return the figures of a corner mark in every spell in which it was read whole, with the turns that went before."""
        corner, kind = split(mark)
        seen, (changes, adjusters, turned, unknown) = self.figures.seen(kind, corner), self._lessons(mark)
        after = np.searchsorted(changes, seen.number, side="left") - 1
        stretch = np.searchsorted(unknown, seen.number, side="left")
        return Observations(adjusters, turned[after], seen.value, seen.u, stretch, seen.number)

    @remembered
    def _lessons(self, mark: str) -> tuple[IntArray, tuple[str, ...], FloatArray, IntArray]:
        """Return the entry of every change, what was turned that could move a mark, how far by then, and the entries of what else could."""
        moves, sums = self._touching(mark), self.figures.read.turned
        adjusters = tuple(sorted({m.adjuster for m in moves if m.adjuster}))
        return (
            np.array(sums.numbers),
            adjusters,
            sums.of(adjusters),
            np.array([m.number for m in moves if m.unknown], dtype=int),
        )

    def turned_at(self, adjuster: str, number: int) -> float:
        """Return how far an adjuster had been turned in all by an entry, in turns."""
        return self.figures.read.turned.between(0, number).get(adjuster, 0.0)

    def _effect(self, mark: str, number: int) -> _Effect:
        """Return what the changes after a reading of a corner mark come to, by what was learned on this car."""
        worth, turned, latest = self.worth_now(mark), dict[str, float](), dict[str, Move]()
        corner, kind = split(mark)
        places = {(corner, q) for q in EVERY_PLACE[kind]}
        for move in self.state.moves[bisect_right(self._moved_at, number) :]:
            if not (move.adjuster or move.unknown):
                continue
            hit = not places.isdisjoint(move.moves)
            if move.unknown and hit:
                return _Effect(0.0, (), move)
            if not move.unknown and (hit or worth.of(move.adjuster) is not None):
                turned[move.adjuster] = turned.get(move.adjuster, 0.0) + move.amount
                latest[move.adjuster] = move
        # There and back moves nothing, however little is known of it.
        net = {a: n for a, n in turned.items() if abs(n) > TURNED_BACK}
        if not net:
            return _Effect()
        if untold := next((a for a in net if worth.of(a) is None), ""):
            return _Effect(0.0, (), latest[untold])
        amounts, covariance = np.array(list(net.values())), worth.covariance_of(list(net))
        by = {a: (worth.of(a) or 0.0) * n for a, n in net.items()}
        most = max(net, key=lambda a: abs(by[a]) + COVERAGE * worth.u(a) * abs(net[a]))
        expanded = COVERAGE * float(np.sqrt(max(float(amounts @ covariance @ amounts), 0.0)))
        return _Effect(sum(by.values()), (latest[most],), None, expanded)

    @remembered
    def worth_now(self, mark: str) -> WorthOfTurns:
        """Return what turns are worth to a corner mark: by the plan, updated by what the car itself has shown, each by its weight; of links that are known only
        as such links usually are, by what their twins on the other side have shown too."""
        by_plan = self.reach.get(mark)
        if by_plan is not None and (twins := self._twins(mark)):
            by_plan = known_otherwise(by_plan, twins)
        return self._worth_from(mark, by_plan)

    @remembered
    def _twins(self, mark: str) -> dict[str, tuple[float, float]]:
        """Return what the twin of each link of a corner has shown on the other side of the car, with its u², where that says more than what is usual."""
        corner, kind = split(mark)
        plan, found, by_plan = self.state.plan, dict[str, tuple[float, float]](), self.reach.get(mark)
        pairs = [(a, t) for a in plan.adjusters if a.corner == corner and is_usual(plan, a) and (t := plan.twin(a))]
        if by_plan is None or not pairs:
            return found
        other = f"{twin_of(corner)}.{kind}"
        shown = self._worth_from(other, self.reach.get(other))
        for a, twin in pairs:
            if a.id not in by_plan.adjusters or (value := shown.of(twin.id)) is None:
                continue
            if (u2 := shown.u(twin.id) ** 2 + (TWINS_UNLIKE * value) ** 2) < by_plan.u(a.id) ** 2:
                found[a.id] = value, u2
        return found

    def _worth_from(self, mark: str, by_plan: WorthOfTurns | None) -> WorthOfTurns:
        """Return what turns are worth to a corner mark by what was known before, updated by what the car has shown there."""
        if by_plan is None:
            return self.worth(mark)
        if not self._touching(mark):
            return by_plan
        seen, alone = self.observations(mark), self.worth(mark)
        before = contradicted(by_plan, alone)
        if kind_of(mark) not in ("height", "load"):
            return learn(seen, before)
        # What a link of which nothing is told did to a height is not laid to the perch that was turned with it; it is known for all that only where it was seen.
        found = learn(seen, with_hardly(before, seen.adjusters, HARDLY_LIFTS))
        return found.only([a for a in found.adjusters if a in by_plan.adjusters or a in alone.adjusters])

    @property
    def reach(self) -> Mapping[str, WorthOfTurns]:
        """What turns are worth to every corner mark by the plan alone, the links of a bar off."""
        return self.figures.ground.reach.marks

    @property
    @remembered
    def _moved_at(self) -> list[int]:
        return [m.number for m in self.state.moves]

    def _corner_mark(self, mark: str) -> MarkState:
        corner, kind = split(mark)
        figure = self.figures.figure(kind, corner)
        if figure is None:
            aim, wanted_for = self.state.plan.aim(mark), self.wanted_for(mark)
            missing = self._missing(corner, kind)
            reason = missing if aim or not wanted_for else finding("mark.wanted-for", reason=missing, marks=wanted_for)
            return MarkState(mark, "unread" if aim or wanted_for else None, aim=aim, reason=reason)
        judged = self._judged(mark, figure.measured, figure, self._effect(mark, figure.number))
        if kind == "toe" and judged.fresh and (hub := self.figures.hub_left(corner, figure)):
            at, by, sure = hub
            known = abs(by) > sure
            reason = (
                finding("mark.hub-moved", corner=at, by=abs(by), out=by > 0)
                if known
                else finding("mark.hub-perhaps", corner=at, by=sure)
            )
            return replace(judged, state="moved since" if judged.aim else None, reason=reason, moved=True, settle=None, way="")
        return judged

    def is_wanted(self, mark: str) -> bool:
        """Whether anybody wants a mark: it has an aim, or one that has cannot be told without it."""
        return self.state.plan.aim(mark) is not None or bool(self.wanted_for(mark))

    @remembered
    def wanted_for(self, mark: str) -> tuple[str, ...]:
        """Return the marks with an aim that cannot be told without another one: the sums it is a part of, and angles counted from the frame by its heights."""
        kind, aims = kind_of(mark), [a.mark for a in self.state.plan.aims_now]
        plates = self.state.plan.ways.reads("total_toe").name == "plates"
        found = [
            m
            for m in aims
            if kind_of(m) not in CORNER_KINDS
            and not (plates and kind_of(m) == "total_toe")
            and any(name == mark for name, _ in self.figures.whole(m))
        ]
        if kind == "height" and self.state.jig.zero == "frame":
            found += [m for m in aims if kind_of(m) in OVER_FLOOR]
        if kind == "toe" and self.state.plan.ways.reads("toe").name == "bars":  # the line down the middle lies by all four hubs
            found += [m for m in aims if kind_of(m) == "toe"]
        if kind == "load":
            found += [m for m in aims if m == "car.cross_weight" and m not in found]
        return tuple(m for m in dict.fromkeys(found) if m != mark)

    def _whole_mark(self, mark: str) -> MarkState:
        place, kind = mark.split(".")
        plates = self.figures.by_plates(place) if kind == "total_toe" else None  # type: ignore[arg-type]
        by_parts = self._of_parts(mark)
        if plates is None:
            refusal = self.figures.plates_refused(place) if kind == "total_toe" else None  # type: ignore[arg-type]
            return replace(by_parts, reason=refusal.finding) if refusal and by_parts.value is None else by_parts
        effects = [(self._effect(name, plates.number), weight) for name, weight in self.figures.whole(mark)]
        still = not any(e.known or e.unknown for e, _ in effects)
        if by_parts.value is None or (by_parts.number < plates.number and (by_parts.moved or not still)):
            return self._judged(mark, plates.measured, plates, _summed(effects))
        if by_parts.number > plates.number and not still:
            return by_parts
        figures = [self.figures.figure(kind_of(name), split(name)[0]) for name, _ in self.figures.whole(mark)]
        measured = self.figures.whole_value(mark)
        assert measured
        groups = tuple(g for f in figures if f for g in f.groups)
        both = joined(mark, [Figure(measured, groups, MARK_KINDS[kind].ways[:1]), plates])
        return self._judged(mark, both.measured, both, _Effect())

    def _of_parts(self, mark: str) -> MarkState:
        parts = [(self.mark(name), weight) for name, weight in self.figures.whole(mark)]
        measured = self.figures.whole_value(mark)
        unread = [m for m, _ in parts if m.value is None]
        if measured is None or unread:
            part = unread[0] if unread else None
            reason = finding("mark.part", part=part.mark, reason=part.reason) if part else finding("mark.nothing-carried")
            aim = self.state.plan.aim(mark)
            return MarkState(mark, "unread" if aim else None, aim=aim, reason=reason)
        effects = [(self._effect(m.mark, m.number), weight) for m, weight in parts]
        figures = [f for m, _ in parts if (f := self.figures.figure(kind_of(m.mark), split(m.mark)[0]))]
        whole = Figure(measured, tuple(g for f in figures for g in f.groups))
        return self._judged(mark, measured, whole, _summed(effects))

    def _judged(self, mark: str, measured: Measured, figure: Figure, effect: _Effect) -> MarkState:
        aim = self.state.plan.aim(mark)
        denominator = 0 if any(t.reading.denominator == 0 for t in _latest(figure.groups)) else None
        aside, bare = measured.parts.get(HUBS_OFF, 0.0) / KNOWN_AS_U, _without_hubs(measured)
        if aim and not effect.unknown and not spoils(effect.total, effect.expanded, aim.tolerance):
            measured = _since(measured, effect)
        row = MarkState(
            mark, None, measured.value, measured.expanded, None if aim is None else measured.value - aim.aim, aim,
            denominator=denominator, number=figure.number, repeats=max(len(g.rows) for g in figure.groups),
            odd=next((g.odd for g in figure.groups if g.odd is not None), None), provisional=bool(figure.why), mostly=mostly(figure),
            effect=effect.total, aside=aside, surely=COVERAGE * bare.u, once_set=COVERAGE * _without_hubs(measured, HUB_SET).u, by_eye=any(g.tool.id == EYE.id for g in figure.groups),
        )  # fmt: skip
        if moved_by := effect.unknown or (effect.known[-1] if effect.known and aim is None and effect.total else None):
            return replace(row, state="moved since" if aim else None, reason=moved_by.said, moved=True)
        if aim is None:
            return replace(row, reason=finding("mark.no-aim"))
        # What could have moved it counts as having moved it: the effect, or the doubt about it, beyond the limit.
        if spoils(effect.total, effect.expanded, aim.tolerance):
            doubt = None if spoils(effect.total, 0.0, aim.tolerance) else OfMark(mark, effect.expanded)
            by = effect.known[-1]
            reason = finding("mark.moved", by=by.said, worth=OfMark(mark, effect.total, 0), doubt=doubt, entries=(by.number,))
            return replace(row, state="moved since", reason=reason, moved=True)
        judgement = judge(measured, aim)
        if figure.apart:
            return replace(row, state="too close to call", reason=figure.apart, way="read", settle=finding("settle.ways-apart"))
        if judgement.verdict == "holds":
            if row.by_eye:
                return replace(
                    row, state="too close to call", reason=finding("mark.by-eye"), way="tool", settle=finding("settle.by-eye")
                )
            if row.provisional:
                reason = finding("mark.read-unready", why=figure.why)
                return replace(row, state="too close to call", reason=reason, way="ready", settle=_ready(figure.why))
            return replace(row, state="holds", reason=finding("mark.holds"))
        if judgement.verdict == "out":
            return replace(row, state="out", reason=finding("mark.off", off=OfMark(mark, judgement.deviation)))
        off, sure = OfMark(mark, judgement.deviation), OfMark(mark, measured.expanded)
        close = replace(row, state="too close to call", reason=finding("mark.close", off=off, sure=sure))
        return self._settled(close, measured, aim, figure.groups)

    def _settled(self, row: MarkState, measured: Measured, aim: Aim, groups: tuple[Group, ...]) -> MarkState:
        """Return a mark that is too close to call with what would settle it: by what way, and how probably."""

        def by(way: Way, kind: str, **figures: Any) -> MarkState:
            return replace(row, way=way, settle=finding(kind, **figures), chance=figures.get("chance"))

        if row.odd is not None:
            return by("read", "settle.odd-repeat", entry=row.odd)
        floor = of_floor(measured)
        if floor and aim.margin(row.deviation or 0.0) >= COVERAGE * float(np.sqrt(measured.u**2 - floor)):
            return by("pads", "settle.floor")
        places, weight = places_of_figure(Figure(measured, tuple(groups)))
        tools = tools_for(self.state.plan, groups[0].place[1])
        if kind_of(row.mark) == "toe" and self._settled_by_hubs(row, measured, aim):
            return by("hubs", "settle.hubs")
        found: Settle = what_settles(measured, aim, places, tools, weight)
        turn = chance_to_hold(measured.expanded, aim) >= EVEN  # a lift for it would be likely to do
        if found.chance < (SPARES if turn else EVEN):
            found = Settle()
        odds = {"likely": found.chance >= LIKELY, "even": found.chance >= EVEN, "chance": found.chance}
        if found.repeats:
            return by("read", "settle.repeats", repeats=found.repeats, **odds)
        if found.tool:
            return by("tool", "settle.tool", tool=found.tool, **odds)
        half = self._half_round(row.mark, measured, aim, groups)
        if half >= (SPARES if turn else EVEN):
            return by("half", "settle.half-round", likely=half >= LIKELY, even=half >= EVEN, chance=half)
        if turn:
            return by("turn", "settle.on-the-edge")
        size = OfMark(aim.mark, aim.tolerance, 0)
        if better := self._provable(measured, aim, places, tools, weight):
            can = finding("settle.can-tell", how=better[1], size=size)
            return replace(by(better[0], "settle.noise-yet", can=can), read_with=can)
        if not can_hold(measured.expanded, aim):
            return by("plan", "settle.cannot-hold", size=size)
        return by("plan", "settle.noise", sure=OfMark(aim.mark, measured.expanded), size=size)

    def _settled_by_hubs(self, row: MarkState, measured: Measured, aim: Aim) -> bool:
        """Whether a toe is settled, or nothing else could settle it, by reading the gaps to its hubs again, which went with what was turned since."""
        corner, kind = split(row.mark)
        figure = self.figures.figure(kind, corner)
        if figure is None or not self.figures.hub_left(corner, figure, HUB_ASKED_MM):
            return False
        if any(broken > figure.number for broken in self.state.rig_breaks[-1:]):
            return False  # strings that lie elsewhere now are told by gaps of their own
        anew = Measured(measured.value + row.aside, _without_hubs(measured, HUB_SET).parts)
        return judge(anew, aim).verdict != "too close to call" or not can_hold(measured.expanded, aim)

    def _half_round(self, mark: str, measured: Measured, aim: Aim, groups: Sequence[Group]) -> float:
        """Return how probably a figure is settled by reading it half a turn of the wheel round too, so that run-out falls out; 0 where it does already."""
        rim = _of_rim(measured)
        if kind_of(mark) not in RUNS or not rim or all(g.is_halved for g in groups):
            return 0.0
        return chance_anew(measured.value, math.sqrt(rim), math.sqrt(max(measured.u**2 - rim, 0.0)), aim)

    def _provable(
        self, measured: Measured, aim: Aim, places: Sequence[ReadWith], toolbox: Sequence[Tool], weight: float
    ) -> tuple[Way, Finding] | None:
        """Return with what a figure on its aim would be read as holding; None where nothing in the plan does."""
        rest2 = max(measured.u**2 - spread(places, weight) ** 2, 0.0)
        rim = _of_rim(measured) if kind_of(aim.mark) in RUNS else 0.0

        def holds(then: Sequence[ReadWith]) -> bool:
            return chance_to_hold(COVERAGE * float(np.sqrt(rest2 + spread(then, weight) ** 2)), aim) >= EVEN

        for n in range(max(p.times for p in places) + 1, MOST_REPEATS + 1):
            if holds([p.again(n) for p in places]):
                return "read", finding("settle.read-times", times=n)
        tools = finer_than(places, toolbox)
        ways = [(n, -t.step, t.name) for t in tools for n in range(1, MOST_REPEATS + 1) if holds([p.by(t, n) for p in places])]
        if not ways and rim and chance_to_hold(COVERAGE * math.sqrt(max(measured.u**2 - rim, 0.0)), aim) >= EVEN:
            return "half", finding("settle.read-half")
        if not ways:
            return None
        n, _, name = min(ways)
        return "tool", finding("settle.read-with", tool=name, times=n, often=n > 1)

    @remembered
    def finer(self, mark: str) -> Finding | None:
        """Return with what in the plan a mark would be read so finely that it could hold; None where nothing reads it so."""
        found = self.mark(mark)
        kind = kind_of(mark)
        figure = self.figures.figure(kind, split(mark)[0]) if kind in CORNER_KINDS else None
        if figure is None or found.aim is None:
            return None
        if of_floor(figure.measured):
            return finding("settle.floor")
        places, weight = places_of_figure(figure)
        better = self._provable(
            figure.measured, found.aim, places, tools_for(self.state.plan, figure.groups[0].place[1]), weight
        )
        return better[1] if better else None

    def _missing(self, corner: Corner, kind: str) -> Finding:
        if refusal := self.figures.refusal(kind, corner):
            return refusal.finding
        read = [q for q in EVERY_PLACE[kind] if self.state.taken.get((corner, q))]
        if not read:
            return finding("mark.unread")
        if kind != "toe" or not set(read).issubset(EDGES):
            begun = next((w for w in MARK_KINDS[kind].ways if set(read).intersection(w.read)), MARK_KINDS[kind].ways[0])
            if left := tuple((corner, q) for q in begun.read if q not in read):
                return finding("mark.still-to-read", left=left)
            return finding("mark.parts-apart")
        if len(read) == 1:
            return finding("mark.one-edge", front=read[0] == "gap_front")
        if not self.figures.read.spells(corner, EDGES):
            return finding("mark.edges-apart")
        ways, side = self.state.plan.ways, [c for c in CORNERS if SIDE[c] == SIDE[corner]]
        if ways.strings == "marks":
            return finding("mark.string-by-marks", placed=all(c in ways.marks for c in side))
        return finding("mark.string-unknown")


def places_of_figure(figure: Figure) -> tuple[list[ReadWith], float]:
    """Return the places that feed a figure, as they were read, and what a unit of one of them does to it.

    Not the pads behind a height, nor the strings behind a toe, nor the plates of a sweep: what is read with tools like the first.
    """
    alike = [g for g in figure.groups if g.tool.measures == figure.groups[0].tool.measures]
    return [ReadWith(g.tool, len(g.rows)) for g in alike], max((_weight(figure.measured, g) for g in alike), default=0.0)


def _of_rim(measured: Measured) -> float:
    """Return the part of a figure's u² that run-out of the rims puts in."""
    return math.fsum(part**2 for name, part in measured.parts.items() if "run-out" in name)


def _weight(measured: Measured, group: Group) -> float:
    """Return what a unit of a reading at a place does to a figure, by what the step of its tool puts into it."""
    own = f"{group.place[0]}.{group.place[1]}."
    steps = [abs(part) for name, part in measured.parts.items() if name.endswith(" step") and name.startswith(own)]
    return max(steps, default=0.0) / group.tool.estimate([0.0], "a").parts["a step"]


def _summed(effects: Sequence[tuple[_Effect, float]]) -> _Effect:
    """Return what changes come to for a sum of marks, each with its weight."""
    unknown = next((e.unknown for e, _ in effects if e.unknown), None)
    # One change at several marks is one change: what it is not known by goes the same way at all of them, each by its effect.
    expanded = abs(sum(e.expanded * weight * (-1.0 if e.total < 0 else 1.0) for e, weight in effects))
    return _Effect(
        sum(e.total * weight for e, weight in effects), tuple(m for e, _ in effects for m in e.known), unknown, expanded
    )


def _since(measured: Measured, effect: _Effect) -> Measured:
    """Return a figure as surely as it is still known after changes that moved it by less than would have to be read again."""
    parts = {SINCE: KNOWN_AS_U * abs(effect.total), f"{SINCE}, unsure": effect.expanded / COVERAGE}
    return Measured(measured.value, {**measured.parts, **{n: u for n, u in parts.items() if u}})


def _without_hubs(measured: Measured, other: str = HUBS_OFF) -> Measured:
    """Return a figure as sure as it is but for hubs that are known not to be where the plan has them, and for what else is named so."""
    return Measured(measured.value, {n: u for n, u in measured.parts.items() if n != HUBS_OFF and not n.endswith(other)})


def _ready(why: Sequence[Finding]) -> Finding:
    """Return what to do so that a reading is no longer provisional."""
    return finding("settle.settle" if why == (UNSETTLED,) else "settle.make-ready")


def spoils(effect: float, expanded: float, tolerance: float) -> bool:
    """Whether what was changed moves a mark so far, or so doubtfully (U), that it is to be read again.

    Source: docs/choices.md, What no longer holds.
    """
    return max(abs(effect), expanded) > SPOILS * tolerance


def split(mark: str) -> tuple[Corner, str]:
    """Return corner and kind of a corner mark."""
    place, kind = mark.rsplit(".", 1)
    return next(c for c in CORNERS if c == place), kind


def _latest(groups: Sequence[Group]) -> list[Taken]:
    return [g.rows[-1] for g in groups]


def _turns_last(state: CarState) -> tuple[Entry, ...]:
    """Return the entries at the end of a log that are of turns, or change nothing at all; none where nothing was turned in them."""
    tail: list[Entry] = []
    for entry in reversed(state.entries):
        if not isinstance(entry.what, Turned | Stuck | Note | Correction) and entry.id not in state.struck:
            break
        tail.append(entry)
    own = {e.id for e in tail}
    while strikes := [i for i, e in enumerate(tail) if isinstance(e.what, Correction) and e.what.strikes not in own]:
        tail = tail[: strikes[0]]  # one that strikes what is earlier changes what the turns began from
        own = {e.id for e in tail}
    return tuple(tail[::-1]) if any(isinstance(e.what, Turned) and e.id not in state.struck for e in tail) else ()


def evaluate(state: CarState, before: Evaluation | None = None) -> Evaluation:
    """Return the judged state of a car; what was learned in the evaluation of an earlier state is kept where it still follows."""
    if before is not None and before.given is state:
        return before
    memory = Memory(state, before.memory if before else None)
    tail = _turns_last(state)
    follows = before is not None and 0 < len(state.entries) - len(before.given.entries) <= len(tail)
    begun = before.before_turns if before and follows and state.struck == before.given.struck else None
    return Evaluation(memory, Figures(memory), begun)
