"""The path of a teacher's first week: what to do, step by step, and what of it is done. It can be dismissed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..models import Comment, HandIn, Person, SchoolClass, Work


class Milestone(StrEnum):
    """The steps of the path, in their order."""

    CLASS = "class"
    STUDENTS = "students"
    TASK = "task"
    LESSON = "lesson"
    COMMENT = "comment"
    MARKS = "marks"


@dataclass(frozen=True)
class Path:
    """What is done, and what comes next; None where all is done."""

    done: frozenset[Milestone]

    @property
    def next(self) -> Milestone | None:
        """The first step that is not done."""
        return next((one for one in Milestone if one not in self.done), None)


def path_of(session: Session, teacher: Person, classes: Sequence[SchoolClass]) -> Path | None:
    """Where a teacher of these classes stands on the path; None for who has dismissed it, or has come to its end."""
    if not teacher.first_week:
        return None
    done = set()
    if classes:
        done.add(Milestone.CLASS)
    if any(one.students for one in classes):
        done.add(Milestone.STUDENTS)
    ids = [task.id for one in classes for task in one.assignments]
    if ids:
        done.add(Milestone.TASK)
        handed_in = select(HandIn.id).join(Work).where(Work.assignment_id.in_(ids))
        if session.scalar(handed_in.limit(1)) is not None:
            done.add(Milestone.LESSON)
        said = select(Comment.id).where(Comment.author_id == teacher.id)
        if session.scalar(said.limit(1)) is not None:
            done.add(Milestone.COMMENT)
        scored = handed_in.where(HandIn.score_override.is_not(None))
        if session.scalar(scored.limit(1)) is not None or any(one.mark_columns for one in classes):
            done.add(Milestone.MARKS)
    found = Path(frozenset(done))
    return found if found.next else None


def dismiss(teacher: Person) -> None:
    """Show the path no more; the guide stays."""
    teacher.first_week = False
