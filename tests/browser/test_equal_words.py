"""What a builder names twice is shown twice: every page and every tab of a car whose names are all alike, and whatever is said of it."""

import copy
import json
import uuid

from playwright.sync_api import expect

from tests.conftest import entry_json, reading_json
from tests.fuzzing import client_in_memory, post, told

TABS = {
    "": (), "/wall": (), "/set/LF/height": (), "/set/LF/turn/LF.perch": (), "/log": (), "/travel": ("Linkage",),
    "/plan": ("Front wheels", "Rear wheels"), "/plan/figures": (), "/jig": ("Pickup points", "Datum and state"),
    "/stance/floor": ("Pads and state", "Work it out", "Springs and travel", "On stands"),
}  # fmt: skip


def named(tree, path=()):
    """Where something has a name."""
    for key, value in tree.items() if isinstance(tree, dict) else enumerate(tree) if isinstance(tree, list) else ():
        if key == "name" and path:
            yield (*path, key)
        yield from named(value, (*path, key))


def alike(plan):
    """The plan with every name the same that may be, and three points of the frame in one place."""
    client, plan = client_in_memory(), copy.deepcopy(plan)
    for path in list(named(plan)):
        other = copy.deepcopy(plan)
        at = other
        for key in path[:-1]:
            at = at[key]
        at["name"] = "same"
        if post(client, "/api/plan/wanting", other).status_code == 200:
            plan = other
    return plan


def test_every_page_of_a_car_whose_words_are_all_alike_opens(page, served):
    broken = []
    page.on("pageerror", lambda error: broken.append(f"{page.url}: {error}"))
    plan = alike(told("plan")["heather"]) | {"name": f"Alike {uuid.uuid4().hex[:6]}"}
    assert json.dumps(plan).count('"same"') > 20
    slug = served.ask("/api/cars", entry_json({"kind": "plan", "plan": plan, "confirmed": True}))["slug"]
    for corner in ("LF", "RF", "LR", "RR"):
        for quantity, typed in (("height", "84"), ("pad", "0"), ("load", "140")):
            tool = {"load": "scales", "pad": "rule"}.get(quantity, "tape")
            served.ask(
                f"/api/cars/{slug}/entries", entry_json(reading_json(corner, quantity, typed, tool=tool, confirmed=True))
            )
    for _ in range(2):
        served.ask(f"/api/cars/{slug}/entries", entry_json({"kind": "note", "words": "same"}))
    for path, tabs in TABS.items():
        page.goto(f"{served.url}/cars/{slug}{path}", wait_until="networkidle")
        expect(page.locator("main[aria-busy]")).to_have_count(0)
        for tab in tabs:
            page.get_by_role("button", name=tab).or_(page.get_by_role("link", name=tab)).first.click()
            page.wait_for_load_state("networkidle")
            expect(page.get_by_role("main")).not_to_have_text("…")
    assert broken == []


def test_three_points_in_one_place_are_said_beside_the_drawing_of_the_plan(page, demo_server):
    broken = []
    page.on("pageerror", lambda error: broken.append(str(error)))
    plan = told("plan")["heather"]
    plan["points"] |= {f"frame.same-{n}": [-600, 0, 200] for n in range(3)}
    refused = post(client_in_memory(), "/api/plan/wanting", plan)
    assert refused.status_code == 422
    assert len(refused.json()["problems"]) == 3
    page.route("**/api/plan/wanting", lambda route: route.fulfill(status=422, json=refused.json()))
    page.goto(f"{demo_server.car('heather')}/plan")
    page.locator("#tape-field").fill("2301")
    page.locator("#tape-field").press("Enter")
    expect(page.get_by_text("are in the same place").first).to_be_visible()
    assert broken == []


def test_a_file_with_two_cars_of_one_name_says_what_became_of_each(page, served, tmp_path):
    broken = []
    page.on("pageerror", lambda error: broken.append(str(error)))
    name = f"Alike {uuid.uuid4().hex[:6]}"
    plan = told("plan")["tern"] | {"name": name}
    entry = {"number": 1, "at": "2026-11-26T10:00:00Z", "what": {"kind": "plan", "plan": plan, "revises": 0}}
    cars = [{"slug": slug, "entries": [{"id": str(uuid.uuid4()), **entry}]} for slug in ("one", "two")]
    file = tmp_path / "two.json"
    file.write_text(json.dumps({"format": "ready-corner workshop", "version": 1, "cars": cars}))
    page.goto(served.url)
    page.locator("input[type=file]").set_input_files(file)
    expect(page.get_by_role("status").filter(has_text=name)).to_have_count(2)
    assert broken == []
