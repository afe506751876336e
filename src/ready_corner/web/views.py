"""What the browser is shown of a car: the core's answers in the shapes of the API. No arithmetic, no judging."""

from collections.abc import Sequence

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
    WhatKept,
    what_from_core,
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
from ready_corner.core import logbook as core
from ready_corner.core.jig.words import say_point as spoken
from ready_corner.core.jig.words import say_read
from ready_corner.core.linkage.words import say_point
from ready_corner.core.logbook import HAPPENING_WORDS, Quantity, place_words, turn_words
from ready_corner.core.metrology.verdict import Verdict
from ready_corner.core.plan import CORNER_WORDS, CORNERS, AdjusterKind, Corner
from ready_corner.core.readiness.accept import toe_every_way
from ready_corner.core.readiness.marks import Evaluation, State
from ready_corner.core.readiness.progress import share_held, steer_ahead
from ready_corner.core.readiness.revised import say_revision
from ready_corner.core.readiness.rounds import (
    PADS,
    StepKind,
    ask_of,
    floor_round,
    next_step,
    round_of,
    say_reading,
    stand_round,
)
from ready_corner.core.setting.corner import CornerSetting, set_corner
from ready_corner.core.shop import say_length
from ready_corner.core.stance.acts import StateSaid


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


def car_view(slug: str, evaluation: Evaluation) -> CarView:
    """Return all that is shown of a car."""
    state = evaluation.state
    judged = [m for m in evaluation.marks if m.state is not None]
    return CarView(
        slug=slug,
        number=state.number,
        plan_number=state.plan_number,
        plan=PlanModel.from_core(state.plan),
        condition=ConditionView.model_validate(state.condition),
        marks=[MarkView.model_validate(m) for m in evaluation.marks],
        round=[AskView.model_validate(a) for a in round_of(evaluation)],
        floor_round=[AskView.model_validate(a) for a in floor_round(evaluation)],
        stand_round=[AskView.model_validate(a) for a in stand_round(evaluation)],
        pads=[AskView.model_validate(ask_of(evaluation, p)) for p in PADS],
        next=StepView.model_validate(next_step(evaluation)),
        corners={c: corner_view(evaluation, set_corner(evaluation, c)) for c in CORNERS},
        holding=sum(m.state == "holds" for m in judged),
        judged=len(judged),
        progress=share_held(evaluation),
        steer_ahead=steer_ahead(evaluation),
        surveyed=list(dict.fromkeys([*state.surveyed, *(p for n in state.jig.noted for p in n.read.points)])),
        last=_last(evaluation),
    )


def _last(evaluation: Evaluation) -> LastView | None:
    """Return the latest entry that is neither struck out, nor a plan, nor itself a correction."""
    state = evaluation.state
    for entry in reversed(state.entries):
        if entry.id not in state.struck and not isinstance(entry.what, core.PlanRevised | core.Correction):
            place = entry.what.place if isinstance(entry.what, core.Reading) else (None, None)
            return LastView(
                id=entry.id, sentence=_sentence(evaluation, what_from_core(entry.what)), corner=place[0], quantity=place[1]
            )
    return None


def corner_view(evaluation: Evaluation, answer: CornerSetting) -> CornerView:
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
        toe=list(toe_every_way(evaluation, answer.corner)),
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


def log_lines(evaluation: Evaluation, kept: Sequence[EntryKept], last: int, limit: int) -> list[LogLine]:
    """Return at most ``limit`` lines of the log from entry ``last`` back, newest first, each with its sentence."""
    state = evaluation.state
    numbers = {e.id: e.number for e in state.entries}
    by_id = {str(e.id): e for e in kept}
    lines = []
    for entry in reversed(kept[max(last - limit, 0) : last]):
        by = state.struck.get(str(entry.id))
        sentence = (
            _plan_sentence(evaluation, entry)
            or _struck_sentence(evaluation, entry, numbers, by_id)
            or _sentence(evaluation, entry.what)
        )
        strikable = by is None and entry.what.kind != "plan"
        lines.append(
            LogLine(
                entry=entry, kind=entry.what.kind, sentence=sentence, struck_by=numbers[by] if by else None, strikable=strikable
            )
        )
    return lines


