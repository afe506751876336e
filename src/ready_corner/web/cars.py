"""Cars: the list, beginning one, and all that is shown of one."""

from collections import Counter
from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, Depends, Query, Request, Response
from pydantic import BaseModel

from ready_corner.border.entries import EntryIn, LogbookModel
from ready_corner.border.plan import PlanModel, ToolModel
from ready_corner.core.quantities.tools import default_tools
from ready_corner.keeping import put_back, save
from ready_corner.web.view import View
from ready_corner.web.views import CarView, car_view, shown
from ready_corner.web.workshop import TheWorkshop

router = APIRouter()


async def _raw(request: Request) -> bytes:
    return await request.body()


RawBody = Annotated[bytes, Depends(_raw)]


class CarLineView(View):
    """A car in the list."""

    slug: str
    name: str
    about: str
    entries: int


class SinceView(View):
    """Lines that somebody has written down, and how many."""

    who: str
    lines: int


class StandingView(View):
    """How a car stands, in a few words: how many of its marks hold, what is next, when and by whom its last line was written down; ``since``: by whom
    how many were, after a line of the log."""

    holding: int
    judged: int
    next: str
    number: int
    at: datetime
    who: str
    since: list[SinceView]


class Begun(BaseModel):
    """Where the car begun is to be found."""

    slug: str


@router.get("/cars")
def cars(workshop: TheWorkshop) -> list[CarLineView]:
    """Return all cars."""
    return [CarLineView.model_validate(line) for line in workshop.cars()]


@router.post("/cars", status_code=201)
def begin(entry: EntryIn, workshop: TheWorkshop) -> Begun:
    """Begin a car with its first plan; sent twice, it is begun once."""
    return Begun(slug=workshop.begin(entry))


@router.get("/cars/{slug}")
def car(slug: str, workshop: TheWorkshop) -> CarView:
    """Return all that is shown of a car."""
    return car_view(slug, workshop.told(slug), workshop.by_id(slug))


@router.get("/cars/{slug}/standing")
def standing(slug: str, workshop: TheWorkshop, after: Annotated[int, Query(ge=0)] = 0) -> StandingView:
    """Return how a car stands, and who has written what down after a line of its log."""
    told, rows = workshop.told(slug), workshop.kept(slug)
    last, own = rows[-1], Counter(row.who for row in rows if row.number > after)
    return StandingView(
        **{name: shown(told, name) for name in ("holding", "judged")},
        next=shown(told, "next").sentence,
        number=last.number,
        at=last.at,
        who=last.who,
        since=[SinceView(who=who, lines=lines) for who, lines in own.most_common()],
    )


@router.get("/cars/{slug}/plan.json")
def plan_file(slug: str, workshop: TheWorkshop) -> PlanModel:
    """Return the plan of a car as an open file."""
    return PlanModel.from_core(workshop.state(slug).plan)


@router.get("/cars/{slug}/logbook.json")
def logbook_file(slug: str, workshop: TheWorkshop) -> LogbookModel:
    """Return the whole logbook of a car as an open file."""
    return LogbookModel(entries=list(workshop.kept(slug)))


class BroughtView(View):
    """What became of one car of a file that was brought in."""

    slug: str
    name: str
    new: int
    had: int
    refused: list[str]


@router.get("/workshop.json", response_class=Response, responses={200: {"content": {"application/json": {"schema": {}}}}})
def workshop_file(workshop: TheWorkshop) -> Response:
    """Return every car with its whole logbook as one file."""
    today = f"{datetime.now(UTC):%Y-%m-%d}"
    headers = {"content-disposition": f'attachment; filename="workshop-{today}.json"'}
    return Response(save(workshop.logbooks), media_type="application/json", headers=headers)


@router.post(
    "/workshop",
    openapi_extra={"requestBody": {"required": True, "content": {"application/json": {"schema": {"type": "object"}}}}},
)
def bring_in(data: RawBody, workshop: TheWorkshop) -> list[BroughtView]:
    """Bring the cars of a workshop file, or the one of a logbook file, into this workshop: what is new is appended."""
    return [BroughtView.model_validate(car) for car in put_back(workshop, data)]


@router.get("/tools")
def tools(inches: bool = False) -> list[ToolModel]:
    """Return the table of tools a new car begins with."""
    return [ToolModel.model_validate(tool) for tool in default_tools(inches)]
