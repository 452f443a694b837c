"""Tables of classes, who is in them and who teaches them."""

from __future__ import annotations

import secrets
from datetime import datetime
from typing import TYPE_CHECKING

from sqlalchemy import DateTime, ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .base import BYTES, Base

if TYPE_CHECKING:
    from .people import Person
    from .tasks import Assignment, ClassTool
    from .works import MarkColumn


LETTERS = "23456789ABCDEFGHJKMNPQRSTUVWXYZ"
"""Of which codes are made: no two of them look alike."""


def class_code() -> str:
    """A new code for a class."""
    return "".join(secrets.choice(LETTERS) for _ in range(5))


class SchoolClass(Base):
    """A class of students with its teacher."""

    __tablename__ = "school_class"
    __table_args__ = (UniqueConstraint("teacher_id", "name"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    teacher_id: Mapped[int] = mapped_column(ForeignKey("person.id"))
    code: Mapped[str] = mapped_column(String(8, BYTES), unique=True, default=class_code)
    archived: Mapped[datetime | None] = mapped_column(DateTime)

    teacher: Mapped[Person] = relationship()
    colleagues: Mapped[list[Person]] = relationship(secondary="colleague", order_by="Person.name", passive_deletes=True)
    students: Mapped[list[Person]] = relationship(
        secondary="membership", back_populates="classes", order_by="Person.name", passive_deletes=True
    )
    assignments: Mapped[list[Assignment]] = relationship(
        back_populates="school_class",
        order_by="Assignment.position",
        passive_deletes="all",
        primaryjoin="and_(SchoolClass.id == Assignment.class_id, Assignment.practice_key.is_(None))",
    )  # what is set; tasks for practice are not among them
    mark_columns: Mapped[list[MarkColumn]] = relationship(
        back_populates="school_class", order_by="MarkColumn.id", passive_deletes="all"
    )
    class_tools: Mapped[list[ClassTool]] = relationship(
        back_populates="school_class", order_by="ClassTool.name", passive_deletes="all"
    )


class Colleague(Base):
    """A teacher who teaches a class together with the one whose it is."""

    __tablename__ = "colleague"

    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"), primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True, index=True)


class Membership(Base):
    """A student in a class."""

    __tablename__ = "membership"

    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"), primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True, index=True)
