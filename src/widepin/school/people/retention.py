"""What a school no longer needs: shown first, then erased when an administrator says so."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import delete, exists, func, select
from sqlalchemy.orm import Session, joinedload, selectinload

from ...documents.language import gettext as _
from ..models import (
    Choice,
    Membership,
    Person,
    Removal,
    SchoolClass,
    SignIn,
    Work,
    in_name_order,
    now,
)
from ..refused import Refused
from ..states import Action, Removed, Role
from . import audit, removing

PROPOSED_MONTHS = 12
SHORTEST, LONGEST = 1, 120
MONTH = timedelta(days=30.44)


@dataclass(frozen=True)
class Outdated:
    """What is older than a school keeps. ``students``: those who are in no class but such a one, and in none at all."""

    since: datetime
    classes: list[SchoolClass]
    students: list[Person]
    sign_ins: int

    @property
    def is_empty(self) -> bool:
        """Whether there is nothing to erase."""
        return not (self.classes or self.students or self.sign_ins)


def months(session: Session) -> int:
    """For how many months a school keeps what it does not need any more."""
    chosen = session.get(Choice, "retention")
    return int(chosen.value["months"]) if chosen else PROPOSED_MONTHS


def set_months(session: Session, by: Person, text: str) -> int:
    """Choose for how many months. Raises Refused."""
    if not text.isdecimal() or not SHORTEST <= int(text) <= LONGEST:
        raise Refused(_("Write a number of months from %(least)s to %(most)s.", least=SHORTEST, most=LONGEST))
    session.merge(Choice(name="retention", value={"months": int(text)}))
    audit.record(session, by, Action.RETENTION_SET, months=int(text))
    return int(text)


def outdated(session: Session) -> Outdated:
    """Classes that were archived so long ago, students who are in no other, and the record of old sign-ins."""
    since = now() - months(session) * MONTH
    archived = select(SchoolClass).where(SchoolClass.archived < since).order_by(SchoolClass.name)
    with_people = joinedload(SchoolClass.teacher), selectinload(SchoolClass.students)
    old = list(session.scalars(archived.options(*with_people)))
    numbers = [school_class.id for school_class in old]
    elsewhere = exists().where(Membership.person_id == Person.id, Membership.class_id.not_in(numbers))
    used_lately = exists().where(Work.student_id == Person.id, Work.touched >= since)
    alone = select(Person).where(Person.role == Role.STUDENT, ~elsewhere, ~used_lately).order_by(*in_name_order())
    in_old = exists().where(Membership.person_id == Person.id, Membership.class_id.in_(numbers))
    came_lately = exists().where(SignIn.person_id == Person.id, SignIn.at >= since)
    taken_out = exists().where(Removal.kind == Removed.MEMBER, Removal.about == Person.id)  # may be put back yet
    nowhere = ~exists().where(Membership.person_id == Person.id) & ~came_lately & ~taken_out
    students = list(session.scalars(alone.where(in_old | nowhere)))
    sign_ins = session.scalar(select(func.count()).select_from(SignIn).where(SignIn.at < since)) or 0
    return Outdated(since, old, students, sign_ins)


def erase(session: Session, by: Person, found: Outdated) -> None:
    """Erase what was found, with all works, hand-ins, comments and sign-ins that hang on it.

    It is seen no more at once; ``removing.erase_outdated`` takes it out of the tables.
    """
    removing.remove_old(session, by, found.classes, found.students)
    session.execute(delete(SignIn).where(SignIn.at < found.since))
    audit.forget(session, found.since)
    audit.record(
        session,
        by,
        Action.OLD_DATA_ERASED,
        classes=len(found.classes),
        students=len(found.students),
        sign_ins=found.sign_ins,
    )
    session.flush()
