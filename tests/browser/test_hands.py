"""The car in a hand's reach: every page at every width, with nothing cut off, too small or out of reach; and the tape worked by touch alone."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.amounts import ALL
from tests.conftest import entry_json, reading_json

HERE = Path(__file__).parent
LOOKED = (HERE / "hands.js").read_text()
LOOKED = LOOKED[LOOKED.index("() =>") :].rstrip().rstrip(";")
AXE = HERE.parents[1] / "frontend/node_modules/axe-core/axe.min.js"
WIDTHS = {True: (360, 390, 820, 1024), False: (1024, 1280, 1920)}  # by finger, and by mouse
WIDTHS = WIDTHS if ALL else {True: (360, 820), False: (1280,)}
LOOKED_INTO = (360, 1280)
VIOLATIONS = (
    "axe.run({ resultTypes: ['violations'] }).then((found) => found.violations.map((v) => `${v.id} ${v.nodes[0].target}`))"
)
PAGES = {
    "": "/ /begin /begin/figures /practice /shop",
    "tern": " /wall /set/LF/height /set/RF/turn/RF.tie-rod /stance/floor /stance/springs /plan /plan/figures /log",
    "heather": "/set/LF/gap_front /stance/stands/LR/hub /travel /jig /plan /plan/figures",
}


def addresses(demo):
    for name, paths in PAGES.items():
        yield from ((demo.car(name) if name else demo.url) + path for path in paths.split(" ") if path or name)


# Two frames on; a browser that paints none for a while, as one on a busy machine may, has nothing more to settle.
SETTLED = "() => new Promise((then) => { requestAnimationFrame(() => requestAnimationFrame(then)); setTimeout(then, 3000); })"


def looked_at(page):
    """Return what is wrong with a page at any width, as sentences; it is left at the last."""
    fingers = page.context.new_cdp_session(page)
    page.evaluate("document.fonts.ready")
    page.evaluate(AXE.read_text())
    faults = []
    for touch, width in ((touch, width) for touch, widths in WIDTHS.items() for width in widths):
        fingers.send("Emulation.setTouchEmulationEnabled", {"enabled": touch})
        page.set_viewport_size({"width": width, "height": 800})
        page.evaluate(SETTLED)
        assert page.evaluate("matchMedia('(pointer: coarse)').matches") == touch
        found = page.evaluate(LOOKED) + (page.evaluate(VIOLATIONS) if width in LOOKED_INTO else [])
        faults += [f"at {width}: {fault}" for fault in found]
    return faults


@pytest.mark.parametrize("part", range(4))
def test_every_page_at_every_width_has_nothing_cut_off_too_small_or_out_of_reach(page, demo_server, part):
    faults = []
    for address in list(addresses(demo_server))[part::4]:
        page.goto(address, wait_until="networkidle")
        expect(page.locator("main[aria-busy]")).to_have_count(0)  # a page that is on its way has a test of its own
        faults += [f"{address[len(demo_server.url) :]} {fault}" for fault in looked_at(page)]
    assert not faults, "\n".join(faults)


@pytest.mark.parametrize("away", [False, True])
def test_a_car_on_its_way_or_out_of_reach_says_so_at_every_width(page, demo_server, away):
    kept_waiting = []
    page.route(re.compile("/api/cars/"), lambda route: route.abort() if away else kept_waiting.append(route))
    if not away:
        page.route("**/api/cars/tern/opened", lambda route: route.fulfill(json={"share": 0.35}))
    page.goto(demo_server.url + "/cars/tern/set/RF/turn/RF.tie-rod")
    expect(page.get_by_role("heading", level=1)).to_have_text("Opening the logbook…")
    expect(page.get_by_role("main").get_by_role("status")).to_have_text(re.compile("The server is away" if away else "^$"))
    if not away:
        expect(page.get_by_role("main")).to_contain_text("35 % is read and worked out")
    assert looked_at(page) == []


@pytest.fixture
def phone(browser):
    context = browser.new_context(
        viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True, service_workers="block"
    )
    yield context.new_page()
    context.close()


def tap(page, *names):
    for name in names:
        page.get_by_role("button", name=name, exact=True).tap()


def test_a_reading_is_taken_repeated_and_struck_out_by_touch_alone_in_fractions_of_an_inch(phone, demo_server):
    phone.goto(demo_server.car("tern") + "/set/LF/height")
    field = phone.locator("#tape-field")
    expect(field).to_have_attribute("inputmode", "none")  # the system's keyboard stays away
    tap(phone, "5", "space", "1", "over", "4")
    expect(field).to_have_value("5 1/4")
    expect(phone.locator("#tape-means")).to_contain_text("·")
    strip = phone.get_by_role("slider", name="Fraction of an inch")
    box = strip.bounding_box()
    strip.tap(position={"x": 14 + (box["width"] - 28) * 9 / 32, "y": 20})
    expect(field).to_have_value("5 9/32")
    tap(phone, "take the last key back", "2")
    expect(field).to_have_value("5 9/32")
    before = demo_server.server.ask(demo_server.api("tern").removeprefix(demo_server.url))["number"]
    tap(phone, "Enter")
    expect(field).to_have_value("")
    phone.wait_for_function(
        "n => fetch(location.pathname.replace('/cars', '/api/cars').split('/').slice(0, 4).join('/')).then(r => r.json()).then(c => c.number > n)",
        arg=before,
    )
    tap(phone, "strike out the last")
    expect(phone.locator("#tape-means")).to_contain_text("Struck out")


# What of the tape is not whole on the screen, and where its first key lies.
ON_SCREEN = """() => {
  const tape = document.querySelector('section.tape'), off = [];
  for (const e of tape.querySelectorAll('h2, #tape-field, #tape-means, .keys button, .hooks > *, .fold')) {
    const r = e.getBoundingClientRect();
    if (r.top < 0 || r.left < 0 || r.bottom > innerHeight || r.right > innerWidth) off.push(e.textContent || e.id || e.tagName);
  }
  const ask = tape.querySelector('.ask');
  if (ask.scrollHeight > ask.clientHeight + 1) off.push(`what is asked is ${ask.scrollHeight} high on ${ask.clientHeight}`);
  const last = [...tape.querySelectorAll('.pad button')].at(-1).getBoundingClientRect();
  return [off, [last.left, last.top]];
}"""
SHOWN = {
    "tern": "set/LF/height set/LF/gap_front set/LF/camber set/LR/gap_hub set/RF/turn/RF.tie-rod stance/floor stance/stands/LR/hub",
    "heather": "set/LF/height set/RR/camber set/LF/turn/LF.pushrod stance/floor stance/stands/LF/stand plan jig",
    "": "begin",
}


@pytest.mark.parametrize("size", [(360, 640), (390, 844), (768, 1024)])
def test_in_a_hand_the_question_the_figure_and_every_key_are_on_the_screen_and_keys_stay_where_they_are(
    browser, demo_server, size
):
    context = browser.new_context(
        viewport=dict(zip(("width", "height"), size, strict=True)), has_touch=True, is_mobile=True, service_workers="block"
    )
    page, keys, amiss = context.new_page(), set(), []
    for name, paths in SHOWN.items():
        for path in paths.split(" "):
            page.goto(f"{demo_server.car(name)}/{path}" if name else f"{demo_server.url}/{path}", wait_until="networkidle")
            if path == "jig":  # folded until two points are picked, so that the drawing is seen
                page.locator("svg circle.touch").first.wait_for()
                expect(page.get_by_role("button", name="to the keys")).to_be_visible()
                for nth in (0, 9):
                    page.locator("svg circle.touch").nth(nth).dispatch_event("click")
            page.get_by_role("button", name="Enter", exact=True).wait_for()
            page.evaluate(SETTLED)
            off, at = page.evaluate(ON_SCREEN)
            keys.add(tuple(at))
            amiss += [f"{name}/{path}: {one}" for one in off]
    context.close()
    assert not amiss, "\n".join(amiss)
    assert len(keys) == 1, keys


def test_every_enter_of_a_hand_is_answered_beside_the_keys(phone, demo_server):
    phone.goto(demo_server.car("heather") + "/set/LF/height")
    means = phone.locator("#tape-means")
    tap(phone, "7", "8", "Enter")
    expect(means).to_contain_text("✓ Kept: Left front ride height: 78")
    expect(phone.locator("#tape-field")).to_have_value("")
    tap(phone, "look at the page behind")
    expect(phone.locator("#tape-field")).to_have_count(0)
    tap(phone, "to the keys")
    tap(phone, "9", "9", "9", "Enter")  # on no car
    refused = phone.get_by_role("alert").filter(has_text="Not taken")
    expect(refused).to_be_in_viewport(ratio=1)
    expect(means).not_to_contain_text("Kept")
    refused.get_by_role("button", name="discard it").tap()
    expect(refused).to_have_count(0)


def test_from_any_car_the_other_cars_and_practice_are_one_menu_away(page, demo_server):
    page.goto(demo_server.car("tern") + "/set/LF/height")
    page.get_by_title("Go to").click()
    page.get_by_role("navigation", name="Go to").get_by_role("link", name="All cars").click()
    expect(page.get_by_role("link", name=re.compile("^Heather")).first).to_be_visible()
    page.get_by_title("Go to").click()
    page.get_by_role("navigation", name="Go to").get_by_role("link", name="Practice").click()
    expect(page).to_have_url(re.compile("/practice$"))


# Looks at every frame where a key lies; where it has moved, by how much, and what was said then.
WATCHED = """(key) => {
  const stood = key.getBoundingClientRect().top;
  window.moved = {};
  const look = () => {
    const by = key.getBoundingClientRect().top - stood;
    if (by || !key.isConnected) window.moved[by] = document.querySelector('#tape-means').innerText;
    requestAnimationFrame(look);
  };
  look();
}"""


@pytest.mark.parametrize("place", ["set/LF/height", "set/LR/gap_back", "set/RF/turn/RF.tie-rod", "jig", "stance/floor", "plan"])
def test_the_keys_stay_under_the_thumb_whatever_is_said_of_what_is_typed(phone, demo_server, place):
    """Nothing typed, a figure with its meaning, one that cannot be read, one that no car has, and what follows on it."""
    phone.goto(f"{demo_server.car('heather' if place == 'jig' else 'tern')}/{place}")
    for nth in (0, 9) if place == "jig" else ():  # a distance between two points
        phone.locator("svg circle.touch").nth(nth).dispatch_event("click")
    key = phone.get_by_role("button", name="1", exact=True)
    key.wait_for()
    phone.wait_for_timeout(500)  # of the browser's own clock: what the page itself asks for has come
    key.evaluate(WATCHED)
    field, means = phone.locator("#tape-field"), phone.locator("#tape-means")
    said = {means.inner_text()}
    for typed in ("5", "5 1/4", "5 1/", "999", "-0.5", "7 7/7", ""):
        field.evaluate("(f, v) => { f.value = v; f.dispatchEvent(new Event('input', { bubbles: true })) }", typed)
        phone.wait_for_timeout(400)
        said.add(means.inner_text())
    assert phone.evaluate("window.moved") == {}
    assert len(said) > 2, said  # something was said, or nothing was tried


def test_on_a_phone_every_stage_is_two_touches_away_and_turns_are_typed_in_turns_and_flats(phone, demo_server):
    phone.goto(demo_server.car("tern"))
    phone.get_by_role("button", name="Walk-round").tap()
    phone.get_by_role("navigation", name="Go to").get_by_role("link", name="Set", exact=True).tap()
    expect(phone.locator("#tape-field")).to_be_visible()
    place = phone.url
    phone.get_by_role("button", name="skip").tap()
    expect(phone).not_to_have_url(place)
    phone.get_by_role("button", name="turn it").tap()
    tap(phone, "1", "turns", "2", "flats")
    expect(phone.locator("#tape-field")).to_have_value("1t2f")
    expect(phone.locator("#tape-means")).to_contain_text("longer")


@pytest.mark.parametrize("without", ["**/api/cars/*/latest", "**/api/news"])  # told of by the server, or asked for
def test_two_devices_on_one_car_see_each_others_entries(browser, demo_server, without):
    address = demo_server.car("heather") + "/set/LF/height"
    pages = [
        browser.new_context(viewport={"width": w, "height": 800}, has_touch=w < 900, service_workers="block").new_page()
        for w in (390, 1280)
    ]
    for page in pages:
        page.route(without, lambda route: route.abort())
        page.goto(address)
        expect(page.locator("#tape-field")).to_be_visible()
    phone, laptop = pages
    expect(laptop.get_by_text("81.5")).to_have_count(0)
    tap(phone, "8", "1", "point", "5", "Enter")
    expect(laptop.get_by_text("81.5 mm").first).to_be_visible()
    laptop.locator("#tape-field").press_sequentially("79")  # typed while the phone's entry comes in: nothing of it is lost
    tap(phone, "8", "0", "Enter")
    laptop.wait_for_timeout(2000)
    expect(laptop.locator("#tape-field")).to_have_value("79")
    for page in pages:
        page.context.close()


def test_the_keys_of_a_page_are_on_one_sheet(page, demo_server):
    page.goto(demo_server.car("tern") + "/set/LF/camber")
    page.locator("#tape-field").press("?")
    sheet = page.get_by_role("dialog", name="the keys of this page")
    expect(sheet).to_contain_text("record, same place again")
    page.keyboard.press("Escape")
    expect(sheet).to_be_hidden()
    expect(page.locator("#tape-field")).to_have_value("")


def test_the_page_for_the_wall_follows_the_car_by_itself(page, demo_server):
    page.goto(demo_server.car("tern"))
    page.get_by_role("link", name="for the wall").click()
    expect(page.get_by_role("region", name="Now")).to_contain_text("Read left front rim, front edge to the string")
    expect(page.get_by_role("region", name="Still to go")).to_contain_text("Right front toe")
    path = demo_server.api("tern").removeprefix(demo_server.url) + "/entries"
    reading = {**reading_json("LF", "gap_front", "4"), "version": 1, "confirmed": True}
    demo_server.server.ask(path, entry_json(reading))
    expect(page.get_by_role("region", name="Now")).not_to_contain_text("front edge to the string")


def test_from_nothing_to_a_first_toe_verdict_by_touch_alone(phone, served):
    def number(*figures):
        for figure in figures:
            tap(phone, *({".": "point", "-": "minus"}.get(key, key) for key in figure), "Enter")

    phone.goto(f"{served.url}/begin")
    phone.get_by_label("Name of the car").tap()
    phone.keyboard.type("Ruff")  # a name is written on the system's own keys
    number("2400", "1400", "381", "600")
    tap(phone, "Enter", "Enter", "Enter")  # the rear axle as the front
    expect(phone.get_by_role("heading", name="Front axle, ride height of both wheels")).to_be_visible()
    for _ in range(8):
        tap(phone, "skip")
    expect(phone.get_by_role("heading", name="Front axle, toe of both wheels", exact=True)).to_be_visible()
    number("0.1", "0.2")
    phone.get_by_role("button", name="Begin the car").tap()
    expect(phone.get_by_role("heading", name="Walk-round")).to_be_visible()
    phone.get_by_role("button", name="Walk-round").tap()
    phone.get_by_role("navigation", name="Go to").get_by_role("link", name="Set", exact=True).tap()
    for corner, gaps in (("Left front", ("front", "back", "hub")), ("Left rear", ("hub",))):
        for gap in gaps:
            phone.get_by_role("button", name=corner).first.tap()
            phone.get_by_role("button", name=re.compile(f"^{gap}: ")).tap()
            number("100")
    phone.get_by_role("button", name="Set").first.tap()
    phone.get_by_role("navigation", name="Go to").get_by_role("link", name="Walk-round").tap()
    expect(phone.get_by_role("button", name="Left front toe: 0.00°")).to_be_visible()


def test_a_slip_of_a_plan_is_asked_about_at_its_key_and_what_is_given_is_not_called_missing_any_more(phone, served):
    phone.goto(f"{served.url}/begin")
    tap(phone, *"2310", "Enter", *"143", "Enter")
    tape = phone.locator("section.tape")
    expect(
        tape.get_by_text("Front track of 143.0 mm under a wheelbase of 2310.0 mm: a digit too many or too few?")
    ).to_be_in_viewport()
    phone.get_by_role("button", name="Begin the car").tap()
    expect(phone.get_by_text("6 figures are still missing.")).to_be_visible()  # its name among them
    phone.get_by_label("Name of the car").fill("Slip")
    expect(phone.get_by_text("5 figures are still missing.")).to_be_visible()


def test_a_car_in_the_list_says_how_it_stands_and_who_comes_back_is_told_what_happened_since(page, demo_server):
    car = demo_server.car("tern")
    page.goto(demo_server.url)
    card = page.get_by_role("link", name=re.compile("^Tern")).first
    expect(card).to_contain_text(re.compile(r"\d+ of \d+ marks hold\. Next: \w+"))
    page.goto(car)
    back = page.get_by_role("complementary", name="Since you were here")
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()
    expect(back).to_have_count(0)
    key = f"ready-corner/seen/{demo_server.slug('tern')}"
    page.evaluate(f"localStorage.setItem('{key}', JSON.stringify({{ number: 20, at: Date.now() - 6 * 864e5 }}))")
    page.reload()
    expect(back).to_contain_text(re.compile(r"You were here last 6 days ago\. Since then: \d+ lines by"))
    expect(back).to_contain_text("tyre pressures")
    back.get_by_role("button", name="Go on").click()
    expect(back).to_have_count(0)


@pytest.mark.parametrize(("square", "said"), [(True, "Rail: square within 3.0 mm"), (False, "Rail: not square")])
def test_from_nothing_four_corners_of_a_frame_are_told_square_or_not_in_under_sixty_touches(phone, served, square, said):
    keys = 0

    def number(*figures):
        nonlocal keys
        for figure in figures:
            names = [*({".": "point"}.get(key, key) for key in figure), "Enter"]
            tap(phone, *names)
            keys += len(names)

    phone.goto(f"{served.url}/begin")
    phone.get_by_label("Name of the car").tap()
    phone.keyboard.type(f"Rails {square}")
    phone.get_by_role("button", name="Only its frame is there").tap()
    expect(phone.get_by_role("heading", name="Frame: length between its corners")).to_be_visible()
    number("1800", "800", "", "3")  # as wide behind as in front
    tap(phone, "keep")
    ends = {"left", "front"}, {"left", "rear"}, {"right", "front"}, {"right", "rear"}
    across = {True: ("1969.8", "1969.8"), False: ("1978.6", "1960.8")}[square]
    heading = phone.locator("section.tape h2")
    expect(heading).to_contain_text("to rail")
    for left in range(6, 0, -1):
        words = heading.inner_text().lower().split(" to ")
        one, other = ({w for w in end.split() if w != "rail"} for end in words)
        assert one in ends
        assert other in ends
        if len(one & other) == 1:
            number("1800" if "left" in one & other or "right" in one & other else "800")
        else:
            number(across[0] if {"left", "front"} in (one, other) else across[1])
        if left > 1:
            expect(heading).not_to_have_text(" to ".join(words), ignore_case=True)
    expect(phone.get_by_text(said)).to_be_in_viewport()
    assert keys + 1 < 60


def test_on_a_phone_the_next_step_is_one_sentence_and_its_reasons_come_at_a_touch(page, demo_server):
    car = demo_server.car("tern")
    page.set_viewport_size({"width": 390, "height": 844})
    reason = " ".join(["Read before it was turned, and moved since by more than a quarter of its tolerance."] * 4)

    def long(route):
        told = route.fetch().json()
        route.fulfill(json=told | {"next": told["next"] | {"reason": reason}})

    page.route(re.compile(r"/api/cars/[\w-]+$"), long)
    page.goto(car)
    card = page.get_by_role("region", name="What to do next")
    expect(card.get_by_role("heading")).to_be_visible()
    expect(card.get_by_text(reason)).to_be_hidden()
    assert card.bounding_box()["height"] < 240
    card.get_by_role("button", name="Why").click()
    expect(card.get_by_text(reason)).to_be_visible()
    page.set_viewport_size({"width": 1280, "height": 800})
    expect(card.get_by_role("button", name="Less")).to_be_hidden()
