"""The door to the shop's network: who is let in, and what nobody gets without the passphrase."""

import json
import re
import time
import urllib.error
import urllib.request
from concurrent.futures import ThreadPoolExecutor

import pytest

from ready_corner.launch.__main__ import main
from ready_corner.launch.shop import NoShopError, gate_for
from ready_corner.web.gate import AT_ONCE, LASTS, TRIES, TRIES_OF_ALL, BusyError, Gate, make_passphrase, seal
from tests.serving import Server, free_port

SHOP = "127.0.0.2"  # another loopback address stands for the shop's network


@pytest.fixture(scope="module")
def shop(tmp_path_factory):
    server = Server(tmp_path_factory.mktemp("shop") / "var", "--shop", SHOP)
    server.start()
    server.passphrase = re.search(r"said this once: (\S+)", server.said())[1]
    yield server
    server.stop()


def ask(server, path, body=None, *, at=SHOP, **headers):
    """Status, cookie and answer of one request to the shop's door, or to another of this machine's addresses."""
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(f"http://{at}:{server.port}{path}", data, {"content-type": "application/json", **headers})
    try:
        with urllib.request.urlopen(request) as answer:
            return answer.status, answer.headers.get("set-cookie", ""), answer.read()
    except urllib.error.HTTPError as refused:
        return refused.code, "", refused.read()


def test_nothing_is_answered_in_the_shop_before_the_passphrase_and_everything_after(shop):
    assert ask(shop, "/api/cars", at="127.0.0.1")[0] == 200
    for path in ("/api/cars", "/api/cars/heather", "/api/gate/code.svg", "/api/openapi.json"):
        status, _, said = ask(shop, path)
        assert (status, json.loads(said)["code"]) == (401, "locked")
    assert ask(shop, "/api/cars", {"what": 1})[0] == 401
    assert ask(shop, "/")[0] == 200  # the pages hold nothing
    assert json.loads(ask(shop, "/api/gate")[2]) == {"shop": True, "address": "", "locked": True, "here": False}
    status, cookie, _ = ask(shop, "/api/gate", {"passphrase": shop.passphrase.upper().replace("-", " ")})
    assert status == 200
    assert {"HttpOnly", "SameSite=strict"} <= {part.strip() for part in cookie.split(";")}
    token = cookie.split(";")[0]
    assert ask(shop, "/api/cars", cookie=token)[0] == 200
    assert b"<svg" in ask(shop, "/api/gate/code.svg", cookie=token)[2]
    # A page of another port of the same machine has the cookie, too, and is not taken.
    for strange in ({"origin": f"http://{SHOP}:{shop.port + 1}"}, {"sec-fetch-site": "same-site"}):
        assert ask(shop, "/api/shop/read", {"text": "1", "kind": "length"}, cookie=token, **strange)[0] == 403
    assert (
        ask(shop, "/api/shop/read", {"text": "1", "kind": "length"}, cookie=token, origin=f"http://{SHOP}:{shop.port}")[0]
        == 200
    )
    kept = shop.folder / "shop.json"
    assert shop.passphrase not in kept.read_text()
    assert kept.stat().st_mode & 0o077 == 0


def test_one_device_is_let_go_and_the_others_stay_and_only_here(shop):
    def let_in(who, agent):
        status, cookie, _ = ask(shop, "/api/gate", {"passphrase": shop.passphrase, "who": who}, **{"user-agent": agent})
        assert status == 200
        return cookie.split(";")[0]

    def devices():
        return [(d["who"], d["kind"], d["id"]) for d in json.loads(ask(shop, "/api/gate/devices", at="127.0.0.1")[2])]

    before = devices()
    phone = let_in("Wren", "Mozilla/5.0 (Linux; Android 14) Mobile")
    other = let_in("Teal", "Mozilla/5.0 (iPad)")
    assert [d[:2] for d in devices()] == [("Teal", "tablet"), ("Wren", "phone"), *(d[:2] for d in before)]
    number = devices()[1][2]
    for path, body in (("/api/gate/devices", None), ("/api/gate/let-go", {"id": number})):
        assert ask(shop, path, body, cookie=other)[0] == 403  # at this machine alone
    assert ask(shop, "/api/gate/let-go", {"id": "nobody"}, at="127.0.0.1")[0] == 404
    assert ask(shop, "/api/gate/let-go", {"id": number}, at="127.0.0.1")[0] == 200
    assert [ask(shop, "/api/cars", cookie=c)[0] for c in (phone, other)] == [401, 200]
    assert [d[:2] for d in devices()] == [("Teal", "tablet"), *(d[:2] for d in before)]
    kept = shop.folder / "devices.json"
    assert kept.stat().st_mode & 0o077 == 0
    again, _ = gate_for(shop.folder, "http://x", anew=False)  # after another start
    assert [again.knows(c.split("=")[1]) for c in (phone, other)] == [False, True]


def test_an_address_that_a_request_names_for_itself_is_not_believed(shop):
    wrong = {"passphrase": "wrong one"}
    answers = [ask(shop, "/api/gate", wrong, at="127.0.0.1", **{"x-forwarded-for": f"10.0.0.{n}"})[0] for n in range(TRIES + 1)]
    assert answers[-1] == 429  # were it believed, each would be the first of its address


