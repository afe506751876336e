"""A practice car through the pages: chosen, rolled in, read by the key that takes the figure, turned as told, and the truth at the end."""

import uuid

from playwright.sync_api import expect

MOST = 200  # steps; a car takes some seventy


def test_a_car_to_practise_on_is_chosen_and_rolled_in(page, demo_server):
    page.goto(demo_server.url)
    page.get_by_role("link", name="Practise on a car").click()
    page.get_by_role("button", name="struts in front").click()
    page.get_by_role("button", name="the floor is far from level").click()
    page.get_by_role("button", name="Roll it in").click()
    expect(page.get_by_text("To practise on: the floor is far from level")).to_be_visible()
    page.get_by_role("link", name="See the truth").click()
    expect(page.get_by_text("Once it is seen")).to_be_visible()
    expect(page.get_by_text("marks are truly out")).not_to_be_visible()


def test_a_practice_car_is_brought_to_ready_through_the_pages_and_its_truth_agrees(page, demo_server):
    body = {"id": str(uuid.uuid4()), "at": "2026-11-26T10:00:00Z", "layout": "five-link", "fault": "all-round", "seed": 5}
    slug = demo_server.server.ask("/api/practice", body)["slug"]

    def view():
        return demo_server.server.ask(f"/api/cars/{slug}")

    def after(number):
        for _ in range(200):
            if (now := view())["number"] > number:
                return now
            page.wait_for_timeout(20)
        raise AssertionError("nothing was written down")

    field, now = page.locator("#tape-field"), view()
    page.goto(f"{demo_server.url}/cars/{slug}")
    happens = {"settle": "It has settled", "disconnect": "They are off", "reconnect": "They are back on"}
    for _ in range(MOST):
        step, number = now["next"], now["number"]
        if step["kind"] in happens:
            page.goto(f"{demo_server.url}/cars/{slug}")
            page.get_by_role("button", name=happens[step["kind"]]).click()
        elif step["kind"] == "read":
            here = f"/cars/{slug}/set/{step['corner']}/{step['quantity']}"
            if not page.url.endswith(here):
                page.goto(demo_server.url + here)
            tools = [t["name"] for t in now["plan"]["tools"] if t["name"].lower() in step["reason"]]
            for _ in range(8 if tools else 0):
                if page.get_by_text(f"U · {tools[0]}").count():
                    break
                field.press("u")
            field.press("f")
            expect(field).not_to_have_value("")
            field.press("Enter")
        elif step["kind"] == "lift":
            page.goto(f"{demo_server.url}/cars/{slug}")
            page.get_by_role("button", name="Go through the list").click()
            expect(field).to_be_focused()
            for _ in range(sum(1 for s in now["lift"]["stops"] for t in s["turns"] if t["left"])):
                field.press("Enter")
        else:
            break
        now = after(number)
        while now["lift"] and step["kind"] == "lift" and now["next"]["kind"] == "lift":
            now = after(now["number"])
    assert step["kind"] == "done", step
    page.goto(f"{demo_server.url}/cars/{slug}/practice")
    page.get_by_role("button", name="See the truth").click()
    expect(page.get_by_text("Truly ready: all 14 marks are within tolerance")).to_be_visible()


def test_a_figure_that_comes_after_another_key_does_not_overwrite_what_was_typed(page, demo_server):
    body = {"id": str(uuid.uuid4()), "at": "2026-11-26T10:00:00Z", "layout": "heather", "fault": "floor", "seed": 8}
    slug = demo_server.server.ask("/api/practice", body)["slug"]
    page.goto(f"{demo_server.url}/cars/{slug}/set/LF/height")
    held = []

    def hold(route):
        held.append(route)

    page.route("**/take", hold)
    field = page.locator("#tape-field")
    field.press("f")
    expect(page.get_by_text("Asking the tape")).to_be_visible()
    field.press_sequentially("77")
    held[0].continue_()
    page.wait_for_timeout(300)
    expect(field).to_have_value("77")
