"""Stage Jig from an empty jig to accepted pickup points, as a builder goes through it."""

import json
import random
import re
from importlib.resources import files
from itertools import combinations

import numpy as np
from playwright.sync_api import expect

from ready_corner.core.engines.survey.readings import Reading, model
from ready_corner.core.plan.plan import places_of
from ready_corner.exchange.files import read_plan
from tests.conftest import entry_json

HEATHER = (files("ready_corner.demo") / "heather.plan.json").read_bytes()
TABLE = 305.0
DATUM = ("LF lower front", "RF lower front", "LR lower rear", "LF lower front", "LR lower rear", "LF lower front")


def choose_datum(page):
    page.get_by_role("button", name="Datum and state").click()
    for label, name in zip(("Plane 1", "Plane 2", "Plane 3", "Line 1", "Line 2", "Point"), DATUM, strict=True):
        page.get_by_label(f"Datum, {label}").select_option(name.replace(" ", "."))
    page.get_by_role("button", name="Choose this datum").click()
    expect(page.get_by_text("The axes are taken from LF lower front")).to_be_visible()
    expect(page.get_by_text(re.compile("Between front and rear pivots: diagonals"))).to_be_visible()


def look_at_pickups(page):
    page.get_by_role("button", name="Pickup points").click()
    table = page.get_by_role("region", name="Pickup points")
    row = table.locator("tr", has=page.get_by_role("button", name="RF upper front"))
    expect(row).to_contain_text("out")
    row.get_by_role("button").click()
    expect(table).to_contain_text("What it alone does")
    expect(table.locator("h3")).to_contain_text(re.compile(r"back to the plan: 2\.\d right"))
    expect(table.locator(".options li").first).to_contain_text(re.compile("take it up|shim|leave it"))
    held = table.locator("tr", has=page.get_by_role("button", name="LR upper rear"))
    expect(held).to_contain_text("holds")


def test_from_an_empty_jig_to_accepted_pickup_points(page, empty_server):
    plan = {**json.loads(HEATHER), "name": "Ling"}
    page.request.post(
        f"{empty_server.url}/api/cars", data=entry_json({"kind": "plan", "version": 1, "plan": plan, "revises": 0})
    )
    truth = {n: np.asarray(p, dtype=float) for n, p in places_of(read_plan(HEATHER).to_core()).items()}
    truth["RF.upper.front"] = truth["RF.upper.front"] + [0.0, 2.4, 0.0]
    noise = random.Random(5)

    page.goto(f"{empty_server.url}/cars/ling/jig")
    expect(page.get_by_text("Nothing is read yet")).to_be_visible()
    api = f"{empty_server.url}/api/cars/ling"

    def ask_for() -> list:
        return page.request.post(f"{api}/jig/proposal", data={"typed": "1", "tape": "trammel", "table": "rule"}).json()["list"]

    def value_of(ask) -> float:
        value = model(Reading("r", ask["reading"], tuple(ask["points"]), 1.0, 1.0), truth)[0]
        return value + (TABLE if ask["reading"] == "height" else 0.0) + noise.gauss(0, 0.1)

    whole = ask_for()
    names = [n for n in truth if n.endswith((".front", ".rear")) and not n.startswith("frame")]
    pairs = noise.sample(list(combinations(names, 2)), 45)  # so that every reading is checked several times over
    more = [{"reading": "distance", "points": list(p)} for p in pairs if set(p) not in [set(w["points"]) for w in whole]]
    for ask in [*whole[:-34], *more]:  # the first ones in one go, as another browser would hand them over
        what = {
            "kind": "survey",
            "version": 1,
            "reading": ask["reading"],
            "points": ask["points"],
            "typed": f"{value_of(ask):.1f}",
            "tool": "trammel" if ask["reading"] == "distance" else "rule",
        }
        assert page.request.post(f"{api}/entries", data=entry_json(what)).ok
    page.reload()
    page.get_by_label("Tool").select_option("trammel")
    page.get_by_label("Each point to").fill("1")
    page.get_by_role("button", name="Work it out").click()
    expect(page.get_by_text(re.compile("readings, and every point is sure to"))).to_be_visible()
    asked = ask_for()
    assert 0 < len(asked) < len(whole)
    field = page.locator("#tape-field")
    for ask in asked:
        value = value_of(ask)
        expect(page.locator("section.tape h2")).to_contain_text(ask["points"][0].replace(".", " "))
        if ask["reading"] == "distance":
            page.get_by_label("Tool").select_option("trammel")
        field.fill(f"{value:.1f}")
        field.press("Enter")
        expect(field).to_have_value("")
    expect(page.get_by_text("The readings agree within what their tools can do.")).to_be_visible()

    read = {frozenset(a["points"]) for a in [*whole, *more]}
    first, second = next(p for p in combinations(names, 2) if frozenset(p) not in read and p[0][:2] != p[1][:2])
    page.get_by_label("What is read").select_option("distance")
    page.get_by_label("First point").select_option(first)
    page.get_by_label("Second point").select_option(second)
    field.fill(f"{value_of({'reading': 'distance', 'points': (first, second)}) + 10:.1f}")
    expect(page.locator("#tape-means")).to_contain_text("more than the rest say")
    field.press("Enter")
    expect(page.get_by_text("The readings disagree.")).to_be_visible()
    said = f"{first} to {second}".replace(".", " ")
    expect(page.get_by_role("status").filter(has_text="disagrees with the rest by")).to_contain_text(
        re.compile(f"{said}.*a misread centimetre", re.S)
    )

    page.get_by_role("button", name="Readings", exact=True).click()
    bad = page.get_by_role("region", name="Readings").locator("li").first
    expect(bad).to_contain_text("wrong")
    bad.get_by_role("button", name="Strike out").click()
    expect(page.get_by_text("The readings agree within what their tools can do.")).to_be_visible()

    choose_datum(page)
    look_at_pickups(page)
    # What it does to the finished car is in Travel too, as built.
    page.goto(f"{empty_server.url}/cars/ling/travel")
    expect(page.get_by_role("columnheader", name="as built")).to_be_visible()