def _plan_sentence(evaluation: Evaluation, entry: EntryKept) -> str:
    """Return what a plan entry says: the first its car, a later one what it changed; empty for other entries."""
    if not isinstance(entry.what, PlanRevisedModel):
        return ""
    if entry.number == 1:
        return f"Plan of {entry.what.plan.name}"
    plans = [e.what.plan for e in evaluation.state.entries[: entry.number] if isinstance(e.what, core.PlanRevised)]
    return f"Plan revised: {say_revision(plans[-2], plans[-1])}"


def _struck_sentence(evaluation: Evaluation, entry: EntryKept, numbers: dict[str, int], by_id: dict[str, EntryKept]) -> str:
    if not isinstance(entry.what, CorrectionModel):
        return ""
    target = by_id.get(str(entry.what.strikes))
    if target is None:
        return ""
    again = _struck_sentence(evaluation, target, numbers, by_id)
    said = again or _sentence(evaluation, target.what)
    return f"{'Brought back by striking' if again else 'Struck out'} entry {target.number}: {said}"


def _sentence(evaluation: Evaluation, what: WhatKept) -> str:
    """Return an entry as a sentence for the log."""
    plan = evaluation.state.plan
    if isinstance(what, PlanRevisedModel):
        return f"Plan revised, from that of entry {what.revises}"
    if isinstance(what, ReadingKept):
        ask = ask_of(evaluation, (what.corner, what.quantity))
        unusual = " (unusual, confirmed)" if what.confirmed else ""
        tool = next((t.name.lower() for t in plan.toolbox if t.id == what.tool), what.tool)
        return f"{ask.title}: {say_reading(evaluation, what.quantity, what.value, what.denominator)}, {tool}{unusual}"
    if isinstance(what, TurnedKept):
        adjuster = next((a for a in plan.adjusters if a.id == what.adjuster), None)
        if adjuster is None:
            return f"{what.adjuster}: {what.typed}"
        said = place_words(adjuster)
        return f"{said[0].upper()}{said[1:]}: {turn_words(adjuster, what.amount)}"
    if isinstance(what, HappenedModel):
        said = what.words or HAPPENING_WORDS[what.what]
        return f"{CORNER_WORDS[what.corner].capitalize()}: {said}" if what.corner else f"{said[0].upper()}{said[1:]}"
    if isinstance(what, SurveyReadKept | DatumModel | ZeroedModel | SupportedModel | StatusModel | PinModel):
        return _jig_sentence(evaluation, what)
    if isinstance(what, WorkKept | PlainWork):
        return _work_sentence(evaluation, what)
    if isinstance(what, StanceModel):
        return _stance_sentence(evaluation, what)
    if isinstance(what, FootKept):
        return f"Foot {what.foot} of the jig: {say_length(what.value, plan.units, denominator=0, unit=True)}"
    if isinstance(what, SlopeKept):
        return f"Level {what.way} the jig: {what.typed}, end for end {what.reversed_typed}"
    if isinstance(what, SurveyedModel):
        names = [say_point(n) for n in what.points]
        told = " and ".join(names) if len(names) <= 2 else f"{names[0]} and {len(names) - 1} more"
        return f"Measured in place: {told}, ± {say_length(what.expanded, plan.units, denominator=0, unit=True)}. {what.words}".strip()
    return what.words if isinstance(what, NoteModel) else what.reason


def _jig_sentence(evaluation: Evaluation, what: SurveyReadKept | JigModel) -> str:
    """Return an entry of the jig as a sentence for the log."""
    plan = evaluation.state.plan
    if isinstance(what, SurveyReadKept):
        return say_read(what.kept(), plan)
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


def _stance_sentence(evaluation: Evaluation, what: StanceModel) -> str:
    """Return an entry of how the car stands as a sentence for the log."""
    if isinstance(what, StateModel):
        said = StateSaid(what.aboard, what.fuel, what.missing, what.at_pressure).words
        return f"State of the car: {said}"
    if isinstance(what, TyreFittedModel):
        said = f"{'a stand-in tyre' if what.stand_in else 'its own tyre'} fitted. {what.words}".strip()
        return f"{CORNER_WORDS[what.corner].capitalize() if what.corner else 'All round'}: {said}"
    adjuster = next((a for a in evaluation.state.plan.adjusters if a.id == what.adjuster), None)
    return f"What was learned of the {place_words(adjuster) if adjuster else what.adjuster} does not count any more"


def _work_sentence(evaluation: Evaluation, what: WorkKept | PlainWork) -> str:
    """Return an entry around the weld as a sentence for the log."""
    units = evaluation.state.plan.units

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
