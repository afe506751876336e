"""The plan as it is typed: in the units of the shop, threads as named, and nothing of a car lost that was begun from another."""

import json
import re

from playwright.sync_api import expect

from tests.conftest import entry_json, plan_json, reading_json
from tests.fuzzing import told


def test_a_car_begun_in_inches_shows_no_millimetre_and_takes_threads_and_toe_as_the_shop_says_them(page, served):
    page.goto(f"{served.url}/begin/figures")
    page.get_by_label("Units").select_option("inch fractions")
    expect(page.get_by_label("Steel rule, Step")).to_have_value("1/32")
    expect(page.get_by_label("Bump stop before ground and body by")).to_have_value("3/16")
    for end in ("Front", "Rear"):
        page.get_by_label(f"{end} axle, Rim over its flanges").fill("14 1/4")
        page.get_by_label(f"{end} axle, Rim over its flanges").blur()
    toe = page.get_by_label("Left front toe aim")
    toe.fill('1/16" in over the rim')
    toe.blur()
    expect(page.get_by_text('1/16" in over the rim\'s 14 1/4" = 0.25° in')).to_be_visible()
    page.get_by_role("button", name="Add a rod end").click()
    thread = page.get_by_label("Thread ⌀, right-hand end")
    thread.fill("M12×1.75 LH")
    thread.blur()
    expect(page.get_by_label("Pitch a turn, left-hand end")).to_have_value('0.068898"')
    rate = page.get_by_label("front, Tyre rate")
    rate.fill("1142")
    rate.blur()
    expect(rate).to_have_value("1142")
    page.get_by_label("Units").select_option("millimetres")
    expect(page.get_by_label("Pitch a turn, left-hand end")).to_have_value("1.75")
    expect(rate).to_have_value("199.9948 N/mm")
    expect(page.get_by_label("Bump stop before ground and body by")).to_have_value("5")


def test_a_figure_still_being_read_is_neither_lost_nor_left_behind(page, served):
    """Whatever is pressed before the answer is there waits for it: another unit, a copy, the plan itself."""
    page.goto(f"{served.url}/begin/figures")
    page.get_by_label("Units").select_option("inch fractions")
    expect(page.get_by_label("Steel rule, Step")).to_have_value("1/32")
    held = []
    page.route("**/api/shop/read", lambda request: request.continue_() if held is None else held.append(request))
    page.get_by_label("front, Tyre rate").fill("1142")
    page.get_by_label("Front axle, Rim over its flanges").fill("14 1/4")
    page.get_by_label("Left front toe aim").fill('1/16" in over the rim')
    page.get_by_label("Left front camber tolerance").fill("0.3")
    page.get_by_role("button", name="Copy the front to the rear").click()
    page.get_by_label("Units").select_option("millimetres")
    page.get_by_role("button", name="Begin the car").click()
    assert held
    requests, held = held, None
    for request in requests:
        request.continue_()
    expect(page.get_by_label("front, Tyre rate")).to_have_value("199.9948 N/mm")
    expect(page.get_by_label("Left rear camber tolerance")).to_have_value("0.30°")
    expect(page.get_by_label("Left rear toe aim")).to_have_value('1/16" in over the rim')
    expect(page.get_by_role("alert").filter(has_text="missing").last).to_be_visible()


def test_a_car_begun_from_another_keeps_its_jig_and_all_else(page, served):
    heather = {**told("plan")["heather"], "jig": {"feet": {"a": [0, 400], "b": [0, -400], "c": [-2000, 0]}}, "point_tolerance": 0.75, "tool_for": {"height": "rule"}}  # fmt: skip
    served.ask("/api/cars", entry_json({"kind": "plan", "plan": heather}))
    page.goto(f"{served.url}/begin/figures")
    page.get_by_label("Begin from the plan of another car").select_option("Heather")
    page.get_by_label("Name of the car").fill("Ling")
    page.get_by_label("Front axle, Works to ±").or_(page.get_by_label("Front axle, tie rod inner, Works to ±")).first.fill(
        "12.5"
    )
    page.get_by_label("Front axle, tie rod inner, Works to ±").blur()
    page.get_by_role("button", name="Begin the car").click()
    page.wait_for_url("**/cars/ling")
    made = served.ask("/api/cars/ling/plan.json")
    was = served.ask("/api/cars/heather/plan.json")
    assert made["front_linkage"]["joints"][0].pop("limit_deg") == 12.5
    was["front_linkage"]["joints"][0].pop("limit_deg")
    for plan in (made, was):
        del plan["name"]
        for rows in ("aims", "build_aims"):
            plan[rows].sort(key=lambda aim: aim["mark"])
    assert (was.pop("tools"), made.pop("tools")) == (
        [],
        served.ask("/api/tools"),
    )  # none in the plan are those every car begins with
    assert made == was


def test_a_revision_that_lets_go_of_a_point_is_asked_about_in_the_form(page, served):
    points = {"frame.a": [0, 400, 0], "frame.b": [0, -400, 0], "frame.c": [-900, 0, 0]}
    slug = served.ask("/api/cars", entry_json({"kind": "plan", "plan": plan_json("Sedge", points=points)}))["slug"]
    for name in points:
        what = {"kind": "survey", "reading": "height", "points": [name], "typed": "300", "tool": "rule"}
        served.ask(f"/api/cars/{slug}/entries", entry_json(what))
    plan = served.ask(f"/api/cars/{slug}/plan.json")
    page.goto(f"{served.url}/cars/{slug}/plan/figures")
    page.route("**/entries", lambda route: route.continue_(post_data=json.dumps(_without(json.loads(route.request.post_data), "frame.c"))))  # fmt: skip
    page.get_by_role("button", name="Keep this plan").click()
    expect(page.locator(".keep [role=alert]")).to_contain_text(
        "c would not be planned any more, but 1 reading of the jig refer to it"
    )
    page.get_by_role("button", name="Keep it all the same").click()
    page.wait_for_url(f"**/cars/{slug}")
    assert set(served.ask(f"/api/cars/{slug}/plan.json")["points"]) == set(plan["points"]) - {"frame.c"}


