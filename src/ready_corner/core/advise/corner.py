"""The turns of one corner: what the trials taught, what to turn, what the car would read afterwards.

Source: bounded least squares over whole steps; docs/choices.md, Turning.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ready_corner.core.engines.alignment.steering_axis import shop_caster_deg
from ready_corner.core.engines.learning import FloatArray
from ready_corner.core.engines.turns import AlikeError, Lever, Turns, Wanted, solve
from ready_corner.core.judge.marks import Evaluation, MarkState
from ready_corner.core.judge.memory import remembered
from ready_corner.core.model.predicted import casters
from ready_corner.core.plan.corners import END_OF, Corner
from ready_corner.core.plan.marks import AIMED_KINDS, ANGLES, MARK_KINDS, OfMark, kind_of
from ready_corner.core.plan.names import turn_parts
from ready_corner.core.plan.plan import STEP_WORDS, Adjuster, Cam, Screw, Slide, Splines
from ready_corner.core.quantities.errors import MeasuredError, ReadyCornerError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import COVERAGE, Measured
from ready_corner.core.quantities.notation import FLATS_PER_TURN, nearest_flats
from ready_corner.core.quantities.verdict import Verdict, judge


class NotReadyToSetError(MeasuredError):
    """Something must be read or tried before turns can be told."""

    code = "not_ready_to_set"


@dataclass(frozen=True)
class LearnedWorth:
    """What one turn of an adjuster is worth to one mark, in its unit, with U. ``by_plan``: not tried on this car yet."""

    mark: str
    per_turn: float
    expanded: float
    by_plan: bool = False


@dataclass(frozen=True)
class AdjusterState:
    """One adjuster as it stands: turns since the plan, room each way in turns, what was learned of it; ``how`` it is made, what is ``left`` of it
    either way, plus way first.

    ``engagement``: thread diameters still engaged at its tightest end, None for shims and perches.
    """

    adjuster: Adjuster
    moved: float
    low: float
    high: float
    how: Finding
    left: tuple[Finding, Finding]
    worth: tuple[LearnedWorth, ...]
    engagement: float | None


@dataclass(frozen=True)
class Turn:
    """One thing to turn: turns or shims with their sign; ``amount`` 0 is to be left, or not known where it was not ``tried``."""

    of: Adjuster
    amount: float
    tried: bool = True

    @property
    def adjuster(self) -> str:
        """Its identity in the plan."""
        return self.of.id

    @property
    def name(self) -> str:
        """What it is called."""
        return self.of.name

    @property
    def seen(self) -> Finding | None:
        """Which way round it is turned, and as seen from where; None where nothing goes round."""
        return seen_of(self.of, self.amount)

    @property
    def caution(self) -> Finding | None:
        """What is to be minded at this step; None where nothing is turned."""
        return caution_of(self.of) if self.amount else None

    @property
    def said(self) -> Finding:
        """How far to turn it which way, or to leave it."""
        if not self.amount:
            return finding("turn.leave" if self.tried else "turn.untried")
        size, way = turn_parts(self.of, self.amount)
        return finding("turn.turn", size=size, way=way)


@dataclass(frozen=True)
class Expected:
    """What a mark would read after the turns, and the verdict that reading would get."""

    mark: str
    value: float
    expanded: float
    verdict: Verdict


@dataclass(frozen=True)
class CornerSetting:
    """The whole answer for one corner; ``sentence`` sums it up, ``why_not`` says what is wanting where there are no turns; ``rough``: what the
    shop's usual constant makes of a sweep, beside the exact figure; ``travel``: what a caster becomes over travel, by the plan."""

    corner: Corner
    adjusters: tuple[AdjusterState, ...]
    turns: tuple[Turn, ...] = ()
    expected: tuple[Expected, ...] = ()
    sentence: Finding | None = None
    reason: Finding | None = None
    why_not: Finding | None = None
    why_not_code: str = ""
    rough: Finding | None = None
    travel: Finding | None = None


