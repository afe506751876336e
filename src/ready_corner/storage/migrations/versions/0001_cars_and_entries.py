"""Cars and the entries of their logbooks."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0001"
down_revision = None


def upgrade() -> None:
    """Make both tables."""
    moment = mysql.DATETIME(fsp=6)
    op.create_table(
        "cars",
        sa.Column("id", sa.String(36), nullable=False),
        sa.Column("slug", sa.String(80), nullable=False),
        sa.Column("begun_at", moment, nullable=False, server_default=sa.text("CURRENT_TIMESTAMP(6)")),
        sa.PrimaryKeyConstraint("id", name="pk_cars"),
        sa.UniqueConstraint("slug", name="uq_cars_slug"),
        sa.CheckConstraint("slug <> ''", name="ck_cars_slug_not_empty"),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    op.create_table(
        "entries",
        sa.Column("car_id", sa.String(36), nullable=False),
        sa.Column("number", sa.Integer, nullable=False, autoincrement=False),
        sa.Column("id", sa.String(36), nullable=False),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("at", moment, nullable=False),
        sa.Column("received_at", moment, nullable=False, server_default=sa.text("CURRENT_TIMESTAMP(6)")),
        sa.Column("who", sa.String(80), nullable=False),
        sa.Column("payload", mysql.JSON, nullable=False),
        sa.PrimaryKeyConstraint("car_id", "number", name="pk_entries"),
        sa.UniqueConstraint("id", name="uq_entries_id"),
        sa.CheckConstraint("number > 0", name="ck_entries_number_positive"),
        sa.ForeignKeyConstraint(["car_id"], ["cars.id"], name="fk_entries_car_id"),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
