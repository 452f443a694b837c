"""Bringing a database to the newest tables."""

from __future__ import annotations

from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory

from ..school.database import make_engine

ROOT = Path(__file__).resolve().parents[3]


def migrate(url: str) -> None:
    """Run the migrations that the database has not seen yet."""
    command.upgrade(config_for(url), "head")


def config_for(url: str) -> Config:
    """What Alembic has to know to work on a database."""
    config = Config()
    config.set_main_option("script_location", str(ROOT / "migrations"))
    config.attributes["url"] = url
    return config


def revision_of(url: str) -> str | None:
    """The last migration that a database has seen, as 0013; None where there is none."""
    engine = make_engine(url)
    try:
        with engine.connect() as connection:
            return MigrationContext.configure(connection).get_current_revision()
    finally:
        engine.dispose()


def newest_revision() -> str:
    """The last migration of this program."""
    newest = ScriptDirectory(str(ROOT / "migrations")).get_current_head()
    assert newest is not None
    return newest
