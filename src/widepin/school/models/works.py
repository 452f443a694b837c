"""Tables of works: operations, attempts, comments, and what a teacher enters by hand."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING

from sqlalchemy import JSON, CheckConstraint, DateTime, ForeignKey, String, UniqueConstraint
from sqlalchemy.dialects.mysql import MEDIUMBLOB
from sqlalchemy.orm import Mapped, mapped_column, relationship

from ...documents.reading import JsonObject
from ...judge.verdict import Outcome
from ..states import Entered
from .base import BYTES, Base, members, now

if TYPE_CHECKING:
    from .classes import SchoolClass
    from .people import Person
    from .tasks import Assignment


class Work(Base):
    """What one student makes for one assignment: a log of operations that only grows."""

    __tablename__ = "work"
    __table_args__ = (UniqueConstraint("assignment_id", "student_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    assignment_id: Mapped[int] = mapped_column(ForeignKey("assignment.id", ondelete="CASCADE"))
    student_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    started: Mapped[datetime] = mapped_column(DateTime, default=now)
    touched: Mapped[datetime] = mapped_column(DateTime, default=now)
    returned: Mapped[datetime | None] = mapped_column(DateTime)
    seen: Mapped[datetime | None] = mapped_column(DateTime)

    assignment: Mapped[Assignment] = relationship(back_populates="works")
    student: Mapped[Person] = relationship()
    operations: Mapped[list[Operation]] = relationship(
        back_populates="work", order_by="Operation.number", passive_deletes="all"
    )
    hand_ins: Mapped[list[HandIn]] = relationship(
        back_populates="work", order_by="HandIn.attempt", passive_deletes="all"
    )


class Operation(Base):
    """One operation of a student. Numbers run 1, 2, 3 ...; the key makes sending it twice harmless."""

    __tablename__ = "operation"
    __table_args__ = (
        UniqueConstraint("work_id", "key", name="uq_operation_key"),
        CheckConstraint("number >= 1", name="number"),
    )

    work_id: Mapped[int] = mapped_column(ForeignKey("work.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True, autoincrement=False)
    key: Mapped[str] = mapped_column(String(40, BYTES))
    document: Mapped[JsonObject] = mapped_column(JSON)
    stored: Mapped[datetime] = mapped_column(DateTime, default=now)

    work: Mapped[Work] = relationship(back_populates="operations")


class HandIn(Base):
    """An attempt: the work as it stood, which never changes, the verdict on it, and what the teacher said of it."""

    __tablename__ = "hand_in"
    __table_args__ = (
        UniqueConstraint("work_id", "attempt"),
        CheckConstraint("attempt >= 1", name="attempt"),
        CheckConstraint("moves >= 0", name="moves"),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    work_id: Mapped[int] = mapped_column(ForeignKey("work.id", ondelete="CASCADE"))
    attempt: Mapped[int]
    outcome: Mapped[Outcome] = mapped_column(members(Outcome))
    moves: Mapped[int]
    document: Mapped[JsonObject] = mapped_column(JSON)
    verdict: Mapped[JsonObject] = mapped_column(JSON)
    handed_in: Mapped[datetime] = mapped_column(DateTime, default=now)
    score: Mapped[int] = mapped_column(default=0, server_default="0")
    score_override: Mapped[int | None]
    reason: Mapped[str] = mapped_column(String(300), default="", server_default="")
    reasoned: Mapped[int | None]  # percent of the lines that were right, at best; None where nothing is asked

    work: Mapped[Work] = relationship(back_populates="hand_ins")
    comments: Mapped[list[Comment]] = relationship(
        back_populates="attempt", order_by="Comment.id", passive_deletes="all"
    )

    @property
    def score_that_counts(self) -> int:
        """The score that the teacher gave by hand, else that of the assignment's table."""
        return self.score if self.score_override is None else self.score_override


class Comment(Base):
    """Words on an attempt, or on one of its steps."""

    __tablename__ = "comment"

    id: Mapped[int] = mapped_column(primary_key=True)
    hand_in_id: Mapped[int] = mapped_column(ForeignKey("hand_in.id", ondelete="CASCADE"), index=True)
    author_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"))
    step: Mapped[str] = mapped_column(String(24), default="", server_default="")
    text: Mapped[str] = mapped_column(String(1000))
    written: Mapped[datetime] = mapped_column(DateTime, default=now)

    attempt: Mapped[HandIn] = relationship(back_populates="comments")
    author: Mapped[Person] = relationship()


class EnteredResult(Base):
    """What a teacher entered for a student's task: a score for work on paper, or that the student was not there.

    ``photo``: of the work on paper, as JPEG or PNG, with ``photo_type``.
    """

    __tablename__ = "entered_result"
    __table_args__ = (CheckConstraint("score >= 0 and score <= 100", name="score"),)

    assignment_id: Mapped[int] = mapped_column(ForeignKey("assignment.id", ondelete="CASCADE"), primary_key=True)
    student_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True, index=True)
    kind: Mapped[Entered] = mapped_column(members(Entered))
    score: Mapped[int | None]
    note: Mapped[str] = mapped_column(String(300), default="", server_default="")
    photo: Mapped[bytes | None] = mapped_column(MEDIUMBLOB, deferred=True)
    photo_type: Mapped[str] = mapped_column(String(20), default="", server_default="")
    entered: Mapped[datetime] = mapped_column(DateTime, default=now)


class MarkColumn(Base):
    """A column of other marks of a class: an oral examination, a model in stone."""

    __tablename__ = "mark_column"
    __table_args__ = (UniqueConstraint("class_id", "title"), CheckConstraint("weight >= 0", name="weight"))

    id: Mapped[int] = mapped_column(primary_key=True)
    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"))
    title: Mapped[str] = mapped_column(String(60))
    weight: Mapped[int] = mapped_column(default=1, server_default="1")

    school_class: Mapped[SchoolClass] = relationship(back_populates="mark_columns")
    marks: Mapped[list[OtherMark]] = relationship(back_populates="column", passive_deletes="all")


class OtherMark(Base):
    """A student's score in a column of other marks, in percent."""

    __tablename__ = "other_mark"
    __table_args__ = (CheckConstraint("score >= 0 and score <= 100", name="score"),)

    column_id: Mapped[int] = mapped_column(ForeignKey("mark_column.id", ondelete="CASCADE"), primary_key=True)
    student_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True, index=True)
    score: Mapped[int]

    column: Mapped[MarkColumn] = relationship(back_populates="marks")


class Phrase(Base):
    """A comment that a teacher keeps, to be used again."""

    __tablename__ = "phrase"

    id: Mapped[int] = mapped_column(primary_key=True)
    owner_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    text: Mapped[str] = mapped_column(String(1000))
