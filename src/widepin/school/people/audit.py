"""The audit log: who erased, exported or changed what concerns people. It holds numbers, no names."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import delete, select
from sqlalchemy.orm import Session, joinedload

from ..models import AuditEntry, Person
from ..states import Action

SHOWN = 200
"""Entries on one page."""


def record(session: Session, actor: Person | None, action: Action, about: int | None = None, **details: object) -> None:
    """Write down what somebody does; nobody stands for the command line. It is kept if the request succeeds."""
    session.add(AuditEntry(actor_id=actor.id if actor else None, action=action, about=about, details=dict(details)))


def entries(session: Session, before: int | None = None) -> list[AuditEntry]:
    """The newest entries, or those older than an entry, the newest first."""
    wanted = select(AuditEntry).options(joinedload(AuditEntry.actor)).order_by(AuditEntry.id.desc()).limit(SHOWN)
    if before is not None:
        wanted = wanted.where(AuditEntry.id < before)
    return list(session.scalars(wanted))


def forget(session: Session, older_than: datetime) -> int:
    """Erase old entries; how many there were."""
    return session.execute(delete(AuditEntry).where(AuditEntry.at < older_than)).rowcount  # type: ignore[attr-defined,no-any-return]
