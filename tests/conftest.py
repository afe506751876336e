"""A throw-away database for the whole run, and an application on it."""

import os
import uuid
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings
from sqlalchemy import Engine, text

from ready_corner.launch.database import LocalDatabase, Urls, given_urls
from ready_corner.storage.logbooks import Logbooks, engine_for
from ready_corner.storage.migrate import upgrade
from ready_corner.web.app import make_app
from ready_corner.workshop import Workshop
from tests.serving import Server

settings.register_profile("untimed", deadline=None)  # how long an example takes is for bench/, not for a test
settings.load_profile("untimed")


@pytest.fixture(scope="session")
def urls(tmp_path_factory) -> Urls:
    given = given_urls(os.environ)
    if given:
        upgrade(given.owner)
        yield given
        return
    with LocalDatabase(tmp_path_factory.mktemp("db")) as local:
        upgrade(local.owner)
        yield local


@pytest.fixture
def engine(urls) -> Engine:
    found = engine_for(urls.app)
    yield found
    found.dispose()


@pytest.fixture
def owner(urls) -> Engine:
    found = engine_for(urls.owner)
    yield found
    found.dispose()


@pytest.fixture
def workshop(engine) -> Workshop:
    return Workshop(Logbooks(engine))


@pytest.fixture
def client(workshop) -> TestClient:
    with TestClient(make_app(workshop, None)) as found:
        yield found


@pytest.fixture(scope="session")
def front_end() -> Path:
    built = Path(__file__).parent.parent / "frontend/dist"
    assert (built / "index.html").exists(), "build the front end first: ./test does"
    return built


@pytest.fixture
def empty_server(tmp_path, front_end):
    server = Server(tmp_path / "var", "--no-demo")
    server.start()
    yield server
    if server.process.poll() is None:
        server.stop()


@pytest.fixture
def queries(engine):
    """The statements sent while a test runs."""
    from sqlalchemy import event

    seen = []
    event.listen(engine, "before_cursor_execute", lambda *args: seen.append(args[2]))
    return seen


def plan_json(name=None, **more):
    """A plan as a browser sends it: aims at every corner, two adjusters at the left rear and one at the left front."""
    end = {"diameter": 12, "pitch_mm_per_turn": 1.75, "engaged": 30, "exposed": 20}
    wanted = {"height": (110, 3), "camber": (-1.5, 0.3), "toe": (0.1, 0.2)}
    aims = [{"mark": f"{c}.{k}", "aim": a, "tolerance": t} for k, (a, t) in wanted.items() for c in ("LF", "RF", "LR", "RR")]
    adjusters = [
        {"id": "LR.toe", "name": "toe link", "corner": "LR", "ends": [end, {**end, "hand": "left"}]},
        {"id": "LR.upper", "name": "upper arm rod end", "corner": "LR", "ends": [end], "half_turns_only": True},
        {
            "id": "LF.perch",
            "name": "perch",
            "corner": "LF",
            "perch": {"pitch_mm_per_turn": 2, "room_up": 20, "room_down": 20, "spring_per_wheel": 0.8},
        },
    ]
    axle = {"track": 1400, "rim_flange_diameter": 381, "tyre_diameter": 600}
    return {
        "name": name or f"Test {uuid.uuid4().hex[:8]}",
        "wheelbase": 2400,
        "front": axle,
        "rear": axle,
        "aims": aims,
        "adjusters": adjusters,
        **more,
    }


def entry_json(what, **more):
    return {"id": str(uuid.uuid4()), "at": "2026-11-25T10:00:00+01:00", "who": "Wren", "what": what, **more}


def reading_json(corner, quantity, typed, **more):
    tool = {"height": "tape", "camber": "digital"}.get(quantity, "rule")
    return {"kind": "reading", "corner": corner, "quantity": quantity, "typed": typed, "tool": tool, **more}


@pytest.fixture
def car(client) -> str:
    """A new car's short name."""
    return client.post("/api/cars", json=entry_json({"kind": "plan", "plan": plan_json()})).json()["slug"]


def rows_of(engine, slug):
    with engine.connect() as connection:
        found = connection.execute(
            text(
                "SELECT e.number, e.id, e.kind, e.payload FROM entries e JOIN cars c ON c.id = e.car_id WHERE c.slug = :s ORDER BY e.number"
            ),
            {"s": slug},
        )
        return found.all()
