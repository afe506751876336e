"""What the browser is shown of a car: the core's answers in the shapes of the API. No arithmetic, no judging."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Generic, TypeVar

from pydantic import BaseModel, ConfigDict

from ready_corner.border.entries import (
    CorrectionModel,
    EntryKept,
    HappenedModel,
    NoteModel,
    PlanRevisedModel,
    ReadingKept,
    SurveyedModel,
    TurnedKept,
    UnreadableModel,
    WhatKept,
)
from ready_corner.border.jig import (
    DatumModel,
    FootKept,
    JigModel,
    PinModel,
    PlainWork,
    SlopeKept,
    StatusModel,
    SupportedModel,
    SurveyReadKept,
    WorkKept,
    ZeroedModel,
)
from ready_corner.border.plan import AimModel, PlanModel
from ready_corner.border.stance import StanceModel, StateModel, TyreFittedModel
from ready_corner.core.advise.car import CarJudged
from ready_corner.core.advise.corner import CornerSetting
from ready_corner.core.advise.next import Ask, Step, StepKind, say_reading, title_of
from ready_corner.core.judge.marks import MarkState, State
from ready_corner.core.judge.revised import say_revision
from ready_corner.core.plan.names import say_point
from ready_corner.core.plan.plan import CORNER_WORDS, CORNERS, AdjusterKind, Corner, Plan
from ready_corner.core.quantities.notation import in_another_unit, say_length, say_mass
from ready_corner.core.quantities.verdict import Verdict
from ready_corner.core.record import logbook as core
from ready_corner.core.record.logbook import HAPPENING_WORDS, CarState, Quantity, place_words, turn_words
from ready_corner.core.record.stance_acts import StateSaid
from ready_corner.core.say.jig import say_point as spoken
from ready_corner.core.say.jig import say_read
from ready_corner.workshop import Told

S = TypeVar("S")


class View(BaseModel):
    """Base of what is shown."""

    model_config = ConfigDict(from_attributes=True, json_schema_serialization_defaults_required=True)


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
    chance: float | None
    number: int
    repeats: int
    odd: int | None
    provisional: bool


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


class StepView(View):
    """What to do next."""

    kind: StepKind
    sentence: str
    reason: str
    corner: Corner | None
    quantity: Quantity | None


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
    ways: tuple[str, str]
    moved: float
    low: float
    high: float
    say_how: str
    say_room: str
    engagement: float | None
    worth: list[WorthView]


class TurnView(View):
    """One thing to turn."""

    adjuster: str
    name: str
    amount: float
    say: str
    caution: str


class ExpectedView(View):
    """What a mark would read afterwards."""

    mark: str
    value: float
    expanded: float
    verdict: Verdict
    say: str
    say_u: str
    say_aim: str


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
    corners: dict[Corner, CornerView]
    holding: int
    judged: int
    progress: dict[str, float]
    steer_ahead: str
    surveyed: list[str]
    last: LastView | None
    trouble: TroubleView | None
    notices: list[str]


class CarChange(View):
    """Those parts of what is shown of a car that an entry has changed; what is not here stays as it was."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=False, extra="allow")

    number: int
    last: LastView | None


class _Unjudged:
    """What is shown of a car that cannot be reckoned: nothing but that."""

    marks: tuple[MarkState, ...] = ()
    judged: tuple[MarkState, ...] = ()
    round: tuple[Ask, ...] = ()
    floor_round: tuple[Ask, ...] = ()
    stand_round: tuple[Ask, ...] = ()
    pads: tuple[Ask, ...] = ()
    holding = 0
    next = Step("plan", "This car cannot be reckoned", "Its log and its plan are whole.")
    corners: Mapping[Corner, CornerSetting] = {}
    toe: Mapping[Corner, tuple[str, ...]] = {}
    progress: Mapping[str, float] = {}
    steer_ahead = ""


_UNJUDGED = _Unjudged()


@dataclass(frozen=True)
class _Part(Generic[S]):
    """One part of what is shown of a car: what it is made of, and how it is made. It is made anew only where that differs."""

    of: Callable[[Told], S]
    made: Callable[[S], object]


def _own(told: Told) -> "CarJudged | _Unjudged":
    return told.judged or _UNJUDGED


def _asks(rows: Sequence[Ask]) -> list[AskView]:
    return [_ask(a) for a in rows]