def test_a_cut_that_takes_the_datum_is_warned_of_and_a_weld_makes_points_moved_since(page, demo_server):
    page.goto(f"{demo_server.car('heather')}/jig")
    page.get_by_role("button", name="Datum and state").click()
    page.get_by_label("Record it").first.select_option("cut")
    page.get_by_label("To which points").first.select_option("frame.rail.left")
    expect(page.get_by_text("This carries the datum (rail left rear).")).to_be_visible()
    page.get_by_label("Record it").first.select_option("weld")
    expect(page.get_by_text("No weld near fuel")).to_be_visible()
    page.get_by_label("To which points").first.select_option("LF.lower")
    page.get_by_role("button", name="Record it").click()
    page.get_by_role("button", name="Pickup points").click()
    expect(page.locator("tr", has=page.get_by_role("button", name="LF lower rear"))).to_contain_text("Since: welded LF.lower")
    page.get_by_role("button", name="turned").click()
    drawing = page.get_by_role("img", name="Jig, turned")
    before = drawing.inner_html()
    drawing.focus()
    page.keyboard.press("ArrowLeft")
    assert drawing.inner_html() != before


def test_around_the_weld_conditions_order_and_what_is_accepted(page, demo_server):
    page.goto(f"{demo_server.car('heather')}/jig")
    page.get_by_role("button", name="Weld and body").click()
    weld = page.get_by_role("region", name="Weld and body")
    weld.get_by_label("body placed").check()
    weld.get_by_label(re.compile("One joint a line")).fill("LF upper\nRF upper\nLF lower")
    weld.get_by_role("button", name="Keep the order").click()
    expect(weld.get_by_text("Weld next: LF upper.")).to_be_visible()
    weld.get_by_role("button", name="Welded now").first.click()
    expect(weld.get_by_text("Weld next: RF upper.")).to_be_visible()
    expect(weld.get_by_label("body placed")).not_to_be_checked()  # a weld opens it again
    weld.get_by_label("Ahead").fill("310")
    weld.get_by_label("Behind").fill("323")
    weld.get_by_role("button", name="Keep it").nth(1).click()
    expect(weld.get_by_text("The left front axle centre wants the body 6.5 mm forward.")).to_be_visible()
    weld.get_by_label("Why").fill("the toe link takes it up")
    weld.get_by_label("Point to accept").select_option("LR.upper.front")
    weld.get_by_role("button", name="Accept it").click()
    page.get_by_role("button", name="Pickup points").click()
    row = page.locator("tr", has=page.get_by_role("button", name="LR upper front"))
    row.get_by_role("button").click()
    expect(page.locator(".options li").first).to_contain_text("accepted: the toe link takes it up")
    page.get_by_role("button", name="Weld and body").click()
    # A joint is found by its words in whatever order; what fits no point drops nothing before it is said where it is, and what it opens.
    weld.get_by_label(re.compile("One joint a line")).fill("lower bracket, left rear\nthe hoop")
    weld.get_by_role("button", name="Keep the order").click()
    joints = weld.get_by_role("listitem")
    expect(joints.filter(has_text="lower bracket")).to_contain_text("At LR lower: ")
    hoop = joints.filter(has_text="the hoop")
    expect(hoop).to_contain_text("Its words fit no point of the plan")
    expect(hoop.get_by_role("button", name="Welded now")).to_be_disabled()
    hoop.get_by_label("To which points").select_option("RR")
    expect(hoop).to_contain_text(re.compile(r"At RR: \d+ readings count no more after it"))
    hoop.get_by_role("button", name="Welded now").click()
    expect(hoop.get_by_role("button")).to_have_count(0)
    counting = [
        r
        for r in demo_server.server.ask(demo_server.api("heather").removeprefix(demo_server.url) + "/jig")["readings"]
        if r["counts"]
    ]
    assert counting
    assert not any(p.startswith("RR") for r in counting for p in r["points"])
