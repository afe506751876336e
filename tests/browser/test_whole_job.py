"""One builder, one new car, the keyboard alone: from an empty list of cars to a corner that holds, with the plug pulled."""

import json
import re
import urllib.request

import pytest
from playwright.sync_api import Page, expect

from tests.browser.waiting import handed_over
from tests.core.practice import CORNERS, PracticeCar

WORTH = {"toe link": (0.05, 0.62), "upper arm rod end": (0.4, -0.3)}  # camber and toe in degrees a turn
NAME_OF_FOCUS = """() => { const e = document.activeElement; if (!e || e === document.body) return '';
  return (e.getAttribute('aria-label') || (e.labels && e.labels[0] && e.labels[0].innerText) || e.innerText || '').trim(); }"""


class Builder:
    """Hands on the keys, and a practice car whose truth is hidden from the program."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.toe = dict(zip(CORNERS, (0.12, 0.05, -0.62, 0.1), strict=True))
        self.camber = dict(zip(CORNERS, (-1.5, -1.45, -0.6, -1.5), strict=True))

    def press(self, *keys):
        for key in keys:
            self.page.keyboard.press(key)

    def tab_to(self, name, most=160):
        for _ in range(most):
            self.press("Tab")
            if re.fullmatch(name, self.page.evaluate(NAME_OF_FOCUS), re.S):
                return
        raise AssertionError(f"Tab never came to {name}")

    def fill(self, name, text):
        self.tab_to(name)
        self.page.keyboard.type(text)

    def place(self):
        return tuple(self.page.url.rsplit("/", 2)[1:])

    def tool_shows(self, corner, quantity):
        car = PracticeCar(self.toe, self.camber, half=(700.0, 690.0), left_string=(790, 0.4), right_string=(-790, 0.1))
        if quantity == "height":
            return "110"
        if quantity == "camber":
            return f"{round(car.gauge(corner) / 0.05) * 0.05:.2f}"
        return f"{round(2 * car.gaps(corner)[('gap_front', 'gap_back', 'gap_hub').index(quantity)]) / 2:.1f}"

    def read(self):
        """Read the place asked for and go on; return the place."""
        place = self.place()
        self.page.keyboard.type(self.tool_shows(*place))
        self.press("Enter")
        self.page.wait_for_function("was => !location.pathname.endsWith(was)", arg="/".join(place))
        return place

    def turn(self, name, turns, typed):
        corner = self.place()[0]
        self.press("t")
        field = self.page.locator("#tape-field")
        for _ in range(4):
            if name in self.page.get_by_role("heading", level=2).filter(has_text="how far").inner_text():
                break
            self.press("ArrowDown")
        self.page.keyboard.type(typed)
        expect(self.page.locator("#tape-means")).to_contain_text(re.compile("longer|shorter|out|in"))
        self.press("Enter")
        expect(field).to_have_value("")
        handed_over(self.page)
        self.press("m")  # whatever else the list would have turned
        self.page.wait_for_url("**/set/*/*")
        self.toe[corner] += WORTH[name][1] * turns
        self.camber[corner] += WORTH[name][0] * turns

    def turn_as_told(self):
        """Turn what stands in the field, and let the car follow."""
        expect(self.page.locator("#tape-means")).to_contain_text("turned as told")
        told = self.page.locator("#tape-field").get_attribute("placeholder")
        corner = self.page.url.split("/set/")[1][:2]
        name = next(n for n in WORTH if n in self.page.locator(".tape h2").inner_text())
        flats = sum(
            float(n.replace("½", ".5")) * {"turn": 6, "flat": 1}[unit] for n, unit in re.findall(r"([\d½]+) (turn|flat)", told)
        )
        turns = flats / 6 * (-1 if re.search("shorter|in$", told) else 1)
        self.toe[corner] += WORTH[name][1] * turns
        self.camber[corner] += WORTH[name][0] * turns
        where = self.page.url
        self.press("Enter")
        self.page.wait_for_function("was => location.href !== was", arg=where)


def begin(b: Builder, url):
    b.page.goto(url)
    expect(b.page.get_by_text("No car yet")).to_be_visible()
    b.tab_to("Begin a car")
    b.press("Enter")
    b.tab_to("All figures")
    b.press("Enter")
    b.fill("Name of the car", "Practice")
    b.fill("Wheelbase", "2400")
    for axle, track in (("Front", "1400"), ("Rear", "138cm")):
        b.fill(f"{axle} axle, Track", track)
        b.fill(f"{axle} axle, Rim over its flanges", "381")
        b.fill(f"{axle} axle, Tyre, outside", "600")
    for kind, aim, tolerance in (("height", "110", "3"), ("camber", "-1°30'", "0.3"), ("toe", "0.1", "0.3")):
        b.fill(f"Left front {kind} aim", aim)
        b.fill(f"Left front {kind} tolerance", "0" if kind == "toe" else tolerance)
    b.tab_to("Copy the left side to the right")  # the rear is empty still, and stays so
    b.tab_to("Copy the front to the rear")
    b.press("Enter")
    b.press("Shift+Tab", "Enter")
    for kind in ("Add a tube between two rod ends", "Add a rod end"):
        b.tab_to(kind)
        b.press("Enter")
    for name, ends in (("toe link", 2), ("upper arm rod end", 1)):
        b.press("Shift+Tab") if name == "toe link" else None
        back_to(b, "Name") if name == "toe link" else b.tab_to("Name.*")
        b.page.keyboard.type(name)
        b.tab_to("Corner.*")
        b.page.keyboard.type("Left rear")
        for i in range(ends):
            hand = "left-hand" if i else "right-hand"
            for part, figure in (("Thread ⌀", "12"), ("Pitch a turn", "1.75"), ("Engaged now", "30"), ("Exposed now", "20")):
                b.fill(f"{part}, {hand} end", figure)
    b.tab_to("Begin the car")
    b.press("Enter")


def back_to(b: Builder, name):
    """Shift-Tab to the first of the fields with a name (the adjusters added come before their buttons)."""
    seen = False
    for _ in range(60):
        b.press("Shift+Tab")
        here = b.page.evaluate(NAME_OF_FOCUS)
        if here.startswith("Copy the front"):
            break
        seen = seen or here.startswith(name)
    assert seen
    b.tab_to(f"{name}.*")


def log_of(url):
    with urllib.request.urlopen(f"{url}/api/cars/practice/log?limit=500") as answer:
        return json.load(answer)[::-1]


@pytest.mark.browser_context_args(service_workers="allow")
def test_from_an_empty_workshop_to_a_corner_that_holds_with_the_keyboard_alone(page: Page, empty_server):
    b = Builder(page)
    begin_a_car(b, empty_server.url)
    go_round(b)
    read_what_it_means(b)
    set_the_left_rear(b)
    look_at_the_log(b)
    pull_the_plug(b, empty_server)


def begin_a_car(b, url):
    """1. A tolerance of nothing is refused at its field, and nothing typed is lost."""
    page = b.page
    begin(b, url)
    expect(page.get_by_role("alert").filter(has_text="asks for the impossible").first).to_be_visible()
    for _ in range(4):
        if "tolerance" not in page.evaluate(NAME_OF_FOCUS):
            b.tab_to(".* toe tolerance")
        b.press("Control+a")
        page.keyboard.type("0.3")
        b.press("Tab")
    b.tab_to("Begin the car")
    b.press("Enter")
    expect(page.get_by_role("heading", name="Walk-round")).to_contain_text("0 of 12 marks hold")
    b.tab_to("Measured by")
    page.keyboard.type("Wren")


def go_round(b):
    """2. Settled first; a slip is struck out, a figure no car has is asked about, a repeat is taken, a place skipped."""
    page, means = b.page, b.page.locator("#tape-means")
    b.tab_to("Set")
    b.press("Enter")
    expect(page.locator("#tape-field")).to_be_focused()
    b.press("s")
    expect(means).to_contain_text("20 places still to read")
    page.keyboard.type("211")
    expect(means).to_contain_text("101.0 mm down to go")
    b.press("Enter")
    page.wait_for_url("**/RF/height")
    b.press("Backspace")
    page.wait_for_url("**/LF/height")
    expect(means).to_contain_text("Struck out: Left front ride height")
    page.keyboard.type("4m")
    b.press("Enter")
    expect(page.locator(".refused")).to_contain_text("Left front ride height: 4m")
    expect(page.locator(".refused")).to_contain_text("is on no car")
    b.press("r")
    page.wait_for_url("**/LF/height")
    expect(page.locator("#tape-field")).to_have_value("4m")
    b.press("Escape")
    page.keyboard.type("110")
    b.press("Shift+Enter")
    expect(page.locator("#tape-field")).to_have_value("")
    assert b.place() == ("LF", "height")
    b.press("ArrowDown", "ArrowUp")
    seen = [b.read() for _ in range(20)]
    assert seen[0] == ("LF", "height")
    assert len(set(seen)) == 20
    expect(means).to_contain_text("every place is read")


def read_what_it_means(b):
    """3. Toe in words and every way, total toe, thrust, each with its U."""
    while b.place() != ("LR", "gap_front"):
        b.press("ArrowDown")
    side = b.page.locator("main .side")
    for words in ("mm out over the rim's 381 mm", "out over the tyre's", "total toe", "thrust", "rake", "±"):
        expect(side).to_contain_text(words)
    shown = float(re.search(r"toe\s*([\d.]+)° out", side.inner_text())[1])
    assert abs(shown - 0.62) < 0.12  # deg; U of a half-millimetre rule over this rim


def read_what_moved(b):
    """What a turn at the left rear has moved: its camber and toe, and nothing elsewhere."""
    for quantity in ("height", "camber", "gap_front", "gap_back"):
        while b.place() != ("LR", quantity):
            b.press("ArrowDown")
        b.read()


def set_the_left_rear(b):
    """4. Two trials, then the turns that are told; and 5. what no longer holds after each."""
    page, side = b.page, b.page.locator("main .side")
    for name, typed in (("toe link", "1t longer"), ("upper arm rod end", "1 turn")):
        b.turn(name, 1.0, typed)
        expect(side).to_contain_text("moved since")
        read_what_moved(b)
        while b.place() != ("LR", "gap_front"):
            b.press("ArrowDown")
    handed_over(page)  # what is told goes by every reading
    b.press("t")
    for _ in range(2):
        b.turn_as_told()
    read_what_moved(b)
    for corner in ("LR", "LF"):  # an arm of which nothing is told may have taken the hub along: the gaps to that string
        while b.place() != (corner, "gap_hub"):
            b.press("ArrowDown")
        b.read()
    assert abs(b.camber["LR"] + 1.5) < 0.2
    assert abs(b.toe["LR"] - 0.1) < 0.15
    b.tab_to("Ready Corner.*")
    b.press("Enter")
    expect(page.get_by_role("heading", name="Walk-round")).to_contain_text("12 of 12 marks hold")


def look_at_the_log(b):
    """6. Newest first, what was struck stays, with who."""
    b.tab_to("Log")
    b.press("Enter")
    struck = b.page.locator("li[data-struck]")
    expect(struck).to_have_count(1)
    expect(struck).to_contain_text("211.0, tape")
    expect(b.page.locator("ol li").first).to_contain_text("Wren")


def pull_the_plug(b, server):
    """7. The browser goes on recording, opens again after a reload, and hands over in order."""
    page, status = b.page, b.page.get_by_role("status")
    acknowledged = log_of(server.url)
    b.tab_to("Set")
    b.press("Enter")
    expect(page.locator("#tape-field")).to_be_focused()
    server.pull_the_plug()
    page.keyboard.type("110.5")
    b.press("Enter")
    expect(status).to_contain_text("Server away")
    page.keyboard.type("109.5")
    b.press("Enter")
    expect(status).to_contain_text("2 kept in this browser")
    page.reload()
    expect(status).to_contain_text("2 kept in this browser")
    page.keyboard.type("110")
    b.press("Enter")
    expect(status).to_contain_text("3 kept in this browser")
    server.start()
    expect(status).to_have_count(0, timeout=15_000)
    after = log_of(server.url)
    assert after[: len(acknowledged)] == acknowledged
    assert [x["entry"]["what"]["typed"] for x in after[len(acknowledged) :]] == ["110.5", "109.5", "110"]
    assert [x["entry"]["number"] for x in after] == list(range(1, len(after) + 1))
