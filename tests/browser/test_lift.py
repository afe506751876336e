"""A practice car brought to ready through the pages: read, turned by the list of one lift, read again."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.practised import OnServer


@pytest.fixture
def practised(served):
    return OnServer(served.ask, "five-link", 2)


def test_a_practice_car_comes_to_ready_by_the_list_of_one_lift(page: Page, served, practised):
    car = practised
    view = car.read_on()
    assert view["next"]["kind"] == "lift"
    page.goto(f"{served.url}/cars/{car.slug}")
    page.get_by_role("button", name="Go through the list").click()
    lines = page.locator("section[aria-label*='lift'] li button")
    expect(lines.first).to_be_visible()
    told = [(s["corner"], t["adjuster"], t["amount"]) for s in view["lift"]["stops"] for t in s["turns"]]
    for corner, adjuster, amount in told:  # Enter alone, as fast as it goes: turned as told
        expect(page).to_have_url(re.compile(f"{corner}/turn/{re.escape(adjuster)}$"))
        car.car.turn(adjuster, amount)
        page.keyboard.press("Enter")
    expect(page.get_by_text("Not settled")).to_be_visible()  # the list is done: on to reading, once it has been rolled
    while served.ask(f"/api/cars/{car.slug}")["number"] < view["number"] + len(told):
        page.wait_for_timeout(50)  # what waits is handed over in its order
    assert served.ask(f"/api/cars/{car.slug}")["lift"] is None
    turned = [line["entry"]["what"] for line in served.ask(f"/api/cars/{car.slug}/log") if line["kind"] == "turned"]
    assert [(w["adjuster"], pytest.approx(w["amount"])) for w in reversed(turned)] == [(a, t) for _, a, t in told]
    view = car.read_on()
    assert view["next"]["kind"] in ("done", "lift")
    expect(page.get_by_role("button", name="Go through the list")).to_have_count(0)
    if view["next"]["kind"] == "done":
        assert all(abs(car.car.truth(a.mark) - a.aim) <= a.tolerance for a in car.car.plan.aims)


def test_what_is_stuck_or_turned_otherwise_has_the_rest_worked_out_anew(page: Page, served, practised):
    car = practised
    view = car.read_on()
    told = [(s["corner"], t["adjuster"], t["left"]) for s in view["lift"]["stops"] for t in s["turns"]]
    first, second = told[0], told[1]
    page.goto(f"{served.url}/cars/{car.slug}/set/{first[0]}/turn/{first[1]}")
    expect(page.locator("section[aria-label*='lift'] li button").first).to_be_visible()
    page.keyboard.press("b")
    expect(page).not_to_have_url(re.compile(re.escape(first[1])))
    anew = served.ask(f"/api/cars/{car.slug}")["lift"]
    left = {t["adjuster"]: t["left"] for s in anew["stops"] for t in s["turns"]}
    assert not left.get(first[1])
    _, adjuster = page.url.rsplit("/", 1)
    page.keyboard.type("1f in" if "perch" not in adjuster else "1f down")
    page.keyboard.press("Enter")
    expect(page.locator("section[aria-label^='Left in this lift'] li button").first).to_be_visible()
    after = served.ask(f"/api/cars/{car.slug}")["lift"]
    done = {t["adjuster"]: t["amount"] - t["left"] for s in after["stops"] for t in s["turns"]}
    assert done[adjuster] == pytest.approx(-1 / 6)
    assert second  # the list went on from there
    page.get_by_role("button", name="This corner alone").click()
    expect(page.get_by_role("navigation", name="The round")).to_be_visible()
