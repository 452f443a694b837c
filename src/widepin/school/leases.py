"""What one process does alone, of all processes of all servers: a row says whose it is, and until when.

A lock that the database server holds for a connection would be known to that one server of a cluster alone. A lease
runs out by itself where its holder has died; who holds one has it made longer from time to time.
"""

from __future__ import annotations

import hashlib
import secrets
import threading
from collections.abc import Iterator
from contextlib import contextmanager, suppress

from sqlalchemy import ColumnElement, delete, func, literal_column, select, update
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

from .database import Sessions, in_transaction
from .models import Lease

SECONDS = 20
"""For how long a lease holds, if it is not made longer."""


def take(session: Session, name: str, holder: str, seconds: float = SECONDS) -> bool:
    """Take a lease, or make one's own longer; whether it could be had."""
    until = _from_now(seconds)
    # Made where it is missing; then locked, so that one after the other looks at it.
    session.execute(insert(Lease).values(name=name, holder=holder, until=until).on_duplicate_key_update(name=name))
    found = session.execute(
        select(Lease.holder, Lease.until > func.utc_timestamp(6)).where(Lease.name == name).with_for_update()
    ).one()
    if found[0] != holder and found[1]:
        return False
    session.execute(update(Lease).where(Lease.name == name).values(holder=holder, until=until))
    return True


def give_back(session: Session, name: str, holder: str) -> None:
    """Let others have a lease."""
    session.execute(delete(Lease).where(Lease.name == name, Lease.holder == holder))


def held(session: Session, name: str) -> list[tuple[str, str]]:
    """The leases that somebody holds whose names begin so: names and holders."""
    wanted = select(Lease.name, Lease.holder).where(
        Lease.name.startswith(name, autoescape=True), Lease.until > func.utc_timestamp(6)
    )
    return [(row.name, row.holder) for row in session.execute(wanted.order_by(Lease.name))]


def short(name: str) -> str:
    """What stands for a long name in that of a lease.

    >>> len(short("a name"))
    16
    """
    return hashlib.sha256(name.encode()).hexdigest()[:16]


def _from_now(seconds: float) -> ColumnElement[object]:
    return func.timestampadd(literal_column("MICROSECOND"), round(seconds * 1_000_000), func.utc_timestamp(6))


@contextmanager
def alone(sessions: Sessions, name: str, seconds: float = SECONDS) -> Iterator[bool]:
    """Hold a lease while something is done, however long that takes; whether it could be had at once."""
    holder = secrets.token_hex(8)
    if not in_transaction(sessions, lambda session: take(session, name, holder, seconds)):
        yield False
        return
    is_done = threading.Event()

    def keep() -> None:
        while not is_done.wait(seconds / 4):
            with suppress(DBAPIError):  # the next time, then
                in_transaction(sessions, lambda session: take(session, name, holder, seconds))

    keeper = threading.Thread(target=keep, name=f"lease {name}", daemon=True)
    keeper.start()
    try:
        yield True
    finally:
        is_done.set()
        keeper.join()
        with suppress(DBAPIError):  # it runs out by itself
            in_transaction(sessions, lambda session: give_back(session, name, holder))
