"""The turns of one corner: what the trials taught, what to turn, what the car would read afterwards, in words."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.learning import Worth
from ready_corner.core.engines.turns import AlikeError, Lever, Turns, Wanted, solve
from ready_corner.core.judge.marks import Evaluation, MarkState, split
from ready_corner.core.judge.memory import remembered
from ready_corner.core.model.heights import corner_per_perch_turn
from ready_corner.core.model.predicted import completed, predicted
from ready_corner.core.plan.corners import CORNER_WORDS, Corner
from ready_corner.core.plan.marks import say_need, say_size, say_uncertainty, say_value
from ready_corner.core.plan.names import turn_parts, turn_words
from ready_corner.core.plan.plan import Adjuster, Perch
from ready_corner.core.quantities.errors import MeasuredError, ReadyCornerError
from ready_corner.core.quantities.measured import COVERAGE, Measured
from ready_corner.core.quantities.notation import FLATS_PER_TURN, in_units, nearest_flats, say_exact
from ready_corner.core.quantities.verdict import Verdict, judge
from ready_corner.core.record.logbook import CarState

SET_TOGETHER = ("camber", "toe")


class NotReadyToSetError(MeasuredError):
    """Something must be read or tried before turns can be told."""

    code = "not_ready_to_set"


@dataclass(frozen=True)
class LearnedWorth:
    """What one turn of an adjuster is worth to one mark, in its unit, with U; and in words. ``by_plan``: not tried on this car yet."""

    mark: str
    per_turn: float
    expanded: float
    say: str
    by_plan: bool = False


@dataclass(frozen=True)
class AdjusterState:
    """One adjuster as it stands: turns since the plan, room each way in turns, what was learned of it, in words.

    ``engagement``: thread diameters still engaged at its tightest end, None for shims and perches.
    """

    adjuster: Adjuster
    moved: float
    low: float
    high: float
    say_how: str
    say_room: str
    room: tuple[str, str]
    worth: tuple[LearnedWorth, ...]
    engagement: float | None


@dataclass(frozen=True)
class Turn:
    """One thing to turn: turns with their sign, and the sentence; ``amount`` 0 is “leave it”, or nothing known where it was not ``tried``."""

    adjuster: str
    name: str
    amount: float
    say: str
    caution: str
    size: str = ""
    way: str = ""
    tried: bool = True


@dataclass(frozen=True)
class Expected:
    """What a mark would read after the turns, and the verdict that reading would get."""

    mark: str
    value: float
    expanded: float
    verdict: Verdict
    say: str
    say_u: str
    say_aim: str


@dataclass(frozen=True)
class CornerSetting:
    """The whole answer for one corner; ``sentence`` sums it up, ``why_not`` says what is wanting where there are no turns."""

    corner: Corner
    adjusters: tuple[AdjusterState, ...]
    turns: tuple[Turn, ...] = ()
    expected: tuple[Expected, ...] = ()
    sentence: str = ""
    reason: str = ""
    why_not: str = ""
    why_not_code: str = ""


@remembered
def adjuster_state(evaluation: Evaluation, adjuster: Adjuster) -> AdjusterState:
    """Return how an adjuster stands and what a turn of it was found to be worth."""
    state, units = evaluation.state, evaluation.state.plan.units
    moved = state.moved.get(adjuster.id, 0.0)
    low, high = adjuster.room(moved)
    room = _say_room(adjuster, low, high)
    worth = []
    for kind in ("camber", "toe", "height"):
        mark = f"{adjuster.corner}.{kind}"
        learned = _worth(evaluation, mark)
        if (per := learned.of(adjuster.id)) is not None:
            by_plan = evaluation.worth(mark).of(adjuster.id) is None
            said = f"{say_value(mark, per, units, 0)} {say_uncertainty(mark, COVERAGE * learned.u(adjuster.id), units)}"
            worth.append(LearnedWorth(mark, per, COVERAGE * learned.u(adjuster.id), said, by_plan))
    return AdjusterState(
        adjuster,
        moved,
        low,
        high,
        _say_how(adjuster, state),
        f"left: {', '.join(room)}",
        room,
        tuple(worth),
        _engagement(adjuster, moved),
    )


def _worth(evaluation: Evaluation, mark: str) -> Worth:
    """Return what turns are worth to a mark: learned on the car, and by the plan where one was not tried."""
    corner, kind = split(mark)
    return completed(evaluation.worth(mark), by_plan(evaluation, corner).get(kind))


@remembered
def by_plan(evaluation: Evaluation, corner: Corner) -> dict[str, Worth]:
    """Return what the plan's linkage says turns at a corner are worth, by kind."""
    return predicted(evaluation.state.plan, corner)