@lru_cache(1000)
def _ask(ask: Ask) -> AskView:
    return AskView.model_validate(ask)


@lru_cache(1000)
def _mark(mark: MarkState) -> MarkView:
    return MarkView.model_validate(mark)


def _names(state: CarState) -> list[str]:
    return list(dict.fromkeys([*state.surveyed, *(p for n in state.jig.noted for p in n.read.points)]))


def _corners(rows: Mapping[Corner, tuple[CornerSetting, tuple[str, ...]]]) -> dict[Corner, CornerView]:
    return {c: corner_view(*row) for c, row in rows.items()}


_PARTS: Mapping[str, _Part[Any]] = {
    "number": _Part(lambda t: t.state.number, int),
    "plan_number": _Part(lambda t: t.state.plan_number, int),
    "plan": _Part(lambda t: t.state.plan, PlanModel.from_core),
    "condition": _Part(lambda t: t.state.condition, ConditionView.model_validate),
    "marks": _Part(lambda t: _own(t).marks, lambda rows: [_mark(m) for m in rows]),
    "round": _Part(lambda t: _own(t).round, _asks),
    "floor_round": _Part(lambda t: _own(t).floor_round, _asks),
    "stand_round": _Part(lambda t: _own(t).stand_round, _asks),
    "pads": _Part(lambda t: _own(t).pads, _asks),
    "next": _Part(lambda t: _own(t).next, StepView.model_validate),
    "corners": _Part(
        lambda t: {c: (_own(t).corners.get(c) or CornerSetting(c, ()), _own(t).toe.get(c, ())) for c in CORNERS}, _corners
    ),
    "holding": _Part(lambda t: _own(t).holding, int),
    "judged": _Part(lambda t: len(_own(t).judged), int),
    "progress": _Part(lambda t: _own(t).progress, dict),
    "steer_ahead": _Part(lambda t: _own(t).steer_ahead, str),
    "surveyed": _Part(lambda t: _names(t.state), list),
    "trouble": _Part(lambda t: t.trouble, lambda trouble: TroubleView.model_validate(trouble) if trouble else None),
    "notices": _Part(lambda t: t.notices, list),
}


def car_view(slug: str, told: Told, kept: Mapping[str, EntryKept]) -> CarView:
    """Return all that is shown of a car; where it cannot be reckoned, its plan and what is in the way."""
    return CarView(slug=slug, last=_last(told.state, kept), **{name: p.made(p.of(told)) for name, p in _PARTS.items()})


def car_change(before: Told, told: Told, kept: Mapping[str, EntryKept]) -> CarChange:
    """Return those parts of what is shown of a car that are not what they were before."""
    parts = ((name, p, p.of(told)) for name, p in _PARTS.items())
    return CarChange(last=_last(told.state, kept), **{n: p.made(now) for n, p, now in parts if now != p.of(before)})


def _last(state: CarState, kept: Mapping[str, EntryKept]) -> LastView | None:
    """Return the latest entry that is neither struck out, nor a plan, nor itself a correction."""
    for entry in reversed(state.entries):
        if entry.id not in state.struck and not isinstance(entry.what, core.PlanRevised | core.Correction) and entry.id in kept:
            place = entry.what.place if isinstance(entry.what, core.Reading) else (None, None)
            return LastView(id=entry.id, sentence=_said(state, kept[entry.id]), corner=place[0], quantity=place[1])
    return None


def corner_view(answer: CornerSetting, toe: Sequence[str]) -> CornerView:
    """Return the turns of a corner as shown."""
    adjusters = [
        AdjusterView(
            id=s.adjuster.id,
            name=s.adjuster.name,
            kind=s.adjuster.kind,
            ways=(s.adjuster.way(1), s.adjuster.way(-1)),
            moved=s.moved,
            low=s.low,
            high=s.high,
            say_how=s.say_how,
            say_room=s.say_room,
            engagement=s.engagement,
            worth=[WorthView.model_validate(w) for w in s.worth],
        )
        for s in answer.adjusters
    ]
    return CornerView(
        corner=answer.corner,
        adjusters=adjusters,
        turns=[TurnView.model_validate(t) for t in answer.turns],
        expected=[ExpectedView.model_validate(e) for e in answer.expected],
        sentence=answer.sentence,
        reason=answer.reason,
        why_not=answer.why_not,
        why_not_code=answer.why_not_code,
        toe=list(toe),
    )


