"""Whatever is taken can be told; and where something cannot, the car opens with its log, its plan and the line in the way."""

import json
import random
import uuid

import pytest
from sqlalchemy import text

from ready_corner import workshop as service
from ready_corner.core.advise import car as judging
from ready_corner.core.advise import reckoned as whole
from ready_corner.keeping import put_back
from ready_corner.web.guard import HEADERS
from ready_corner.workshop import Workshop
from tests.amounts import drawn
from tests.conftest import entry_json, plan_json, reading_json, rows_of
from tests.fuzzing import (
    ListedLogbooks,
    as_sent,
    client_in_memory,
    entry,
    extremes,
    mutilated,
    ordinary_job,
    told,
    try_entry,
    try_plan,
    walk,
)

PLANS, BOOKS = told("plan"), told("logbook")


@pytest.mark.parametrize("name", list(PLANS))
def test_drawn_and_mutilated_plans_are_refused_with_a_sentence_or_open_everywhere(name):
    rng = random.Random(f"plans {name}")
    client = client_in_memory()
    for _ in range(drawn(4, 2)):
        try_plan(client, mutilated(PLANS[name], rng), rng)


@pytest.mark.parametrize("name", list(BOOKS))
def test_a_mutilated_logbook_leaves_the_car_open_after_every_line(name):
    rng = random.Random(f"lines {name}")
    client, sent = client_in_memory(), [as_sent(e["what"]) for e in BOOKS[name]["entries"][1:]]
    slug = try_plan(client, PLANS[name], rng)
    for what in sent:
        if rng.random() < 0.4:
            try_entry(client, slug, what, look=False)
    taken = 0
    for _ in range(16):
        taken += try_entry(client, slug, mutilated(rng.choice(sent), rng, 2), look=False)
    assert taken
    walk(client, slug)


def test_readings_no_car_gives_at_all_four_corners_leave_it_open():
    client = client_in_memory()
    slug = try_plan(client, PLANS["tern"], random.Random("extremes"))
    for rows in extremes(3):
        for what in rows:
            try_entry(client, slug, what, look=False)
        walk(client, slug)


def test_scales_that_read_nothing_and_figures_without_end_lock_nothing(client, car):
    for corner in ("LF", "RF", "LR", "RR"):
        what = reading_json(corner, "load", "0", tool="scales", confirmed=True)
        assert client.post(f"/api/cars/{car}/entries", json=entry_json(what)).status_code == 201
    assert client.get(f"/api/cars/{car}").json()["trouble"] is None
    for typed in ("1" + "0" * 40, "99999999"):
        answer = client.post(f"/api/cars/{car}/entries", json=entry_json(reading_json("LF", "height", typed, confirmed=True)))
        assert answer.status_code == 422
    walk(client, car)


@pytest.fixture
def failing(monkeypatch):
    """Makes judging fail for every car that has a figure in its log, as a fault not found yet would."""

    def arm(figure):
        def judged(evaluation):
            for rows in evaluation.state.taken.values():
                if any(t.reading.value == figure for t in rows):
                    raise ZeroDivisionError
            return judging.judge_car(evaluation)

        for its in (service, whole):
            monkeypatch.setattr(its, "judge_car", judged)

    return arm


def test_an_entry_that_cannot_be_reckoned_with_is_not_kept(client, car, failing):
    failing(111.25)
    answer = client.post(f"/api/cars/{car}/entries", json=entry_json(reading_json("LF", "height", "111.25")))
    assert (answer.status_code, answer.json()["code"]) == (422, "not_reckoned")
    assert client.get(f"/api/cars/{car}").json()["number"] == 1
    assert client.post(f"/api/cars/{car}/entries", json=entry_json(reading_json("LF", "height", "111"))).status_code == 201


def test_a_car_that_cannot_be_reckoned_opens_and_is_mended_by_striking_out(client, car, failing, workshop):
    for typed in ("110", "111.25", "112"):
        client.post(f"/api/cars/{car}/entries", json=entry_json(reading_json("LF", "height", typed)))
    failing(111.25)
    workshop._benches.clear()
    shown = client.get(f"/api/cars/{car}").json()
    assert shown["trouble"]["number"] == 3
    assert "entry 3" in shown["trouble"]["sentence"]
    assert shown["plan"]["wheelbase"] == 2400
    assert len(client.get(f"/api/cars/{car}/log").json()) == 4
    assert client.get(f"/api/cars/{car}/stance").status_code == 422
    strike = {"kind": "correction", "strikes": shown["trouble"]["id"]}
    mended = client.post(f"/api/cars/{car}/entries", json=entry_json(strike))
    assert mended.status_code == 201
    assert mended.json()["car"]["trouble"] is None


