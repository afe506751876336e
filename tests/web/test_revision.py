"""What keeping a plan makes of what was read, said before it is kept."""

import pytest

from ready_corner.demo import load_demo
from ready_corner.workshop import Workshop
from tests.conftest import entry_json
from tests.fuzzing import ListedLogbooks, client_in_memory


@pytest.fixture
def tern():
    logbooks = ListedLogbooks()
    load_demo(Workshop(logbooks))
    return client_in_memory(logbooks)


def asked(client, **parts):
    shown = client.get("/api/cars/tern").json()
    plan = client.get("/api/cars/tern/plan.json").json() | parts
    entry = entry_json({"kind": "plan", "version": 1, "plan": plan, "revises": shown["plan_number"]})
    return client.post("/api/cars/tern/revision", json=entry), entry, shown


def test_a_plan_with_a_point_elsewhere_is_said_to_move_what_was_read_there_and_nothing_is_kept(tern):
    plan = tern.get("/api/cars/tern/plan.json").json()
    x, y, z = plan["points"]["LF.tie.inner"]
    told, entry, before = asked(tern, points=plan["points"] | {"LF.tie.inner": [x, y, z + 12]})
    assert "right front toe" in [mark.lower() for mark in told.json()["moved"]]  # the mirrored side with it
    assert tern.get("/api/cars/tern").json()["number"] == before["number"]
    kept = tern.post("/api/cars/tern/entries", json=entry)
    assert kept.status_code == 201
    states = {m["mark"]: m["state"] for m in tern.get("/api/cars/tern").json()["marks"]}
    assert states["RF.toe"] == "moved since"


def test_a_plan_that_only_judges_otherwise_moves_nothing_and_one_that_cannot_be_is_refused(tern):
    plan = tern.get("/api/cars/tern/plan.json").json()
    aims = [a | ({"tolerance": 5.0} if a["mark"] == "RF.toe" else {}) for a in plan["aims"]]
    told = asked(tern, aims=aims)[0].json()
    assert told["moved"] == []
    assert [line for line in told["otherwise"] if line.lower().startswith("right front toe")]
    assert asked(tern, about="other words")[0].json() == {"moved": [], "otherwise": []}
    assert asked(tern, wheelbase=-1)[0].status_code == 422
