"""An inch car says no millimetre that was not typed: not on a page, not in a refusal, not in a warning."""

import random
import re

import pytest

from tests.conftest import entry_json
from tests.fuzzing import as_sent, client_in_memory, told, try_entry, try_plan

PLANS, BOOKS = told("plan"), told("logbook")
INCHES = {"system": "inch_fraction", "finest": 32}
AS_TYPED = ("plan", "entry", "latest_typed")  # what was typed is shown as it was


def words(tree, path=()):
    if isinstance(tree, dict):
        for key, value in tree.items():
            yield from words(value, (*path, key))
    elif isinstance(tree, list):
        for i, value in enumerate(tree):
            yield from words(value, (*path, i))
    elif isinstance(tree, str):
        yield path, tree


def millimetres(tree):
    return [(p, w) for p, w in words(tree) if not set(p) & set(AS_TYPED) and re.search(r"\bmm\b|N/mm|N·m", w)]


@pytest.mark.parametrize("name", list(PLANS))
def test_no_page_of_an_inch_car_says_a_millimetre(name):
    client = client_in_memory()
    slug = try_plan(client, {**PLANS[name], "units": INCHES}, random.Random(name))
    for line in BOOKS.get(name, {"entries": []})["entries"][1:]:
        if line["what"]["kind"] not in ("plan", "correction"):
            try_entry(client, slug, as_sent(line["what"]), look=False)
    for part in ("", "log", "jig", "stance", "wanting"):
        assert not millimetres(client.get(f"/api/cars/{slug}/{part}".rstrip("/")).json()), part
    for end in ("front", "rear"):
        for over in ("travel", "roll"):
            asked = {"end": end, "over": over, "low": -8, "high": 8, "rows": 33}
            assert not millimetres(client.post(f"/api/cars/{slug}/travel", json=asked).json())


def test_no_refusal_to_an_inch_car_says_a_millimetre():
    client = client_in_memory()
    plan = {**PLANS["tern"], "units": INCHES}
    for change in (
        {"wheelbase": -1},
        {"front": {**plan["front"], "rim_flange_diameter": 900}},
        {"points": {**plan["points"], "LF.wheel": [100.0, 600.0, 290.0]}},
        {"front_linkage": {**plan["front_linkage"], "loaded_radius": -5}},
        {"front_linkage": {**plan["front_linkage"], "springs": [{**plan["front_linkage"]["springs"][0], "free": 200, "solid": 300}]}},
        {"footing": {**plan["footing"], "front_end": {"bump": -3}}},
    ):  # fmt: skip
        answer = client.post("/api/cars", json=entry_json({"kind": "plan", "plan": {**plan, **change}}))
        assert answer.status_code == 422, change
        assert not millimetres(answer.json()), answer.json()
    slug = try_plan(client, plan, random.Random(1))
    for quantity, pair in (("gap_front", ("20", "1")), ("gap_front", ("2", "2")), ("height", ("400", "400"))):
        for each, typed in zip((quantity, quantity.replace("front", "back")), pair, strict=True):
            what = {"kind": "reading", "quantity": each, "corner": "LF", "typed": typed, "tool": "rule"}
            assert not millimetres(client.post(f"/api/cars/{slug}/entries", json=entry_json(what)).json())
            assert not millimetres(client.post(f"/api/cars/{slug}/preview", json=what).json())


def test_a_metric_reading_in_an_inch_car_stands_as_typed_and_in_decimals():
    client = client_in_memory()
    slug = try_plan(client, {**PLANS["tern"], "units": INCHES}, random.Random(1))
    what = {"kind": "reading", "quantity": "height", "corner": "LF", "typed": "133 mm", "tool": "tape"}
    assert client.post(f"/api/cars/{slug}/preview", json=what).json()["said"] == '133 mm = 5.236"'
    car = client.post(f"/api/cars/{slug}/entries", json=entry_json(what)).json()["car"]
    ask = next(a for a in car["round"] if (a["corner"], a["quantity"]) == ("LF", "height"))
    assert (ask["latest"], ask["latest_typed"]) == ("5.236", "133 mm")
    assert "5.236 (typed 133 mm)" in client.get(f"/api/cars/{slug}/log").json()[0]["sentence"]
