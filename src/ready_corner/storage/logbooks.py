"""The repository of logbooks: gives and takes the open form of entries, holds no rule of the job."""

import contextlib
import time
import uuid
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any, cast

from pydantic import ValidationError
from sqlalchemy import Connection, Engine, Row, Table, bindparam, create_engine, event, func, insert, select
from sqlalchemy.engine import ExceptionContext
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session
from sqlalchemy.pool import PoolProxiedConnection, QueuePool

from ready_corner.border.entries import EntryKept
from ready_corner.storage.tables import CarRow, EntryRow

_ENTRIES = cast(Table, EntryRow.__table__)
_INSERT = insert(_ENTRIES)
_AFTER = (
    select(_ENTRIES)
    .where(_ENTRIES.c.car_id == bindparam("car"), _ENTRIES.c.number > bindparam("number"))
    .order_by(_ENTRIES.c.number)
)
_LATEST = "SELECT MAX(number) FROM entries WHERE car_id = %s"


class TakenError(Exception):
    """A number, an identity or a short name is taken already; ``constraint`` is the database's word for it."""

    def __init__(self, constraint: str) -> None:
        self.constraint = constraint
        super().__init__(constraint)


@dataclass(frozen=True)
class CarKey:
    """A car as the database knows it."""

    id: str
    slug: str


@dataclass(frozen=True)
class CarLine:
    """A car in the list of cars: its latest plan's name, and how many entries it has."""

    slug: str
    name: str
    about: str
    entries: int


ANSWER_S = 2  # a database that says nothing for so long is away; asked twice, that is under five seconds
REST_S = 1.0  # for so long after that nobody asks it again
LOCK_PATIENCE_S = 1.5  # for another process that writes to the same car; less than ANSWER_S, or waiting would look like a database that is away


class AwayError(Exception):
    """The database does not answer just now, or is too busy to."""


class RestingPool(QueuePool):
    """A pool that does not even ask a database which was silent a moment ago, so that not everybody waits for it in turn."""

    silent_until = 0.0

    def connect(self) -> PoolProxiedConnection:
        """Return a connection; raises AwayError while the database rests."""
        if time.monotonic() < self.silent_until:
            raise AwayError("The database did not answer a moment ago.")
        return super().connect()


def engine_for(url: str) -> Engine:
    """Return an engine that sees what is committed, asks a lost connection anew, and gives up on a database that does not answer."""
    found = create_engine(
        url,
        poolclass=RestingPool,
        pool_pre_ping=True,
        pool_size=10,
        max_overflow=30,
        pool_timeout=ANSWER_S,
        isolation_level="AUTOCOMMIT",  # one statement is one transaction, and nothing has to be ended after a look
        skip_autocommit_rollback=True,
        connect_args={"connect_timeout": ANSWER_S, "read_timeout": ANSWER_S, "write_timeout": ANSWER_S},
    )

    @event.listens_for(found, "handle_error")
    def silent(context: ExceptionContext) -> None:
        cause = context.original_exception
        if isinstance(cause.__context__, TimeoutError) or isinstance(getattr(cause, "original_exception", None), TimeoutError):
            found.pool.silent_until = time.monotonic() + REST_S  # type: ignore[attr-defined]

    return found


