"""Stages Travel and Plan on the demo cars: curves, reading line, what if, levers, points by table and by paste."""

import csv
import re

import pytest
from playwright.sync_api import expect

from tests.core.linkage.cars import plan


@pytest.fixture
def heather(page, demo_server):
    page.goto(f"{demo_server.car('heather')}/travel")
    expect(page.get_by_role("slider")).to_be_visible()
    return page


def figure(page, name, column=0):
    said = page.locator("tr", has=page.get_by_role("button", name=name, exact=True)).locator("td").nth(column).inner_text()
    return float(re.match(r"[−\d.]+", said)[0].replace("−", "-"))


def test_the_reading_line_goes_by_key_and_by_mouse(heather):
    assert figure(heather, "Camber") == -1.8
    plot = heather.get_by_role("slider")
    plot.focus()
    heather.keyboard.press("End")
    expect(heather.get_by_role("heading", name="at 60.0 mm")).to_be_visible()
    assert figure(heather, "Camber") == pytest.approx(-4.01)
    heather.keyboard.press("Shift+ArrowLeft")
    expect(heather.get_by_role("heading", name="at 40.0 mm")).to_be_visible()
    box = plot.bounding_box()
    heather.mouse.move(box["x"] + 66, box["y"] + 100)
    expect(heather.get_by_role("heading", name="at −60.0 mm")).to_be_visible()
    assert figure(heather, "Camber") == pytest.approx(-0.10)


def test_a_wheel_that_is_dragged_takes_the_reading_line_along(heather):
    heather.get_by_role("button", name="Linkage").click()
    drawn = heather.get_by_role("slider", name="The linkage as it moves")
    expect(drawn.locator("rect[rx]")).to_have_count(4)  # as planned and, where points were measured, as built
    box = drawn.locator("[data-look='planned'] rect").first.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    heather.mouse.move(x, y)
    heather.mouse.down()
    heather.mouse.move(x, y - 6, steps=2)
    raised = float(drawn.get_attribute("aria-valuenow"))
    assert 0 < raised < 60
    heather.mouse.move(x, y + 300, steps=4)
    heather.mouse.up()
    expect(heather.get_by_role("heading", name="at −60.0 mm")).to_be_visible()
    expect(drawn.locator("path.glow").first).to_be_visible()
    expect(heather.get_by_text("nearest to its limit: ")).to_contain_text("damper, opening")
    drawn.press("Home")
    drawn.press("ArrowUp")
    expect(heather.get_by_role("heading", name="at −58.0 mm")).to_be_visible()


def test_what_if_shows_every_change_at_the_key_and_can_be_taken_back(heather):
    heather.get_by_label("What is moved").select_option("LF.upper.rear")
    heather.get_by_label("By", exact=True).fill("6")
    moved = heather.locator("tr", has=heather.get_by_role("button", name="Caster", exact=True)).locator("td.if")
    expect(moved).to_contain_text("3.26°")
    expect(moved).to_contain_text("−0.20")
    heather.get_by_label("By", exact=True).fill("1/0")
    expect(heather.get_by_role("alert")).to_contain_text(re.compile("1/0"))
    heather.get_by_label("By", exact=True).fill("400")
    expect(heather.get_by_role("region", name="What if")).to_contain_text(re.compile("out of reach|do not hold|full stretch"))
    heather.get_by_role("button", name="As planned again").click()
    expect(moved).to_have_count(0)


def test_levers_and_the_other_end_and_its_roll(heather):
    levers = heather.get_by_role("region", name=re.compile("What moves camber most"))
    expect(levers.locator("li").first).to_contain_text("lower ball, left")
    heather.get_by_role("button", name="Bump steer", exact=True).click()
    expect(heather.get_by_role("region", name=re.compile("What moves bump steer most"))).to_contain_text("tie")
    heather.get_by_role("button", name="Rear", exact=True).click()
    expect(heather.get_by_role("button", name="over rack travel")).to_have_count(0)
    heather.get_by_role("button", name="over roll").click()
    expect(heather.get_by_role("heading", name="at 0.0 °")).to_be_visible()
    heather.get_by_role("button", name="Roll centre, height").click()
    expect(heather.get_by_text("It belongs to both wheels")).to_be_visible()


