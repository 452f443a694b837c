"""The audit log: who erased, exported or changed what concerns people. It holds numbers, no names."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import delete, select
from sqlalchemy.orm import Session, joinedload

from ...documents.wording.audit_words import ACTIONS, KINDS, About, done_in_words
from ...plane.rows import complete
from ..database import WITH_REMOVED
from ..models import AuditEntry, Person, SchoolClass
from ..states import Action, Removed

SHOWN = 200
"""Entries on one page."""

complete("audit_words.ACTIONS", Action, ACTIONS)
complete("audit_words.KINDS", Removed, KINDS)


def record(session: Session, actor: Person | None, action: Action, about: int | None = None, **details: object) -> None:
    """Write down what somebody does; nobody stands for the command line. It is kept if the request succeeds."""
    session.add(AuditEntry(actor_id=actor.id if actor else None, action=action, about=about, details=dict(details)))


def entries(session: Session, before: int | None = None) -> list[AuditEntry]:
    """The newest entries, or those older than an entry, the newest first."""
    wanted = select(AuditEntry).options(joinedload(AuditEntry.actor)).order_by(AuditEntry.id.desc()).limit(SHOWN)
    if before is not None:
        wanted = wanted.where(AuditEntry.id < before)
    return list(session.scalars(wanted))


def in_words(session: Session, found: list[AuditEntry]) -> list[str]:
    """What was done by each entry, without who did it: with the names that people and classes have now."""
    numbers = {one.about for one in found} | {one.details.get("whole_class") for one in found}
    people = dict(session.execute(select(Person.id, Person.name).where(Person.id.in_(numbers - {None}))).tuples().all())
    wanted = select(SchoolClass.id, SchoolClass.name).where(SchoolClass.id.in_(numbers - {None}))
    classes = dict(session.execute(wanted.execution_options(**WITH_REMOVED)).tuples().all())

    def name_of(one: AuditEntry) -> str | None:
        if "whole_class" in one.details:
            return classes.get(one.details["whole_class"])
        known = {About.PERSON: people, About.CLASS: classes, About.OTHER: {}}[ACTIONS[one.action].about]
        return known.get(one.about or 0)

    return [done_in_words(one.action, name_of(one), one.about, one.details.get("kind")) for one in found]


def forget(session: Session, older_than: datetime) -> int:
    """Erase old entries; how many there were."""
    return session.execute(delete(AuditEntry).where(AuditEntry.at < older_than)).rowcount  # type: ignore[attr-defined,no-any-return]
