"""What there is in a school: classes of a teacher, people, and how much of everything."""

from __future__ import annotations

from dataclasses import dataclass

from sqlalchemy import func, select
from sqlalchemy.orm import Session, selectinload

from ..models import Operation, Person, SchoolClass, TaskSheet, Work
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


def all_classes(session: Session) -> list[SchoolClass]:
    """Every class with who teaches it and its students; archived ones last."""
    every = select(SchoolClass).options(
        selectinload(SchoolClass.teacher), selectinload(SchoolClass.colleagues), selectinload(SchoolClass.students)
    )
    return list(session.scalars(every.order_by(SchoolClass.archived.is_not(None), SchoolClass.name)))


def classes_per_teacher(session: Session) -> dict[int, int]:
    """How many classes each teacher has, by the teacher's number; those without any are left out."""
    counted = select(SchoolClass.teacher_id, func.count()).group_by(SchoolClass.teacher_id)
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
    classes, works, operations = (
        session.scalar(select(func.count()).select_from(table)) or 0 for table in (SchoolClass, Work, Operation)
    )
    return Counts(count_students(session), classes, works, operations)