def test_curves_are_saved_as_a_table_and_a_drawing(heather):
    with heather.expect_download() as saved:
        heather.get_by_role("button", name="CSV").click()
    with open(saved.value.path(), encoding="utf-8") as file:
        rows = list(csv.DictReader(file))
    assert len(rows) == 61
    middle = next(r for r in rows if float(r["travel [mm]"]) == 0)
    assert float(middle["camber_deg.left [°]"]) == pytest.approx(-1.8)
    with heather.expect_download() as saved:
        heather.get_by_role("button", name="PNG").click()
    with open(saved.value.path(), "rb") as file:
        assert file.read(8) == b"\x89PNG\r\n\x1a\n"


def test_a_live_axle_is_drawn_too_and_says_where_it_binds(page, demo_server):
    page.goto(f"{demo_server.car('tern')}/travel")
    page.get_by_role("button", name="Rear", exact=True).click()
    page.get_by_role("button", name="over roll").click()
    expect(page.get_by_text("in their bushes")).to_be_visible()
    expect(page.get_by_role("button", name="Roll centre, height")).to_be_visible()


def test_a_car_without_points_is_sent_to_its_plan_and_begins_from_an_example(page, demo_server):
    page.goto(f"{demo_server.car('tern')}/plan/figures")
    held = page.get_by_role("region", name="How the wheels are held")
    held.get_by_role("button", name="Rear axle").click()
    held.get_by_role("radio", name="four link axle").click()  # chosen already: taken away
    page.get_by_role("button", name="Keep this plan").click()
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()
    page.goto(f"{demo_server.car('tern')}/travel")
    page.get_by_role("button", name="Rear", exact=True).click()
    expect(page.get_by_text("does not say yet how these wheels are held")).to_be_visible()
    page.get_by_role("link", name="Open the plan").click()
    held.get_by_role("button", name="Rear axle").click()
    held.get_by_role("radio", name="trailing arm").click()
    held.get_by_role("button", name="Begin from an example").click()
    expect(held.get_by_label("wheel, Offset")).to_have_value("25 7/8")
    page.get_by_role("button", name="Keep this plan").click()
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()
    page.goto(f"{demo_server.car('tern')}/travel")
    page.get_by_role("button", name="Rear", exact=True).click()
    expect(page.get_by_role("button", name="Bump steer")).to_be_visible()


def test_points_by_paste_light_up_and_wrong_ones_are_named_with_nothing_lost(page, demo_server):
    page.goto(f"{demo_server.car('heather')}/plan/figures")
    held = page.get_by_role("region", name="How the wheels are held")
    held.get_by_label("Paste points from a spreadsheet").fill('LF.wheel\t0\t-670\t270\nLF.tie.inner\t88\t9 1/8"\t21,4cm')
    held.get_by_role("button", name="Take these points").click()
    expect(held.get_by_label("tie.inner, Offset")).to_have_value("231.775")
    expect(held.get_by_label("tie.inner, Height")).to_have_value("214")
    held.get_by_label("tie.inner, Height").focus()
    expect(held.locator("text.lit").first).to_have_text("tie inner")
    page.get_by_role("button", name="Keep this plan").click()
    expect(held.get_by_role("alert").first).to_contain_text("Are left and right exchanged?")
    expect(held.get_by_label("tie.inner, Offset")).to_have_value("231.775")
    held.get_by_label("Paste points from a spreadsheet").fill("LF.wheel 0 670")
    held.get_by_role("button", name="Take these points").click()
    expect(held.get_by_role("alert").filter(has_text="line 1")).to_contain_text("Give each its own column")


