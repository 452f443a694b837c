"""Bringing a database to the newest tables.

A migration says in ``works_with`` which revision's program goes on working beside the new tables: an older one than its
own where it only adds what the older program does not know. Then servers can be upgraded one after the other.
"""

from __future__ import annotations

from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory

from ..school.database import make_engine, make_sessions
from ..school.servers import answering
from ..school.tables import oldest_program, set_oldest_program

ROOT = Path(__file__).resolve().parents[3]


def migrate(url: str) -> None:
    """Run the migrations that the database has not seen yet, and note which programs work with the tables."""
    before = revision_of(url)
    oldest = oldest_working(before)
    command.upgrade(config_for(url), "head")
    engine = make_engine(url)
    with make_sessions(engine)() as session:
        set_oldest_program(session, max(oldest, oldest_program(session) or ""))
        session.commit()
    engine.dispose()


def oldest_working(before: str | None) -> str:
    """The oldest revision whose program works with the newest tables, if it worked with those after ``before``.

    >>> oldest_working(None) <= newest_revision()
    True
    """
    script = ScriptDirectory(str(ROOT / "migrations"))
    pending = [one for one in script.walk_revisions() if before is None or one.revision > before]
    return max((getattr(one.module, "works_with", one.revision) for one in pending), default="")


def config_for(url: str) -> Config:
    """What Alembic has to know to work on a database."""
    config = Config()
    config.set_main_option("script_location", str(ROOT / "migrations"))
    config.attributes["url"] = answering(url)
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
