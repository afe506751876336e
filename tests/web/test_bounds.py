"""One request cannot hold the server: bodies, ranges, rows and maps are bounded, each with a sentence."""

import json
import math
import uuid

import pytest

from ready_corner.exchange.files import MOST_NAMES
from tests.conftest import entry_json, reading_json
from tests.fuzzing import as_sent, client_in_memory, post, told, try_plan

PLANS = told("plan")


def test_a_body_over_two_megabytes_is_refused_however_it_is_sent(client):
    large = json.dumps({"text": "x" * 2_100_000, "kind": "length"}).encode()

    def in_pieces():
        for i in range(0, len(large), 65_536):
            yield large[i : i + 65_536]

    for content in (large, in_pieces()):
        answer = client.post("/api/shop/read", content=content, headers={"content-type": "application/json"})
        assert (answer.status_code, answer.json()["code"]) == (413, "too_large")
    assert client.get("/api/cars").status_code == 200


@pytest.fixture(scope="module")
def heather():
    """A car that nothing is recorded in."""
    client = client_in_memory()
    return client, try_plan(client, PLANS["heather"], None)


@pytest.mark.parametrize(
    "asked",
    [
        {"rows": 10**9}, {"rows": 1}, {"low": 5, "high": 5}, {"low": -1e9, "high": 1e9}, {"low": 0, "high": math.inf}, {"low": math.nan},
        {"over": "roll", "low": -90, "high": 90}, {"over": "steer", "low": -1e6},
        {"changes": [{"name": "LF.upper.ball", "axis": 0, "typed": "1"}] * 500},
    ],
)  # fmt: skip
def test_a_study_out_of_range_is_refused_with_a_sentence(asked, heather):
    client, slug = heather
    base = {"end": "front", "over": "travel", "low": -50, "high": 50, "rows": 21}
    answer = post(client, f"/api/cars/{slug}/travel", {**base, **asked})
    assert answer.status_code == 422
    assert answer.json()["sentence"].endswith(".")


@pytest.mark.parametrize(
    "change",
    [
        {"tool_for": {f"q{i}": "tape" for i in range(2000)}}, {"tool_for": {"heihgt": "tape"}},
        {"front_linkage": {**PLANS["heather"]["front_linkage"], "lengths": {f"LF.a{i}": 1.0 for i in range(5000)}}},
        {"points": {f"frame.p{i}": [i, 0, 0] for i in range(500)}},
    ],
)  # fmt: skip
def test_a_map_holds_no_more_than_it_can_name(change):
    answer = post(client_in_memory(), "/api/cars", entry_json({"kind": "plan", "plan": {**PLANS["heather"], **change}}))
    assert answer.status_code == 422


def test_two_hundred_kilobytes_of_points_are_read_line_by_line(client):
    rows = [f"frame.point-{i}, {i % 977}.25, {i % 613}.5, {i % 331}" for i in range(6000)]
    text = "\n".join(rows)[:199_000].rsplit("\n", 1)[0]
    answer = client.post("/api/points/read", json={"text": text, "units": {"system": "mm"}})
    assert answer.status_code in (200, 422)
    wrong = client.post("/api/points/read", json={"text": text.replace("25,", "x,"), "units": {"system": "mm"}})
    assert wrong.status_code == 422
    assert len(wrong.content) < 100_000  # thousands of wrong lines are counted, not told one by one


def test_an_object_of_a_file_has_no_more_names_than_it_can_and_each_once(client):
    def sent(text):
        return client.post("/api/workshop", content=text, headers={"content-type": "application/json"})

    many = sent(
        '{"format": "ready-corner workshop", "cars": [], "more": {' + ", ".join(f'"k{i}": {i}' for i in range(16_000)) + "}}"
    )
    assert many.status_code == 422
    assert f"{MOST_NAMES} is the most" in many.json()["sentence"]
    twice = sent('{"format": "ready-corner workshop", "cars": [], "cars": []}')
    assert "“cars” stands twice" in twice.json()["sentence"]


@pytest.mark.parametrize(
    "kind", ["length", "angle", "turns", "mass", "rate", "torsion", "thread", "pitch", "toe", "total_toe", "place", "lengths"]
)
def test_any_figure_is_said_or_refused(kind, client):
    values = (0, 1e308, -1e308, 5e-324, -5e-324, 1e-9, 1e6, 1e12, 1e-300, 1234.5)
    for system in ("mm", "inch_fraction", "inch_decimal"):
        taken = []
        for value in values:
            answer = post(client, "/api/shop/say", {"figures": [{"value": value, "kind": kind}], "units": {"system": system}})
            assert answer.status_code in (200, 422)
            assert "e-3" not in answer.text or answer.status_code == 422
            taken += [value] if answer.status_code == 200 else []
        assert taken == [0, 1e-9, 1e6, 1234.5]


@pytest.mark.parametrize(
    "wrong", [{"at": "1970-01-01T00:00:00Z"}, {"at": "9999-01-01T00:00:00Z"}, {"who": "x" * 81}, {"seed": 2**31}, {"seed": -1}]
)
def test_a_practice_car_that_cannot_be_is_refused_before_it_is_begun(wrong, client):
    sound = {
        "id": str(uuid.uuid4()),
        "at": "2026-11-26T10:00:00Z",
        "who": "Wren",
        "layout": "tern",
        "fault": "floor",
        "seed": 5,
    }
    before = client.get("/api/cars").json()
    refused = client.post("/api/practice", json={**sound, **wrong})
    assert refused.status_code == 422
    assert refused.json()["sentence"]
    assert client.get("/api/cars").json() == before
    assert client.post("/api/practice", json=sound).status_code == 201


def test_dates_at_the_edges_of_the_calendar_get_a_sentence(client, car):
    for at in ("0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-14:00", "1800-01-01T00:00:00Z", "2026-11-26T10:00:00"):
        answer = client.post(f"/api/cars/{car}/entries", json={**entry_json(reading_json("LF", "height", "110")), "at": at})
        assert answer.status_code == 422, at
        assert answer.json()["sentence"].endswith(".")
    assert as_sent({"value": 1, "typed": "1"}) == {"typed": "1"}
