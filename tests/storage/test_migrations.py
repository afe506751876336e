"""A database as the first version left it comes to the present tables with all that is in it."""

import json

import pytest
from sqlalchemy import text

from ready_corner.border.entries import EntryIn
from ready_corner.demo import demo_logbooks
from ready_corner.keeping import put_back, save
from ready_corner.launch.database import LocalDatabase
from ready_corner.storage.logbooks import Logbooks, engine_for
from ready_corner.storage.migrate import upgrade
from ready_corner.workshop import NoSuchCarError, Workshop
from tests.conftest import entry_json, plan_json


def filled(owner):
    """The demo cars, as rows that the first version wrote."""
    with owner.begin() as at:
        for slug, book in demo_logbooks().items():
            car = {"id": f"{slug:-<36}", "slug": slug}
            at.execute(text("INSERT INTO cars (id, slug) VALUES (:id, :slug)"), car)
            for e in book.entries:
                row = {
                    "car": car["id"], "number": e.number, "id": str(e.id), "kind": e.what.kind, "at": e.at.replace(tzinfo=None), "who": e.who,
                    "payload": json.dumps(e.what.model_dump(mode="json")),
                }  # fmt: skip
                at.execute(text("INSERT INTO entries (car_id, number, id, kind, version, at, who, payload) VALUES (:car, :number, :id, :kind, 1, :at, :who, :payload)"), row)  # fmt: skip


@pytest.fixture
def first_version(tmp_path):
    """A database as the first version made and filled it: its addresses, and engines for owner and application."""
    with LocalDatabase(tmp_path) as urls:
        upgrade(urls.owner, "0001")
        owner, app = engine_for(urls.owner), engine_for(urls.app)
        try:
            filled(owner)
            yield urls, owner, app
        finally:
            owner.dispose()
            app.dispose()


def test_names_are_binary_after_the_second_migration_and_nothing_is_lost(first_version):
    urls, owner, app = first_version
    before = save(Logbooks(app))
    for _ in range(2):  # and again: a migration that was cut short is run from where it was
        upgrade(urls.owner)
    assert save(Logbooks(app)) == before
    workshop = Workshop(Logbooks(app))
    assert workshop.told("tern").judged
    for other in ("TERN", "térn", "tern ", "tern\t", "Tern"):
        try:
            workshop.told(other)
        except NoSuchCarError:
            continue
        raise AssertionError(f"“{other}” is taken for tern")
    sent = EntryIn.model_validate(entry_json({"kind": "plan", "plan": plan_json("Two")}))
    assert workshop.begin(sent) == "two"
    with owner.connect() as at:
        ties = at.execute(text("SELECT COUNT(*) FROM information_schema.referential_constraints WHERE constraint_name = 'fk_entries_car_id'"))  # fmt: skip
        assert ties.scalar() == 1


def test_a_migration_cut_short_between_two_statements_is_run_again(first_version):
    urls, owner, app = first_version
    with owner.begin() as at:  # as far as a plug pulled after the first statement lets it come
        at.execute(text("ALTER TABLE entries DROP FOREIGN KEY fk_entries_car_id"))
    upgrade(urls.owner)
    assert Workshop(Logbooks(app)).told("heather").judged
    assert put_back(Workshop(Logbooks(app)), save(Logbooks(app)))[0].refused == ("Some of its lines are in another car of this workshop already. Nothing of it was brought in.",)  # fmt: skip
