"""One wall for every way in: what one door refuses all refuse, and of what is taken every page opens and the next line can be written."""

import copy
import json
import random
import uuid

import pytest

from ready_corner.border.entries import EntryIn, EntryKept, keep, kept_to_core
from ready_corner.core.record.logbook import fold
from ready_corner.exchange.files import FileRefusedError, read_logbook
from ready_corner.workshop import NotReckonedError
from tests.amounts import drawn
from tests.conftest import entry_json, plan_json, reading_json
from tests.fuzzing import as_sent, client_in_memory, entry, mutilated, post, told, try_entry, try_plan, walk

PLANS, BOOKS = told("plan"), told("logbook")
JSON = {"content-type": "application/json"}


def brought(client, file):
    """What becomes of a logbook file: the short name of its car, or the sentences that refuse it."""
    answer = client.post("/api/workshop", content=file if isinstance(file, bytes) else json.dumps(file), headers=JSON)
    assert answer.status_code in (200, 422), answer.text[:300]
    if answer.status_code == 422:
        assert answer.json()["sentence"]
        return None, answer.json()["sentence"]
    (row,) = answer.json()
    return (None, " ".join(row["refused"])) if row["refused"] else (row["slug"], "")


def by_command(file):
    """Whether the command that reads a logbook takes it."""
    try:
        read_logbook(json.dumps(file).encode())
    except FileRefusedError:
        return False
    return True


def goes_on(client, slug):
    """Every page opens, and what comes next is taken."""
    walk(client, slug)
    note = client.post(f"/api/cars/{slug}/entries", json=entry_json({"kind": "note", "words": "and on"}))
    assert note.status_code == 201, note.text[:300]


def log(*more, **first):
    """A logbook file of a car that is begun, with some lines more."""
    lines = [{"kind": "plan", "plan": plan_json(), "revises": 0}, *more]
    entries = [
        {"id": str(uuid.uuid4()), "number": i, "at": "2026-11-26T10:00:00Z", "who": "Wren", "what": w}
        for i, w in enumerate(lines, 1)
    ]
    entries[0] |= first
    return {"format": "ready-corner logbook", "version": 1, "entries": entries}


def height(value):
    return {**reading_json("LF", "height", "110"), "value": value, "denominator": 0}


def with_plan(**more):
    return log() | {"entries": [{**log()["entries"][0], "what": {"kind": "plan", "plan": plan_json(**more)}}]}


def deep(levels):
    row = []
    for _ in range(levels):
        row = [row]
    return {"kind": "unreadable", "said": "This line could not be read.", "row": row}


CANNOT_BE = {
    "a number at the end of all numbers": (lambda: log(number=2147483647), "entries.0.number"),
    "a wheelbase without end": (lambda: with_plan(wheelbase=1e300), "wheelbase"),
    "a height without end": (lambda: log(height(1e308)), "entries.1"),
    "points nobody planned": (lambda: log({"kind": "surveyed", "points": {"LF.nowhere": [0, 0, 0]}, "expanded": 1}), "entries.1"),
    "a turn past the thread": (lambda: log({"kind": "turned", "adjuster": "LR.toe", "typed": "40", "amount": 40}), "entries.1"),
    "an adjuster nobody planned": (lambda: log({"kind": "turned", "adjuster": "LR.none", "typed": "1", "amount": 1}), "entries.1"),
    "a line struck out that is none": (lambda: log({"kind": "correction", "strikes": str(uuid.uuid4())}), "entries.1"),
    "the first year of all": (lambda: log(at="0001-01-01T00:00:00Z"), "entries.0.at"),
    "the last year of all": (lambda: log(at="9999-12-31T23:59:59Z"), "entries.0.at"),
    "a name without end": (lambda: log(who="x" * 81), "entries.0.who"),
    "a row too deep": (lambda: log(deep(40)), "entries.1.what"),
    "a row too long": (lambda: log({**deep(1), "row": "x" * 200_000}), "entries.1.what"),
    "a number that is none": (lambda: log({**deep(1), "row": float("nan")}), "entries.1.what"),
}  # fmt: skip


@pytest.mark.parametrize("case", CANNOT_BE, ids=lambda c: c.replace(" ", "-"))
def test_a_line_of_a_file_that_cannot_be_is_refused_at_its_place_and_nothing_of_the_car_is_kept(case, client):
    made, place = CANNOT_BE[case]
    file, before = made(), client.get("/api/cars").json()
    slug, said = brought(client, file)
    assert slug is None
    assert place in said
    assert not by_command(file)
    assert client.get("/api/cars").json() == before
    whole = log(height(110.0), deep(3))
    slug, said = brought(client, whole)
    assert said == ""
    goes_on(client, slug)


