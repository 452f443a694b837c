"""Tables of tasks: sheets in versions, assignments, class tools, practice."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING

from sqlalchemy import JSON, CheckConstraint, DateTime, ForeignKey, String, UniqueConstraint, false, true
from sqlalchemy.orm import Mapped, mapped_column, relationship

from ...documents.explaining import Feedback
from ...documents.reading import JsonObject
from ..states import Late, Reasons, Release, Showing
from .base import BYTES, Base, members

if TYPE_CHECKING:
    from .classes import SchoolClass
    from .people import Person
    from .works import Work


class TaskSheet(Base):
    """A version of a task: a document, whose it is, and how it is to be set. Versions of a task are one family."""

    __tablename__ = "task_sheet"
    __table_args__ = (UniqueConstraint("family", "version"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    owner_id: Mapped[int] = mapped_column(ForeignKey("person.id"))
    title: Mapped[str] = mapped_column(String(200))
    document: Mapped[JsonObject] = mapped_column(JSON)
    family: Mapped[int]
    version: Mapped[int] = mapped_column(default=1, server_default="1")
    topic: Mapped[str] = mapped_column(String(60), default="", server_default="")
    policy: Mapped[JsonObject] = mapped_column(JSON, default=dict, server_default="{}")
    shared: Mapped[bool] = mapped_column(default=False, server_default=false())  # in the school's own library
    demonstration: Mapped[JsonObject | None] = mapped_column(
        JSON(none_as_null=True)
    )  # None: as it is made from the task
    series_of: Mapped[int | None]  # of a level of a graded series: the family of its task; not listed by itself
    folder: Mapped[str] = mapped_column(String(60), default="", server_default="")
    archived: Mapped[datetime | None] = mapped_column(DateTime)
    library_key: Mapped[str | None] = mapped_column(String(60, BYTES))  # of the task of the library that it began as
    practice: Mapped[bool] = mapped_column(default=False, server_default=false())  # for practice only; not listed

    owner: Mapped[Person] = relationship()


class Assignment(Base):
    """A task that a class has to do."""

    __tablename__ = "assignment"
    __table_args__ = (
        UniqueConstraint("class_id", "sheet_id"),
        UniqueConstraint("class_id", "practice_key", name="uq_assignment_practice"),
        CheckConstraint("weight >= 0", name="weight"),
        CheckConstraint("reasons_share >= 0 and reasons_share <= 100", name="reasons_share"),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"))
    sheet_id: Mapped[int] = mapped_column(ForeignKey("task_sheet.id"))
    position: Mapped[int] = mapped_column(default=0)  # in the order of the class
    opens: Mapped[datetime | None] = mapped_column(DateTime)
    due: Mapped[datetime | None] = mapped_column(DateTime)
    late: Mapped[Late] = mapped_column(members(Late), default=Late.TAKEN, server_default="taken")
    attempts: Mapped[int | None]
    scoring: Mapped[JsonObject] = mapped_column(JSON, default=dict, server_default="{}")
    after_id: Mapped[int | None] = mapped_column(ForeignKey("assignment.id", ondelete="SET NULL"))
    level: Mapped[int | None]  # of a series, from 1; None where it is none
    levels: Mapped[int | None]
    feedback: Mapped[Feedback] = mapped_column(members(Feedback), default=Feedback.BREAK, server_default="break")
    measuring: Mapped[bool] = mapped_column(default=True, server_default=true())
    finding: Mapped[bool] = mapped_column(default=True, server_default=true())
    loci: Mapped[bool] = mapped_column(default=True, server_default=true())
    demonstration: Mapped[Showing] = mapped_column(members(Showing), default=Showing.NEVER, server_default="never")
    solution: Mapped[Release] = mapped_column(members(Release), default=Release.NEVER, server_default="never")
    shortest: Mapped[Release] = mapped_column(members(Release), default=Release.NEVER, server_default="never")
    weight: Mapped[int] = mapped_column(default=1, server_default="1")  # of its score in the mean
    reasons: Mapped[Reasons] = mapped_column(members(Reasons), default=Reasons.NONE, server_default="none")
    reasons_share: Mapped[int] = mapped_column(default=0, server_default="0")  # percent of the score
    practice_key: Mapped[str | None] = mapped_column(String(60, BYTES))  # of the library's task that it practises

    school_class: Mapped[SchoolClass] = relationship(back_populates="assignments", overlaps="assignments")
    after: Mapped[Assignment | None] = relationship(remote_side="Assignment.id")
    chosen: Mapped[list[Person]] = relationship(secondary="chosen_student", passive_deletes=True)
    class_tools: Mapped[list[ClassTool]] = relationship(
        secondary="allowed_tool",
        back_populates="assignments",
        order_by="ClassTool.name",
        passive_deletes=True,
    )
    sheet: Mapped[TaskSheet] = relationship()
    works: Mapped[list[Work]] = relationship(back_populates="assignment", passive_deletes="all")


class ClassTool(Base):
    """A proven construction that a class was given as a class tool: all its steps are made at once.

    ``document``: given, steps and gives, of which the class tool is made. ``moves``: what one use counts.
    """

    __tablename__ = "class_tool"
    __table_args__ = (UniqueConstraint("class_id", "name"), CheckConstraint("moves >= 0", name="moves"))

    id: Mapped[int] = mapped_column(primary_key=True)
    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"))
    name: Mapped[str] = mapped_column(String(40))
    document: Mapped[JsonObject] = mapped_column(JSON)
    moves: Mapped[int]

    school_class: Mapped[SchoolClass] = relationship(back_populates="class_tools")
    assignments: Mapped[list[Assignment]] = relationship(
        secondary="allowed_tool", back_populates="class_tools", order_by="Assignment.position", passive_deletes=True
    )


class AllowedTool(Base):
    """A class tool of a class that may be used for one of its tasks."""

    __tablename__ = "allowed_tool"

    assignment_id: Mapped[int] = mapped_column(ForeignKey("assignment.id", ondelete="CASCADE"), primary_key=True)
    tool_id: Mapped[int] = mapped_column(ForeignKey("class_tool.id", ondelete="CASCADE"), primary_key=True, index=True)


class ChosenStudent(Base):
    """A student for whom an assignment is. Where there is none, it is for the whole class."""

    __tablename__ = "chosen_student"

    assignment_id: Mapped[int] = mapped_column(ForeignKey("assignment.id", ondelete="CASCADE"), primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True, index=True)


class PracticeTopic(Base):
    """A topic of the library that a class may practise."""

    __tablename__ = "practice_topic"

    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"), primary_key=True)
    topic: Mapped[str] = mapped_column(String(60, BYTES), primary_key=True)
