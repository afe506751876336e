"""What the browser is shown of a car: the core's answers in the shapes of the API. No arithmetic, no judging."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Generic, TypeVar

from pydantic import ConfigDict, SerializeAsAny

from ready_corner.border.entries import (
    EntryKept,
)
from ready_corner.border.plan import AimModel, PlanModel
from ready_corner.core.advise.accept import Preview
from ready_corner.core.advise.car import CarJudged
from ready_corner.core.advise.corner import AdjusterState, CornerSetting, Turn
from ready_corner.core.advise.lift import Lift
from ready_corner.core.advise.next import Ask, Step, StepKind
from ready_corner.core.judge.marks import MarkState, State
from ready_corner.core.plan.corners import CORNERS, Corner
from ready_corner.core.plan.plan import STEP_WORDS, AdjusterKind, Plan, StringsOn
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.notation import Units
from ready_corner.core.record.jig_acts import Support, Zero
from ready_corner.core.record.logbook import CarState, PlanRevised
from ready_corner.core.record.notes import Correction
from ready_corner.core.record.readings import Drawing, Quantity, Reading
from ready_corner.core.say.entries import say_entry
from ready_corner.core.say.judged import (
    say_ask,
    say_latest,
    say_left,
    say_mark_aim,
    say_mark_do,
    say_mark_u,
    say_mark_value,
    say_toes,
    say_tread,
    say_turn,
    say_worth,
)
from ready_corner.core.simulation.practice import practised, say_practice
from ready_corner.web.lift import ExpectedView, LiftView, expected_view, lift_view
from ready_corner.web.said import FindingView, all_said, as_found, said
from ready_corner.web.view import View
from ready_corner.workshop import Told, Trouble

S = TypeVar("S")


class MarkView(View):
    """One mark with its state, figure and reason."""

    mark: str
    state: State | None
    value: float | None
    expanded: float | None
    deviation: float | None
    aim: AimModel | None
    say: str
    say_u: str
    say_aim: str
    reason: str
    do: str
    settle: str
    mostly: str
    chance: float | None
    number: int
    repeats: int
    odd: int | None
    provisional: bool
    findings: dict[str, FindingView]


class AskView(View):
    """One place of the round."""

    corner: Corner
    quantity: Quantity
    title: str
    how: str
    tool: str
    wanted: bool
    latest: str
    repeats: int
    latest_typed: str
    drawing: Drawing
    zero: Zero | None
    string: StringsOn | None
    stands: Support | None


class StepView(View):
    """What to do next."""

    kind: StepKind
    sentence: str
    reason: str
    corner: Corner | None
    quantity: Quantity | None
    half: bool
    findings: dict[str, FindingView]


class WorthView(View):
    """What a turn was found to be worth."""

    mark: str
    per_turn: float
    expanded: float
    say: str
    by_plan: bool


class AdjusterView(View):
    """An adjuster as it stands."""

    id: str
    name: str
    kind: AdjusterKind
    raises: bool
    ways: tuple[str, str]
    moved: float
    low: float
    high: float
    step: str
    say_how: str
    say_room: str
    room: tuple[str, str]
    engagement: float | None
    worth: list[WorthView]


class TurnView(View):
    """One thing to turn."""

    adjuster: str
    name: str
    amount: float
    say: str
    caution: str
    size: str
    way: str
    tried: bool
    seen: str
    clockwise: bool | None


class CornerView(View):
    """A corner's adjusters and turns."""

    corner: Corner
    adjusters: list[AdjusterView]
    turns: list[TurnView]
    expected: list[ExpectedView]
    sentence: str
    reason: str
    why_not: str
    why_not_code: str
    toe: list[str]
    rough: str
    travel: str
    tread: str
    findings: dict[str, FindingView]


class ConditionView(View):
    """The condition of the car."""

    settled: bool
    bar_connected: bool


class LastView(View):
    """The entry that one key strikes out."""

    id: str
    sentence: str
    corner: Corner | None
    quantity: Quantity | None


class TroubleView(View):
    """Since which entry a car cannot be reckoned, and whether that may be struck out."""

    number: int
    id: str
    strikable: bool
    sentence: str


