"""When tasks are due for somebody, for the calendar of their own."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from ..models import Assignment, Membership, Person, SchoolClass, TaskSheet, now
from ..people.teaching import taught_by

KEPT = timedelta(days=180)
"""For how long a date stays after it has passed."""


@dataclass(frozen=True)
class DueDate:
    """A task that is due: ``at`` in UTC, for which class. ``number``: of the assignment."""

    number: int
    title: str
    class_name: str
    at: datetime


def of(session: Session, person: Person) -> list[DueDate]:
    """The due dates of a student (without what is not open yet), or of the classes of a teacher, by time."""
    wanted = select(SchoolClass).where(SchoolClass.archived.is_(None))
    if person.is_teacher:
        wanted = wanted.where(taught_by(person))
    else:
        wanted = wanted.join(Membership, Membership.class_id == SchoolClass.id).where(Membership.person_id == person.id)
    tasks = selectinload(SchoolClass.assignments)
    wanted = wanted.options(
        tasks.selectinload(Assignment.sheet).load_only(TaskSheet.title), tasks.selectinload(Assignment.chosen)
    )
    return sorted(_dates(session.scalars(wanted), person), key=lambda one: (one.at, one.number))


def _dates(classes: Iterable[SchoolClass], person: Person) -> Iterable[DueDate]:
    at = now()
    for school_class in classes:
        for one in school_class.assignments:
            if one.due is None or one.due < at - KEPT:
                continue
            is_theirs = not one.chosen or person in one.chosen
            if person.is_teacher or (is_theirs and (one.opens is None or one.opens <= at)):
                yield DueDate(one.id, one.sheet.title, school_class.name, one.due)
