"""The demo cars, told as plan and logbook files; invented, of a made-up workshop."""

from importlib.resources import files

from ready_corner.border.entries import LogbookModel
from ready_corner.exchange.files import read_logbook
from ready_corner.workshop import Workshop


def demo_logbooks() -> dict[str, LogbookModel]:
    """Return the logbooks of the demo cars by short name."""
    found = sorted(files("ready_corner.demo").iterdir(), key=lambda f: f.name)
    return {f.name.split(".")[0]: read_logbook(f.read_bytes())[0] for f in found if f.name.endswith(".logbook.json")}


def load_demo(workshop: Workshop) -> None:
    """Keep the demo cars that are not in the database yet."""
    for slug, logbook in demo_logbooks().items():
        workshop.load(slug, logbook.entries)