def test_a_car_begins_from_another_and_from_a_plan_file(page, demo_server, tmp_path):
    page.goto(f"{demo_server.url}/begin/figures")
    page.get_by_label("Name of the car").fill("Sister")
    page.get_by_label("Begin from the plan of another car").select_option("Heather")
    expect(page.get_by_label("Wheelbase")).to_have_value("2280")
    page.get_by_role("button", name="Begin the car").click()
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()
    page.goto(f"{demo_server.url}/cars/sister/travel")
    expect(page.get_by_role("slider")).to_be_visible()
    page.goto(f"{demo_server.url}/begin/figures")
    wrong = tmp_path / "notes.json"
    wrong.write_text('{"a": 1}')
    page.get_by_label("Begin from a plan file").set_input_files(wrong)
    expect(page.get_by_role("alert").filter(has_text="notes.json is not a plan file")).to_be_visible()
    page.get_by_label("Begin from a plan file").set_input_files("src/ready_corner/demo/five-link.plan.json")
    expect(page.get_by_label("Name of the car")).to_have_value("Sedge")
    page.get_by_role("button", name="Begin the car").click()
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()


def test_starting_aims_fill_in_camber_and_toe_with_their_reason(page, demo_server):
    page.goto(f"{demo_server.car('heather')}/plan/figures")
    page.get_by_role("button", name="On the drawing", exact=True).click()
    page.get_by_role("button", name="What is wanted").click()
    page.get_by_label("Starting aims for").select_option("ice")
    page.get_by_label("Readings are judged by the aims of").select_option("build")
    page.get_by_role("button", name="All figures", exact=True).click()
    expect(page.get_by_label("Right front camber aim")).to_have_value("−1.50°")
    expect(page.get_by_label("Readings are judged by the aims of")).to_have_value("build")
    page.get_by_text("Where the aims are from").click()
    expect(page.get_by_label("LR.toe, Where it is from")).to_have_value(re.compile("^ice: in, so that"))
    page.get_by_role("button", name="Keep this plan").click()
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()
    page.get_by_role("link", name="Log").click()
    expect(page.locator("ol li").first).to_contain_text("left front camber aim −1.50° ± 0.30°")
    expect(page.locator("ol li").first).to_contain_text("judged by the aims of the build now")


def test_measured_points_are_drawn_as_built_beside_the_plan(page, demo_server):
    page.goto(f"{demo_server.car('tern')}/travel")
    page.get_by_role("button", name="Measured points").click()
    page.get_by_label("name, x, y, z").fill("LF.lower.front, 3.5, 92, 8.6")
    page.get_by_label("Sure to ±").fill("0.5mm")
    page.get_by_role("button", name="Keep them").click()
    expect(page.get_by_role("alert")).to_contain_text("Was it measured from the same datum?")
    x, y, z = (float(v) for v in plan("tern").points["LF.lower.front"])
    page.get_by_label("name, x, y, z").fill(f"LF.lower.front, {x}mm, {y + 3}mm, {z - 2}mm")
    page.get_by_role("button", name="Keep them").click()
    expect(page.get_by_role("button", name="1 point measured")).to_be_visible()
    expect(page.get_by_role("columnheader", name="as built")).to_be_visible()
    row = page.locator("tr", has=page.get_by_role("button", name="Camber", exact=True))
    assert row.locator("td.made").nth(0).inner_text() != row.locator("td").nth(0).inner_text()
    assert row.locator("td.made").nth(1).inner_text() == row.locator("td").nth(1).inner_text()  # the right side is as planned
    page.goto(f"{demo_server.car('tern')}/log")
    expect(page.get_by_text("Measured in place: left front lower front")).to_be_visible()


def test_the_plan_says_what_it_leaves_open_and_has_aims_of_the_build(page, demo_server):
    page.goto(f"{demo_server.car('heather')}/plan/figures")
    expect(page.get_by_role("region", name="Not in the plan yet")).to_contain_text("which member or point pushrod (front) move")
    before = page.request.get(f"{demo_server.api('heather')}/plan.json").json()
    page.get_by_role("button", name="The build", exact=True).click()
    expect(page.get_by_label("left front camber aim")).to_have_value(re.compile("^0.00°"))
    page.get_by_label("Readings are judged by the aims of").select_option("build")
    page.get_by_role("button", name="Keep this plan").click()
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()
    after = page.request.get(f"{demo_server.api('heather')}/plan.json").json()
    assert {k for k in before if before[k] != after[k]} <= {
        "stage",
        "tools",
        "aims",
        "build_aims",
    }  # nothing that was not touched is lost
    assert (after["jig"], after["footing"]) == (before["jig"], before["footing"])
