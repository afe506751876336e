"""The routes of stages Plan and Travel."""

import math

import pytest

from ready_corner.core.engines.linkage.layouts import LAYOUTS
from ready_corner.demo import load_demo
from ready_corner.workshop import Workshop
from tests.fuzzing import ListedLogbooks, client_in_memory


@pytest.fixture
def demo():
    """The demo cars in a store of their own, so that what is done to them is done to nobody else's."""
    logbooks = ListedLogbooks()
    load_demo(Workshop(logbooks))
    return client_in_memory(logbooks)


def curves(client, **asked):
    answer = client.post("/api/cars/heather/travel", json={"end": "front", "rows": 5, **asked})
    assert answer.status_code == 200, answer.text
    found = answer.json()
    return found, {c["answer"]: c for c in found["curves"]}


def test_every_curve_has_a_name_and_as_many_rows_as_asked(demo):
    found, by = curves(demo)
    assert found["drive"] == [-60, -30, 0, 30, 60]
    assert by["camber_deg"]["left"][2] == pytest.approx(-1.8)
    assert all(len(c["left"]) == 5 and c["label"] for c in found["curves"])
    assert by["roll_centre_height"]["right"] is None


def test_a_point_moved_changes_its_own_side_alone(demo):
    _, before = curves(demo)
    _, after = curves(demo, changes=[{"name": "LF.upper.rear", "axis": 2, "typed": "6"}])
    assert after["caster_deg"]["left"][2] != pytest.approx(before["caster_deg"]["left"][2], abs=0.01)
    assert after["caster_deg"]["right"] == before["caster_deg"]["right"]
    _, longer = curves(demo, changes=[{"name": "RF.tie rod", "typed": "1mm"}])
    assert longer["toe_deg"]["left"] == before["toe_deg"]["left"]
    assert longer["toe_deg"]["right"][2] != before["toe_deg"]["right"][2]


@pytest.mark.parametrize(
    ("asked", "words"),
    [
        ({"changes": [{"name": "LF.upper.rear", "axis": 0, "typed": "1/0"}]}, "1/0"),
        ({"low": 5, "high": -5}, "lower figure first"),
        ({"changes": [{"name": "LF.upper.left", "axis": 0, "typed": "1"}]}, "no point or member"),
        ({"end": "rear", "over": "steer"}, "not steered"),
    ],
)
def test_what_cannot_be_studied_is_refused(demo, asked, words):
    answer = demo.post("/api/cars/heather/travel", json={"end": "front", **asked})
    assert answer.status_code == 422
    assert words in answer.json()["sentence"]


def test_a_plan_without_a_layout_says_what_is_wanting(client, car):
    answer = client.post(f"/api/cars/{car}/travel", json={"end": "front"})
    assert answer.status_code == 422
    assert "Choose a layout" in answer.json()["sentence"]


def test_levers_are_sorted_and_named(demo):
    found = demo.get("/api/cars/heather/levers", params={"end": "front", "answer": "toe_deg"}).json()
    sizes = [abs(lever["does"]) for lever in found]
    assert sizes == sorted(sizes, reverse=True)
    assert any(lever["name"] == "tie rod" and lever["axis"] is None for lever in found)
    refused = demo.get("/api/cars/heather/levers", params={"end": "front", "answer": "roll_centre_height"})
    assert refused.status_code == 422


@pytest.mark.parametrize("end", ["front", "rear"])
@pytest.mark.parametrize("name", LAYOUTS)
def test_every_layout_has_an_example_with_all_its_points(client, name, end):
    layout = next(x for x in client.get("/api/layouts").json() if x["name"] == name)
    example = client.get(f"/api/layouts/{name}/example", params={"end": end}).json()
    mirrored = {n.replace("left", "right") for n in example["points"]}
    assert set(layout["needed"]) <= set(example["points"]) | mirrored
    assert example["linkage"]["layout"] == name


def test_points_are_read_from_a_table_and_refused_line_by_line(client, demo):
    units = {"system": "inch_fraction", "finest": 32}
    assert client.post("/api/points/read", json={"text": "LF.a,1,2,3", "units": units}).json() == {
        "LF.a": [25.4, 50.8, pytest.approx(76.2)]
    }
    wrong = client.post("/api/points/read", json={"text": "LF.a,1,2", "units": units})
    assert (wrong.status_code, wrong.json()["problems"][0]["path"]) == (422, "line 1")
    assert "LF.upper.ball" in demo.get("/api/cars/heather/points.csv").text


def test_a_plan_whose_points_cannot_be_is_refused_with_every_path_and_the_one_in_use_stays(demo):
    before = demo.get("/api/cars/heather").json()["number"]
    plan = demo.get("/api/cars/heather/plan.json").json()
    plan["points"]["LF.wheel"] = [0, -670, 270]
    plan["points"]["LR.tie.outer"] = plan["points"]["LR.tie.inner"]
    entry = {
        "id": "5a1b2c3d-0000-4000-8000-000000000001",
        "at": "2026-11-25T10:00:00Z",
        "what": {"kind": "plan", "plan": plan, "revises": 1},
    }
    refused = demo.post("/api/cars/heather/entries", json=entry)
    assert refused.status_code == 422
    assert {"points.LF.wheel", "points.LR.tie.outer"} <= {p["path"] for p in refused.json()["problems"]}
    assert demo.get("/api/cars/heather").json()["number"] == before


def test_a_car_in_inches_sees_inches(demo):
    asked = {"end": "front", "rows": 3, "low": -25.4, "high": 25.4}
    mm, inch = (demo.post(f"/api/cars/{slug}/travel", json=asked).json() for slug in ("heather", "tern"))
    assert (mm["unit"], mm["drive"]) == ("mm", [-25.4, 0, 25.4])
    assert (inch["unit"], inch["drive"]) == ("in", [-1, 0, 1])
    by = {c["answer"]: c for c in inch["curves"]}
    assert by["toe_deg_per_mm"]["unit"] == "°/in"
    slope = (by["toe_deg"]["left"][2] - by["toe_deg"]["left"][0]) / 2
    assert by["toe_deg_per_mm"]["left"][1] == pytest.approx(slope, abs=0.02)  # deg per inch; the curve is nearly straight
    assert by["track"]["left"][1] == pytest.approx(
        52.5 + 2 * 11.45 * math.sin(math.radians(1.5)), abs=1e-3
    )  # between contact points; camber 1.5 takes them out


def test_points_in_doubt_scatter_the_figures_in_proportion(demo):
    once, twice = (demo.get("/api/cars/heather/spread", params={"end": "front", "typed": t}).json() for t in ("0.2", "0.4"))
    assert [r["label"] for r in once] == ["Camber", "Toe", "Caster", "Bump steer"]
    for a, b in zip(once, twice, strict=True):
        assert b["linear"] == pytest.approx(2 * a["linear"])
        assert a["drawn"] == pytest.approx(a["linear"], rel=0.05)  # 4000 draws know a spread to 1.1 %
    assert demo.get("/api/cars/heather/spread", params={"end": "front", "typed": "0"}).status_code == 422
