"""Alembic's entry: runs migrations on the database given in the configuration's attributes."""

from alembic import context
from sqlalchemy import create_engine, pool

from ready_corner.storage.tables import Base

engine = create_engine(context.config.attributes["url"], poolclass=pool.NullPool)
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata, compare_type=True)
    with context.begin_transaction():
        context.run_migrations()
