"""The demo car as people meet it: by mouse and by finger, through a server that is away, and with somebody else at the same car."""

import json
import re
import urllib.request

import pytest
from playwright.sync_api import expect

from tests.conftest import entry_json


@pytest.fixture
def tern(page, demo_server):
    slug = demo_server.slug("tern")
    page.goto(demo_server.url)
    page.locator(f'a[href="/cars/{slug}"]').click()
    expect(page.get_by_role("heading", name="Walk-round")).to_contain_text("6 of 15 marks hold")
    return page


def send(server, what):
    data = json.dumps(entry_json(what)).encode()
    request = urllib.request.Request(f"{server.api('tern')}/entries", data, {"content-type": "application/json"})
    with urllib.request.urlopen(request) as answer:
        return json.load(answer)


def test_the_demo_car_stands_half_set_with_every_state_and_its_reason(tern):
    words = {"holds", "out", "too close to call", "moved since", "unread"}
    cells = tern.locator("td button")
    assert words == {cell.get_attribute("data-state") for cell in cells.all()}
    for cell in cells.all():
        assert re.search(r", (holds|out|too close to call|moved since|unread), .+", cell.get_attribute("aria-label"))
    expect(tern.get_by_role("region", name="What to do next")).to_contain_text("Read left front rim, front edge to the string")
    tern.get_by_role("button", name="Read it").click()
    expect(tern).to_have_url(re.compile(r"/set/LF/gap_front$"))
    tern.reload()
    expect(tern.get_by_role("heading", name="Left front rim, front edge to the string")).to_be_visible()
    expect(tern.locator("#tape-field")).to_be_focused()


def test_a_mark_picked_by_mouse_is_read_turned_and_struck_out(tern):
    tern.get_by_role("button", name=re.compile("Right front toe")).click()
    expect(tern).to_have_url(re.compile(r"/set/RF/gap_front$"))
    tern.get_by_role("button", name="turn an adjuster").click()
    expect(tern.get_by_role("heading", name="Right front, tie rod: how far was it turned?")).to_be_visible()
    expect(tern.locator(".caution")).to_contain_text("Both jam nuts off first")
    tern.locator("#tape-field").fill("9t shorter then")
    expect(tern.locator("#tape-means")).to_contain_text("is not turns and flats")
    tern.locator("#tape-field").fill("40t")
    expect(tern.locator("#tape-means")).to_contain_text("would go past its thread: only 9 turns longer is left")
    tern.locator("#tape-field").fill("1f shorter")
    expect(tern.locator("#tape-means")).to_contain_text("toe would read")
    tern.get_by_role("button", name="Enter", exact=True).click()
    expect(tern).to_have_url(re.compile(r"/set/RF/(height|camber|gap_front)$"))
    tern.get_by_role("link", name="Log").click()
    tern.get_by_role("button", name="Strike out 61").click()
    struck = tern.locator("li[data-struck][data-kind=turned]", has_text="1 flat shorter")
    expect(struck).to_contain_text("struck out by entry 62")
    struck.get_by_role("button", name="Bring back").click()
    expect(struck).to_have_count(0)
    expect(tern.locator("ol li").first).to_contain_text("Brought back")


def test_what_was_kept_here_and_is_refused_later_is_shown_and_the_rest_goes_on(tern, demo_server):
    tern.goto(f"{demo_server.car('tern')}/set/LF/turn/LF.tie-rod")
    field, status = tern.locator("#tape-field"), tern.get_by_role("status")
    expect(field).to_be_focused()
    tern.context.set_offline(True)
    field.fill("9t longer")
    field.press("Enter")
    expect(status).to_contain_text("1 kept in this browser")
    field.fill("5 1/4")
    field.press("Enter")
    expect(status).to_contain_text("2 kept in this browser")
    send(demo_server, {"kind": "turned", "adjuster": "LF.tie-rod", "typed": "8t longer"})
    tern.context.set_offline(False)
    expect(status).to_contain_text("1 not taken", timeout=15_000)
    status.get_by_role("link").click()
    row = tern.locator("li[data-refused]")
    expect(row).to_contain_text("would go past its thread")
    expect(tern.locator("ol li").first).to_contain_text("5 1/4")
    row.get_by_role("button", name="Discard").click()
    expect(status).to_have_count(0)


def test_a_plan_that_somebody_else_revised_meanwhile_takes_what_was_changed_figure_by_figure(tern, demo_server):
    def planned():
        with urllib.request.urlopen(f"{demo_server.api('tern')}/plan.json") as answer:
            return json.load(answer)

    tern.get_by_role("link", name="Plan", exact=True).click()
    tern.get_by_role("button", name="All figures").click()
    tyre = tern.get_by_label("Front axle, Tyre, outside")
    expect(tyre).to_have_value("23 1/2")
    # Of a plan that nobody has touched here the newer one is shown, and nothing is asked.
    send(demo_server, {"kind": "plan", "plan": planned() | {"about": "as Lark has it"}, "revises": 1})
    expect(tern.get_by_label("What it is")).to_have_value("as Lark has it")
    tyre.fill("23 5/8")
    tyre.press("Tab")
    expect(tyre).to_have_value("23 5/8")
    theirs = planned()
    theirs["rear"]["tyre_diameter"] += 12.7
    theirs["adjusters"][0]["name"] = "front tie rod"
    send(demo_server, {"kind": "plan", "plan": theirs, "revises": 61})
    note = tern.get_by_role("status").filter(has_text="Entry 62 has revised this plan")
    expect(note).to_be_visible()
    tern.get_by_role("button", name="Keep this plan").click()
    expect(tern.get_by_role("alert").first).to_contain_text("entry 62 has revised it since")
    expect(tyre).to_have_value("23 5/8")
    note.get_by_role("button", name="Lay what I changed on it").click()
    expect(note).to_have_count(0)
    tern.get_by_role("button", name="Keep this plan").click()
    expect(tern.get_by_role("heading", name="Walk-round")).to_be_visible()
    kept = planned()
    assert kept["front"]["tyre_diameter"] == pytest.approx(23.625 * 25.4)
    assert (kept["rear"], kept["adjusters"], kept["about"]) == (theirs["rear"], theirs["adjusters"], "as Lark has it")


def test_the_log_tells_what_happened_and_a_weld_has_its_caution(tern):
    tern.get_by_role("link", name="Log").click()
    expect(tern.locator("ol li").first).to_contain_text("Left front tie rod: 2 flats shorter")
    tern.get_by_label("Welded").check()
    expect(tern.get_by_text("No weld near fuel")).to_be_visible()
    tern.get_by_label("Where").select_option("Left rear")
    tern.get_by_label("In your words").fill("gusset at the link bracket")
    tern.get_by_role("button", name="Record it").click()
    expect(tern.locator("ol li").first).to_contain_text("Left rear: gusset at the link bracket")
    tern.get_by_role("link", name="Ready Corner").click()
    expect(tern.get_by_role("button", name="Left rear camber")).to_have_attribute("data-state", "moved since")


def test_an_unknown_car_is_said_with_the_way_back(tern, demo_server):
    tern.goto(f"{demo_server.url}/cars/heron")
    expect(tern.locator("main")).to_contain_text("There is no car “heron” in this workshop")
    tern.get_by_role("link", name="All cars").click()
    expect(tern.get_by_role("link", name="Tern").first).to_be_visible()
