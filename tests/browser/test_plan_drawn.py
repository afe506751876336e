"""The plan given on its drawing: the tape asks for one figure after another, and the draft outlives the page."""

import re

from playwright.sync_api import expect

from tests.conftest import entry_json
from tests.fuzzing import told

KEYS = {"count": 0}


def give(page, *figures):
    """Type figures one after another without waiting for any answer; count the keys."""
    field = page.locator("#tape-field")
    for figure in figures:
        field.press_sequentially(figure)
        field.press("Enter")
        KEYS["count"] += len(figure) + 1


def test_from_nothing_to_a_first_toe_verdict_in_eight_figures_by_keys_alone(page, served):
    KEYS["count"] = 0
    page.goto(f"{served.url}/begin")
    page.get_by_label("Name of the car").fill("Plover")
    page.locator("#tape-field").focus()
    give(page, "2400", "1400", "381", "600")  # wheelbase, and the front axle
    give(page, "", "", "")  # the rear axle as the front
    expect(page.get_by_role("heading", name="Front axle, ride height of both wheels")).to_be_visible()
    for _ in range(8):
        page.locator("#tape-field").press("ArrowDown")
    expect(page.get_by_role("heading", name="Front axle, toe of both wheels", exact=True)).to_be_visible()
    give(page, "0.1", "0.2")
    answers = page.get_by_role("listitem").filter(has_text="Toe from string and rule")
    expect(answers).to_contain_text("it can")
    page.get_by_role("button", name="Begin the car").click()
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()
    slug = page.url.rsplit("/", 1)[1]
    plan = served.ask(f"/api/cars/{slug}/plan.json")
    assert (plan["wheelbase"], plan["front"]["track"], plan["rear"]["rim_flange_diameter"]) == (2400, 1400, 381)
    assert {a["mark"]: (a["aim"], a["tolerance"]) for a in plan["aims"]} == {"LF.toe": (0.1, 0.2), "RF.toe": (0.1, 0.2)}
    page.goto(f"{served.url}/cars/{slug}/set/LF/gap_front")
    give(page, "100", "100")
    page.goto(f"{served.url}/cars/{slug}/set/LF/gap_hub")
    give(page, "100")
    page.goto(f"{served.url}/cars/{slug}/set/LR/gap_hub")
    give(page, "100")
    page.goto(f"{served.url}/cars/{slug}")
    expect(page.get_by_role("button", name=re.compile("Left front toe: 0.00°"))).to_be_visible()
    assert KEYS["count"] < 80


def test_a_draft_is_back_after_a_reload_and_gone_once_it_is_kept(page, served):
    page.goto(f"{served.url}/begin")
    page.get_by_label("Name of the car").fill("Dunlin")
    page.locator("#tape-field").focus()
    give(page, "2310", "1390")
    place = page.get_by_role("button", name=re.compile("^Front axle: track"))
    expect(place).to_have_attribute("aria-label", "Front axle: track: 1390")
    page.wait_for_timeout(400)  # of the browser's own clock: a draft is written 0.12 s after the last key
    page.reload()
    expect(page.get_by_text("Your draft is back as you left it")).to_be_visible()
    expect(page.get_by_label("Name of the car")).to_have_value("Dunlin")
    expect(place).to_have_attribute("aria-label", "Front axle: track: 1390")
    page.get_by_role("button", name="All figures").click()
    expect(page.get_by_label("Wheelbase")).to_have_value("2310")
    page.get_by_role("button", name="Throw the draft away").click()
    expect(page.get_by_label("Wheelbase")).to_have_value("")
    page.reload()
    expect(page.get_by_label("Name of the car")).to_have_value("")
    expect(page.get_by_text("Your draft is back")).to_be_hidden()


def test_a_figure_that_cannot_be_read_stands_at_its_place_until_it_is_mended_and_the_last_is_taken_back(page, served):
    page.goto(f"{served.url}/begin")
    page.get_by_label("Name of the car").fill("Knot")
    held = []
    page.route("**/api/shop/read", lambda request: request.continue_() if held is None else held.append(request))
    page.locator("#tape-field").focus()
    give(page, "24oo", "1400")  # the next is typed while the first is still being read
    requests, held = held, None
    for request in requests:
        request.continue_()
    wheelbase = page.get_by_role("button", name=re.compile("^Wheelbase"))
    expect(page.get_by_role("button", name="Front axle: track: 1400")).to_be_visible()
    expect(wheelbase).to_have_attribute("aria-label", "Wheelbase: 24oo")
    expect(page.locator("#tape-means")).to_contain_text("“oo” is no unit")  # asked for again, nothing having been typed since
    page.locator("#tape-field").fill("2400")
    page.locator("#tape-field").press("Enter")
    expect(wheelbase).to_have_attribute("aria-label", "Wheelbase: 2400")
    page.locator("#tape-field").press("Backspace")
    expect(wheelbase).to_have_attribute("aria-label", "Wheelbase: not given yet")
    page.get_by_role("button", name="Begin the car").click()
    expect(page.get_by_role("alert")).to_contain_text("still missing")
    page.get_by_role("button", name="What is wanted").click()
    give(page, "110mmm")  # an aim that may be left out, but not by a slip
    expect(page.get_by_role("button", name=re.compile("^Front axle, ride height of both wheels: 110mmm"))).to_be_visible()
    page.get_by_role("button", name="Begin the car").click()
    expect(page.get_by_role("alert")).to_contain_text("could not be read")
    expect(page.locator("#tape-field")).to_have_value("110mmm")
    page.locator("#tape-field").fill("")
    page.locator("#tape-field").press("Enter")
    page.get_by_role("button", name="Begin the car").click()
    expect(page.get_by_role("alert")).to_contain_text("still missing")


def test_a_draft_from_an_earlier_plan_is_asked_about_and_left_and_right_may_be_unlike(page, demo_server):
    car = demo_server.car("heather")
    page.goto(f"{car}/plan")
    page.get_by_role("button", name="What is wanted").click()
    page.get_by_role("button", name=re.compile("^Front axle, toe of both wheels: (−|-)?0")).click()
    page.locator("#tape-field").press("b")
    expect(page.get_by_role("heading", name="Left front toe", exact=True)).to_be_visible()
    give(page, "0.25")
    expect(page.get_by_role("button", name="Left front toe: 0.25°")).to_be_visible()
    expect(page.get_by_role("button", name="Right front toe: −0.10°")).to_be_visible()
    page.wait_for_timeout(400)
    before = demo_server.server.ask(demo_server.api("heather").removeprefix(demo_server.url))
    plan = {**told("plan")["heather"], "name": "Heather", "about": "other words"}
    demo_server.server.ask(
        demo_server.api("heather").removeprefix(demo_server.url) + "/entries",
        entry_json({"kind": "plan", "version": 1, "plan": plan, "revises": before["plan_number"], "confirmed": True}),
    )
    page.goto(f"{car}/plan")
    expect(page.get_by_text("begun from an earlier plan")).to_be_visible()
    page.get_by_role("button", name="What is wanted").click()
    expect(page.get_by_role("button", name=re.compile("^Front axle, toe of both wheels: (−|-)?0"))).to_be_visible()
    page.get_by_role("button", name="Take it up").click()
    expect(page.get_by_role("button", name="Left front toe: 0.25°")).to_be_visible()
