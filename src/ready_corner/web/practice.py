"""Practice: cars to practise on, what a tool at the end of the line shows, and the truth at the end."""

from collections.abc import Iterator, Sequence
from datetime import datetime
from itertools import pairwise
from typing import Annotated, cast
from uuid import UUID

from fastapi import APIRouter, Depends, Request
from pydantic import Field

from ready_corner.border.base import Id, Model
from ready_corner.border.entries import At, EntryKept, Who
from ready_corner.core.plan.corners import Corner
from ready_corner.core.plan.marks import say_mark, say_value
from ready_corner.core.plan.names import place_words, turn_parts
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.finding import finding
from ready_corner.core.record.readings import Quantity
from ready_corner.core.simulation.practice import FAULTS, practised, say_practice
from ready_corner.instruments.line import UNITS, Address, ToolAwayError, Wanted, take
from ready_corner.practising import LAYOUT_WORDS, MOST_SEED, Practising
from ready_corner.web.cars import Begun
from ready_corner.web.said import said
from ready_corner.web.view import View
from ready_corner.web.workshop import TheWorkshop

router = APIRouter()
REST_MIN = 20.0  # minutes between two entries beyond which nobody was at work


async def _practising(request: Request) -> Practising:
    return cast(Practising, request.app.state.practising)


async def _tool(request: Request) -> Address | None:
    return cast(Address | None, request.app.state.tool)


ThePractising = Annotated[Practising, Depends(_practising)]
TheTool = Annotated[Address | None, Depends(_tool)]


class ChoiceView(View):
    """Something to choose, in words."""

    name: str
    words: str


class ChoicesView(View):
    """What may be practised on."""

    layouts: list[ChoiceView]
    faults: list[ChoiceView]


class PracticeIn(Model):
    """A practice car to begin; its identity so that it is begun once, however often it is sent."""

    id: UUID
    at: At
    who: Who = ""
    layout: Id
    fault: Id
    seed: Annotated[int, Field(ge=0, lt=MOST_SEED)] | None = None


class TrueMarkView(View):
    """A mark as it truly is, as it was read last, and what was wanted."""

    mark: str
    name: str
    true: str
    read: str
    aim: str
    holds: bool


class SpentView(View):
    """Where time went, minutes."""

    what: str
    minutes: float


class TruthView(View):
    """What a practice car hid and what the work on it came to."""

    sentence: str
    fault: str
    marks: list[TrueMarkView]
    off: list[str]
    lifts: int
    readings: int
    spent: list[SpentView]


class TakeIn(Model):
    """What is to be read by the tool at the end of the line."""

    corner: Corner
    quantity: Quantity
    tool: Id
    half_turn: bool = False
    wheel_deg: float = 0.0


class TakenView(View):
    """A figure as it would be typed."""

    typed: str


@router.get("/practice")
def choices() -> ChoicesView:
    """Return the layouts and the faults that may be practised on."""
    return ChoicesView(
        layouts=[ChoiceView(name=n, words=w) for n, w in LAYOUT_WORDS.items()],
        faults=[ChoiceView(name=n, words=w) for n, (w, _) in FAULTS.items()],
    )


@router.post("/practice", status_code=201)
def begin(asked: PracticeIn, practising: ThePractising) -> Begun:
    """Begin a car to practise on."""
    return Begun(slug=practising.begin(asked.layout, asked.fault, asked.id, asked.at, asked.who, asked.seed))


@router.get("/cars/{slug}/practice")
def truth(slug: str, practising: ThePractising, workshop: TheWorkshop) -> TruthView:
    """Return the truth of a practice car, the lifts taken, and where time went."""
    found, plan = practising.truth(slug)
    what = practised(workshop.state(slug))
    marks = [
        TrueMarkView(
            mark=m.mark,
            name=say_mark(m.mark),
            true=say_value(m.mark, m.true, plan.units, 0),
            read="" if m.read is None else say_value(m.mark, m.read, plan.units, 0),
            aim=say_value(m.mark, m.aim, plan.units, 0),
            holds=m.holds,
        )
        for m in found.marks
    ]
    told = finding("practice.end", ready=found.ready, out=sum(not m.holds for m in found.marks), marks=len(found.marks), lifts=found.lifts, readings=found.readings)  # fmt: skip
    return TruthView(
        sentence=said(told, plan.units),
        fault=said(say_practice(what), plan.units) if what else "",
        marks=marks,
        off=[_off(plan, a, by) for a, by in found.off.items() if by],
        lifts=found.lifts,
        readings=found.readings,
        spent=list(_spent(workshop.kept(slug))),
    )


def _off(plan: Plan, adjuster: str, by: float) -> str:
    of = plan.adjuster(adjuster)
    size, way = turn_parts(of, by)
    return f"{place_words(of)}: {size} {way}"


def _spent(entries: Sequence[EntryKept]) -> Iterator[SpentView]:
    """Yield the minutes that went before each kind of entry, rests left out."""
    by: dict[str, float] = {}
    for before, entry in pairwise(entries):
        minutes = _minutes(before.at, entry.at)
        if 0 < minutes <= REST_MIN:
            by[entry.what.kind] = by.get(entry.what.kind, 0.0) + minutes
    words = {"reading": "reading", "turned": "turning", "happened": "rolling, bouncing, bar links"}
    for what in dict.fromkeys([words.get(k, "the rest") for k in by]):
        yield SpentView(what=what, minutes=sum(m for k, m in by.items() if words.get(k, "the rest") == what))


def _minutes(first: datetime, then: datetime) -> float:
    return (then - first).total_seconds() / 60


@router.post("/cars/{slug}/take")
def take_figure(slug: str, asked: TakeIn, workshop: TheWorkshop, tool: TheTool) -> TakenView:
    """Return what the tool at the end of the line shows, as it would be typed; nothing is recorded."""
    if tool is None:
        raise ToolAwayError(finding("tool.none-on-line"))
    units = workshop.state(slug).plan.units
    found = take(tool, Wanted(slug, asked.corner, asked.quantity, asked.tool, asked.half_turn, asked.wheel_deg))
    own = {"deg", "in", "lb"} if units.inches else {"deg", "mm", "kg"}
    figure = f"{found.figure:.5f}".rstrip("0").rstrip(".")
    return TakenView(typed=figure if found.unit in own else f"{figure} {UNITS[found.unit]}")
