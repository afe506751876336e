"""The demo cars, told as plan and logbook files; invented, of a made-up workshop."""

from importlib.resources import files

from ready_corner.border.entries import LogbookModel
from ready_corner.border.plan import LinkageModel, PlanModel
from ready_corner.core.engines.linkage.layouts import LAYOUTS, LayoutName
from ready_corner.core.plan.corners import End, Point
from ready_corner.exchange.files import read_logbook, read_plan
from ready_corner.workshop import Workshop


def demo_logbooks() -> dict[str, LogbookModel]:
    """Return the logbooks of the demo cars by short name."""
    found = sorted(files("ready_corner.demo").iterdir(), key=lambda f: f.name)
    return {f.name.split(".")[0]: read_logbook(f.read_bytes())[0] for f in found if f.name.endswith(".logbook.json")}


def load_demo(workshop: Workshop) -> None:
    """Keep the demo cars that are not in the database yet."""
    for slug, logbook in demo_logbooks().items():
        workshop.load(slug, logbook.entries)


def example_of(layout: LayoutName, end: End) -> tuple[LinkageModel, dict[str, Point]]:
    """Return a linkage of a demo car with this layout, preferably of the end asked for, and its points without corner or end.

    Stations are from its own axle line.
    """
    found: list[tuple[bool, PlanModel, End]] = []
    for f in sorted(files("ready_corner.demo").iterdir(), key=lambda f: f.name):
        if f.name.endswith(".plan.json"):
            plan = read_plan(f.read_bytes())
            for there in ("front", "rear"):
                linkage = plan.front_linkage if there == "front" else plan.rear_linkage
                if linkage and linkage.layout == layout:
                    found.append((there == end, plan, there))
    _, plan, there = max(found, key=lambda row: row[0])
    linkage = plan.front_linkage if there == "front" else plan.rear_linkage
    assert linkage
    prefix = f"{'LF' if there == 'front' else 'LR'}." if not LAYOUTS[layout].axle else f"{there}."
    along = 0.0 if there == "front" else plan.wheelbase
    points = {n.removeprefix(prefix): (x + along, y, z) for n, (x, y, z) in plan.points.items() if n.startswith(prefix)}
    return linkage if there == end else linkage.model_copy(update={"steering": "none"}), points