def test_rows_that_no_server_wrote_are_noticed_and_said(client, car, owner, workshop):
    for typed in ("110", "111", "112"):
        client.post(f"/api/cars/{car}/entries", json=entry_json(reading_json("LF", "height", typed)))
    rows = rows_of(owner, car)
    with owner.begin() as at:
        at.execute(text("DELETE FROM entries WHERE id = :id"), {"id": rows[2].id})
        at.execute(text('UPDATE entries SET payload = \'{"kind": "reading"}\' WHERE id = :id'), {"id": rows[3].id})
    shown = client.get(f"/api/cars/{car}").json()
    assert "Line 3 is missing" in shown["notices"][0]
    log = client.get(f"/api/cars/{car}/log").json()
    assert [line["entry"]["number"] for line in log] == [4, 2, 1]
    assert "could not be read" in log[0]["sentence"]
    assert client.post(f"/api/cars/{car}/entries", json=entry_json(reading_json("LF", "height", "113"))).json()["number"] == 5


def test_two_figures_are_two_fields_whatever_is_typed_in_them(client):
    slug = client.post("/api/cars", json=entry_json({"kind": "plan", "plan": plan_json(units={"system": "inch_fraction"})})).json()["slug"]  # fmt: skip
    for what in (
        {"kind": "slope", "way": "along", "typed": "3 / 4", "reversed_typed": "1 / 2", "tool": "digital"},
        {"kind": "opening", "corner": "LF", "ahead_typed": "12 3 / 4", "behind_typed": "13 1 / 2"},
    ):
        sent = entry_json(what)
        assert client.post(f"/api/cars/{slug}/entries", json=sent).status_code == 201
        assert client.post(f"/api/cars/{slug}/entries", json=sent).status_code == 200
        kept = client.get(f"/api/cars/{slug}/logbook.json").json()["entries"][-1]["what"]
        assert {k: kept[k] for k in what} == what


def test_how_far_the_opening_of_a_long_log_has_come_is_told(monkeypatch):
    client, slug = whole_car("heather")
    monkeypatch.setattr(service, "AT_ONCE", 20)
    told, fold, judge = [], service.fold_all, service.judge_car

    def watched(does):
        def seen(*of):
            told.append(client.get(f"/api/cars/{slug}/opened").json()["share"])
            return does(*of)

        return seen

    monkeypatch.setattr(service, "fold_all", watched(fold))
    monkeypatch.setattr(service, "judge_car", watched(judge))
    shown = client.get(f"/api/cars/{slug}").json()
    assert told == sorted(told)
    assert told[0] == 0 < told[1] < 0.4 < told[-1] < 1
    assert client.get(f"/api/cars/{slug}/opened").json()["share"] == 1
    monkeypatch.undo()
    again, _ = whole_car("heather")
    assert again.get(f"/api/cars/{slug}").json() == shown  # in pieces or at once


@pytest.mark.parametrize("name", list(BOOKS))
def test_an_ordinary_job_is_never_refused_as_not_reckonable(name):
    """Readings, turns, strikes, tyres and loads changed by so much, revisions that rename and drop, welds: as the shop has them, in any order."""
    for seed in range(drawn(10, 1)):
        ordinary_job(client_in_memory(), PLANS[name], random.Random(f"job {name} {seed}"), drawn(300, 60))


def test_a_fault_is_answered_in_the_one_format(client, car, monkeypatch):
    monkeypatch.setattr(service.Workshop, "state", lambda *_: 1 / 0)
    client._transport.raise_server_exceptions = False
    answer = client.get(f"/api/cars/{car}/log")
    assert (answer.status_code, answer.json()["code"]) == (500, "fault")
    assert "ZeroDivisionError" in answer.json()["sentence"]
    assert HEADERS.items() <= answer.headers.items()  # fenced in like any other answer