@remembered
def adjuster_state(evaluation: Evaluation, adjuster: Adjuster) -> AdjusterState:
    """Return how an adjuster stands and what a turn of it was found to be worth."""
    moved = evaluation.state.moved.get(adjuster.id, 0.0)
    low, high = adjuster.room(moved)
    worth = []
    for kind in (*ANGLES, "height"):
        mark = f"{adjuster.corner}.{kind}"
        if adjuster.corner not in MARK_KINDS[kind].corners or (
            MARK_KINDS[kind].only_aimed and not evaluation.state.plan.aim(mark)
        ):
            continue
        learned = evaluation.worth_now(mark)
        if (per := learned.of(adjuster.id)) is not None:
            if evaluation.is_guess(mark, adjuster):
                continue
            by_plan = evaluation.worth(mark).of(adjuster.id) is None
            worth.append(LearnedWorth(mark, per, COVERAGE * learned.u(adjuster.id), by_plan))
    left = (_left(adjuster, 1, high), _left(adjuster, -1, low))
    return AdjusterState(adjuster, moved, low, high, _how(adjuster), left, tuple(worth), _engagement(adjuster, moved))


def _engagement(adjuster: Adjuster, moved: float) -> float | None:
    if not isinstance(adjuster.by, tuple):
        return None
    return min((end.engaged - moved * out) / end.diameter for end, out in adjuster.ends_out)


def _how(adjuster: Adjuster) -> Finding:
    per = adjuster.length_per_step
    if adjuster.kind == "shims":
        return finding("adjuster.shims", per=per)
    if isinstance(adjuster.by, Screw | Splines):
        return finding("adjuster.torsion", per=per, degrees=adjuster.by.per_step, step=STEP_WORDS.get(adjuster.kind, "turn"))
    if adjuster.raises:
        return finding("adjuster.perch", per=per)
    if isinstance(adjuster.by, Slide):
        return finding("adjuster.slide", per=per)
    if isinstance(adjuster.by, Cam):
        return finding("adjuster.cam", per=per, throw=adjuster.by.throw)
    if adjuster.kind == "tube":
        hands = [end.hand for end, _ in adjuster.ends_out]
        return finding("adjuster.tube", both=hands[0] != hands[1], per=per)
    return finding("adjuster.rod-end", per=per, half=adjuster.half_turns_only)


def _left(adjuster: Adjuster, way: int, room: float) -> Finding:
    """Return what is left of an adjuster one way, in whole steps."""
    step = adjuster.flats_per_step / FLATS_PER_TURN
    whole = int(abs(room) / step + 1e-9) * step
    size, word = turn_parts(adjuster, way * whole)
    return finding("adjuster.left", size=size, way=word) if whole else finding("adjuster.none-left", way=adjuster.way(way))


def lever_of(adjuster: Adjuster, moved: float) -> Lever:
    """Return an adjuster as the solve takes it: room and steps that all do alike, an eccentric as it stands."""
    low, high, step = adjuster.reach(moved)
    return Lever(adjuster.id, low, high, step * FLATS_PER_TURN, adjuster.name)


def amount_of(adjuster: Adjuster, moved: float, even: float) -> float:
    """Return even steps from where an adjuster stands as turns, shims or marks."""
    if adjuster.kind != "cam":
        return even
    return float(round(adjuster.uneven(adjuster.even(moved) + even) - moved))


def settled_on(found: Turns, levers: Sequence[tuple[Adjuster, float]], worth: FloatArray) -> Turns:
    """Return turns that every adjuster can be set to as it stands (each with how far it was moved): an eccentric goes to its nearest mark."""
    turns = [a.settable(moved, t) for (a, moved), t in zip(levers, found.turns, strict=True)]
    off = np.array(turns) - np.array(found.turns)
    if not off.any():
        return found
    return replace(found, turns=tuple(turns), left=tuple(float(v) for v in np.array(found.left) - worth @ off))


@remembered
def set_corner(evaluation: Evaluation, corner: Corner, chosen: tuple[str, ...] | None = None) -> CornerSetting:
    """Return what to turn at a corner so that camber and toe come to their aims together.

    chosen: adjusters to use; None uses all that were tried. Where nothing can be told, the answer says what is wanting and has
    the code of the refusal; :func:`require_turns` raises it.
    """
    plan = evaluation.state.plan
    states = tuple(adjuster_state(evaluation, a) for a in plan.adjusters if a.corner == corner)
    rough, travel = _rough_caster(evaluation, corner), _caster_over_travel(evaluation, corner)
    try:
        return replace(_solved(evaluation, corner, states, chosen), rough=rough, travel=travel)
    except ReadyCornerError as refusal:
        return CornerSetting(corner, states, why_not=refusal.finding, why_not_code=refusal.code, rough=rough, travel=travel)


