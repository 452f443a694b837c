"""Locks of rows that hold in a cluster too.

On one server ``SELECT ... FOR UPDATE`` is enough. A Galera cluster does not tell other servers of it: they find at
COMMIT alone that two transactions *wrote* the same row. So there a row with the name of what is locked is written, and
taken away again, in the transaction that holds the lock: of two at once the second is given up, and tried again.
"""

from __future__ import annotations

from typing import Any, TypeVar

from sqlalchemy import delete, insert, inspect
from sqlalchemy.orm import Session

from .models import Base, Turn

Row = TypeVar("Row", bound=Base)


def locked(session: Session, found: Row) -> Row:
    """Something as it is stored now; whoever else is about to change it waits until this transaction is done."""
    session.flush()  # what is to be stored already is not to be read over
    session.refresh(found, with_for_update=True)
    take_turn(session, found)
    return found


def locked_by_key(session: Session, kind: type[Row], key: Any) -> Row | None:
    """What has a key, as it is stored now, locked as by ``locked``; None where there is none."""
    found = session.get(kind, key, with_for_update=True, populate_existing=True)
    if found is not None:
        take_turn(session, found)
    return found


def take_turn(session: Session, found: Base) -> None:
    """Hold the lock of a row, which has been locked here, in the whole cluster."""
    if not session.connection().info.get("cluster"):
        return
    name = " ".join(map(str, (found.__tablename__, *(inspect(found).identity or ()))))[:64]
    session.execute(insert(Turn).values(name=name))
    session.execute(delete(Turn).where(Turn.name == name))
