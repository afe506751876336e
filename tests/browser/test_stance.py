"""Stage Stance in the browser: from pads to four heights and cross weight on a car whose truth the page never sees; stands, springs, sums."""

import re
import uuid
from datetime import UTC, datetime

import numpy as np
import pytest
from playwright.sync_api import expect

from ready_corner.border.plan import PlanModel
from ready_corner.core.plan.corners import CORNERS
from tests.core.stance.practice import Practice, practice_plan

ROUND = ("LF", "RF", "RR", "LR")
WORDS = {"LF": "Left front", "RF": "Right front", "LR": "Left rear", "RR": "Right rear"}


@pytest.fixture
def practice(page, demo_server):
    """A car of the practice truth on uneven pads, begun in the application; the page stands at its Stance."""
    truth = Practice(practice_plan(), pads=np.array([0.0, 2.0, 3.0, 0.5]), free=np.array([180.0, 186.0, 178.0, 189.0]))
    entry = {"id": str(uuid.uuid4()), "at": datetime.now(UTC).isoformat(), "who": "Wren", "what": {"kind": "plan", "plan": PlanModel.from_core(truth.plan).model_dump(mode="json")}}  # fmt: skip
    made = page.request.post(f"{demo_server.url}/api/cars", data=entry)
    page.goto(f"{demo_server.url}/cars/{made.json()['slug']}/stance")
    return truth


def type_in(page, text, title):
    expect(page.get_by_role("heading", name=title, exact=True)).to_be_visible()
    page.locator("#tape-field").fill(text)
    page.locator("#tape-field").press("Enter")


def read_round(page, truth):
    page.goto(f"{page.url.split('/stance')[0]}/stance/floor/LF/height")
    expect(page.get_by_role("heading", name="Left front ride height")).to_be_visible()
    page.locator("#tape-field").press("s")
    expect(page.get_by_text("Not settled: roll the car")).to_be_hidden()
    heights, loads = truth.stands()
    for name, values in (("ride height", heights), ("load on the scale", loads)):
        for c in ROUND:  # every place, whether or not the turns have moved it
            page.goto(f"{page.url.split('/stance')[0]}/stance/floor/{c}/{'height' if 'height' in name else 'load'}")
            type_in(page, f"{values[CORNERS.index(c)]:.1f}", f"{WORDS[c]} {name}")
            expect(page.locator("#tape-field")).to_have_value("")
    expect(page.get_by_text(re.compile(r"left \d+\.\d %, cross \d"))).to_be_visible()  # all four loads count


def test_from_pads_to_four_heights_within_tolerance(page, practice):
    page.get_by_role("button", name="Pads and state").click()
    expect(page.get_by_text("The pads are not proved level")).to_be_visible()
    page.get_by_label("Fuel").fill("10 l")
    page.get_by_role("button", name="This is how it is now").click()
    page.get_by_role("button", name="Read the pads").click()
    for c in ROUND:
        type_in(page, f"{practice.pads[CORNERS.index(c)]:g}", f"{WORDS[c]} pad, height of the floor")
    for _ in range(5):
        read_round(page, practice)
        page.evaluate("fetch(location.pathname.replace('/cars', '/api/cars').split('/').slice(0, 4).join('/') + '/stance')")
        page.wait_for_timeout(
            500
        )  # what is told stands on the last reading by then, as it does on the server that was asked after it
        perches = page.get_by_role("group", name="Perches to turn")
        done = page.get_by_text("Every height holds: leave the perches.")
        expect(perches.or_(done)).to_be_visible()
        if done.is_visible():
            break
        expect(perches).to_contain_text("Springs hold energy")
        told = perches.locator("li b").all_inner_texts()
        perches.get_by_role("button", name="Turn it").first.click()
        for said in told:  # Enter alone: turned as told
            where, way, much = re.fullmatch(r"Wind the (\w+ \w+) perch (up|down) (.+)", said).groups()
            corner = next(c for c, w in WORDS.items() if w.lower() == where)
            expect(page.get_by_role("heading", name=f"{WORDS[corner]}, spring perch: how far was it turned?")).to_be_visible()
            page.locator("#tape-field").press("Enter")
            turns = sum(float(n) * by for n, by in zip((*re.findall(r"(\d+)½? turn", much), *re.findall(r"(\d+) flat", much)), (1.0, 1 / 6) if "turn" in much and "flat" in much else (1 / 6,) if "flat" in much else (1.0,), strict=False))  # fmt: skip
            practice.turns[CORNERS.index(corner)] += (turns + 0.5 * ("½" in much)) * (1 if way == "up" else -1)
    expect(page.get_by_text("Every height holds: leave the perches.")).to_be_visible()
    heights, _ = practice.stands()
    level, _ = Practice(practice.plan, free=practice.free, turns=practice.turns).stands()
    assert np.abs(level - [120, 120, 135, 135]).max() < 2.0 + 0.3
    assert np.abs(heights - level).max() > 0.3  # and the pads did matter
    page.get_by_text("What one turn up of each perch does").click()
    expect(page.get_by_text("times what the plan says").first).to_be_visible()
    page.get_by_role("button", name="Go by the plan again").first.click()
    page.goto(page.url.split("/stance")[0] + "/log")
    expect(page.get_by_text("does not count any more").first).to_be_visible()