def _caster_over_travel(evaluation: Evaluation, corner: Corner) -> Finding | None:
    """Return what the caster of a corner becomes at the stops of its travel: that which was read, and what the plan's linkage adds; None where either, or
    a stop, is not known."""
    mark = evaluation.mark(f"{corner}.caster") if corner in MARK_KINDS["caster"].corners else None
    stops = evaluation.state.plan.footing.end(END_OF[corner])
    if mark is None or mark.value is None or mark.moved or stops.bump is None or stops.droop is None:
        return None
    ends = casters(evaluation.state.plan, corner, (-stops.droop, 0.0, stops.bump))
    if ends is None:
        return None
    droop, bump = (OfMark(mark.mark, mark.value + end - ends[1], 0) for end in (ends[0], ends[2]))
    return finding("set.caster-over-travel", droop=droop, bump=bump)


def _rough_caster(evaluation: Evaluation, corner: Corner) -> Finding | None:
    """Return the caster of a sweep by the usual constant, and how far that is off; None where it was not swept."""
    mark = evaluation.mark(f"{corner}.caster") if corner in MARK_KINDS["caster"].corners else None
    figure = evaluation.figures.figure("caster", corner) if mark and mark.value is not None else None
    swept = [g for g in figure.groups if g.place[1] in ("sweep_in", "sweep_out")] if figure else []
    if not figure or len(swept) != len(("in", "out")):
        return None
    steered_in, out = (next(g for g in swept if g.place[1].endswith(way)).estimate.value for way in ("_in", "_out"))
    by_constant = shop_caster_deg(out, steered_in)
    off = by_constant - figure.measured.value
    return finding(
        "set.rough-caster",
        caster=OfMark(f"{corner}.caster", by_constant, 0),
        off=OfMark(f"{corner}.caster", abs(off), 0),
        more=off > 0,
    )


def require_turns(answer: CornerSetting) -> CornerSetting:
    """Return the answer, or raise what kept it from having turns."""
    if answer.why_not:
        kind = AlikeError if answer.why_not_code == AlikeError.code else None
        raise kind([a.adjuster.id for a in answer.adjusters], answer.why_not) if kind else NotReadyToSetError(answer.why_not)
    return answer


def _wanted(evaluation: Evaluation, corner: Corner) -> list[MarkState]:
    marks = [evaluation.mark(f"{corner}.{kind}") for kind in ANGLES if corner in MARK_KINDS[kind].corners]
    marks = [m for m in marks if m.aim is not None]
    if not marks:
        raise NotReadyToSetError(finding("set.no-aims", corner=corner))
    for mark in marks:
        if mark.state in ("unread", "moved since"):
            moved, quantity = mark.state == "moved since", kind_of(mark.mark)
            what = finding("set.read-first", corner=corner, quantity=quantity, moved=moved, reason=mark.reason)
            raise NotReadyToSetError(what)
    return marks


def _solved(
    evaluation: Evaluation, corner: Corner, states: tuple[AdjusterState, ...], chosen: Sequence[str] | None
) -> CornerSetting:
    links = [s for s in states if not s.adjuster.raises]
    if not links:
        raise NotReadyToSetError(finding("set.no-adjuster", corner=corner))
    marks = _wanted(evaluation, corner)
    names = {m.mark for m in marks}
    tried = [s for s in links if names <= {w.mark for w in s.worth} and (chosen is None or s.adjuster.id in chosen)]
    if not tried:
        raise NotReadyToSetError(_trial(evaluation, links, marks))
    if all(m.state == "holds" for m in marks):
        sentence, reason = finding("set.leave", corner=corner), finding("set.both-hold")
        return CornerSetting(corner, states, tuple(Turn(s.adjuster, 0.0) for s in links), (), sentence, reason)
    if not any(m.state == "out" or m.way == "turn" for m in marks):
        first = next(m for m in marks if m.state != "holds")
        sentence = finding("set.guess", corner=corner)
        reason = finding("set.too-close", quantity=kind_of(first.mark), settle=first.settle)
        return CornerSetting(corner, states, tuple(Turn(s.adjuster, 0.0) for s in links), (), sentence, reason)
    ids = [s.adjuster.id for s in tried]
    worths = [evaluation.worth_now(m.mark) for m in marks]
    matrix = np.array([[w.of(i) for i in ids] for w in worths], dtype=float)
    covariance = [w.covariance_of(ids) for w in worths]
    wanted = [wanted_of(m, m.off) for m in marks if m.aim]
    levers = [lever_of(s.adjuster, s.moved) for s in tried]
    found = settled_on(solve(wanted, levers, matrix, covariance), [(s.adjuster, s.moved) for s in tried], matrix)
    return _answer(evaluation, corner, states, tried, marks, found)


