import json
import uuid
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from ready_corner.core.quantities import errors as core_errors
from ready_corner.demo import demo_logbooks
from ready_corner.web.app import make_app
from ready_corner.web.errors import STATUSES
from tests.conftest import entry_json, plan_json, reading_json, rows_of


def post(client, car, what, **more):
    return client.post(f"/api/cars/{car}/entries", json=entry_json(what, **more))


def mark(client, car, name):
    return next(m for m in client.get(f"/api/cars/{car}").json()["marks"] if m["mark"] == name)


def every_error(of=core_errors.ReadyCornerError):
    for kind in of.__subclasses__():
        yield kind
        yield from every_error(kind)


def test_every_error_of_the_core_has_a_status_and_a_code_of_its_own():
    kinds = set(every_error())
    assert all(any(issubclass(kind, parent) for parent, _ in STATUSES) for kind in kinds)
    assert all(kind.code != "refused" for kind in kinds)


def test_a_reading_is_kept_as_typed_and_with_its_value(client, car, engine):
    answer = post(client, car, reading_json("LF", "gap_front", "2 3/8 in"))
    assert (answer.status_code, answer.json()["number"], answer.json()["new"]) == (201, 2, True)
    payload = json.loads(rows_of(engine, car)[1].payload)
    assert (payload["typed"], payload["value"], payload["denominator"]) == ("2 3/8 in", 60.325, 8)


def test_each_kind_sent_twice_is_kept_once_and_out_of_order_too(client, car, engine):
    sent = [
        entry_json(what)
        for what in (
            reading_json("LF", "height", "110"), {"kind": "turned", "adjuster": "LR.toe", "typed": "1t2f shorter"}, {"kind": "happened", "what": "settled"},
            {"kind": "note", "words": "n"}, {"kind": "plan", "plan": plan_json(), "revises": 1},
        )
    ]  # fmt: skip
    sent.append(entry_json({"kind": "correction", "strikes": sent[0]["id"]}))
    first = [client.post(f"/api/cars/{car}/entries", json=e) for e in sent]
    again = [client.post(f"/api/cars/{car}/entries", json=e) for e in reversed(sent)]
    assert [a.status_code for a in first] == [201] * 6
    assert [a.status_code for a in again] == [200] * 6
    assert [a.json()["number"] for a in reversed(again)] == [a.json()["number"] for a in first] == [2, 3, 4, 5, 6, 7]
    assert len(rows_of(engine, car)) == 7


def test_an_identity_used_for_something_else_is_a_conflict(client, car):
    entry = entry_json(reading_json("LF", "height", "110"))
    client.post(f"/api/cars/{car}/entries", json=entry)
    other = client.post(f"/api/cars/{car}/entries", json={**entry, "what": reading_json("LF", "height", "111")})
    assert (other.status_code, other.json()["code"]) == (409, "saved_first")
    elsewhere = client.post("/api/cars", json=entry_json({"kind": "plan", "plan": plan_json()})).json()["slug"]
    assert client.post(f"/api/cars/{elsewhere}/entries", json=entry).status_code == 409


def test_a_plan_made_from_an_outdated_one_is_refused_with_both_numbers(client, car):
    post(client, car, {"kind": "plan", "plan": plan_json(about="second"), "revises": 1})
    late = post(client, car, {"kind": "plan", "plan": plan_json(about="late"), "revises": 1})
    assert late.status_code == 409
    assert late.json()["problems"][0]["numbers"] == {"revises": 1, "latest": 2}
    assert client.get(f"/api/cars/{car}").json()["plan"]["about"] == "second"


