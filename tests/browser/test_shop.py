"""A phone in the shop's network."""

import json
import re
import uuid
from functools import partial
from http.server import SimpleHTTPRequestHandler, ThreadingHTTPServer
from threading import Thread

import pytest
from playwright.sync_api import expect

from tests.fuzzing import told
from tests.serving import Server

SHOP = "127.0.0.2"  # another loopback address stands for the shop's network


@pytest.fixture(scope="module")
def shop(tmp_path_factory):
    server = Server(tmp_path_factory.mktemp("shop") / "var", "--shop", SHOP)
    server.start()
    server.passphrase = re.search(r"said this once: (\S+)", server.said())[1]
    yield server
    server.stop()


@pytest.fixture
def elsewhere(tmp_path):
    """A page of another program on this machine, at a port of its own."""
    (tmp_path / "page").mkdir()
    (tmp_path / "page/index.html").write_text("<title>Another page</title>")
    handler = partial(SimpleHTTPRequestHandler, directory=tmp_path / "page")
    with ThreadingHTTPServer(("127.0.0.1", 0), handler) as server:
        Thread(target=server.serve_forever, daemon=True).start()
        yield f"http://127.0.0.1:{server.server_port}"
        server.shutdown()


PLANT = """async ([at, file]) => {
  for (const type of ['text/plain', 'application/x-www-form-urlencoded'])
    await fetch(at, { method: 'POST', mode: 'no-cors', headers: { 'content-type': type }, body: file }).catch(() => {});
  await fetch(at, { method: 'POST', headers: { 'content-type': 'application/json' }, body: file }).catch(() => {});
  const form = Object.assign(document.createElement('form'), { method: 'POST', action: at, enctype: 'text/plain' });
  const [name, value] = [file.slice(0, 40), file.slice(41)];
  form.append(Object.assign(document.createElement('input'), { name, value }));
  document.body.append(form);
  form.submit();
}"""


def test_a_page_of_another_port_plants_no_car(page, shop, elsewhere):
    plan = told("plan")["tern"] | {"name": "Planted"}
    entry = {
        "id": str(uuid.uuid4()),
        "number": 1,
        "at": "2026-11-26T10:00:00Z",
        "what": {"kind": "plan", "plan": plan, "revises": 0},
    }
    file = json.dumps({"format": "ready-corner logbook", "version": 1, "entries": [entry]})
    for door in (shop.url, f"http://{SHOP}:{shop.port}", shop.url.replace("127.0.0.1", "localhost")):
        page.goto(elsewhere)
        page.evaluate(PLANT, [f"{door}/api/workshop", file])
        page.wait_for_url("**/api/workshop")
        assert "strange_origin" in page.content()
    assert "Planted" not in [c["name"] for c in shop.ask("/api/cars")]
    shop.ask("/api/workshop", json.loads(file))  # what is no page, at this machine, brings it in
    assert "Planted" in [c["name"] for c in shop.ask("/api/cars")]


def test_a_device_is_let_go_where_ready_corner_was_started(page, browser, shop):
    phone = browser.new_context(service_workers="block").new_page()
    phone.goto(f"http://{SHOP}:{shop.port}/cars/heather")
    phone.get_by_role("textbox", name="Passphrase").fill(shop.passphrase)
    phone.get_by_label("Who measures on this device").fill("Teal")
    phone.get_by_role("button", name="Let me in").click()
    expect(phone.get_by_role("heading", name="Walk-round")).to_be_visible()
    phone.goto(f"http://{SHOP}:{shop.port}/shop")
    expect(phone.get_by_role("heading", name="Take it to the car")).to_be_visible()
    expect(phone.get_by_role("button", name="Let go")).to_have_count(0)
    page.goto(f"{shop.url}/shop")
    page.get_by_role("button", name="Let go: Teal").click()
    expect(page.get_by_role("button", name="Let go: Teal")).to_have_count(0)
    phone.goto(f"http://{SHOP}:{shop.port}/cars/heather")
    expect(phone.get_by_role("textbox", name="Passphrase")).to_be_visible()
    phone.context.close()


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
