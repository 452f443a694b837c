"""What there is in a school: classes of a teacher, people, and how much of everything."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Generic, TypeVar

from sqlalchemy import func, or_, select
from sqlalchemy.orm import InstrumentedAttribute, Session, contains_eager, selectinload

from .. import storage
from ..models import Membership, Operation, Person, SchoolClass, TaskSheet, Work, in_name_order
from ..states import Role
from .teaching import taught_by


def classes_of(session: Session, teacher: Person) -> list[SchoolClass]:
    """The classes that somebody teaches, archived ones among them, by name, with their students and assignments."""
    wanted = select(SchoolClass).where(taught_by(teacher)).order_by(SchoolClass.name)
    wanted = wanted.options(selectinload(SchoolClass.students), selectinload(SchoolClass.assignments))
    return list(session.scalars(wanted))


def present_classes_of(session: Session, teacher: Person) -> list[SchoolClass]:
    """The classes that somebody teaches at present, by name."""
    wanted = select(SchoolClass).where(taught_by(teacher), SchoolClass.archived.is_(None))
    return list(session.scalars(wanted.order_by(SchoolClass.name)))


SHOWN, LONGEST_SEARCH = 50, 60
"""Rows on one page of a list, and characters of what is searched for."""

Row = TypeVar("Row", SchoolClass, Person)


@dataclass(frozen=True)
class Page(Generic[Row]):
    """A page of a list, from 0; ``counts``: of each row by number (students of a class, classes of a teacher);
    ``count``: how many rows there are in all.
    """

    rows: list[Row]
    counts: dict[int, int]
    page: int
    count: int

    @property
    def has_more(self) -> bool:
        """Whether there are more after these."""
        return (self.page + 1) * SHOWN < self.count


def all_classes(session: Session, search: str = "", page: int = 0) -> Page[SchoolClass]:
    """Every class with who teaches it, a page at a time, archived ones last.

    ``search``: a part of its name, or of its teacher's. ``page``: from 0.
    """
    wanted = select(SchoolClass).join(SchoolClass.teacher)
    if search := search.strip()[:LONGEST_SEARCH]:
        wanted = wanted.where(
            or_(SchoolClass.name.contains(search, autoescape=True), Person.name.contains(search, autoescape=True))
        )
    count = session.scalar(select(func.count()).select_from(wanted.subquery())) or 0
    there = wanted.order_by(SchoolClass.archived.is_not(None), SchoolClass.name, SchoolClass.id)
    found = list(
        session.scalars(
            there.options(contains_eager(SchoolClass.teacher), selectinload(SchoolClass.colleagues))
            .limit(SHOWN)
            .offset(page * SHOWN)
        )
    )
    return Page(found, _counts(session, Membership.class_id, found), page, count)


def all_teachers(session: Session, search: str = "", page: int = 0) -> Page[Person]:
    """Everybody who teaches or has taught, by name, a page at a time.

    ``search``: a part of the name or login. ``page``: from 0.
    """
    wanted = select(Person).where(Person.role == Role.TEACHER)
    if search := search.strip()[:LONGEST_SEARCH]:
        fits = or_(Person.name.contains(search, autoescape=True), Person.login.contains(search, autoescape=True))
        wanted = wanted.where(fits)
    count = session.scalar(select(func.count()).select_from(wanted.subquery())) or 0
    found = list(session.scalars(wanted.order_by(*in_name_order(), Person.id).limit(SHOWN).offset(page * SHOWN)))
    return Page(found, _counts(session, SchoolClass.teacher_id, found), page, count)


def _counts(session: Session, of: InstrumentedAttribute[int], rows: Sequence[SchoolClass | Person]) -> dict[int, int]:
    """How many there are of each of some rows, by its number; ``of``: the column that names it."""
    counted = select(of, func.count()).where(of.in_([one.id for one in rows])).group_by(of)
    return {row[0]: row[1] for row in session.execute(counted)}


@dataclass(frozen=True)
class Belongings:
    """How many classes and tasks are a teacher's."""

    classes: int
    tasks: int


def belongings_of(session: Session, teacher: Person) -> Belongings:
    """What is a teacher's, and goes to another who takes over; versions of one task count once."""
    classes = select(func.count()).select_from(SchoolClass).where(SchoolClass.teacher_id == teacher.id)
    tasks = select(func.count(TaskSheet.family.distinct())).where(TaskSheet.owner_id == teacher.id)
    return Belongings(session.scalar(classes) or 0, session.scalar(tasks) or 0)


@dataclass(frozen=True)
class Counts:
    """How much there is in a school."""

    students: int
    classes: int
    works: int
    operations: int


def count_students(session: Session) -> int:
    """How many students there are."""
    return session.scalar(select(func.count()).where(Person.role == Role.STUDENT)) or 0


def counts(session: Session) -> Counts:
    """How much there is in a school."""
    classes = session.scalar(select(func.count()).select_from(SchoolClass)) or 0
    works, packed = session.execute(select(func.count(Work.id), func.sum(Work.packed_operations))).one()
    return Counts(count_students(session), classes, works, _rows(session) + int(packed or 0))


COUNTED = 100_000
"""Operations that are counted one by one; of more it is said about how many they are."""


def _rows(session: Session) -> int:
    about = storage.rows_about(session, Operation.__tablename__)
    return about if about > COUNTED else session.scalar(select(func.count()).select_from(Operation)) or 0