def test_begun_with_a_plan_that_cannot_be_reckoned_is_refused(client, monkeypatch):
    monkeypatch.setattr(whole, "stance", lambda *_: 1 / 0)
    sent = entry({"kind": "plan", "plan": plan_json(f"Not {uuid.uuid4().hex}")})
    answer = client.post("/api/cars", json=sent)
    assert (answer.status_code, answer.json()["code"]) == (422, "not_reckoned")


def whole_car(name):
    """A demo car with its whole logbook, in memory."""
    logbooks = ListedLogbooks()
    put_back(Workshop(logbooks), json.dumps(BOOKS[name]).encode())
    return client_in_memory(logbooks), name


def revise(client, slug, change, **more):
    shown = client.get(f"/api/cars/{slug}").json()
    plan = client.get(f"/api/cars/{slug}/plan.json").json()
    change(plan)
    what = {"kind": "plan", "plan": plan, "revises": shown["plan_number"], **more}
    return client.post(f"/api/cars/{slug}/entries", json=entry_json(what))


def test_a_point_let_go_is_asked_about_and_its_readings_stay_readings():
    client, slug = whole_car("heather")
    before = client.get(f"/api/cars/{slug}/jig").json()
    named = {p for r in before["readings"] for p in r["points"]} | set(before["datum"]["plane"])

    def without_front(plan):
        plan["points"] = {n: p for n, p in plan["points"].items() if not n.startswith(("LF.", "RF."))}
        plan["front_linkage"] = None
        plan["adjusters"] = [a for a in plan["adjusters"] if a["corner"] not in ("LF", "RF")]

    asked = revise(client, slug, without_front)
    assert (asked.status_code, asked.json()["code"]) == (422, "unusual_value")
    for words in ("would not be planned any more", "they stay readings"):
        assert words in asked.json()["sentence"]
    assert client.get(f"/api/cars/{slug}/jig").json() == before
    assert revise(client, slug, without_front, confirmed=True).status_code == 201
    walk(client, slug)
    after = client.get(f"/api/cars/{slug}/jig").json()
    assert [(r["number"], r["counts"]) for r in after["readings"]] == [(r["number"], r["counts"]) for r in before["readings"]]
    planned = {p["name"] for p in after["points"]}
    assert named - planned
    kept = {p["name"]: p for p in before["points"] if p["name"] in planned}
    assert {n for n, p in kept.items() if p["determined"]} == {p["name"] for p in after["points"] if p["determined"]}


def test_what_the_datum_is_taken_from_is_named():
    client, slug = whole_car("heather")
    lost = revise(client, slug, lambda plan: plan["points"].pop("frame.panel.nose"))
    assert "The datum is taken from panel nose" in lost.json()["sentence"]


def test_a_point_renamed_is_said_to_be_the_same_place():
    client, slug = whole_car("heather")

    def renamed(plan):
        plan["points"]["RR.upper.rear_hole"] = plan["points"]["RR.upper.rear"] if "RR.upper.rear" in plan["points"] else [
            plan["points"]["LR.upper.rear"][0], -plan["points"]["LR.upper.rear"][1], plan["points"]["LR.upper.rear"][2]
        ]  # fmt: skip
        for name in ("LR.upper.rear", "RR.upper.rear"):
            plan["points"].pop(name, None)
        plan["rear_linkage"] = None
        plan["adjusters"] = [a for a in plan["adjusters"] if a["corner"] not in ("LR", "RR")]

    assert "RR upper rear_hole is where RR upper rear was" in revise(client, slug, renamed).json()["sentence"]


@pytest.mark.parametrize("name", list(BOOKS))
def test_any_part_of_a_plan_may_go_and_every_page_still_opens(name):
    client, slug = whole_car(name)
    for parts in (
        {
            "tools": [{"id": "stick", "name": "Stick", "measures": "length", "step": 5, "repeatability": 5}],
            "tool_for": {},
            "jig": None,
        },
        {"loads": None, "heights": [], "adjusters": [], "aims": [], "footing": {}},
        {"front_linkage": None, "rear_linkage": None},
        {"points": {}, "units": {"system": "inch_decimal"}},
    ):
        done = revise(client, slug, lambda plan, parts=parts: plan.update(parts), confirmed=True)
        assert done.status_code == 201, done.json()
        walk(client, slug)
