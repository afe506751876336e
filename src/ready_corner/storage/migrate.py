"""Bringing a database to the present tables."""

from importlib.resources import files

from alembic import command
from alembic.config import Config
from sqlalchemy import create_engine, text


def config(url: str) -> Config:
    """Return Alembic's configuration for a database."""
    found = Config()
    found.set_main_option("script_location", str(files("ready_corner.storage") / "migrations"))
    found.set_main_option("path_separator", "os")
    found.attributes["url"] = url
    return found


def upgrade(url: str, revision: str = "head") -> None:
    """Bring the database to a revision; only one process at a time."""
    engine = create_engine(url)
    with engine.connect() as one_at_a_time:
        one_at_a_time.execute(text("SELECT GET_LOCK('ready_corner_migrate', 60)"))
        command.upgrade(config(url), revision)
    engine.dispose()