class PreviewView(View):
    """What an entry would mean."""

    said: str
    means: str
    state: State | None
    large: str
    caution: str


class LogLine(View):
    """One line of the log: the entry, its sentence, and the entry that struck it out, if one did."""

    entry: EntryKept
    kind: str
    sentence: str
    struck_by: int | None
    strikable: bool


def log_lines(state: CarState, kept: Sequence[EntryKept], before: int | None, limit: int) -> list[LogLine]:
    """Return at most ``limit`` lines of the log before an entry, newest first, each with its sentence."""
    numbers = {e.id: e.number for e in state.entries}
    by_id = {str(e.id): e for e in kept}
    lines = []
    for entry in [e for e in reversed(kept) if before is None or e.number < before][:limit]:
        by = state.struck.get(str(entry.id))
        sentence = _plan_sentence(state, entry) or _struck_sentence(state, entry, numbers, by_id) or _said(state, entry)
        strikable = by is None and entry.what.kind != "plan"
        lines.append(
            LogLine(
                entry=entry, kind=entry.what.kind, sentence=sentence, struck_by=numbers[by] if by else None, strikable=strikable
            )
        )
    return lines


def _said(state: CarState, entry: EntryKept) -> str:
    """Return an entry as a sentence; one that cannot be said says so, and the rest of the log stands."""
    try:
        return _sentence(state, entry.what)
    except Exception:  # the log opens whatever is in it
        return f"This line ({entry.what.kind}) could not be put into words."


def _plan_sentence(state: CarState, entry: EntryKept) -> str:
    """Return what a plan entry says: the first its car, a later one what it changed; empty for other entries."""
    if not isinstance(entry.what, PlanRevisedModel):
        return ""
    if entry.number == 1:
        return f"Plan of {entry.what.plan.name}"
    plans = [e.what.plan for e in state.entries if e.number <= entry.number and isinstance(e.what, core.PlanRevised)]
    return f"Plan revised: {say_revision(plans[-2], plans[-1])}" if len(plans) > 1 else f"Plan of {entry.what.plan.name}"


def _struck_sentence(state: CarState, entry: EntryKept, numbers: dict[str, int], by_id: dict[str, EntryKept]) -> str:
    if not isinstance(entry.what, CorrectionModel):
        return ""
    target = by_id.get(str(entry.what.strikes))
    if target is None:
        return ""
    again = _struck_sentence(state, target, numbers, by_id)
    said = again or _said(state, target)
    return f"{'Brought back by striking' if again else 'Struck out'} entry {target.number}: {said}"


def _happened_sentence(plan: Plan, what: HappenedModel) -> str:
    said = what.words or HAPPENING_WORDS[what.what]
    if what.by is not None and what.what == "tyre":
        said += f", {say_length(abs(what.by), plan.units, denominator=0, unit=True)} {'larger' if what.by >= 0 else 'smaller'} in loaded radius"
    if what.by is not None and what.place is not None:
        at, side = (say_length(abs(v), plan.units, denominator=0, unit=True) for v in what.place)
        ways = "ahead" if what.place[0] >= 0 else "behind", "left" if what.place[1] >= 0 else "right"
        said += f", {say_mass(abs(what.by), plan.units)} {'put in' if what.by >= 0 else 'taken out'} {at} {ways[0]} and {side} {ways[1]} of the origin"
    return f"{CORNER_WORDS[what.corner].capitalize()}: {said}" if what.corner else f"{said[0].upper()}{said[1:]}"