class CarView(View):
    """All that is shown of a car at one entry of its logbook."""

    slug: str
    number: int
    plan_number: int
    plan: PlanModel
    condition: ConditionView
    marks: list[MarkView]
    round: list[AskView]
    floor_round: list[AskView]
    stand_round: list[AskView]
    pads: list[AskView]
    next: StepView
    lift: LiftView | None
    corners: dict[Corner, CornerView]
    holding: int
    judged: int
    progress: dict[str, float]
    steer_ahead: str
    practice: str
    surveyed: list[str]
    last: LastView | None
    trouble: TroubleView | None
    notices: list[str]


class CarChange(View):
    """Those parts of what is shown of a car that an entry has changed; what is not here stays as it was.

    ``rows``: of a part that still has the rows it had, only those that changed, by their key (of a list, their place from 0).
    """

    model_config = ConfigDict(json_schema_serialization_defaults_required=False, extra="allow")

    number: int
    last: LastView | None
    rows: dict[str, dict[str, SerializeAsAny[View]]]


class _Unjudged:
    """What is shown of a car that cannot be reckoned: nothing but that."""

    marks: tuple[MarkState, ...] = ()
    judged: tuple[MarkState, ...] = ()
    round: tuple[Ask, ...] = ()
    floor_round: tuple[Ask, ...] = ()
    stand_round: tuple[Ask, ...] = ()
    pads: tuple[Ask, ...] = ()
    holding = 0
    lift: Lift | None = None
    next = Step("plan", finding("next.not-reckoned"), finding("because.not-reckoned"))
    corners: Mapping[Corner, CornerSetting] = {}
    progress: Mapping[str, float] = {}
    steer_ahead: Finding | None = None


_UNJUDGED = _Unjudged()


@dataclass(frozen=True)
class _Part(Generic[S]):
    """One part of what is shown of a car: what it is made of, and how it is made, in the words of its plan. It is made anew only where that
    differs; of a part in rows (a list, or by a key) only the ``row`` that differs."""

    of: Callable[[Told], S]
    made: Callable[[S, Plan], object]
    row: Callable[[Any, Plan], View] | None = None


def _rows(of: Callable[[Told], Sequence[Any] | Mapping[Corner, Any]], row: Callable[[Any, Plan], View]) -> _Part[Any]:
    """Return a part in rows."""

    def made(rows: Sequence[Any] | Mapping[Corner, Any], plan: Plan) -> object:
        if isinstance(rows, Mapping):
            return {key: row(one, plan) for key, one in rows.items()}
        return [row(one, plan) for one in rows]

    return _Part(of, made, row)


def _keyed(rows: Sequence[Any] | Mapping[Any, Any]) -> dict[str, Any]:
    """Return rows by their key, or by their place in a list."""
    return dict(rows) if isinstance(rows, Mapping) else {str(i): row for i, row in enumerate(rows)}


def _own(told: Told) -> "CarJudged | _Unjudged":
    return told.judged or _UNJUDGED


def _ask(ask: Ask, plan: Plan) -> AskView:
    title, how = say_ask(ask, plan.units)
    return AskView(
        corner=ask.corner, quantity=ask.quantity, title=title, how=how, tool=ask.tool.id, wanted=ask.wanted, drawing=ask.drawing,
        latest=say_latest(ask, plan.units), repeats=ask.repeats, latest_typed=ask.latest.typed if ask.latest else "",
        zero=ask.zero, string=ask.string, stands=ask.stands,
    )  # fmt: skip


@lru_cache(1000)
def mark_view(mark: MarkState, units: Units) -> MarkView:
    """Return a mark as shown."""
    return MarkView(
        mark=mark.mark,
        state=mark.state,
        value=mark.value,
        expanded=mark.expanded,
        deviation=mark.deviation,
        aim=AimModel.model_validate(mark.aim) if mark.aim else None,
        say=say_mark_value(mark, units),
        say_u=say_mark_u(mark, units),
        say_aim=say_mark_aim(mark, units),
        reason=said(mark.reason, units),
        do=say_mark_do(mark, units),
        settle=said(mark.settle, units),
        mostly=said(mark.mostly, units),
        chance=mark.chance,
        number=mark.number,
        repeats=mark.repeats,
        odd=mark.odd,
        provisional=mark.provisional,
        findings=as_found(reason=mark.reason, settle=mark.settle),
    )