def _without(entry, name):
    entry["what"]["plan"]["points"].pop(name, None)
    return entry


def test_the_workshop_is_saved_and_brought_in_from_the_list_of_cars(page, empty_server, tmp_path):
    slug = empty_server.ask("/api/cars", entry_json({"kind": "plan", "plan": plan_json("Rush")}))["slug"]
    page.goto(empty_server.url)
    with page.expect_download() as saved:
        page.get_by_role("link", name="Save the workshop").click()
    saved.value.save_as(tmp_path / "workshop.json")
    empty_server.ask(f"/api/cars/{slug}/entries", entry_json(reading_json("LF", "height", "110")))
    told_again = json.loads((tmp_path / "workshop.json").read_text())
    page.get_by_label("Bring in a saved file").set_input_files(tmp_path / "workshop.json")
    expect(page.get_by_text("Rush: nothing new.")).to_be_visible()
    (tmp_path / "wrong.json").write_text("{}")
    page.get_by_label("Bring in a saved file").set_input_files(tmp_path / "wrong.json")
    expect(page.get_by_text("wrong.json was not brought in")).to_be_visible()
    assert "rush" in {car["slug"] for car in told_again["cars"]}


def test_a_mark_of_the_frame_that_is_half_given_is_asked_for(page, served):
    slug = served.ask("/api/cars", entry_json({"kind": "plan", "plan": plan_json("Half marked")}))["slug"]
    page.goto(f"{served.url}/cars/{slug}/plan/figures")
    page.locator("select").filter(has_text="a parallel box").select_option("marks")
    page.get_by_label("Left front, station", exact=True).fill("-400")
    page.get_by_label("Left front, station", exact=True).press("Tab")
    page.get_by_role("button", name="Keep this plan").click()
    expect(page.locator("[aria-invalid='true']").first).to_be_visible()
    page.get_by_label("Left front, offset", exact=True).fill("310")
    page.get_by_label("Left front, offset", exact=True).press("Tab")
    page.get_by_role("button", name="Keep this plan").click()
    page.wait_for_url(f"**/cars/{slug}")
    ways = served.ask(f"/api/cars/{slug}/plan.json")["ways"]
    assert (ways["strings"], ways["marks"]) == ("marks", {"LF": [-400.0, 310.0]})


def test_keeping_a_plan_says_first_what_was_read_and_would_be_moved_since(page, demo_server):
    page.goto(f"{demo_server.car('tern')}/plan/figures")
    place = page.get_by_label("tie.inner, Height")
    expect(place).not_to_have_value("")
    place.fill("9")
    place.press("Tab")
    page.get_by_role("button", name="Keep this plan").click()
    expect(page.get_by_role("alert").filter(has_text="moved since")).to_contain_text("right front toe")
    page.get_by_role("button", name="Keep it all the same").click()
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()
    expect(page.get_by_role("button", name="Right front toe")).to_have_attribute("data-state", "moved since")


def test_a_stage_asks_for_what_it_wants_of_the_plan_at_its_own_tape(page, served):
    """A way of reading without its span: said at Set, given there, and in the plan with one key; another stage's want is put off."""
    plan = plan_json(ways={"read_by": {"toe": "bars"}})
    slug = served.ask("/api/cars", entry_json({"kind": "plan", "version": 1, "plan": plan, "revises": 0}))["slug"]
    page.goto(f"{served.url}/cars/{slug}/set")
    asked = page.get_by_role("complementary", name="Not in the plan yet")
    expect(asked).to_contain_text("What is turned at")
    asked.get_by_role("button", name=re.compile("Not now")).click()
    expect(asked).to_contain_text("Between the two marks of the hub bar")
    asked.get_by_role("button", name="Give it here").click()
    expect(page.get_by_role("heading", name="Hub bar, mark to mark")).to_be_visible()
    field = page.locator("#tape-field")
    field.press_sequentially("90o")
    field.press("Enter")
    expect(page.locator("#tape-means")).to_contain_text("“o” is no unit")
    field.fill("900")
    field.press("Escape")  # empties the field first, as everywhere
    expect(field).to_have_value("")
    field.press_sequentially("900")
    field.press("Enter")
    field.press("Escape")
    expect(page.get_by_role("heading", name="Left front ride height")).to_be_visible()
    asked.get_by_role("button", name="Give it here").click()
    expect(page.get_by_text("900", exact=True)).to_be_visible()  # the draft is where it was
    page.locator("#tape-field").press("p")
    expect(page.get_by_role("heading", name="Left front ride height")).to_be_visible()
    expect(page.get_by_text("Between the two marks of the hub bar")).to_be_hidden()
    assert served.ask(f"/api/cars/{slug}/plan.json")["ways"]["bar"] == 900
    page.goto(f"{served.url}/cars/{slug}/jig")
    page.locator("#tape-field").press("Escape")  # the corners of its frame are asked for first
    asked.get_by_role("button", name="Give it here").click()
    expect(page.get_by_role("heading", name=re.compile("Front axle.*held"))).to_be_visible()