def _engagement(adjuster: Adjuster, moved: float) -> float | None:
    if not isinstance(adjuster.by, tuple):
        return None
    return min((end.engaged - moved * out) / end.diameter for end, out in adjuster.ends_out)


def _say_how(adjuster: Adjuster, state: CarState) -> str:
    per = say_exact(adjuster.length_per_step, state.plan.units)
    if adjuster.kind == "shims":
        return f"shims of {per}"
    if isinstance(adjuster.by, Perch):
        return f"spring perch, {per} a turn at the spring"
    if adjuster.kind == "tube":
        hands = (
            "left- and right-hand ends"
            if adjuster.ends_out[0][0].hand != adjuster.ends_out[1][0].hand
            else "both ends the same hand"
        )
        return f"tube, {hands}, {per} a turn"
    return f"rod end, {per} a turn" + (", half turns only" if adjuster.half_turns_only else "")


def _whole_room(adjuster: Adjuster, room: float) -> float:
    step = adjuster.flats_per_step / FLATS_PER_TURN
    return int(abs(room) / step + 1e-9) * step


def _say_room(adjuster: Adjuster, low: float, high: float) -> tuple[str, str]:
    """Return what is left of it either way, plus way first."""
    more, less = (
        turn_words(adjuster, s * _whole_room(adjuster, r)) if _whole_room(adjuster, r) else f"none {adjuster.way(s)}"
        for s, r in ((1, high), (-1, low))
    )
    return more, less


@remembered
def set_corner(evaluation: Evaluation, corner: Corner, chosen: tuple[str, ...] | None = None) -> CornerSetting:
    """Return what to turn at a corner so that camber and toe come to their aims together.

    chosen: adjusters to use; None uses all that were tried. Where nothing can be told, the answer says what is wanting and has
    the code of the refusal; :func:`require_turns` raises it.
    """
    plan = evaluation.state.plan
    states = tuple(adjuster_state(evaluation, a) for a in plan.adjusters if a.corner == corner)
    try:
        return _solved(evaluation, corner, states, chosen)
    except ReadyCornerError as refusal:
        return CornerSetting(
            corner, states, why_not=refusal.say(in_units(evaluation.state.plan.units)), why_not_code=refusal.code
        )


def require_turns(answer: CornerSetting) -> CornerSetting:
    """Return the answer, or raise what kept it from having turns."""
    if answer.why_not:
        kind = AlikeError if answer.why_not_code == AlikeError.code else None
        raise kind([a.adjuster.id for a in answer.adjusters], answer.why_not) if kind else NotReadyToSetError(answer.why_not)
    return answer


def _wanted(evaluation: Evaluation, corner: Corner) -> list[MarkState]:
    marks = [evaluation.mark(f"{corner}.{kind}") for kind in SET_TOGETHER]
    marks = [m for m in marks if m.aim is not None]
    if not marks:
        raise NotReadyToSetError(
            f"The plan has no aim for camber or toe at the {CORNER_WORDS[corner]}. Give it one in the plan."
        )
    for mark in marks:
        if mark.state in ("unread", "moved since"):
            moved = "moved since, " if mark.state == "moved since" else ""
            raise NotReadyToSetError(f"Read the {CORNER_WORDS[corner]} {mark.mark.split('.')[1]} first: {moved}{mark.reason}.")
    return marks


