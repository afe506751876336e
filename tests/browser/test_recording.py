"""What is typed is what is kept, to the last digit and in order, whenever the answers come, and whatever becomes of them."""

import json
import re
import time

import pytest
from playwright.sync_api import expect

from tests.amounts import drawn
from tests.browser.waiting import handed_over
from tests.conftest import entry_json, plan_json, reading_json

# Delays every answer to a recording by turns; the request itself goes out at once, as on a slow line.
LATE = """(delays => {
  const straight = window.fetch.bind(window); let n = 0;
  window.fetch = async (path, options) => {
    const answer = await straight(path, options);
    if (options?.method === 'POST' || String(path).includes('/stance') || String(path).includes('/jig')) await new Promise(r => setTimeout(r, delays[n++ % delays.length]));
    return answer;
  };
})(DELAYS)"""


def late(delays):
    return LATE.replace("DELAYS", str(delays))


FIGURES = ("110.25", "104.61", "114.75", "104.52", "-1.33", "0.28", "-1.5", "89.55")


@pytest.fixture
def car(served):
    return served.ask("/api/cars", entry_json({"kind": "plan", "plan": plan_json()}))["slug"]


def kept(server, slug, key="typed"):
    return [e["what"][key] for e in server.ask(f"/api/cars/{slug}/logbook.json")["entries"] if key in e["what"]]


def comes_to(server, slug, figures, patience=10):
    """Wait until what is kept of a car is this, and no more."""
    until = time.monotonic() + patience
    while kept(server, slug) != figures and time.monotonic() < until:
        time.sleep(0.05)
    assert kept(server, slug) == figures


def at(page, server, slug, path="set/LF/height"):
    page.goto(f"{server.url}/cars/{slug}/{path}")
    expect(page.locator("#tape-field")).to_be_focused()


@pytest.mark.parametrize("delays", [[0], [80], [300], [1500], [300, 0, 1500, 80, 20]][:: drawn(1, 4)])
def test_figures_typed_at_speed_are_kept_to_the_last_digit_in_order(page, served, car, delays):
    page.add_init_script(late(delays))
    at(page, served, car)
    for figure in FIGURES:
        page.keyboard.type(figure, delay=60)
        page.keyboard.press("Enter")
        expect(page.locator("#tape-field")).to_have_value("", timeout=200)
    # Every one at a place of its own, in walking order, without one skipped.
    expect(page).to_have_url(re.compile("/set/LF/gap_front$"))
    handed_over(page)
    comes_to(served, car, list(FIGURES))
    places = [(e["what"]["corner"], e["what"]["quantity"]) for e in served.ask(f"/api/cars/{car}/logbook.json")["entries"][1:]]
    assert places == [(c, q) for q in ("height", "camber") for c in ("LF", "RF", "RR", "LR")]


def test_a_wrong_figure_stands_beside_the_tape_and_lets_the_others_pass(page, served, car):
    page.add_init_script(late([200]))
    at(page, served, car)
    for figure in ("111x", "112", "4m", "113"):
        page.keyboard.type(figure, delay=20)
        page.keyboard.press("Enter")
    refused = page.locator(".refused")
    expect(refused).to_contain_text("Left front ride height: 111x")
    expect(refused).to_contain_text("and 1 more")
    comes_to(served, car, ["112", "113"])
    page.keyboard.press("r")  # typed again where it belongs, with what was typed
    expect(page).to_have_url(re.compile("/set/LF/height$"))
    expect(page.locator("#tape-field")).to_have_value("111x")
    page.wait_for_function(
        "getSelection().toString() === '111x' || document.activeElement.selectionEnd === 4 && document.activeElement.selectionStart === 0"
    )
    page.keyboard.type("111")  # in its place, not behind it
    page.keyboard.press("Enter")
    expect(refused).to_contain_text("Right rear ride height: 4m")
    expect(refused).to_contain_text("is on no car")
    page.keyboard.press("k")  # kept, marked
    expect(refused).to_have_count(0)
    handed_over(page)
    comes_to(served, car, ["112", "113", "111", "4m"])
    assert kept(served, car, "confirmed")[1:] == [False, False, False, True]


