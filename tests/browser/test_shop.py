"""A phone in the shop's network."""

import re

import pytest
from playwright.sync_api import expect

from tests.serving import Server

SHOP = "127.0.0.2"  # another loopback address stands for the shop's network


@pytest.fixture
def shop(tmp_path):
    server = Server(tmp_path / "var", "--shop", SHOP)
    server.start()
    server.passphrase = re.search(r"said this once: (\S+)", server.said())[1]
    yield server
    server.stop()


def test_a_phone_in_the_shop_is_let_in_once_and_works_where_pages_are_not_encrypted(page, shop):
    page.add_init_script("delete Crypto.prototype.randomUUID; delete Navigator.prototype.locks")
    page.goto(f"http://{SHOP}:{shop.port}/cars/heather/set/LF/gap_front")
    page.get_by_role("textbox", name="Passphrase").fill("wrong one")
    page.get_by_label("Who measures on this device").fill("Wren")
    page.get_by_role("button", name="Let me in").click()
    expect(page.get_by_role("alert").filter(has_text="not the passphrase")).to_be_visible()
    page.get_by_role("textbox", name="Passphrase").fill(shop.passphrase)
    page.get_by_role("button", name="Let me in").click()
    expect(page.locator("#tape-field")).to_be_visible()
    before = shop.ask("/api/cars/heather/latest")["number"]
    page.locator("#tape-field").fill("212.5")
    page.context.clear_cookies()  # as if the passphrase had been changed while a figure is typed
    expect(page.get_by_role("textbox", name="Passphrase")).to_be_visible()
    # Whoever types on without looking types at the door: Enter alone is no try, and the figure stays in its field behind it.
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="Type the passphrase")).to_be_visible()
    page.get_by_role("textbox", name="Passphrase").fill(shop.passphrase)
    page.get_by_role("button", name="Let me in").click()
    expect(page.get_by_role("textbox", name="Passphrase")).to_be_hidden()
    expect(page.locator("#tape-field")).to_be_focused()
    expect(page.locator("#tape-field")).to_have_value("212.5")
    page.context.clear_cookies()
    page.route("**/api/cars/heather/latest", lambda route: route.abort())  # nobody asks before the figure is sent
    page.keyboard.press("Enter")
    page.get_by_role("textbox", name="Passphrase").fill(shop.passphrase)
    page.get_by_role("button", name="Let me in").click()
    for _ in range(100):
        if shop.ask("/api/cars/heather/latest")["number"] > before:
            break
        page.wait_for_timeout(100)
    assert shop.ask("/api/cars/heather/log")[0]["entry"]["who"] == "Wren"
    page.goto(f"{shop.url}/shop")
    expect(page.get_by_text(f"http://{SHOP}:{shop.port}")).to_be_visible()