BAD = [
    (reading_json("LF", "height", ""), "not_shop_notation", "Nothing is typed"),
    (reading_json("LF", "height", "3/0"), "not_shop_notation", "divides by nothing"),
    (reading_json("LF", "camber", '37"'), "wrong_kind_of_figure", "an angle is asked for"),
    (reading_json("LF", "height", "-3"), "reading_refused", "cannot be"),
    (reading_json("LF", "gap_front", "4 m"), "unusual_value", "is on no car"),
    (reading_json("LF", "camber", "40"), "unusual_value", "is on no car"),
    (reading_json("LF", "height", "11.2"), "unusual_value", "11.2 mm, where 112.0 mm would be near its aim: a decimal point?"),
    (reading_json("LF", "gap_hub", "-1"), "reading_refused", "cut through the wheel"),
    (reading_json("LF", "gap_back", "480"), "string_refused", "no wheel stands so"),
    (reading_json("LF", "gap_back", "4"), "string_refused", "cross the tyre"),
    (reading_json("LF", "height", "110", tool="digital"), "not_understood", "does not read"),
    ({"kind": "turned", "adjuster": "LR.toe", "typed": "9 turns longer"}, "out_of_thread", "6 turns 5 flats longer is left"),
    ({"kind": "turned", "adjuster": "none", "typed": "1"}, "not_understood", "no adjuster"),
    ({"kind": "plan", "plan": plan_json(wheelbase=-1), "revises": 1}, "plan_refused", "A wheelbase of -1.0 mm cannot be"),
    ({"kind": "reading", "corner": "LF"}, "request_refused", "missing"),
    ({**reading_json("LF", "height", "110"), "colour": "red"}, "request_refused", "no field here"),
]  # fmt: skip


@pytest.mark.parametrize(("what", "code", "words"), BAD)
def test_bad_input_gets_a_sentence_and_a_code_and_loses_nothing(client, car, engine, what, code, words):
    post(client, car, reading_json("LF", "gap_front", "60"))
    before = rows_of(engine, car)
    answer = post(client, car, what)
    assert (answer.status_code, answer.json()["code"]) == (422, code)
    assert words in answer.json()["sentence"]
    assert answer.json()["problems"]
    assert rows_of(engine, car) == before
    assert client.get(f"/api/cars/{car}").status_code == 200


def test_a_plan_is_refused_for_everything_that_is_wrong_with_it_at_once(client, car):
    bad = plan_json(front={"track": 1400, "rim_flange_diameter": 0, "tyre_diameter": 600})
    bad["aims"][0]["tolerance"], bad["aims"][5]["tolerance"] = 0, -1
    bad["adjusters"][0]["ends"][1]["hand"] = "right"
    answer = client.post("/api/cars", json=entry_json({"kind": "plan", "plan": bad}))
    assert {p["path"] for p in answer.json()["problems"]} == {
        "aims.LF.height.tolerance",
        "aims.RF.camber.tolerance",
        "adjusters.LR.toe.ends.1.hand",
        "front.rim_flange_diameter",
    }


@pytest.mark.parametrize("body", [b"", b"{", b"[]", b'{"id": 1}', b"\xff", b'{"what": {"kind": "reading", "typed": NaN}}'])
def test_rubbish_is_refused_in_the_one_format(client, car, body):
    answer = client.post(f"/api/cars/{car}/entries", content=body, headers={"content-type": "application/json"})
    assert answer.status_code in (400, 422)
    assert set(answer.json()) == {"code", "sentence", "problems"}


def test_an_unusual_value_is_kept_once_confirmed_and_marked(client, car):
    assert post(client, car, reading_json("LF", "camber", "40", confirmed=True)).status_code == 201
    assert "(unusual, confirmed)" in client.get(f"/api/cars/{car}/log").json()[0]["sentence"]


def test_a_gauge_zeroed_lying_down_reads_ninety_for_upright(client, car):
    post(client, car, reading_json("LF", "camber", "88.75"))
    assert mark(client, car, "LF.camber")["value"] == pytest.approx(-1.25)


def test_no_such_car_is_not_found(client):
    answer = client.get("/api/cars/nobody")
    assert (answer.status_code, answer.json()["code"]) == (404, "no_such_car")


def test_a_car_begun_twice_is_begun_once_and_names_may_repeat(client):
    entry = entry_json({"kind": "plan", "plan": plan_json("Two Of A Kind!")})
    slugs = [client.post("/api/cars", json=entry).json()["slug"] for _ in range(2)]
    other = client.post("/api/cars", json=entry_json({"kind": "plan", "plan": plan_json("Two of a kind")})).json()["slug"]
    assert slugs == ["two-of-a-kind"] * 2
    assert other == "two-of-a-kind-2"