def test_the_demo_car_tells_one_perch_for_height_and_cross_weight(page, demo_server):
    page.goto(f"{demo_server.car('tern')}/stance/floor/LF/height")
    page.locator("#tape-field").fill("5 1/4")
    expect(page.locator("#tape-means")).to_contain_text("height would be")
    page.locator("#tape-field").press("Enter")
    expect(page.get_by_role("heading", name="more nose down than planned")).to_be_visible()
    expect(page.get_by_role("group", name="Perches to turn")).to_contain_text("Wind the right rear perch down")
    corner = page.get_by_role("region", name="Right rear")
    expect(corner).to_contain_text("thread left")
    expect(corner.get_by_role("img", name=re.compile("tyre to body comes"))).to_be_visible()
    page.get_by_role("button", name="Pads and state").click()
    expect(page.get_by_text("By arithmetic: what they are off one plane")).to_be_visible()
    page.get_by_label("Not fitted yet, one a line").fill("bonnet")
    page.get_by_role("button", name="This is how it is now").click()
    page.get_by_role("button", name="On the floor").click()
    expect(page.get_by_role("status").first).to_contain_text("the car is without bonnet")
    expect(
        page.get_by_text("Read the ride height of the left front, right front, left rear, right rear first.")
    ).to_be_visible()


def test_on_stands_a_hub_set_low_gives_a_high_car(page, demo_server):
    page.goto(f"{demo_server.car('heather')}/stance/stands")
    hubs = page.get_by_role("region", name="Where the hubs must sit")
    expect(hubs.locator("tr", has_text="Left rear")).to_contain_text("higher than wanted")
    expect(hubs).to_contain_text("hangs")
    rods = page.get_by_role("region", name="Rods in place of the dampers")
    expect(rods.locator("tbody tr")).to_have_count(4)
    hubs.get_by_role("button", name="Right rear").click()
    page.locator("#tape-field").fill("545")
    expect(page.locator("#tape-means")).to_contain_text("up to go")
    wanted = hubs.locator("tr", has_text="Right rear").locator("td").first.inner_text()
    page.locator("#tape-field").fill(wanted)
    expect(page.locator("#tape-means")).to_contain_text("on it")
    page.locator("#tape-field").press("Enter")
    expect(hubs.locator("tr", has_text="Right rear")).to_contain_text("as wanted")


def test_springs_and_sums_answer_in_the_cars_units(page, demo_server):
    page.goto(f"{demo_server.car('heather')}/stance/springs")
    page.get_by_role("button", name="Left rear").click()
    panel = page.get_by_role("region", name="rate at the wheel")
    expect(panel).to_contain_text("swings, without its tyre, at")
    expect(panel).to_contain_text("The bump stop comes")
    expect(panel.locator("table tbody tr")).to_have_count(0)  # a coil-over: both seats go with the damper
    page.get_by_role("slider").press("End")
    expect(panel).to_contain_text("bump 80.0 mm")
    page.get_by_role("button", name="Work it out").click()
    damper = page.get_by_role("group", name="A damper in hand")
    damper.get_by_label("Closed").fill("190")
    damper.get_by_label("Open").fill("245")
    damper.get_by_role("button").click()
    expect(damper).to_contain_text("it bottoms before full bump and it is the stop in droop")
    bar = page.get_by_role("group", name="An anti-roll bar")
    bar.get_by_label("Left end up").fill("30")
    bar.get_by_label("Right end up").fill("-30")
    bar.get_by_role("button").click()
    expect(bar).to_contain_text("28.52°")
    spring = page.get_by_role("group", name="A spring by frequency or sag")
    spring.get_by_role("button").click()
    expect(spring.get_by_role("alert")).to_contain_text("Type the frequency or the sag")


