"""The engine and its sessions."""

from __future__ import annotations

from collections.abc import Callable
from random import uniform
from time import monotonic, sleep
from typing import TypeVar

from sqlalchemy import Engine, create_engine, event
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import ORMExecuteState, Session, sessionmaker, with_loader_criteria

from .models import Removable
from .servers import PATIENCE, has_several, split, use_servers

Result = TypeVar("Result")

Sessions = sessionmaker[Session]
"""What makes sessions."""

POOL, OVERFLOW = 8, 12
"""Connections that a process keeps, and that it opens besides: one for each of its threads, and a few for requests that
need a second one for a moment; processes times threads stay well under the server's limit."""


def make_engine(url: str) -> Engine:
    """An engine for a database address, ``mariadb+pymysql://...``, which may name several servers (``servers.py``).

    Transactions read what is committed: they lock the rows that they name and no gaps between them, so that students
    who save at once do not stand in each other's way, and see after a lock what the one before them stored.
    """
    address, servers = split(url)
    engine = create_engine(
        address,
        pool_size=POOL,
        max_overflow=OVERFLOW,
        pool_timeout=8,
        pool_pre_ping=True,
        pool_recycle=1800,
        isolation_level="READ COMMITTED",
        hide_parameters=True,  # what people wrote stands in no log
        connect_args={**PATIENCE, "init_command": "SET innodb_lock_wait_timeout = 5"},
    )
    use_servers(engine, servers)
    return engine


TRY_AGAIN = frozenset({1020, 1047, 1205, 1213, 2006, 2013, 2014, 2055})
"""Numbers of MariaDB's errors after which a transaction may be tried again: a lock that took too long, a deadlock
(which is also what a cluster says where another server was first), a lost connection, a server without its cluster."""

NOT_REACHED = frozenset({2002, 2003})
"""Of what cannot be reached at all: where there are several servers, one of them will answer soon."""

ALONE, AMONG_OTHERS = 4.0, 20.0
"""Seconds after which nothing is tried again, where there is one database server, so that whoever waits is told rather
than kept; and in a cluster, whose other servers go on once they know that one is gone."""

FIRST_PAUSE, LONGEST_PAUSE = 0.02, 1.0
"""Seconds before the second try, and at most; about twice as long before each further one, and by chance, so that two
who were in each other's way do not meet again."""


def may_be_tried_again(error: DBAPIError, among_others: bool = False) -> bool:
    """Whether the database has given up a whole transaction for no fault of its own.

    ``among_others``: whether there are further servers.
    """
    number = error.orig.args[0] if error.orig is not None and error.orig.args else None
    return error.connection_invalidated or number in TRY_AGAIN or (among_others and number in NOT_REACHED)


def tried(sessions: Sessions, transaction: Callable[[], Result], again: Callable[[DBAPIError], object]) -> Result:
    """What a whole transaction returns; done again where the database gave it up, as long as that may help.

    ``again``: what is to be done before a further try. Raises what the last try raised.
    """
    among_others = has_several(sessions.kw["bind"])
    until = monotonic() + (AMONG_OTHERS if among_others else ALONE)
    pause = FIRST_PAUSE
    while True:
        try:
            return transaction()
        except DBAPIError as error:
            if not may_be_tried_again(error, among_others) or monotonic() > until:
                raise
            again(error)
        sleep(pause * uniform(0.5, 1.5))
        pause = min(2 * pause, LONGEST_PAUSE)


def in_transaction(sessions: Sessions, work: Callable[[Session], Result]) -> Result:
    """What a piece of work returns that is done in a session of its own and committed; tried again as by ``tried``."""

    def transaction() -> Result:
        with sessions() as session:
            result = work(session)
            session.commit()
            return result

    return tried(sessions, transaction, lambda _error: None)


def make_sessions(engine: Engine) -> Sessions:
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