def test_striking_out_follows_the_keys_and_not_the_answers(page, served, car):
    page.add_init_script(late([400]))
    at(page, served, car)
    for figure in ("110", "111", "112"):
        page.keyboard.type(figure, delay=20)
        page.keyboard.press("Enter")
    page.keyboard.press("Backspace")
    expect(page).to_have_url(re.compile("/set/RR/height$"))
    page.keyboard.press("Backspace")
    expect(page).to_have_url(re.compile("/set/RF/height$"))
    page.keyboard.type("115")
    page.keyboard.press("Enter")
    handed_over(page)
    log = served.ask(f"/api/cars/{car}/log")
    assert [(line["entry"]["what"].get("typed"), bool(line["struck_by"])) for line in log[::-1]][1:4] == [("110", False), ("111", True), ("112", True)]  # fmt: skip
    page.keyboard.press("z")  # the last strike is taken back
    handed_over(page)
    assert [bool(line["struck_by"]) for line in served.ask(f"/api/cars/{car}/log")[::-1]][1:4] == [False, False, True]
    page.reload()
    page.locator("#tape-field").press("Backspace")
    expect(page.locator("#tape-means")).to_contain_text("Nothing was written down on this page")
    assert log[0]["entry"]["what"]["typed"] == "115"


def test_after_a_turn_its_own_corner_is_read_whenever_the_answer_comes(page, served, car):
    page.add_init_script(late([700]))
    at(page, served, car, "set/LR/turn/LR.toe")
    for typed in ("1f longer", "110", "-1.5", "90.5", "89"):
        page.keyboard.type(typed, delay=30)
        page.keyboard.press("Enter")
    handed_over(page)
    lines = [e["what"] for e in served.ask(f"/api/cars/{car}/logbook.json")["entries"][1:]]
    assert [w["typed"] for w in lines] == ["1f longer", "110", "-1.5", "90.5", "89"]
    assert [(w["corner"], w["quantity"]) for w in lines[1:]] == [
        ("LR", q) for q in ("height", "camber", "gap_front", "gap_back")
    ]


def test_a_late_answer_does_not_take_the_focus(page, served, car):
    page.add_init_script(late([1200]))
    at(page, served, car)
    page.keyboard.type("110")
    page.keyboard.press("Enter")
    page.wait_for_url("**/set/RF/height")
    expect(page.locator("#tape-field")).to_be_focused()
    page.get_by_role("link", name="Log").focus()
    handed_over(page)
    page.wait_for_timeout(300)  # for whatever an answer would still do
    expect(page.get_by_role("link", name="Log")).to_be_focused()


def test_two_notes_one_after_the_other_are_two_notes(page, served, car):
    page.add_init_script(late([500]))
    page.goto(f"{served.url}/cars/{car}/log")
    field = page.get_by_label("Note")
    for words in ("first note", "second note"):
        field.fill(words)
        page.get_by_role("button", name="Keep the note").click()
    handed_over(page)
    assert kept(served, car, "words") == ["first note", "second note"]


def test_a_reading_of_the_frame_leaves_the_tape_at_once_too(page, served):
    slug = served.ask("/api/cars", entry_json({"kind": "plan", "plan": plan_json(points={f"frame.{n}": [x, y, 0] for n, x, y in (("a", 0, 0), ("b", 1000, 0), ("c", 0, 800), ("d", 1000, 800))})}))["slug"]  # fmt: skip
    page.add_init_script(late([300]))
    page.goto(f"{served.url}/cars/{slug}/jig")
    page.get_by_label("What is read").select_option("Height over the table")
    page.get_by_label("First point").select_option("a")
    page.locator("#tape-field").focus()
    for figure in ("305", "306.5", "x", "307"):
        page.keyboard.type(figure, delay=40)
        page.keyboard.press("Enter")
        expect(page.locator("#tape-field")).to_have_value("", timeout=200)
    expect(page.locator(".refused")).to_contain_text(": x.")
    comes_to(served, slug, ["305", "306.5", "307"])