@pytest.mark.parametrize(
    ("options", "passphrase", "words"),
    [
        (["--shop", "127.0.0.1"], "", "needs no door"), (["--shop", "localhost"], "", "needs no door"), (["--shop", "0.0.0.0"], "", "No phone can go to 0.0.0.0"),
        (["--shop", "224.0.0.1"], "", "No phone can go to"), (["--shop", "here"], "", "is no address"), (["--new-passphrase"], "", "./start --shop --new-passphrase"),
        (["--shop", SHOP], "another than the door's", "add --new-passphrase"),
    ],
)  # fmt: skip
def test_a_door_that_would_be_none_is_refused_with_what_to_do(options, passphrase, words, tmp_path, monkeypatch, capsys):
    gate_for(tmp_path, "http://x", anew=False)
    monkeypatch.setenv("READY_CORNER_DATABASE_URL", "mysql+pymysql://nobody@127.0.0.1:1/none")
    monkeypatch.setenv("READY_CORNER_PASSPHRASE", passphrase)
    assert main([*options, "--folder", str(tmp_path), "--port", str(free_port())]) == 1
    assert words in capsys.readouterr().err
    own = "our own passphrase"
    monkeypatch.setenv("READY_CORNER_PASSPHRASE", own)
    gate_for(tmp_path, "http://x", anew=True)
    assert gate_for(tmp_path, "http://x", anew=False)[0].tries("a", own)  # named again it is the same


def test_five_wrong_tries_a_minute_and_a_cookie_ends_with_its_passphrase():
    now = [1000.0]
    gate = Gate(seal("oil-can on the bench"), "http://x", lambda: now[0])
    for _ in range(TRIES):
        assert gate.tries("phone", "oilcan") is None
    assert gate.wait("phone") == 60
    assert gate.tries("phone", "oil-can on the bench") is None  # not even the right one
    token = gate.tries("tablet", "Oil can onthe bench")
    assert token
    assert gate.knows(token)
    now[0] += 60
    assert gate.wait("phone") == 0
    assert gate.tries("phone", "oil-can on the bench")
    assert not Gate(seal("oil-can on the bench"), "http://x", lambda: now[0]).knows(token)  # made anew: every device let go
    body, _, signed = token.rpartition(".")
    for forged in ("", "..", body, f"{body}.", f"9{body}.{signed}", token[:-1], token + "0", "ü.ß"):
        assert not gate.knows(forged)
    now[0] += LASTS + 1
    assert not gate.knows(token)


@pytest.mark.parametrize("given", ["- - - -", "        ", "--------", "a-b-c-d-e", "ab cd ef g"])
def test_dashes_and_spaces_are_no_passphrase(given, tmp_path, monkeypatch):
    with pytest.raises(ValueError, match="do not count"):
        seal(given)
    monkeypatch.setenv("READY_CORNER_PASSPHRASE", given)
    if given.strip():
        with pytest.raises(NoShopError, match="too short"):
            gate_for(tmp_path, "http://x", anew=True)
    assert seal("a b-c d-e f-g h")


def test_many_addresses_at_the_door_wait_outside_and_hold_nothing_up():
    now = [1000.0]
    gate = Gate(seal("oil-can on the bench"), "http://x", lambda: now[0])
    with (
        gate._one,
        ThreadPoolExecutor(12) as many,
    ):  # a hash is being looked at: so many more may wait for it, the others are sent away at once
        waiting = [many.submit(gate.tries, f"a{i}", "wrong") for i in range(AT_ONCE)]
        while sum(f.running() for f in waiting) < AT_ONCE:
            time.sleep(0.01)
        time.sleep(0.05)
        for i in range(10):
            with pytest.raises(BusyError):
                gate.tries(f"b{i}", "wrong")
        gate._one.release()
        assert [f.result() for f in waiting] == [None] * AT_ONCE
        gate._one.acquire()
    gate._of_all.extend([now[0]] * TRIES_OF_ALL)
    assert gate.wait("nobody yet") == 60  # a bound over all addresses
    now[0] += 60
    assert gate.tries("nobody yet", "oil-can on the bench")


def test_a_passphrase_is_made_once_and_a_spoilt_file_says_what_to_do(tmp_path, monkeypatch):
    gate, made = gate_for(tmp_path, "http://x", anew=False)
    assert re.fullmatch(r"([a-z]{4}-){3}[a-z]{4}", made)
    assert made != make_passphrase()
    assert gate.tries("a", made)
    again, said = gate_for(tmp_path, "http://x", anew=False)
    assert said == ""
    assert again.tries("a", made)
    monkeypatch.setenv("READY_CORNER_PASSPHRASE", "of our own")
    own, said = gate_for(tmp_path, "http://x", anew=True)
    assert said == ""
    assert own.tries("a", "of our own")
    assert not own.tries("a", made)
    monkeypatch.setenv("READY_CORNER_PASSPHRASE", "short")
    with pytest.raises(NoShopError, match="too short"):
        gate_for(tmp_path, "http://x", anew=True)
    (tmp_path / "shop.json").write_text("{")
    with pytest.raises(NoShopError, match="--new-passphrase"):
        gate_for(tmp_path, "http://x", anew=False)