def test_places_are_asked_in_their_order_while_a_second_perch_is_not_answered_for(page, practice, demo_server):
    """The answer to the first perch tells only what that one moved; until the second is answered for, every place may have moved."""
    slug = page.url.split("/cars/")[1].split("/")[0]

    def tell(what):
        demo_server.server.ask(
            f"/api/cars/{slug}/entries", {"id": str(uuid.uuid4()), "at": "2026-11-26T10:00:00Z", "what": what}
        )

    tell({"kind": "happened", "what": "settled"})
    heights, loads = practice.stands()
    for quantity, values, tool in (("pad", (0.0,) * 4, "rule"), ("height", heights, "tape"), ("load", loads, "scales")):
        for c, value in zip(CORNERS, values, strict=True):
            tell({"kind": "reading", "corner": c, "quantity": quantity, "typed": f"{value:.1f}", "tool": tool})
    page.goto(f"{demo_server.url}/cars/{slug}/stance/floor/LR/turn/LR.perch")
    page.locator("#tape-field").fill("1 turn up")
    page.locator("#tape-field").press("Enter")
    wanted = page.request.get(f"{demo_server.url}/api/cars/{slug}").json()["floor_round"]
    while not any(a["wanted"] for a in wanted):
        wanted = page.request.get(f"{demo_server.url}/api/cars/{slug}").json()["floor_round"]
    expect(page.get_by_role("button", name="moved since").first).to_be_visible()
    held = []

    def hold(route):
        held.append(route)

    page.route("**/entries", hold)
    page.goto(f"{demo_server.url}/cars/{slug}/stance/floor/RR/turn/RR.perch")
    page.locator("#tape-field").fill("1 turn up")
    page.locator("#tape-field").press("Enter")
    for c in ROUND:
        type_in(page, f"{heights[CORNERS.index(c)]:.1f}", f"{WORDS[c]} ride height")
    for route in held:
        route.continue_()
    page.unroute("**/entries")


def test_what_a_reading_hangs_on_is_told_and_changed_at_its_tape(page, demo_server):
    car = demo_server.car("heather")
    field = page.locator("#tape-field")
    page.goto(f"{car}/set/LF/height")
    expect(page.get_by_text("on a lift or stands?")).to_be_visible()
    field.press("w")
    expect(page.get_by_text("the car is on its wheels")).to_be_visible()
    field.press("w")
    expect(page.get_by_text("On a lift, as told: what is read now is a note")).to_be_visible()
    page.goto(f"{car}/stance/floor/LF/height")
    expect(page.get_by_text("On a lift, as told: what is read now is a note")).to_be_visible()
    page.goto(f"{car}/set/LF/camber")
    expect(page.get_by_text("zeroed on gravity. Minus")).to_be_visible()
    field.press("g")
    expect(page.get_by_text("zeroed on the frame. Minus")).to_be_visible()
    page.goto(f"{car}/set/LF/gap_front")
    expect(page.get_by_role("button", name="strings on stands of their own")).to_be_visible()
    for _ in range(2):  # as fast as keys go: each change is one of the plan as it then is
        field.press("l")
    expect(page.get_by_text("The string lies on the tyres")).to_be_visible()
    expect(page.get_by_text("Not taken")).to_be_hidden()
    page.goto(f"{car}/jig")
    page.get_by_label("What is read").select_option("slope")
    for nth, point in (("First", "LF.lower.front"), ("Second", "LF.lower.rear")):
        page.get_by_label(f"{nth} point").select_option(point)
    expect(page.get_by_text("Zeroed on the frame itself.")).to_be_visible()
    field.press("g")
    expect(page.get_by_text("Zeroed on gravity.")).to_be_visible()


def test_a_wheel_is_read_at_any_turns_of_it_and_its_run_out_is_told(page, demo_server):
    page.goto(f"{demo_server.car('heather')}/set/LF/camber")
    field = page.locator("#tape-field")
    expect(page.get_by_role("heading", name="Left front camber")).to_be_visible()
    for turn, figure in (("", "-1.5"), ("half a turn round", "-1.9"), ("a quarter turn round", "-1.6")):
        if turn:
            field.press("h")
            expect(page.get_by_text(f"read {turn}").first).to_be_visible()
        field.fill(figure)
        field.press("Shift+Enter")
        expect(field).to_have_value("")
    expect(page.get_by_text("The rim runs out by 0.45° in all, and that is taken out.")).to_be_visible()
    log = page.request.get(f"{demo_server.api('heather')}/log?limit=3").json()
    assert [("half a turn" in line["sentence"], "90° round" in line["sentence"]) for line in log] == [(False, True), (True, False), (False, False)]  # fmt: skip


def test_a_level_goes_round_the_pads_and_the_last_step_closes_it(page, demo_server):
    car = demo_server.car("heather")
    page.goto(f"{car}/stance/state")
    page.get_by_role("button", name="Read them with a level, one to the next").click()
    for where, step in (("Right front", "-6"), ("Right rear", "9"), ("Left rear", "5.5"), ("Left front", "-8.5")):
        expect(page.get_by_role("heading", name=f"{where} pad, step from the ")).to_be_visible()
        page.locator("#tape-field").fill(step)
        page.locator("#tape-field").press("Enter")
    page.goto(f"{car}/stance/state")
    expect(page.get_by_text("The pads lie")).to_be_visible()
    expect(page.get_by_role("row", name="Left rear").first).to_contain_text("8.5 mm")