@pytest.mark.parametrize("name", list(BOOKS))
def test_the_state_after_a_file_is_that_of_its_lines_each_once(name):
    model, state = read_logbook(json.dumps(BOOKS[name]).encode())
    assert state == fold(None, [kept_to_core(e) for e in model.entries])


def test_a_line_that_is_refused_takes_no_other_with_it():
    turns = [{"kind": "turned", "adjuster": "LR.toe", "typed": str(n), "amount": n} for n in (40, 1)]
    slug, said = brought(client_in_memory(), log(*turns))
    assert slug is None
    assert "entries.1" in said
    assert "entries.2" not in said


def test_of_a_line_that_cannot_stand_after_what_is_here_nothing_is_kept_either(client):
    begun = log(height(110.0))
    slug, _ = brought(client, begun)
    for last in (height(1e308), {"kind": "turned", "adjuster": "LR.toe", "typed": "40", "amount": 40}):
        more = copy.deepcopy(begun)
        more["entries"].append({**log(last)["entries"][1], "number": 3})
        none, said = brought(client, more)
        assert none is None
        assert "Entry 3 of the file cannot stand" in said
        assert client.get(f"/api/cars/{slug}").json()["number"] == 2
    goes_on(client, slug)


@pytest.mark.parametrize("name", list(BOOKS))
def test_what_is_sent_and_what_is_in_a_file_pass_the_same_wall(name):
    """Mutilated lines, each sent, and each put at the end of the file of the car as it then is: taken by both or by none."""
    rng = random.Random(f"wall {name}")
    client, sent = client_in_memory(), [as_sent(e["what"]) for e in BOOKS[name]["entries"][1:]]
    slug = try_plan(client, PLANS[name], None)
    for what in sent[: drawn(len(sent), 24)]:
        try_entry(client, slug, what, look=False)
    outcomes = {True: 0, False: 0}
    for _ in range(drawn(200, 7)):
        what = mutilated(rng.choice(sent), rng, 2)
        before = client.get(f"/api/cars/{slug}/logbook.json").json()
        line = entry(what)
        answer = post(client, f"/api/cars/{slug}/entries", line)
        taken = answer.status_code == 201
        if not taken and answer.json()["code"] == "unusual_value":
            continue  # it is asked about, and was answered where it was kept
        if taken:
            file = client.get(f"/api/cars/{slug}/logbook.json").json()
        else:
            try:  # the line as it would have been kept
                model = EntryIn.model_validate(line)
                kept = EntryKept(id=model.id, number=before["entries"][-1]["number"] + 1, at=model.at, what=keep(model.what, client.app.state.workshop.state(slug).plan))  # fmt: skip
            except Exception:
                continue  # there is no such line
            file = {**before, "entries": [*before["entries"], json.loads(kept.model_dump_json())]}
        there = client_in_memory()
        found, said = brought(there, file)
        assert (found is not None) == taken == by_command(file), (what, answer.text[:300], said)
        outcomes[taken] += 1
        if found:
            assert there.get(f"/api/cars/{found}").json()["marks"] == client.get(f"/api/cars/{slug}").json()["marks"]
            strike = {"kind": "correction", "strikes": line["id"]}
            assert client.post(f"/api/cars/{slug}/entries", json=entry(strike)).status_code == 201
    assert outcomes[True]


@pytest.mark.parametrize("name", list(BOOKS))
def test_a_mutilated_file_is_refused_with_its_places_or_opens_everywhere(name):
    rng = random.Random(f"files {name}")
    taken = 0
    for _ in range(drawn(150, 4)):
        book = copy.deepcopy(BOOKS[name])
        at = rng.randrange(1, len(book["entries"]))
        book["entries"][at] = mutilated(book["entries"][at], rng, 2)
        client = client_in_memory()
        slug, _ = brought(client, book)
        assert by_command(book) <= (slug is not None)  # a logbook for a command has no gap; a workshop's may
        if slug:
            taken += 1
            goes_on(client, slug)
    assert taken


def test_what_the_wall_asks_of_a_line_is_asked_of_the_car_as_it_was_before_it(monkeypatch):
    """An entry with which the car cannot be reckoned is named by its line, in a file as when it is sent."""
    from ready_corner.core.advise import reckoned as whole

    def judged(evaluation):
        if any(t.reading.value == 111.25 for rows in evaluation.state.taken.values() for t in rows):
            raise ZeroDivisionError
        return real(evaluation)

    real = whole.judge_car
    monkeypatch.setattr(whole, "judge_car", judged)
    slug, said = brought(client_in_memory(), log(height(110.0), height(111.25), height(112.0)))
    assert slug is None
    assert "entries.2" in said
    assert NotReckonedError("ZeroDivisionError").kind in said