def test_a_500_belongs_to_its_entry_and_the_rest_is_handed_over(page, served, car):
    broken = {"n": 0}

    def sometimes(route):
        broken["n"] += 1
        if broken["n"] == 1:
            route.fulfill(status=500, content_type="text/plain", body="Internal Server Error")
        else:
            route.continue_()

    page.route("**/entries", sometimes)
    at(page, served, car)
    for figure in ("110", "111"):
        page.keyboard.type(figure)
        page.keyboard.press("Enter")
    expect(page.locator(".refused")).to_contain_text("Left front ride height: 110. The server answered 500")
    handed_over(page)  # lets the route answer, too
    comes_to(served, car, ["111"])
    page.unroute("**/entries")
    page.reload()
    page.get_by_role("button", name="send it again").click()
    expect(page.locator(".refused")).to_have_count(0)
    comes_to(served, car, ["111", "110"])


@pytest.mark.parametrize("status", [502, 503, 504])
def test_a_door_that_is_shut_for_a_while_loses_nothing(page, served, car, status):
    page.route("**/entries", lambda route: route.fulfill(status=status, body=""))
    at(page, served, car)
    page.keyboard.type("110")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").first).to_contain_text("1 kept in this browser")
    page.unroute("**/entries")
    expect(page.get_by_role("status").filter(has_text="away")).to_have_count(0, timeout=10_000)
    comes_to(served, car, ["110"])


@pytest.mark.browser_context_args(service_workers="allow")
def test_a_page_opens_without_a_server_and_the_list_of_cars_hands_over_what_waits(page, served, car):
    at(page, served, car)
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.context.set_offline(True)
    page.reload()
    expect(page.locator("#tape-field")).to_be_focused()
    page.keyboard.type("110")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").first).to_contain_text("1 kept in this browser")
    page.get_by_role("link", name="Ready Corner").click()
    page.context.set_offline(False)
    page.goto(served.url)
    expect(page.get_by_role("heading", name="Cars in this workshop")).to_be_visible()
    handed_over(page)
    comes_to(served, car, ["110"])


def test_two_tabs_share_one_outbox(page, served, car):
    other = page.context.new_page()
    for tab in (page, other):
        at(tab, served, car)
    page.context.set_offline(True)
    for i in range(6):
        tab = (page, other)[i % 2]
        tab.bring_to_front()
        tab.locator("#tape-field").focus()
        tab.keyboard.type(f"11{i}")
        tab.keyboard.press("Enter")
        for each in (page, other):
            expect(each.get_by_role("status").first).to_contain_text(f"{i + 1} kept in this browser")
    page.close()
    page.context.set_offline(False)
    expect(other.get_by_role("status").filter(has_text="away")).to_have_count(0, timeout=10_000)
    handed_over(other)
    comes_to(served, car, [f"11{i}" for i in range(6)])


FULL = """Object.defineProperty(window, 'indexedDB', { value: { open() { throw new DOMException('full', 'QuotaExceededError'); } } });
Storage.prototype.setItem = () => { throw new DOMException('full', 'QuotaExceededError'); };"""


def test_with_storage_full_or_forbidden_recording_goes_on_and_it_is_said(page, served, car):
    page.add_init_script(FULL)
    at(page, served, car)
    expect(page.get_by_role("status").first).to_contain_text("Storage is full or forbidden")
    page.context.set_offline(True)
    for figure in ("110", "111"):
        page.keyboard.type(figure)
        page.keyboard.press("Enter")
    expect(page.get_by_role("status").first).to_contain_text("2 kept in this open page and nowhere else")
    page.context.set_offline(False)
    expect(page.get_by_role("status").filter(has_text="away")).to_have_count(0, timeout=10_000)
    page.wait_for_function("() => !document.body.innerText.includes('2 kept')")
    comes_to(served, car, ["110", "111"])


NO_SHELF = (
    """Object.defineProperty(window, 'indexedDB', { value: { open() { throw new DOMException('no', 'SecurityError'); } } });"""
)
FULL_SHELF = """IDBObjectStore.prototype.add = () => { throw new DOMException('full', 'QuotaExceededError'); };"""


@pytest.mark.parametrize("storage", [NO_SHELF, FULL_SHELF], ids=["none", "full"])
def test_what_waits_where_the_shelf_takes_nothing_is_shown_after_a_reload_and_handed_over(page, served, car, storage):
    page.add_init_script(storage)
    at(page, served, car)
    page.route("**/entries", lambda route: route.abort())
    for figure in ("110", "111"):
        page.keyboard.type(figure)
        page.keyboard.press("Enter")
    said = page.get_by_role("status").first
    expect(said).to_contain_text("Storage is full or forbidden")
    expect(said).to_contain_text("2 kept in the little this browser still has")
    page.reload()
    expect(page.get_by_role("status").first).to_contain_text("2 kept in the little this browser still has")
    page.unroute("**/entries")
    comes_to(served, car, ["110", "111"])
    page.wait_for_function("() => !Object.keys(localStorage).some((key) => key.startsWith('ready-corner/just-made/'))")
    page.reload()
    expect(page.locator("#tape-field")).to_be_focused()
    comes_to(served, car, ["110", "111"])