class Logbooks:
    """Cars and their entries, on an engine or on one connection held for writing."""

    def __init__(self, engine: Engine | Connection) -> None:
        self._engine = engine

    def find(self, slug: str) -> CarKey | None:
        """Return the car with a short name, if there is one."""
        with Session(self._engine) as session:
            row = session.scalar(select(CarRow).where(CarRow.slug == slug))
            return CarKey(row.id, row.slug) if row else None

    def find_id(self, car_id: str) -> CarKey | None:
        """Return the car with an identity, if there is one."""
        with Session(self._engine) as session:
            row = session.get(CarRow, car_id)
            return CarKey(row.id, row.slug) if row else None

    def cars(self) -> list[CarLine]:
        """Return all cars, the first begun first; two queries for however many."""
        with Session(self._engine) as session:
            counts = (
                select(
                    EntryRow.car_id,
                    func.max(EntryRow.number).label("entries"),
                    func.max(func.if_(EntryRow.kind == "plan", EntryRow.number, 0)).label("plan"),
                )
                .group_by(EntryRow.car_id)
                .subquery()
            )
            rows = session.execute(
                select(CarRow.slug, EntryRow.payload, counts.c.entries)
                .join(counts, counts.c.car_id == CarRow.id)
                .join(EntryRow, (EntryRow.car_id == CarRow.id) & (EntryRow.number == counts.c.plan))
                .order_by(CarRow.begun_at, CarRow.slug)
            )
            return [CarLine(slug, payload["plan"]["name"], payload["plan"]["about"], count) for slug, payload, count in rows]

    def after(self, car_id: str, number: int) -> list[EntryKept]:
        """Return the entries of a car after a number, in order."""
        with self._connected() as connection:
            latest = connection.exec_driver_sql(_LATEST, (car_id,)).scalar()  # mostly nothing is new, and that is asked soonest
            if latest is None or latest <= number:
                return []
            return [_kept(row) for row in connection.execute(_AFTER, {"car": car_id, "number": number})]

    def count(self, car_id: str) -> int:
        """Return how many entries a car has."""
        with self._connected() as connection:
            return connection.scalar(select(func.count()).select_from(_ENTRIES).where(_ENTRIES.c.car_id == car_id)) or 0

    @contextlib.contextmanager
    def one_writer(self, car_id: str) -> Iterator["Logbooks"]:
        """Hold a car so that no other process appends to it meanwhile, and yield the logbooks to write to.

        Raises AwayError where another does not let go.
        """
        assert isinstance(self._engine, Engine)
        with self._engine.connect() as connection:
            name = f"ready_corner {car_id}"
            if connection.exec_driver_sql("SELECT GET_LOCK(%s, %s)", (name, LOCK_PATIENCE_S)).scalar() != 1:
                raise AwayError("Others are recording in this car just now.")
            connection.rollback()  # the lock outlives it
            try:
                yield Logbooks(connection)
            finally:
                connection.exec_driver_sql("DO RELEASE_LOCK(%s)", (name,))

    def begin(self, car: CarKey, entries: Sequence[EntryKept]) -> None:
        """Keep a new car with its first entries, all or none, durably; raises TakenError."""
        self._add(car, car.id, entries)

    def append(self, car_id: str, entries: Sequence[EntryKept]) -> None:
        """Keep entries, all or none, durably; raises TakenError where a number or an identity is taken."""
        self._add(None, car_id, entries)

    def _add(self, car: CarKey | None, car_id: str, entries: Sequence[EntryKept]) -> None:
        rows = [
            {
                "car_id": car_id,
                "number": e.number,
                "id": str(e.id),
                "kind": e.what.kind,
                "version": e.what.version,
                "at": e.at,
                "who": e.who,
                "payload": e.what.model_dump(mode="json"),
            }
            for e in entries
        ]
        try:
            with self._connected() as connection:
                if car is None and len(rows) == 1:
                    connection.execute(_INSERT, rows[0])
                    return
                connection.execution_options(isolation_level="READ COMMITTED")
                with connection.begin():
                    if car is not None:
                        connection.execute(insert(CarRow).values(id=car.id, slug=car.slug))
                    if rows:
                        connection.execute(_INSERT, rows)
        except IntegrityError as taken:
            raise TakenError(str(taken.orig)) from taken

    @contextlib.contextmanager
    def _connected(self) -> Iterator[Connection]:
        """Yield the connection that is held for writing, else one of the engine's; a look leaves nothing begun."""
        if isinstance(self._engine, Connection):
            yield self._engine
            self._engine.rollback()
        else:
            with self._engine.connect() as connection:
                yield connection


def _kept(row: Row[Any]) -> EntryKept:
    """Return the open form of a row; one that no server of this version wrote says so in place of what it holds."""
    fields = {"id": row.id, "number": row.number, "at": row.at, "who": row.who, "what": row.payload}
    try:
        return EntryKept.model_validate(fields)
    except ValidationError as wrong:
        where = ".".join(str(p) for p in wrong.errors()[0]["loc"])
        said = f"This line could not be read ({row.kind}, {where[:200]}): no version of Ready Corner up to this one writes it so. It counts for nothing."
        try:
            return EntryKept.model_validate({**fields, "what": {"kind": "unreadable", "said": said, "row": row.payload}})
        except ValidationError:
            made = uuid.uuid5(uuid.NAMESPACE_OID, f"{row.car_id} {row.number}")
            return EntryKept.model_validate(
                {"id": made, "number": row.number, "at": row.at, "what": {"kind": "unreadable", "said": said, "row": None}}
            )
