"""A workshop to one file and back: byte for byte, in part, twice, and against what is here already."""

import json
import random
import uuid

import pytest

from ready_corner.border.entries import EntryIn
from ready_corner.cli import main
from ready_corner.exchange.files import FileRefusedError
from ready_corner.keeping import put_back, save
from ready_corner.workshop import Workshop
from tests.conftest import entry_json, plan_json, reading_json, rows_of
from tests.fuzzing import ListedLogbooks, client_in_memory, told, try_plan

HEADERS = {"content-type": "application/json"}


@pytest.fixture
def saved():
    """The file of a workshop with two demo cars and a car begun in it."""
    found = Workshop(ListedLogbooks())
    for slug, book in told("logbook").items():
        (brought,) = put_back(found, json.dumps(book).encode())
        assert (brought.slug, brought.new) == (slug, len(book["entries"]))
    found.begin(EntryIn.model_validate(entry_json({"kind": "plan", "plan": plan_json("Tern")})))
    return save(found.logbooks)


def test_a_workshop_put_back_elsewhere_is_saved_as_the_same_bytes(saved, client, owner):
    there = Workshop(ListedLogbooks())
    assert [c.refused for c in put_back(there, saved)] == [(), (), ()]
    assert save(there.logbooks) == saved
    assert [c.new for c in put_back(there, saved)] == [0, 0, 0]
    assert save(there.logbooks) == saved
    assert [c.slug for c in put_back(there, saved)] == ["heather", "tern", "tern-2"]
    # Through a database too: the cars of the file stand in it as they stand in the file.
    assert client.post("/api/workshop", content=saved, headers=HEADERS).status_code == 200
    cars = {c["slug"]: c["entries"] for c in json.loads(saved)["cars"]}
    again = {c["slug"]: c["entries"] for c in client.get("/api/workshop.json").json()["cars"]}
    assert any(cars["heather"] == entries for entries in again.values())
    assert [r.id for r in rows_of(owner, "heather")] == [e["id"] for e in cars["heather"]]


def two_copies():
    """A car in two workshops, the same so far; each with a way of recording in it."""
    clients = [client_in_memory(), client_in_memory()]
    slug = try_plan(clients[0], plan_json(), random.Random(1))

    def record(client, what, **more):
        answer = client.post(f"/api/cars/{slug}/entries", json=entry_json(what, **more))
        assert answer.status_code == 201, answer.json()

    record(clients[0], reading_json("LF", "height", "110"))
    bring(*clients)
    return *clients, record, slug


def bring(source, target):
    return target.post("/api/workshop", content=source.get("/api/workshop.json").content, headers=HEADERS).json()


def log(client, slug):
    return [(e["number"], e["what"].get("typed")) for e in client.get(f"/api/cars/{slug}/logbook.json").json()["entries"]]


def test_what_is_new_is_appended_and_stays_where_both_went_on():
    bench, laptop, record, slug = two_copies()
    record(bench, reading_json("RF", "height", "111"))
    assert bring(bench, laptop)[0]["new"] == 1
    assert log(laptop, slug) == log(bench, slug)
    record(bench, reading_json("LR", "height", "112"))
    record(laptop, reading_json("RR", "height", "113"))
    assert bring(bench, laptop)[0] | {"refused": []} == {"slug": slug, "name": bench.get(f"/api/cars/{slug}").json()["plan"]["name"], "new": 1, "had": 4, "refused": []}  # fmt: skip
    assert log(laptop, slug)[3:] == [(4, "113"), (5, "112")]
    assert bring(laptop, bench)[0]["new"] == 1
    assert bring(bench, laptop)[0]["new"] == bring(laptop, bench)[0]["new"] == 0


def test_what_contradicts_is_refused_by_name_and_nothing_of_that_car_is_taken():
    bench, laptop, record, slug = two_copies()
    same = str(uuid.uuid4())
    record(bench, reading_json("RF", "height", "111"), id=same)
    record(laptop, reading_json("RF", "height", "119"), id=same)
    record(bench, reading_json("LR", "height", "112"))
    (refused,) = bring(bench, laptop)
    assert "Entry 3 of the file and entry 3 here" in refused["refused"][0]
    assert log(laptop, slug)[-1] == (3, "119")


def test_a_plan_revised_on_both_sides_and_a_turn_past_the_thread_are_refused():
    bench, laptop, record, slug = two_copies()
    for client in (bench, laptop):
        plan = client.get(f"/api/cars/{slug}/plan.json").json()
        record(client, {"kind": "plan", "plan": {**plan, "about": uuid.uuid4().hex}, "revises": 1})
    assert "entry 3 has revised it meanwhile" in bring(bench, laptop)[0]["refused"][0]
    bench, laptop, record, slug = two_copies()
    for client in (bench, laptop):
        record(client, {"kind": "turned", "adjuster": "LR.toe", "typed": "4t longer"})
    assert "past its thread" in bring(bench, laptop)[0]["refused"][0]


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"{}", "missing"),
        (b"[1]", "not a workshop file"),
        (b'{"format": "ready-corner plan"}', "cars"),
        (b'{"format": "ready-corner workshop", "cars": [{"slug": "a", "entries": []}]}', "begins with a plan"),
    ],
)
def test_a_file_that_is_no_workshop_is_refused_with_its_places(data, words):
    with pytest.raises(FileRefusedError, match=words):
        put_back(Workshop(ListedLogbooks()), data)


def test_the_commands_save_and_put_back_while_the_server_runs_and_while_it_does_not(saved, empty_server, tmp_path, capsys):
    first, again = tmp_path / "first.json", tmp_path / "again.json"
    first.write_bytes(saved)
    folder = ["--folder", str(empty_server.folder)]
    assert main(["put-back", str(first), *folder]) == 0
    assert main(["save", str(again), *folder]) == 0
    assert again.read_bytes() == saved
    empty_server.stop()
    assert main(["put-back", str(first), *folder]) == 0
    assert "0 lines new" in capsys.readouterr().out
    assert main(["save", str(again), *folder]) == 0
    assert again.read_bytes() == saved
    assert main(["save", str(again), "--folder", str(tmp_path / "nowhere")]) == 2
    assert "There is no workshop" in capsys.readouterr().err
