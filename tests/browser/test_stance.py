"""Stage Stance on the demo car: the heights, the perch to wind, and the rods for the stands."""

from playwright.sync_api import expect


def test_from_the_heights_to_the_perch_that_is_wound(page, demo_server):
    page.goto(f"{demo_server.url}/cars/tern/stance")
    expect(page.get_by_text("Read the ride height of the left front first.")).to_be_visible()
    page.get_by_role("link", name="Left front").click()
    page.locator("#tape-field").fill("5 1/4")
    page.locator("#tape-field").press("Enter")
    page.goto(f"{demo_server.url}/cars/tern/stance")
    expect(page.get_by_role("heading", name="more nose down than planned")).to_be_visible()
    perches = page.get_by_role("region", name="Perches to turn")
    expect(perches.locator("li")).to_have_count(1)
    expect(perches).to_contain_text("Wind the right rear perch down")
    expect(perches).to_contain_text("Springs hold energy")
    rods = page.get_by_role("region", name="In place of the springs")
    expect(rods.locator("tbody tr")).to_have_count(4)
    perches.get_by_role("link", name="Turn it").click()
    expect(page.get_by_role("heading", name="spring perch").first).to_be_visible()
