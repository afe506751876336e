import threading
import uuid

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import text
from sqlalchemy.exc import DBAPIError

from ready_corner.border.entries import EntryIn
from ready_corner.border.kinds import SENT
from ready_corner.demo import demo_logbooks, load_demo
from ready_corner.storage.logbooks import Logbooks
from ready_corner.storage.migrate import upgrade
from ready_corner.storage.tables import Base
from ready_corner.workshop import Workshop
from tests.conftest import entry_json, plan_json, rows_of

HappenedModel, NoteModel = (SENT[k] for k in ("happened", "note"))


def note(words="n"):
    return EntryIn.model_validate(entry_json({"kind": "note", "words": words}))


def begun(workshop):
    return workshop.begin(EntryIn.model_validate(entry_json({"kind": "plan", "plan": plan_json()})))


def test_the_tables_are_those_of_the_mappings(owner):
    with owner.connect() as connection:
        differences = compare_metadata(MigrationContext.configure(connection, opts={"compare_type": True}), Base.metadata)
    assert differences == []


def test_migrating_again_changes_nothing(urls, owner):
    upgrade(urls.owner)
    with owner.connect() as connection:
        assert connection.execute(text("SELECT version_num FROM alembic_version")).all() == [("0002",)]


@pytest.mark.parametrize(
    "statement",
    [
        "UPDATE entries SET who = 'x'",
        "DELETE FROM entries",
        "DROP TABLE entries",
        "UPDATE cars SET slug = 'x'",
        "DELETE FROM cars",
        "TRUNCATE entries",
    ],
)
def test_the_applications_user_may_neither_change_nor_delete(engine, statement):
    with engine.connect() as connection, pytest.raises(DBAPIError, match="denied"):
        connection.execute(text(statement))


def test_numbers_run_without_gaps_however_many_record_at_once(engine):
    workshops = [Workshop(Logbooks(engine)) for _ in range(3)]  # as three processes would
    slug = begun(workshops[0])
    failures = []

    def record(workshop):
        for _ in range(10):
            try:
                workshop.record(slug, note())
            except Exception as error:
                failures.append(error)

    threads = [threading.Thread(target=record, args=(w,)) for w in workshops for _ in range(2)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert failures == []
    assert [r.number for r in rows_of(engine, slug)] == list(range(1, 62))


def test_an_entry_sent_twice_at_once_is_stored_once(engine):
    workshops = [Workshop(Logbooks(engine)) for _ in range(4)]
    slug, sent, answers = begun(workshops[0]), note("once"), []
    threads = [threading.Thread(target=lambda w=w: answers.append(w.record(slug, sent))) for w in workshops]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(rows_of(engine, slug)) == 2
    assert sorted(a.new for a in answers) == [False, False, False, True]
    assert {a.entry.number for a in answers} == {2}


def test_the_database_itself_refuses_a_number_or_an_identity_twice(engine, workshop):
    slug = begun(workshop)
    workshop.record(slug, note())
    row = rows_of(engine, slug)[1]
    for number, identity in ((2, str(uuid.uuid4())), (3, row.id), (0, str(uuid.uuid4()))):
        with engine.begin() as connection, pytest.raises(DBAPIError):
            connection.execute(
                text(
                    "INSERT INTO entries (car_id, number, id, kind, version, at, who, payload) SELECT id, :n, :i, 'note', 1, NOW(), '', '{}' FROM cars WHERE slug = :s"
                ),
                {"n": number, "i": identity, "s": slug},
            )


def test_a_fresh_workshop_sees_the_same_car(engine, workshop):
    slug = begun(workshop)
    workshop.record(slug, EntryIn.model_validate(entry_json(HappenedModel(what="settled").model_dump())))
    workshop.record(slug, note("Bär ½ − °"))
    other = Workshop(Logbooks(engine))  # every cache gone
    assert other.state(slug) == workshop.state(slug)
    assert other.kept(slug) == workshop.kept(slug)
    kept = other.kept(slug)[-1]
    assert isinstance(kept.what, NoteModel)
    assert (kept.what.words, kept.at.isoformat()) == ("Bär ½ − °", "2026-11-25T09:00:00+00:00")


def test_listing_cars_takes_the_same_number_of_queries_however_many(workshop, queries):
    counts = []
    for _ in range(2):
        for _ in range(3):
            begun(workshop)
        queries.clear()
        workshop.cars()
        counts.append(len(queries))
    assert counts[0] == counts[1]


def test_the_demo_is_loaded_once_and_is_half_set(workshop, engine):
    load_demo(workshop)
    load_demo(Workshop(Logbooks(engine)))
    told = demo_logbooks()["tern"].entries
    assert [r.id for r in rows_of(engine, "tern")] == [str(e.id) for e in told]