def _solved(
    evaluation: Evaluation, corner: Corner, states: tuple[AdjusterState, ...], chosen: Sequence[str] | None
) -> CornerSetting:
    links = [s for s in states if not isinstance(s.adjuster.by, Perch)]
    if not links:
        raise NotReadyToSetError(
            f"No adjuster is named at the {CORNER_WORDS[corner]} yet. Name its tube, rod end or shims in the plan."
        )
    marks = _wanted(evaluation, corner)
    names = {m.mark for m in marks}
    tried = [s for s in links if names <= {w.mark for w in s.worth} and (chosen is None or s.adjuster.id in chosen)]
    if not tried:
        raise NotReadyToSetError(_say_trial(evaluation, links, marks))
    if all(m.state == "holds" for m in marks):
        leave = tuple(Turn(s.adjuster.id, s.adjuster.name, 0.0, "leave it", "") for s in links)
        return CornerSetting(
            corner,
            states,
            leave,
            (),
            f"{CORNER_WORDS[corner].capitalize()}: leave it, it holds",
            "Camber and toe are within tolerance beyond doubt.",
        )
    if not any(m.state == "out" or m.way == "turn" for m in marks):
        first = next(m for m in marks if m.state != "holds")
        leave = tuple(Turn(s.adjuster.id, s.adjuster.name, 0.0, "leave it", "") for s in links)
        sentence = f"{CORNER_WORDS[corner].capitalize()}: leave it; a turn would be a guess"
        reason = f"{first.mark.split('.')[1].capitalize()} is too close to call. {first.settle}"
        return CornerSetting(corner, states, leave, (), sentence, reason)
    ids = [s.adjuster.id for s in tried]
    worths = [_worth(evaluation, m.mark) for m in marks]
    matrix = np.array([[w.of(i) for i in ids] for w in worths], dtype=float)
    covariance = [w.covariance_of(ids) for w in worths]
    wanted = [Wanted(m.mark, -(m.deviation or 0.0), m.aim.tolerance, (m.expanded or 0.0) / COVERAGE) for m in marks if m.aim]
    levers = [Lever(s.adjuster.id, s.low, s.high, s.adjuster.flats_per_step, s.adjuster.name) for s in tried]
    found = solve(wanted, levers, matrix, covariance)
    return _said(evaluation, corner, states, tried, marks, found)


def _say_trial(evaluation: Evaluation, links: Sequence[AdjusterState], marks: Sequence[MarkState]) -> str:
    alike = sorted({a for m in marks for a in evaluation.worth(m.mark).alike})
    named = [s.adjuster.name for s in links if s.adjuster.id in alike]
    if named:
        return f"{' and '.join(named)} were only ever turned together, so they cannot be told apart. Turn one of them by itself and read again."
    return f"Nothing at this corner was tried yet: turn {links[0].adjuster.name} a known amount, such as one turn, then read camber and toe again."


def _said(
    evaluation: Evaluation,
    corner: Corner,
    states: Sequence[AdjusterState],
    tried: Sequence[AdjusterState],
    marks: Sequence[MarkState],
    found: Turns,
) -> CornerSetting:
    units = evaluation.state.plan.units
    amounts = dict(zip([s.adjuster.id for s in tried], found.turns, strict=True))
    turns = tuple(
        _turn(s.adjuster, amounts.get(s.adjuster.id, 0.0), s.adjuster.id in amounts)
        for s in states
        if not isinstance(s.adjuster.by, Perch)
    )
    expected = []
    for mark, left, expanded in zip(marks, found.left, found.expanded, strict=True):
        assert mark.aim is not None
        after = Measured(mark.aim.aim - left, {"after": expanded / COVERAGE})
        expected.append(
            Expected(
                mark.mark,
                after.value,
                expanded,
                judge(after, mark.aim).verdict,
                say_value(mark.mark, after.value, units, 0),
                say_uncertainty(mark.mark, expanded, units),
                mark.say_aim,
            )
        )
    count = sum(1 for t in turns if t.amount)
    where = CORNER_WORDS[corner].capitalize()
    missed = [e for e, left in zip(expected, found.left, strict=True) if e.verdict == "out"]
    if found.compromise and missed:
        worst = " and ".join(
            say_need(e.mark, e.value - m.aim.aim, units)
            for e, m in zip(expected, marks, strict=True)
            if m.aim and e.verdict == "out"
        )
        why = (
            f"the thread of {' and '.join(s.adjuster.name for s in tried if s.adjuster.id in found.at_limit)} ends first"
            if found.at_limit
            else f"{len(tried)} adjuster{'s' * (len(tried) != 1)} cannot meet {len(marks)} aims"
        )
        return CornerSetting(
            corner,
            tuple(states),
            turns,
            tuple(expected),
            f"{where}: the best compromise" if count else f"{where}: nothing better within reach",
            f"{why.capitalize()}; afterwards it still {worst}.",
        )
    if not count:
        return CornerSetting(
            corner,
            tuple(states),
            turns,
            tuple(expected),
            f"{where}: no whole flat would better it",
            _say_finest(evaluation, states, marks),
        )
    sure = all(e.verdict == "holds" for e in expected)
    spanner = "one turn of the spanner" if count == 1 else f"{_COUNTS.get(count, count)} turns of the spanner"
    does = (
        ("puts it right" if count == 1 else "put it right") if sure else ("brings it near" if count == 1 else "bring it near")
    )
    sentence = f"{where}: {spanner} {does}"
    reason = (
        "All together. One on its own undoes another."
        if count > 1
        else "The other adjusters stay where they are."
        if len(turns) > 1
        else ""
    )
    if any(w.by_plan for s in tried if amounts.get(s.adjuster.id) for w in s.worth if w.mark in {m.mark for m in marks}):
        reason = f"Reckoned by the plan, not tried on this car yet: read again afterwards, and it is known. {reason}"
    if found.compromise:
        reason = f"The best compromise: {'the thread ends first' if found.at_limit else 'fewer adjusters than aims'}, and both aims stay within reach. {reason}"
    return CornerSetting(corner, tuple(states), turns, tuple(expected), sentence, reason.strip())


