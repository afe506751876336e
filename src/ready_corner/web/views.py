"""What the browser is shown of a car: the core's answers in the shapes of the API. No arithmetic, no judging."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Generic, TypeVar

from pydantic import BaseModel, ConfigDict

from ready_corner.border.entries import (
    EntryKept,
)
from ready_corner.border.plan import AimModel, PlanModel
from ready_corner.core.advise.car import CarJudged
from ready_corner.core.advise.corner import CornerSetting
from ready_corner.core.advise.next import Ask, Step, StepKind
from ready_corner.core.judge.marks import MarkState, State
from ready_corner.core.plan.corners import CORNERS, Corner
from ready_corner.core.plan.plan import AdjusterKind
from ready_corner.core.quantities.verdict import Verdict
from ready_corner.core.record.logbook import CarState, PlanRevised
from ready_corner.core.record.notes import Correction
from ready_corner.core.record.readings import Drawing, Quantity, Reading
from ready_corner.core.say.entries import say_entry
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
    drawing: Drawing


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
        if entry.id not in state.struck and not isinstance(entry.what, PlanRevised | Correction) and entry.id in kept:
            place = entry.what.place if isinstance(entry.what, Reading) else (None, None)
            return LastView(id=entry.id, sentence=say_entry(state, entry), corner=place[0], quantity=place[1])
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
            room=s.room,
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