def _step(step: Step, plan: Plan) -> StepView:
    return StepView(
        kind=step.kind,
        sentence=said(step.sentence, plan.units),
        reason=said(step.reason, plan.units),
        corner=step.corner,
        quantity=step.quantity,
        half=step.half,
        findings=as_found(sentence=step.sentence, reason=step.reason),
    )


def _trouble(trouble: Trouble | None, plan: Plan) -> TroubleView | None:
    if trouble is None:
        return None
    sentence = said(trouble.finding, plan.units)
    return TroubleView(number=trouble.number, id=trouble.id, strikable=trouble.strikable, sentence=sentence)


def _names(state: CarState) -> list[str]:
    return list(dict.fromkeys([*state.surveyed, *(p for n in state.jig.noted for p in n.read.points)]))


def _settings(told: Told) -> Mapping[Corner, tuple[CornerSetting, MarkState | None, MarkState | None]]:
    own = _own(told)
    by = {m.mark: m for m in own.marks}
    return {c: (own.corners.get(c) or CornerSetting(c, ()), by.get(f"{c}.toe"), by.get(f"{c}.camber")) for c in CORNERS}


def _as_it_is(part: S, plan: Plan) -> S:
    return part


_PARTS: Mapping[str, _Part[Any]] = {
    "number": _Part(lambda t: t.state.number, _as_it_is),
    "plan_number": _Part(lambda t: t.state.plan_number, _as_it_is),
    "plan": _Part(lambda t: t.state.plan, lambda plan, _: PlanModel.from_core(plan)),
    "condition": _Part(lambda t: t.state.condition, lambda found, _: ConditionView.model_validate(found)),
    "marks": _rows(lambda t: _own(t).marks, lambda mark, plan: mark_view(mark, plan.units)),
    "round": _rows(lambda t: _own(t).round, _ask),
    "floor_round": _rows(lambda t: _own(t).floor_round, _ask),
    "stand_round": _rows(lambda t: _own(t).stand_round, _ask),
    "pads": _rows(lambda t: _own(t).pads, _ask),
    "next": _Part(lambda t: _own(t).next, _step),
    "lift": _Part(lambda t: _own(t).lift, lift_view),
    "corners": _rows(_settings, lambda row, plan: corner_view(row[0], row[1], row[2], plan)),
    "holding": _Part(lambda t: _own(t).holding, _as_it_is),
    "judged": _Part(lambda t: len(_own(t).judged), _as_it_is),
    "progress": _Part(lambda t: _own(t).progress, lambda rows, _: dict(rows)),
    "steer_ahead": _Part(lambda t: _own(t).steer_ahead, lambda ahead, plan: said(ahead, plan.units)),
    "practice": _Part(lambda t: practised(t.state), lambda what, plan: said(say_practice(what), plan.units) if what else ""),
    "surveyed": _Part(lambda t: _names(t.state), _as_it_is),
    "trouble": _Part(lambda t: t.trouble, _trouble),
    "notices": _Part(lambda t: t.notices, lambda rows, plan: all_said(rows, plan.units)),
}


def shown(told: Told, name: str) -> Any:
    """Return one part of what is shown of a car."""
    part = _PARTS[name]
    return part.made(part.of(told), told.state.plan)


def car_view(slug: str, told: Told, kept: Mapping[str, EntryKept]) -> CarView:
    """Return all that is shown of a car; where it cannot be reckoned, its plan and what is in the way."""
    return CarView(slug=slug, last=_last(told.state, kept), **{name: shown(told, name) for name in _PARTS})


def car_change(before: Told, told: Told, kept: Mapping[str, EntryKept]) -> CarChange:
    """Return those parts of what is shown of a car that are not what they were before; of another plan all of them."""
    plan, anew = told.state.plan, told.state.plan is not before.state.plan
    changed: dict[str, object] = {}
    rows: dict[str, dict[str, View]] = {}
    for name, part in _PARTS.items():
        now, was = part.of(told), part.of(before)
        if now is was and not anew:
            continue
        if part.row is None or anew or _keyed(now).keys() != _keyed(was).keys():
            if anew or now != was:
                changed[name] = part.made(now, plan)
            continue
        old = _keyed(was)
        if differing := {
            key: part.row(one, plan) for key, one in _keyed(now).items() if one is not old[key] and one != old[key]
        }:
            rows[name] = differing
    return CarChange(last=_last(told.state, kept), rows=rows, **changed)