def test_a_preview_keeps_nothing_and_refuses_as_recording_would(client, car, engine):
    answer = client.post(f"/api/cars/{car}/preview", json=reading_json("LF", "height", "113"))
    assert answer.json()["large"] == "3.0 mm down to go"
    assert client.post(f"/api/cars/{car}/preview", json=reading_json("LF", "height", "x")).status_code == 422
    assert client.post(f"/api/cars/{car}/preview", json={"kind": "turned", "adjuster": "LR.toe", "typed": "1t"}).json()[
        "caution"
    ]
    assert len(rows_of(engine, car)) == 1


def test_the_log_is_newest_first_in_pages_and_shows_what_was_struck(client, car):
    post(client, car, reading_json("LF", "height", "99"))
    struck = client.get(f"/api/cars/{car}").json()["last"]
    post(client, car, {"kind": "correction", "strikes": struck["id"]})
    lines = client.get(f"/api/cars/{car}/log").json()
    assert [(x["entry"]["number"], x["kind"], x["struck_by"]) for x in lines] == [
        (3, "correction", None),
        (2, "reading", 3),
        (1, "plan", None),
    ]
    assert "Struck out entry 2: Left front ride height: 99.0" in lines[0]["sentence"]
    assert [x["entry"]["number"] for x in client.get(f"/api/cars/{car}/log?before=3&limit=1").json()] == [2]
    assert mark(client, car, "LF.height")["state"] == "unread"
    post(client, car, {"kind": "correction", "strikes": lines[0]["entry"]["id"]})
    assert mark(client, car, "LF.height")["value"] == 99.0


def test_plan_and_logbook_files_come_back_as_they_were_told(client, workshop):
    workshop.load(
        "tern-again",
        [e.model_copy(update={"id": uuid.uuid4()}) for e in demo_logbooks()["tern"].entries if e.what.kind != "correction"],
    )
    told = demo_logbooks()["tern"].model_dump(mode="json")["entries"]
    file = client.get("/api/cars/tern-again/logbook.json").json()
    assert [e["what"] for e in file["entries"]] == [e["what"] for e in told if e["what"]["kind"] != "correction"]
    assert client.get("/api/cars/tern-again/plan.json").json() == json.loads(
        (Path(__file__).parents[2] / "src/ready_corner/demo/tern.plan.json").read_text()
    )


def test_figures_of_a_form_are_read_and_said_in_the_cars_unit(client):
    inches = {"system": "inch_fraction", "finest": 32}
    assert client.post("/api/shop/read", json={"text": "3' 2 1/2\"", "kind": "length", "units": inches}).json() == {
        "value": 977.9,
        "said": "38 1/2",
        "echo": "",
        "pitch": None,
        "hand": None,
        "more": [],
    }
    place = {"text": "1 1/2; -3; 2", "kind": "place", "units": inches}
    assert client.post("/api/shop/read", json=place).json()["more"] == [-76.2, 50.8]
    said = client.post(
        "/api/shop/say",
        json={
            "figures": [
                {"value": 95.25, "kind": "length"},
                {"value": -1.5, "kind": "angle"},
                {"value": 0.5, "kind": "turns"},
                {"value": 690.0, "kind": "mass"},
            ],
            "units": inches,
        },
    )
    assert said.json() == ["3 3/4", "−1.50°", "½ turn", "1521.19 lb"]
    assert len(client.get("/api/tools?inches=true").json()) == 8


def test_a_database_that_is_away_is_said_so(client, car, monkeypatch):
    from sqlalchemy.exc import OperationalError

    def away(*_):
        raise OperationalError("", {}, Exception("gone"))

    monkeypatch.setattr("ready_corner.storage.logbooks.Logbooks.after", away)
    answer = client.get(f"/api/cars/{car}")
    assert (answer.status_code, answer.json()["code"]) == (503, "database_away")


def test_the_page_is_served_at_every_address_and_nothing_outside_its_folder(workshop, front_end):
    with TestClient(make_app(workshop, front_end)) as served:
        for path in ("/", "/cars/tern/set/LF/camber", "/..%2f..%2fpyproject.toml"):
            answer = served.get(path)
            assert answer.status_code == 200
            assert '<div id="app">' in answer.text
        script = next(front_end.glob("assets/*.js"))
        assert "immutable" in served.get(f"/assets/{script.name}").headers["cache-control"]
        assert served.get("/api/nothing").status_code == 404
