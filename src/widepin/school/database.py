"""The engine and its sessions."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from sqlalchemy import Connection, Engine, create_engine, event, text
from sqlalchemy.engine import make_url
from sqlalchemy.exc import DBAPIError, SQLAlchemyError
from sqlalchemy.orm import ORMExecuteState, Session, sessionmaker, with_loader_criteria

from .models import Removable

POOL, OVERFLOW = 8, 12
"""Connections that a process keeps, and that it opens besides: one for each of its threads, and a few for requests that
need a second one for a moment; processes times threads stay well under the server's limit."""

PATIENCE = {"connect_timeout": 3, "read_timeout": 8, "write_timeout": 8}
"""Seconds after which a database that does not answer is given up."""


LOOPBACK = ("127.0.0.1", "localhost", "::1")


def make_engine(url: str) -> Engine:
    """An engine for a database address, ``mariadb+pymysql://...``.

    Transactions read what is committed: they lock the rows that they name and no gaps between them, so that students
    who save at once do not stand in each other's way, and see after a lock what the one before them stored.
    """
    return create_engine(
        url,
        pool_size=POOL,
        max_overflow=OVERFLOW,
        pool_timeout=8,
        pool_pre_ping=True,
        pool_recycle=1800,
        isolation_level="READ COMMITTED",
        hide_parameters=True,  # what people wrote stands in no log
        connect_args={
            **PATIENCE,
            "init_command": "SET innodb_lock_wait_timeout = 5",
            # What never leaves the machine needs no certificates, and reading them takes a tenth of a second.
            "ssl_disabled": make_url(url).host in LOOPBACK,
        },
    )


TRY_AGAIN = frozenset({1205, 1213, 2006, 2013, 2014, 2055})
"""Numbers of MariaDB's errors after which a transaction may be tried again: a lock that took too long, a deadlock, a
lost connection."""


def may_be_tried_again(error: DBAPIError) -> bool:
    """Whether the database has given up a whole transaction for no fault of its own."""
    number = error.orig.args[0] if error.orig is not None and error.orig.args else None
    return error.connection_invalidated or number in TRY_AGAIN


def make_sessions(engine: Engine) -> sessionmaker[Session]:
    """A factory of sessions. What was removed is in none of their queries, unless one says ``WITH_REMOVED``."""
    made = sessionmaker(engine, expire_on_commit=False)
    event.listen(made, "do_orm_execute", _leave_out_what_is_removed)
    return made


WITH_REMOVED = {"with_removed": True}
"""Execution options of a query that finds what was removed too."""


def _leave_out_what_is_removed(state: ORMExecuteState) -> None:
    """Source: SQLAlchemy's documentation, "Adding global WHERE / ON criteria"."""
    if state.is_select and not state.is_column_load and not state.execution_options.get("with_removed"):
        there = with_loader_criteria(Removable, lambda kind: kind.removal == 0, include_aliases=True)
        state.statement = state.statement.options(there)


def lock_name(connection: Connection, what: str) -> str:
    """The name of a lock that the server holds; the database's own is part of it, since a server may have several."""
    return f"{connection.scalar(text('SELECT DATABASE()'))} {what}"[-64:]


@contextmanager
def alone(sessions: sessionmaker[Session], name: str) -> Iterator[bool]:
    """Hold a named lock of the database while something is done; whether it could be had at once."""
    lock, release = (text(f"SELECT {deed}") for deed in ("GET_LOCK(:name, 0)", "RELEASE_LOCK(:name)"))
    with sessions() as holding:
        named = {"name": lock_name(holding.connection(), name)}
        had = holding.scalar(lock, named) == 1
        try:
            yield had
        finally:
            if had:
                holding.execute(release, named)


class NoDatabase(Exception):
    """The database does not answer."""


def newest_seen(session: Session) -> str | None:
    """The last migration that the database has seen. Raises NoDatabase."""
    try:
        found = session.scalar(text("SELECT version_num FROM alembic_version"))
    except SQLAlchemyError as trouble:
        raise NoDatabase(type(trouble).__name__) from trouble
    return None if found is None else str(found)
