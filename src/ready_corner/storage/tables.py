"""Typed mappings. Every constraint is named and held by the database as well."""

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import CheckConstraint, DateTime, ForeignKey, Integer, MetaData, String, UniqueConstraint, text
from sqlalchemy.dialects.mysql import DATETIME, JSON
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column
from sqlalchemy.types import TypeDecorator

NAMES = {
    "pk": "pk_%(table_name)s",
    "uq": "uq_%(table_name)s_%(column_0_N_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_N_name)s",
}


class Utc(TypeDecorator[datetime]):
    """A moment to the microsecond, kept in UTC and given back aware."""

    impl = DateTime
    cache_ok = True

    def load_dialect_impl(self, dialect: Any) -> Any:
        """Return MariaDB's column with six digits of a second."""
        return dialect.type_descriptor(DATETIME(fsp=6))

    def process_bind_param(self, value: datetime | None, dialect: Any) -> datetime | None:
        """Return the moment in UTC without its zone."""
        return None if value is None else value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: datetime | None, dialect: Any) -> datetime | None:
        """Return the moment with its zone."""
        return None if value is None else value.replace(tzinfo=UTC)


class Base(DeclarativeBase):
    """Base of the tables."""

    metadata = MetaData(naming_convention=NAMES)


class CarRow(Base):
    """One car: its identity and the short name in its address."""

    __tablename__ = "cars"
    __table_args__ = (UniqueConstraint("slug"), CheckConstraint("slug <> ''", name="slug_not_empty"))

    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    slug: Mapped[str] = mapped_column(String(80))
    begun_at: Mapped[datetime] = mapped_column(Utc, server_default=text("CURRENT_TIMESTAMP(6)"))


class EntryRow(Base):
    """One line of a logbook; never updated, never deleted."""

    __tablename__ = "entries"
    __table_args__ = (UniqueConstraint("id"), CheckConstraint("number > 0", name="number_positive"))

    car_id: Mapped[str] = mapped_column(ForeignKey("cars.id"), primary_key=True)
    number: Mapped[int] = mapped_column(Integer, primary_key=True, autoincrement=False)
    id: Mapped[str] = mapped_column(String(36))
    kind: Mapped[str] = mapped_column(String(20))
    version: Mapped[int] = mapped_column(Integer)
    at: Mapped[datetime] = mapped_column(Utc)
    received_at: Mapped[datetime] = mapped_column(Utc, server_default=text("CURRENT_TIMESTAMP(6)"))
    who: Mapped[str] = mapped_column(String(80), default="")
    payload: Mapped[dict[str, Any]] = mapped_column(JSON)
