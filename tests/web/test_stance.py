"""The routes of stage Stance, and its entries there and back."""

import pytest

from ready_corner.demo import load_demo
from ready_corner.workshop import Workshop
from tests.conftest import entry_json, reading_json
from tests.fuzzing import ListedLogbooks, client_in_memory


@pytest.fixture
def demo():
    """The demo cars in a store of their own, so that what is done to them is done to nobody else's."""
    logbooks = ListedLogbooks()
    load_demo(Workshop(logbooks))
    return client_in_memory(logbooks)


def test_how_a_car_stands_on_pads_and_scales(demo):
    assert (
        "first" not in demo.get("/api/cars/tern/stance").json()["why_not"]
    )  # its tie rod was turned since, which lifts nothing
    read = entry_json(reading_json("LF", "height", "5 1/4", tool="tape"))
    assert demo.post("/api/cars/tern/entries", json=read).status_code == 201
    tern = demo.get("/api/cars/tern/stance").json()
    assert "nose down than planned" in tern["says"][0]
    assert tern["perches"]
    assert all(p["say"].startswith("Wind the") and p["caution"] and p["amount"] for p in tern["perches"])
    assert all(c["expected"] and c["load"].endswith("lb") and len(c["does_short"]) == 5 for c in tern["corners"])
    assert tern["pads_way"] == "arithmetic"
    assert [p["up"] for p in tern["pads"]] == ["0.062", "0.031", "", "0.062"]
    assert tern["corners"][2]["learned"].startswith("Left rear perch")
    assert any(amiss and "tyre to body comes" in line for line, amiss in tern["corners"][2]["strip"]["lines"])
    assert "lbf/in" in tern["corners"][0]["rods"][0]["rate"]
    assert tern["state"]["fuel"] == "half a tank"


def test_a_car_on_its_stands_pitched(demo):
    heather = demo.get("/api/cars/heather/stance").json()
    hubs = {h["corner"]: h for h in heather["hubs"]}
    assert hubs["LR"]["gives"].endswith("higher than wanted")
    assert hubs["RR"]["read"] == ""
    assert heather["wanted"]["pitch_deg"] == pytest.approx(0.2, abs=0.01)
    for c in heather["corners"]:
        rod = c["rods"][0]
        assert rod["at_wanted"] != rod["at_ride"]
        assert rod["at_bump"]
        assert not rod["rough"]
        assert c["springs"][0]["seats"] == []  # coil-overs: both seats go with the damper


def test_state_tyres_and_what_is_forgotten_are_kept_once_and_told(demo):
    acts = [
        {"kind": "state", "aboard": "ballast", "fuel": "10 l", "missing": ["bonnet"], "at_pressure": False},
        {"kind": "fitted", "stand_in": True, "corner": "RR", "words": "from the trailer"},
        {"kind": "unlearned", "adjuster": "LR.perch"},
    ]
    for what in acts:
        entry = entry_json(what)
        assert demo.post("/api/cars/tern/entries", json=entry).status_code == 201
        assert demo.post("/api/cars/tern/entries", json=entry).json()["new"] is False
    said = [line["sentence"] for line in demo.get("/api/cars/tern/log").json()][:3]
    assert said == [
        "What was learned of the left rear spring perch does not count any more",
        "Right rear: a stand-in tyre fitted. from the trailer",
        "State of the car: ballast for the driver, fuel 10 l, not fitted yet: bonnet, tyres not at pressure",
    ]
    tern = demo.get("/api/cars/tern/stance").json()
    assert tern["stand_ins"] == ["RR"]
    assert tern["corners"][2]["learned"] == ""
    wrong = demo.post("/api/cars/tern/entries", json=entry_json({"kind": "unlearned", "adjuster": "XX.perch"}))
    assert wrong.status_code == 422
    assert "no adjuster" in wrong.json()["sentence"]


def test_a_stack_of_blocks_is_typed_as_a_sum(demo):
    entry = entry_json(reading_json("LF", "stand", "89+38 + 12", tool="tape"))
    assert demo.post("/api/cars/heather/entries", json=entry).status_code == 201
    assert "139.0" in demo.get("/api/cars/heather/log").json()[0]["sentence"]


@pytest.mark.parametrize(
    ("ask", "says"),
    [
        ({"kind": "spring", "corner": "LF", "hz": 2.2}, "2.20 Hz"),
        ({"kind": "damper", "corner": "LR", "closed": "6 1/2", "open": "11"}, "droop"),
        ({"kind": "torsion", "inner": 40, "outer": 44, "arm": "15", "rate": 38, "load": "700 lb", "loaded": "4", "low": "1/2"}, "spline"),
        ({"kind": "bar", "end": "front", "left": "1", "right": "-1", "bar": {"diameter": 19, "bore": 0, "length": 900, "arm": 200, "arm_width": 0, "arm_height": 0}}, "lbf/in"),
        ({"kind": "tube", "length": "18.2", "joint": "2 1/2", "thread": "1"}, '15.200"'),
        ({"kind": "heights", "features": {"sill, left front": "9 3/4", "sill, left rear": "10"}, "arms": {}}, "front crossmember bolt"),
    ],
)  # fmt: skip
def test_sums_are_asked_in_shop_notation(demo, ask, says):
    answer = demo.post("/api/cars/tern/stance/reckon", json=ask)
    assert answer.status_code == 200, answer.text
    assert says in str(answer.json()["lines"])


def test_a_sum_that_cannot_be_says_why(demo):
    no = demo.post("/api/cars/tern/stance/reckon", json={"kind": "tube", "length": "4", "joint": "2 1/2", "thread": "1"})
    assert (no.status_code, no.json()["problems"][0]["path"]) == (422, "joint")
    none = demo.post("/api/cars/tern/stance/reckon", json={"kind": "bar", "end": "rear", "left": "1", "right": "-1"})
    assert "no anti-roll bar at the rear" in none.json()["sentence"]


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"rate": 0.0}, "0.0 cannot be here. Type a figure greater than 0"),
        ({"solid": 300.0}, "200.0 mm long free, and 300.0 mm when its coils touch"),
        ({"helper": [0.0, 60.0, 20.0]}, "has no rate, so it holds nothing up"),
    ],
)
def test_springs_that_cannot_be_are_refused_in_the_plan_and_nothing_is_lost(demo, change, words):
    plan = demo.get("/api/cars/heather/plan.json").json()
    plan["front_linkage"]["springs"][0].update(change)
    before = demo.get("/api/cars/heather").json()["number"]
    refused = demo.post("/api/cars/heather/entries", json=entry_json({"kind": "plan", "plan": plan, "revises": 1}))
    assert refused.status_code == 422
    assert words in refused.json()["sentence"]
    assert demo.get("/api/cars/heather").json()["number"] == before


def test_the_api_gives_findings_beside_their_words(demo):
    car = demo.get("/api/cars/tern").json()
    out = next(m for m in car["marks"] if m["state"] == "out")
    assert out["findings"]["reason"]["kind"] == "mark.off"
    assert out["findings"]["reason"]["figures"]["off"]["value"] == pytest.approx(out["deviation"])
    assert car["next"]["findings"]["sentence"]["kind"].startswith("next.")
    refused = demo.post("/api/cars/tern/preview", json=reading_json("LF", "gap_front", "-3"))
    assert refused.status_code == 422
    assert refused.json()["problems"][0]["kind"] == "reading.impossible"