def _say_finest(evaluation: Evaluation, states: Sequence[AdjusterState], marks: Sequence[MarkState]) -> str:
    """Return what would have to change where no step betters a corner: the thread, or the tolerance, with what one step is worth."""
    units = evaluation.state.plan.units
    mark = max(marks, key=lambda m: abs(m.deviation or 0.0) / (m.aim.tolerance if m.aim else 1.0))
    steps = [
        (abs(w.per_turn) * s.adjuster.flats_per_step / FLATS_PER_TURN, s.adjuster)
        for s in states
        for w in s.worth
        if w.mark == mark.mark and w.per_turn and not isinstance(s.adjuster.by, Perch)
    ]
    if not steps:
        return "The nearest step is no step at all."
    finest, adjuster = min(steps, key=lambda row: row[0])
    one = "one shim" if adjuster.kind == "shims" else "half a turn" if adjuster.half_turns_only else "one flat"
    return f"{one.capitalize()} of {adjuster.name} is worth {say_size(mark.mark, finest, units, 0)} of {mark.mark.split('.')[1]}. A finer thread, a thinner shim or a wider tolerance would have to come first."


_COUNTS = {2: "two", 3: "three", 4: "four"}
_CAUTIONS = {
    "tube": "Both jam nuts off first, both locked after; keep the rod ends from turning.",
    "rod_end": "Jam nut first; lock it before the wheel turns.",
    "shims": "Car on stands, second support under the sill, before the bolts come out.",
    "perch": "Springs hold energy: unload it and stand the car on stands before the perch is turned.",
}


def _turn(adjuster: Adjuster, amount: float, tried: bool) -> Turn:
    say = turn_words(adjuster, amount) if amount else "leave it" if tried else "not tried yet"
    size, way = turn_parts(adjuster, amount) if amount else ("", "")
    return Turn(adjuster.id, adjuster.name, amount, say, _CAUTIONS[adjuster.kind] if amount else "", size, way, tried)


def caution_of(adjuster: Adjuster) -> str:
    """Return the caution that stands at the step of turning an adjuster."""
    return _CAUTIONS[adjuster.kind]


def perch_turn(evaluation: Evaluation, corner: Corner) -> Turn | None:
    """Return the perch turn that brings one corner to its height, whole flats within the thread; None where there is no perch or aim.

    By what was learned of this perch, else by its spring ratio at unchanged load; the other corners are not reckoned with.
    """
    mark = evaluation.mark(f"{corner}.height")
    adjuster = evaluation.state.plan.perch(corner)
    if adjuster is None or mark.deviation is None or not isinstance(adjuster.by, Perch):
        return None
    learned = evaluation.worth(mark.mark).of(adjuster.id)
    per = learned or corner_per_perch_turn(adjuster.by.pitch_mm_per_turn, adjuster.by.spring_per_wheel)
    low, high = adjuster.room(evaluation.state.moved.get(adjuster.id, 0.0))
    amount = nearest_flats(float(np.clip(-mark.deviation / per, low, high)))
    return _turn(adjuster, amount, True) if amount else None


def say_to_go(evaluation: Evaluation, corner: Corner, height: float) -> str:
    """Return how far a height just typed still has to go: of that reading alone, for whoever jacks towards a figure."""
    aim = evaluation.state.plan.aim(f"{corner}.height")
    if aim is None:
        return ""
    to_go = aim.aim - height
    units = evaluation.state.plan.units
    return "on the aim" if abs(to_go) < 1e-9 else f"{say_size(aim.mark, to_go, units)} {'up' if to_go > 0 else 'down'} to go"