def _last(state: CarState, kept: Mapping[str, EntryKept]) -> LastView | None:
    """Return the latest entry that is neither struck out, nor a plan, nor itself a correction."""
    for entry in reversed(state.entries):
        if entry.id not in state.struck and not isinstance(entry.what, PlanRevised | Correction) and entry.id in kept:
            place = entry.what.place if isinstance(entry.what, Reading) else (None, None)
            return LastView(id=entry.id, sentence=say_entry(state, entry), corner=place[0], quantity=place[1])
    return None


def corner_view(answer: CornerSetting, toe: MarkState | None, camber: MarkState | None, plan: Plan) -> CornerView:
    """Return the turns of a corner as shown."""
    units = plan.units
    return CornerView(
        corner=answer.corner,
        adjusters=[_adjuster(s, units) for s in answer.adjusters],
        turns=[_turn(t, units) for t in answer.turns],
        expected=[expected_view(e, plan) for e in answer.expected],
        sentence=said(answer.sentence, units),
        reason=said(answer.reason, units),
        why_not=said(answer.why_not, units),
        why_not_code=answer.why_not_code,
        rough=said(answer.rough, units),
        travel=said(answer.travel, units),
        toe=list(say_toes(toe, plan.axle_of(answer.corner), units)) if toe else [],
        tread=say_tread(camber, units) if camber else "",
        findings=as_found(sentence=answer.sentence, reason=answer.reason, why_not=answer.why_not),
    )


def _adjuster(state: AdjusterState, units: Units) -> AdjusterView:
    left = say_left(state, units)
    return AdjusterView(
        id=state.adjuster.id,
        name=state.adjuster.name,
        kind=state.adjuster.kind,
        raises=state.adjuster.raises,
        ways=(state.adjuster.way(1), state.adjuster.way(-1)),
        moved=state.moved,
        low=state.low,
        high=state.high,
        step=STEP_WORDS.get(state.adjuster.kind, "turn"),
        say_how=said(state.how, units),
        say_room=f"left: {', '.join(left)}",
        room=left,
        engagement=state.engagement,
        worth=[
            WorthView(mark=w.mark, per_turn=w.per_turn, expanded=w.expanded, by_plan=w.by_plan, say=say_worth(w, units))
            for w in state.worth
        ],
    )


def _turn(turn: Turn, units: Units) -> TurnView:
    size, way = say_turn(turn)
    return TurnView(
        adjuster=turn.adjuster, name=turn.name, amount=turn.amount, tried=turn.tried, size=size, way=way,
        say=said(turn.said, units), caution=said(turn.caution, units), seen=said(turn.seen, units), clockwise=turn.of.clockwise(turn.amount),
    )  # fmt: skip


class PreviewView(View):
    """What an entry would mean."""

    said: str
    means: str
    state: State | None
    large: str
    caution: str
    findings: dict[str, FindingView]

    @classmethod
    def of(cls, found: Preview, units: Units) -> "PreviewView":
        """Return what an entry would mean as shown."""
        words = {name: said(getattr(found, name), units) for name in ("said", "means", "large", "caution")}
        return cls(**words, state=found.state, findings=as_found(means=found.means, large=found.large, caution=found.caution))


class LogLine(View):
    """One line of the log: the entry, its sentence, and the entry that struck it out, if one did."""

    entry: EntryKept
    kind: str
    sentence: str
    struck_by: int | None
    strikable: bool


def log_lines(state: CarState, kept: Mapping[str, EntryKept], before: int | None, limit: int) -> list[LogLine]:
    """Return at most ``limit`` lines of the log before an entry, newest first, each with its sentence."""
    numbers = {e.id: e.number for e in state.entries}
    lines = []
    for entry in [e for e in reversed(state.entries) if before is None or e.number < before][:limit]:
        by, row = state.struck.get(entry.id), kept[entry.id]
        lines.append(
            LogLine(
                entry=row,
                kind=row.what.kind,
                sentence=say_entry(state, entry),
                struck_by=numbers[by] if by else None,
                strikable=by is None and row.what.kind != "plan",
            )
        )
    return lines
