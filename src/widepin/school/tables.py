"""Which migrations the database has seen, and whether a program works with the tables as they are."""

from __future__ import annotations

from sqlalchemy import text
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.orm import Session

from .models import Choice

OLDEST = "oldest program"
"""The name of what is kept of this: {"revision": the newest migration that the oldest working program knows}."""


class NoDatabase(Exception):
    """The database does not answer."""


def newest_seen(session: Session) -> str | None:
    """The last migration that the database has seen. Raises NoDatabase."""
    try:
        found = session.scalar(text("SELECT version_num FROM alembic_version"))
    except SQLAlchemyError as trouble:
        raise NoDatabase(type(trouble).__name__) from trouble
    return None if found is None else str(found)


def oldest_program(session: Session) -> str | None:
    """The revision of the oldest program that works with the tables; None where that was not noted."""
    kept = session.get(Choice, OLDEST)
    return str(kept.value["revision"]) if kept is not None else None


def set_oldest_program(session: Session, revision: str) -> None:
    """Note it."""
    session.merge(Choice(name=OLDEST, value={"revision": revision}))


def work_with(session: Session, revision: str | None) -> bool:
    """Whether a program that knows migrations up to ``revision`` works with the tables; None: it does not ask.

    Raises NoDatabase.
    """
    seen = newest_seen(session)
    if revision is None or seen == revision:
        return True
    if seen is None or seen < revision:
        return False
    return (oldest_program(session) or seen) <= revision
