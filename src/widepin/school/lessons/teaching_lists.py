"""What somebody teaches, as lists for programs."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from ..models import Person, SchoolClass
from ..people.teaching import taught_by


def classes_of(session: Session, teacher: Person) -> list[SchoolClass]:
    """The classes that a teacher teaches, by name, with their students; those in the archive are not among them."""
    wanted = select(SchoolClass).where(taught_by(teacher), SchoolClass.archived.is_(None)).order_by(SchoolClass.name)
    return list(session.scalars(wanted.options(selectinload(SchoolClass.students))))