def _trial(evaluation: Evaluation, links: Sequence[AdjusterState], marks: Sequence[MarkState]) -> Finding:
    alike = sorted({a for m in marks for a in evaluation.worth_now(m.mark).alike})
    named = [s.adjuster.name for s in links if s.adjuster.id in alike]
    return finding("set.turned-together", names=named) if named else finding("set.try", adjuster=links[0].adjuster.name)


def _answer(
    evaluation: Evaluation,
    corner: Corner,
    states: Sequence[AdjusterState],
    tried: Sequence[AdjusterState],
    marks: Sequence[MarkState],
    found: Turns,
) -> CornerSetting:
    amounts = {s.adjuster.id: amount_of(s.adjuster, s.moved, t) for s, t in zip(tried, found.turns, strict=True)}
    links = [s.adjuster for s in states if not s.adjuster.raises]
    turns = tuple(Turn(a, amounts.get(a.id, 0.0), a.id in amounts) for a in links)
    expected = tuple(expected_of(m, m.off, left, u) for m, left, u in zip(marks, found.left, found.expanded, strict=True))
    count = sum(1 for t in turns if t.amount)
    missed = [OfMark(e.mark, e.value - m.aim.aim) for e, m in zip(expected, marks, strict=True) if m.aim and e.verdict == "out"]
    if found.compromise and missed:
        ended = [s.adjuster.name for s in tried if s.adjuster.id in found.at_limit]
        sentence = finding("set.compromise" if count else "set.nothing-better", corner=corner)
        still = [finding("mark.off", off=off) for off in missed]
        reason = finding("set.misses", ended=ended, adjusters=len(tried), several=len(tried) != 1, aims=len(marks), still=still)
    elif not count:
        sentence, reason = finding("set.no-step", corner=corner), _finest(evaluation, marks)
    else:
        one, sure = count == 1, all(e.verdict == "holds" for e in expected)
        sentence = finding("set.turn", corner=corner, one=one, count=_COUNTS.get(count, str(count)), sure=sure)
        reckoned = any(
            w.by_plan for s in tried if amounts.get(s.adjuster.id) for w in s.worth if w.mark in {m.mark for m in marks}
        )
        reason = finding(
            "set.why-so",
            compromise=found.compromise,
            ended=bool(found.at_limit),
            reckoned=reckoned,
            several=count > 1,
            others=len(turns) > 1,
        )
    return CornerSetting(corner, tuple(states), turns, expected, sentence, reason)


def wanted_of(mark: MarkState, off: float) -> Wanted:
    """Return a mark with an aim as the solve takes it, standing ``off`` its aim, in the unit of the mark.

    Source: docs/choices.md, Turning.
    """
    assert mark.aim is not None
    return Wanted(mark.mark, mark.aim.to_go(off), mark.aim.room(off), (mark.surely or 0.0) / COVERAGE)


def expected_of(mark: MarkState, off: float, left: float, expanded: float) -> Expected:
    """Return what a mark that stands ``off`` its aim would read where ``left`` of what is to go is left, with its U then.

    Source: docs/choices.md, Turning.
    """
    assert mark.aim is not None
    after = Measured(mark.aim.aim + off + mark.aim.to_go(off) - left, {"after": expanded / COVERAGE})
    return Expected(mark.mark, after.value, expanded, judge(after, mark.aim).verdict)


def finest(evaluation: Evaluation, mark: MarkState) -> Finding | None:
    """Return that the finest step that sets a mark is too coarse for its tolerance, and what it is worth; None where it is not."""
    step, adjuster = finest_lever(evaluation, mark.mark) if kind_of(mark.mark) in AIMED_KINDS else (0.0, None)
    if adjuster is None or mark.aim is None or step / 2 + (mark.expanded or 0.0) <= mark.aim.tolerance:
        return None
    worth = OfMark(mark.mark, step, 0)
    return finding("set.finest", step=step_of(adjuster), adjuster=adjuster.name, worth=worth, quantity=kind_of(mark.mark))


