"""Cars: the list, beginning one, and all that is shown of one."""

from fastapi import APIRouter
from pydantic import BaseModel

from ready_corner.border.entries import EntryIn, LogbookModel
from ready_corner.border.plan import PlanModel, ToolModel
from ready_corner.core.metrology.tools import default_tools
from ready_corner.web.views import CarView, View, car_view
from ready_corner.web.workshop import TheWorkshop

router = APIRouter()


class CarLineView(View):
    """A car in the list."""

    slug: str
    name: str
    about: str
    entries: int


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


@router.get("/cars/{slug}/plan.json")
def plan_file(slug: str, workshop: TheWorkshop) -> PlanModel:
    """Return the plan of a car as an open file."""
    return PlanModel.from_core(workshop.state(slug).plan)


@router.get("/cars/{slug}/logbook.json")
def logbook_file(slug: str, workshop: TheWorkshop) -> LogbookModel:
    """Return the whole logbook of a car as an open file."""
    return LogbookModel(entries=list(workshop.kept(slug)))


@router.get("/tools")
def tools(inches: bool = False) -> list[ToolModel]:
    """Return the table of tools a new car begins with."""
    return [ToolModel.model_validate(tool) for tool in default_tools(inches)]