# An answer of which forty bytes come, and then the line breaks or nothing more comes; the entry itself arrives.
CUT = """(stalls => {
  const straight = window.fetch.bind(window); let n = 0;
  window.fetch = async (path, options) => {
    const answer = await straight(path, options);
    if (options?.method !== 'POST' || !String(path).endsWith('/entries') || n++) return answer;
    const head = (await answer.text()).slice(0, 40);
    const body = new ReadableStream({ start(to) {
      to.enqueue(new TextEncoder().encode(head));
      if (stalls) options.signal.addEventListener('abort', () => to.error(options.signal.reason));
      else setTimeout(() => to.error(new TypeError('cut')), 50);
    } });
    return new Response(body, { status: answer.status, headers: answer.headers });
  };
})(STALLS)"""


@pytest.mark.parametrize("stalls", ["false", "true"])
def test_an_answer_cut_in_its_body_is_asked_for_again_and_the_entry_stands_once(page, served, car, stalls):
    page.add_init_script(CUT.replace("STALLS", stalls))
    at(page, served, car)
    for figure in ("110", "111"):
        page.keyboard.type(figure)
        page.keyboard.press("Enter")
    handed_over(page)
    comes_to(served, car, ["110", "111"])
    expect(page.locator(".refused")).to_have_count(0)
    expect(page.get_by_role("status").filter(has_text="away")).to_have_count(0, timeout=10_000)


def test_eight_pages_of_one_browser_open_and_all_see_what_is_recorded_elsewhere(page, served, car):
    pages = [page, *(page.context.new_page() for _ in range(7))]
    asked = []
    for one in pages:
        one.on("request", lambda request: asked.append(request.url) if request.url.endswith("/api/news") else None)
        at(one, served, car)
    for typed in ("113.25", "114.75"):
        served.ask(f"/api/cars/{car}/entries", entry_json(reading_json("LF", "height", typed)))
        for one in pages:
            expect(one.get_by_text(typed).first).to_be_visible()
        pages.pop(0).close()  # whichever listens: another takes its place
    assert len(asked) <= 4


def test_a_page_left_before_its_shelf_has_answered_takes_nothing_with_it(page, served, car):
    at(page, served, car)
    page.route("**/entries", lambda request: request.abort())
    page.evaluate("() => { IDBDatabase.prototype.transaction = () => { throw new Error('gone'); }; }")
    for figure in ("110", "111", "112"):
        page.keyboard.type(figure)
        page.keyboard.press("Enter")
    page.unroute("**/entries")
    page.goto(served.url)
    comes_to(served, car, ["110", "111", "112"])


def test_what_an_earlier_version_kept_is_handed_over(page, served, car):
    rows = [{"entry": entry_json(reading_json("LF", "height", t)), "refusal": "", "title": "a"} for t in ("110", "111")]
    page.add_init_script(f"localStorage.setItem('ready-corner/outbox/{car}', {json.dumps(json.dumps(rows))})")
    at(page, served, car)
    page.wait_for_function(f"() => !localStorage.getItem('ready-corner/outbox/{car}') || true")
    handed_over(page)
    expect(page.locator("main")).to_be_visible()
    assert kept(served, car)[:2] == ["110", "111"]


def test_a_figure_of_a_form_still_being_read_is_waited_for(page, served, car):
    page.add_init_script(late([600, 100]))
    page.goto(f"{served.url}/cars/{car}/plan/figures")
    field = page.get_by_label("Front axle, Track")
    expect(field).to_have_value("1400")
    field.fill("1401.5")
    field.press("Tab")
    field.fill("1402.5")
    page.get_by_role("button", name="Keep this plan").click()
    expect(page).to_have_url(re.compile(f"/cars/{car}$"))
    assert served.ask(f"/api/cars/{car}/plan.json")["front"]["track"] == 1402.5
