"""Whose a database is, and who serves it: so that no command changes what another installation has.

An installation is known by an id in its data folder (``installation``), which the table of the same name repeats. While
it is served, each of its servers holds a lease of its own: one alone, unless the configuration says that several serve
the school together.
"""

from __future__ import annotations

import secrets
import socket
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import TypeVar

from sqlalchemy import Connection, Engine, delete, insert, inspect, select
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

from ..school import leases
from ..school.database import in_transaction, make_engine, make_sessions
from ..school.models import Installation, Lease, now
from ..school.replica import SERVED
from .supervisor import CannotStart

Result = TypeVar("Result")

TABLE = Installation.__table__

SECONDS = 60
"""For how long a server counts as serving after it last said so; it does every 15 seconds."""

CHANGES_TABLES = "changes tables"
"""The lease of whoever brings the tables up to date."""

UNTIL_TAKEN_BACK = 10 * 365 * 86400


def id_of(folder: Path) -> str:
    """The id of the installation with this data folder, made on first use."""
    kept = folder / "installation"
    if not kept.exists():
        set_id(folder, secrets.token_hex(16))
    return kept.read_text().strip()


def set_id(folder: Path, id_: str) -> None:
    """Make a data folder one of an installation that is there already."""
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    half = folder / "installation.new"
    half.write_text(id_)
    half.replace(folder / "installation")


def server_of(folder: Path) -> str:
    """What a server is known by: its machine, and its data folder there."""
    return f"{socket.gethostname()[:80]}:{folder}"[-200:]


def check_own(url: str, folder: Path) -> None:
    """That a database belongs to nobody else. Raises CannotStart."""
    with _connected(url) as connection:
        owner = _owner(connection)
    if owner is not None and owner.id != id_of(folder):
        raise CannotStart(
            f"This database belongs to another installation of Wide Pin: the one with the data folder {owner.folder} on"
            f" {owner.host}, since {owner.since:%Y-%m-%d}. Nothing was changed. Name another, empty database; or, if"
            " that installation is gone for good, say --take-over."
        )


def claim(url: str, folder: Path) -> None:
    """Make a database this installation's own. Whether it may be is for ``check_own`` to say."""
    mine = {"only": 1, "id": id_of(folder), "host": socket.gethostname()[:120], "folder": str(folder)[:400]}
    with _connected(url) as connection:
        TABLE.create(connection, checkfirst=True)  # type: ignore[attr-defined]
        owner = _owner(connection)
        if owner is None or owner.id != mine["id"]:
            if inspect(connection).has_table(Lease.__tablename__):
                connection.execute(delete(Lease))  # whoever served it before does not any more
            connection.execute(delete(Installation))
            connection.execute(insert(Installation).values(since=now(), **mine))
        connection.commit()


@contextmanager
def _connected(url: str) -> Iterator[Connection]:
    """A connection of its own to a database, for a moment."""
    engine = make_engine(url)
    try:
        with engine.connect() as connection:
            yield connection
    finally:
        engine.dispose()


def _owner(connection: Connection) -> Installation | None:
    if not inspect(connection).has_table(Installation.__tablename__):
        return None
    row = connection.execute(select(TABLE)).first()
    return None if row is None else Installation(**row._mapping)


def servers(url: str) -> list[str]:
    """Who serves a database at this moment, from whatever folder or machine."""
    with _connected(url) as connection:
        if not inspect(connection).has_table(Lease.__tablename__):
            return []
        with Session(connection) as session:
            return [holder for _name, holder in leases.held(session, SERVED)]


class Serving:
    """Holds the lease of a server. ``together``: whether others may serve the same database besides."""

    def __init__(self, url: str, folder: Path, together: bool = False):
        self.engine: Engine = make_engine(url)
        self.sessions = make_sessions(self.engine)
        self.server, self.together = server_of(folder), together

    @property
    def _name(self) -> str:
        return f"{SERVED} {leases.short(self.server)}" if self.together else SERVED

    def hold(self) -> None:
        """Have the lease for some time more. Raises CannotStart where another one serves the database."""
        if not in_transaction(self.sessions, self._take):
            raise CannotStart(
                "Another program serves this database at this moment. Nothing was changed; stop that one first,"
                f" and wait {SECONDS} seconds if it was killed. Several may if all have together = true."
            )

    def _take(self, session: Session) -> bool:
        _make_leases(session)
        found = leases.held(session, SERVED)
        others = [name for name, holder in found if holder != self.server]
        if others if not self.together else SERVED in others:
            return False
        return leases.take(session, self._name, self.server, SECONDS)

    def release(self) -> None:
        """Give the lease back."""
        with suppress(DBAPIError):  # it runs out by itself
            in_transaction(self.sessions, lambda session: leases.give_back(session, self._name, self.server))
        self.engine.dispose()


def _make_leases(session: Session) -> None:
    """Make the table of leases, where it is older than its migration: servers hold one before they migrate."""
    Lease.__table__.create(session.connection(), checkfirst=True)  # type: ignore[attr-defined]


def begin_to_change(url: str, folder: Path) -> str | None:
    """Be the one that brings the tables up to date; who is at it instead, None where nobody is.

    That lasts until ``end_changing``, also where this server is ended before: tables that were left half-way are for
    the same server to bring in order, which has their backup.
    """
    server = server_of(folder)

    def begin(session: Session) -> str | None:
        _make_leases(session)
        if leases.take(session, CHANGES_TABLES, server, UNTIL_TAKEN_BACK):
            return None
        return next((holder for _name, holder in leases.held(session, CHANGES_TABLES)), None)

    return _at(url, begin)


def end_changing(url: str, folder: Path) -> None:
    """Let others change the tables."""
    _at(url, lambda session: leases.give_back(session, CHANGES_TABLES, server_of(folder)))


def _at(url: str, work: Callable[[Session], Result]) -> Result:
    engine = make_engine(url)
    try:
        return in_transaction(make_sessions(engine), work)
    finally:
        engine.dispose()
