"""Stage Plan: the layouts there are, an example of each, and points pasted or saved as a table."""

from fastapi import APIRouter
from fastapi.responses import PlainTextResponse
from pydantic import Field

from ready_corner.border.base import Model
from ready_corner.border.plan import AimModel, LinkageModel, PlanModel, UnitsModel
from ready_corner.core.advise.provable import unprovable
from ready_corner.core.engines.linkage.layouts import LAYOUTS, STEERED_AXLE, STEERED_AXLE_LINES, LayoutName
from ready_corner.core.model.wanting import wanting
from ready_corner.core.plan.corners import End
from ready_corner.core.plan.plan import Plan
from ready_corner.core.plan.purposes import PURPOSES, provable, starting_aims
from ready_corner.core.quantities.notation import Units
from ready_corner.core.quantities.tools import default_tools
from ready_corner.demo import example_of
from ready_corner.exchange.rows import points_from_csv, points_to_csv
from ready_corner.web.said import said
from ready_corner.web.view import View
from ready_corner.web.workshop import TheWorkshop

router = APIRouter()
RIM_MM = 381.0  # a rim of fifteen inches, where the plan is only begun


class LineView(View):
    """A line of the drawing between two points, named without their corner."""

    name: str
    inner: str
    outer: str


class LayoutView(View):
    """One layout: what it is, the points it needs (more where it is ``steered``), its members, and the lines to draw between them."""

    name: LayoutName
    words: str
    axle: bool
    needed: list[str]
    steered: list[str]
    members: list[str]
    lines: list[LineView]


class ExampleView(View):
    """A car's end to begin from: its linkage, and points in mm from its own axle line, named without corner or end."""

    linkage: LinkageModel
    points: dict[str, tuple[float, float, float]]


class WantingView(View):
    """Something the plan does not give: what, where, and the stage that will want it for what; ``needed``: which until then cannot say all it has to."""

    what: str
    path: str
    stage: str
    step: str
    needed: bool


class TableIn(Model):
    """Points as a table: CSV, or cells pasted from a spreadsheet."""

    text: str = Field(max_length=200_000)
    units: UnitsModel


@router.get("/layouts")
def layouts() -> list[LayoutView]:
    """Return every layout."""
    return [
        LayoutView(
            name=layout.name,
            words=layout.words,
            axle=layout.axle,
            needed=list(layout.needed),
            steered=list(STEERED_AXLE) if layout.axle else [],
            members=[link.name for link in (*layout.links, *layout.may)],
            lines=[LineView(name=link.name, inner=link.body, outer=link.upright) for link in (*layout.links, *layout.may)]
            + [LineView(name=s.name, inner=s.body, outer=s.foot) for s in layout.slides]
            + [LineView(name=h.name, inner=h.first, outer=h.second) for h in layout.hinges]
            + [LineView(name=n, inner=a, outer=b) for n, a, b in (STEERED_AXLE_LINES if layout.axle else ())],
        )
        for layout in LAYOUTS.values()
    ]


@router.get("/layouts/{name}/example")
def example(name: LayoutName, end: End) -> ExampleView:
    """Return an end of a demo car with this layout, to begin from."""
    linkage, points = example_of(name, end)
    return ExampleView(linkage=linkage, points=points)


@router.get("/purposes")
def purposes(
    front: LayoutName | None = None, rear: LayoutName | None = None, inches: bool = False
) -> dict[str, list[AimModel]]:
    """Return starting aims by purpose, each with its reason as its source, as layouts and the usual tools of the units allow."""
    ends: tuple[tuple[End, LayoutName | None], ...] = (("front", front), ("rear", rear))
    axles = [end for end, layout in ends if layout and LAYOUTS[layout].axle]
    tools = provable(RIM_MM, default_tools(inches))
    return {p: [AimModel.model_validate(aim) for aim in starting_aims(p, axles, tools)] for p in PURPOSES}


@router.get("/cars/{slug}/wanting")
def wanting_of(slug: str, workshop: TheWorkshop) -> list[WantingView]:
    """Return what the plan of a car leaves open, and the stage that will want it."""
    return _open_in(workshop.state(slug).plan)


@router.post("/plan/wanting")
def wanting_in(plan: PlanModel) -> list[WantingView]:
    """Return the same of a plan that is still given; refuses one whose figures contradict each other."""
    return _open_in(plan.to_core())


def _open_in(plan: Plan) -> list[WantingView]:
    return [
        WantingView(what=said(w.what, plan.units), path=w.path, stage=w.stage, step=said(w.step, plan.units), needed=w.needed)
        for w in (*wanting(plan), *unprovable(plan))
    ]


@router.post("/points/read")
def read_points(table: TableIn) -> dict[str, tuple[float, float, float]]:
    """Return the points of a table in mm; every line that is wrong is named."""
    return points_from_csv(table.text, Units(**table.units.model_dump()))


@router.get("/cars/{slug}/points.csv", response_class=PlainTextResponse)
def points(slug: str, workshop: TheWorkshop) -> PlainTextResponse:
    """Return the points of a car as CSV in mm."""
    return PlainTextResponse(points_to_csv(workshop.state(slug).plan.points), media_type="text/csv")
