"""Whose a database is, and whether it is served: so that no command changes what another installation has.

An installation is known by an id in its data folder (``installation``), which the table of the same name repeats. While
it is served, its supervisor holds a named lock of the database server.
"""

from __future__ import annotations

import secrets
import socket
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from sqlalchemy import Connection, Engine, delete, insert, inspect, select, text
from sqlalchemy.exc import DBAPIError

from ..school.database import lock_name, make_engine
from ..school.models import Installation, now
from .supervisor import CannotStart

TABLE = Installation.__table__

SERVED = "served"
"""The lock of whoever serves a database."""


def id_of(folder: Path) -> str:
    """The id of the installation with this data folder, made on first use."""
    kept = folder / "installation"
    if not kept.exists():
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        half = folder / "installation.new"
        half.write_text(secrets.token_hex(16))
        half.replace(kept)
    return kept.read_text().strip()


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


def is_served(url: str) -> bool:
    """Whether somebody serves a database, from whatever folder or machine."""
    with _connected(url) as connection:
        return (
            connection.scalar(text("SELECT IS_USED_LOCK(:name)"), {"name": lock_name(connection, SERVED)}) is not None
        )


class Serving:
    """Holds the lock of a database that is served; had again where the connection was lost."""

    def __init__(self, url: str):
        self.engine: Engine = make_engine(url)
        self.connection: Connection | None = None

    def hold(self) -> None:
        """Have the lock, if it is not had already. Raises CannotStart where another one has it."""
        try:
            if self.connection is not None and self.connection.scalar(text("SELECT 1")) == 1:
                self.connection.rollback()
                return
        except DBAPIError:
            self.release()
        self.connection = self.engine.connect()
        self.connection.execute(text("SET SESSION wait_timeout = 31536000"))
        name = lock_name(self.connection, SERVED)
        if self.connection.scalar(text("SELECT GET_LOCK(:name, 2)"), {"name": name}) != 1:
            self.release()
            raise CannotStart(
                "Another program serves this database at this moment. Nothing was changed; stop that one first."
            )
        self.connection.rollback()  # the lock stays, no transaction does

    def release(self) -> None:
        """Give the lock back."""
        if self.connection is not None:
            with suppress(DBAPIError):  # where it is lost, the server has given the lock up
                self.connection.scalar(text("SELECT RELEASE_LOCK(:name)"), {"name": lock_name(self.connection, SERVED)})
            self.connection.invalidate()
            self.connection.close()
            self.connection = None
        self.engine.dispose()
