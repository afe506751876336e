"""The route of stage Stance."""

from ready_corner.demo import load_demo
from tests.conftest import entry_json, reading_json


def test_how_a_car_stands_and_what_holds_it_on_its_stands(client, workshop):
    load_demo(workshop)
    assert (
        client.get("/api/cars/tern/stance").json()["why_not"] == "Read the ride height of the left front first."
    )  # its tie rod was turned since
    assert (
        client.post("/api/cars/tern/entries", json=entry_json(reading_json("LF", "height", "5 1/4", tool="tape"))).status_code
        == 201
    )
    tern = client.get("/api/cars/tern/stance").json()
    assert "nose down than planned" in tern["says"][0] or "side up by" in tern["says"][0]
    assert tern["perches"]
    assert all(p["say"].startswith("Wind the") and p["caution"] for p in tern["perches"])
    assert all(c["expected"] and c["rods"][0]["at_ride"] and "lbf/in" in c["rods"][0]["rate"] for c in tern["corners"])
    heather = client.get("/api/cars/heather/stance").json()
    assert heather["why_not"].startswith("Read the ride height of the left front")
    assert all(c["rods"][0]["at_bump"] and not c["rods"][0]["rough"] for c in heather["corners"])