def _sentence(state: CarState, what: WhatKept) -> str:
    """Return an entry as a sentence for the log."""
    plan = state.plan
    if isinstance(what, PlanRevisedModel):
        return f"Plan revised, from that of entry {what.revises}"
    if isinstance(what, ReadingKept):
        title = title_of((what.corner, what.quantity))
        unusual = " (unusual, confirmed)" if what.confirmed else ""
        tool = next((t.name.lower() for t in plan.toolbox if t.id == what.tool), what.tool)
        said = say_reading(plan.units, what.quantity, what.value, what.denominator, what.typed)
        as_typed = f" (typed {what.typed})" if in_another_unit(what.typed, plan.units) else ""
        return f"{title}: {said}{as_typed}, {tool}{unusual}"
    if isinstance(what, TurnedKept):
        adjuster = next((a for a in plan.adjusters if a.id == what.adjuster), None)
        if adjuster is None:
            return f"{what.adjuster}: {what.typed}"
        said = place_words(adjuster)
        return f"{said[0].upper()}{said[1:]}: {turn_words(adjuster, what.amount)}"
    if isinstance(what, HappenedModel):
        return _happened_sentence(plan, what)
    if isinstance(what, SurveyReadKept | DatumModel | ZeroedModel | SupportedModel | StatusModel | PinModel):
        return _jig_sentence(plan, what)
    if isinstance(what, WorkKept | PlainWork):
        return _work_sentence(plan, what)
    if isinstance(what, StanceModel):
        return _stance_sentence(plan, what)
    if isinstance(what, FootKept):
        return f"Foot {what.foot} of the jig: {say_length(what.value, plan.units, denominator=0, unit=True)}"
    if isinstance(what, SlopeKept):
        return f"Level {what.way} the jig: {what.typed}, end for end {what.reversed_typed}"
    if isinstance(what, SurveyedModel):
        names = [say_point(n) for n in what.points]
        told = " and ".join(names) if len(names) <= 2 else f"{names[0]} and {len(names) - 1} more"
        return f"Measured in place: {told}, ± {say_length(what.expanded, plan.units, denominator=0, unit=True)}. {what.words}".strip()
    if isinstance(what, UnreadableModel):
        return what.said
    return what.words if isinstance(what, NoteModel) else what.reason


def _jig_sentence(plan: Plan, what: SurveyReadKept | JigModel) -> str:
    """Return an entry of the jig as a sentence for the log."""
    if isinstance(what, SurveyReadKept):
        return say_read(what.to_core(), plan)
    if isinstance(what, DatumModel):
        names = [spoken(n) for n in (*what.plane, *what.line, what.point)]
        return f"Datum: plane by {', '.join(names[:3])}; line by {names[3]} and {names[4]}; station by {names[5]}. {what.words}".strip()
    if isinstance(what, ZeroedModel):
        return f"Angle gauge zeroed on {'gravity' if what.on == 'gravity' else 'the frame'}"
    if isinstance(what, SupportedModel):
        return f"The frame is {what.how} now"
    if isinstance(what, StatusModel):
        return f"{spoken(what.point)}: {what.status}"
    return f"Pin of {spoken(what.point)}: {what.says}"


def _stance_sentence(plan: Plan, what: StanceModel) -> str:
    """Return an entry of how the car stands as a sentence for the log."""
    if isinstance(what, StateModel):
        said = StateSaid(what.aboard, what.fuel, what.missing, what.at_pressure).words
        return f"State of the car: {said}"
    if isinstance(what, TyreFittedModel):
        said = f"{'a stand-in tyre' if what.stand_in else 'its own tyre'} fitted. {what.words}".strip()
        return f"{CORNER_WORDS[what.corner].capitalize() if what.corner else 'All round'}: {said}"
    adjuster = next((a for a in plan.adjusters if a.id == what.adjuster), None)
    return f"What was learned of the {place_words(adjuster) if adjuster else what.adjuster} does not count any more"


def _work_sentence(plan: Plan, what: WorkKept | PlainWork) -> str:
    """Return an entry around the weld as a sentence for the log."""
    units = plan.units

    def said(mm: float) -> str:
        return say_length(mm, units, denominator=0, unit=True)

    match what.kind:
        case "hold":
            return f"Before final weld: {what.condition}{'' if what.met else ', not any more'}. {what.words}".strip()
        case "accepted":
            return f"{spoken(what.point)}: what is left of it is accepted. {what.reason}"
        case "weld_order":
            return f"Order of welding, {what.way}: {', '.join(what.joints)}. {what.reason}".strip()
        case "support_point":
            return f"{what.name} {what.role}" + (
                f", pin {said(what.pin)} in {said(what.hole)}" if what.pin and what.hole else ""
            )
        case "bracing":
            return f"{'Braced' if what.braced else 'Not braced'} before it is cut. {what.reason}".strip()
        case "gap":
            return f"{spoken(what.point)} to {what.to}: {said(what.value)}"
        case "opening":
            return f"{CORNER_WORDS[what.corner].capitalize()} opening: {said(what.ahead)} ahead of the axle, {said(what.behind)} behind"
    return f"Sill, {what.place} {what.side}: {said(what.value)}{', so before anything was cut' if what.sag else ''}"