def finest_lever(found: Evaluation, mark: str) -> tuple[float, Adjuster | None]:
    """Return the least step of those adjusters that a mark is set by (no other mark of the corner feels them more), and whose it is."""
    corner, kind = mark.split(".")
    others = [f"{corner}.{k}" for k in AIMED_KINDS if k != kind]
    best: tuple[float, Adjuster | None] = (0.0, None)
    for adjuster in found.state.plan.adjusters:
        felt = {
            m: abs(found.worth_now(m).of(adjuster.id) or 0.0) / a.tolerance
            for m in (mark, *others)
            if (a := found.state.plan.aim(m))
        }
        if adjuster.corner != corner or not felt.get(mark) or felt[mark] < max(felt.values()):
            continue
        step = abs(found.worth_now(mark).of(adjuster.id) or 0.0) * adjuster.flats_per_step / FLATS_PER_TURN
        if best[1] is None or step < best[0]:
            best = step, adjuster
    return best


def _finest(evaluation: Evaluation, marks: Sequence[MarkState]) -> Finding:
    """Return the same of that of several marks which is the furthest off; where its step is fine enough, that none brings them nearer."""
    mark = max(marks, key=lambda m: abs(m.deviation or 0.0) / (m.aim.tolerance if m.aim else 1.0))
    return finest(evaluation, mark) or finding("set.step-is-none")


_COUNTS = {2: "two", 3: "three", 4: "four"}


def step_of(adjuster: Adjuster) -> Finding:
    """Return the least that an adjuster can be turned or shimmed by."""
    if adjuster.notched:
        return finding("step.whole", step=STEP_WORDS[adjuster.kind])
    return finding("step.half-turn" if adjuster.half_turns_only else "step.flat")


def seen_of(adjuster: Adjuster, amount: float) -> Finding | None:
    """Return which way round an amount is turned, and as seen from where; of a stack with a shelf what it is made of; None where nothing is to be said.

    Source: a thread of either hand, see :meth:`Adjuster.clockwise`.
    """
    if adjuster.shims and adjuster.shims.shelf and amount:
        thick = abs(amount) * adjuster.shims.thickness
        if amount < 0:
            return finding("turn.made-thinner", all=thick)
        shims = adjuster.shims.made_of(round(amount))
        return finding("turn.made-of", all=thick, shims=tuple(finding("foot.shim", thickness=s) for s in shims))
    clockwise = adjuster.clockwise(amount)
    return None if clockwise is None else finding("turn.seen", clockwise=clockwise, tube=adjuster.kind == "tube")


def caution_of(adjuster: Adjuster) -> Finding:
    """Return the caution that stands at the step of turning an adjuster."""
    return finding(f"caution.{adjuster.kind}")


def perch_turn(evaluation: Evaluation, corner: Corner) -> Turn | None:
    """Return the perch turn that brings one corner to its height, whole flats within the thread; None where there is no perch or aim.

    By what is known of this perch; the other corners are not reckoned with.
    """
    mark = evaluation.mark(f"{corner}.height")
    adjuster = evaluation.state.plan.perch(corner)
    if adjuster is None or mark.aim is None or mark.deviation is None or not adjuster.raises:
        return None
    learned = evaluation.worth_now(mark.mark).of(adjuster.id)
    per = learned or adjuster.lift_per_step
    low, high = adjuster.room(evaluation.state.moved.get(adjuster.id, 0.0))
    amount = nearest_flats(float(np.clip(mark.aim.to_go(mark.deviation) / per, low, high)))
    return Turn(adjuster, amount) if amount else None


def to_go(evaluation: Evaluation, corner: Corner, height: float) -> Finding | None:
    """Return how far a height just typed still has to go: of that reading alone, for whoever jacks towards a figure, as it counts over the floor as it is; None without an aim."""
    mark = evaluation.mark(f"{corner}.height")
    aim, rows = mark.aim, evaluation.state.latest((corner, "height"))
    if aim is None or mark.value is None or not rows:
        return None
    over = mark.value - evaluation.figures.read.group((corner, "height"), rows[-1].spell).estimate.value
    left = aim.to_go(height + over - aim.aim)
    on_it = abs(left) < 1e-9
    return finding("to-go.on-aim") if on_it else finding("to-go.left", size=OfMark(aim.mark, left), up=left > 0)
