"""Where students stand with an assignment."""

from __future__ import annotations

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from .models import Assignment, HandIn, Person, Work


@dataclass(frozen=True)
class Standing:
    """A student's best and latest attempt at an assignment, or the work begun, if any."""

    student: Person
    work: Work | None
    best: HandIn | None
    latest: HandIn | None

    @property
    def state(self) -> str:
        """ "new", "begun" or "handed in"."""
        if self.latest is not None:
            return "handed in"
        return "begun" if self.work is not None else "new"


def best_of(attempts: list[HandIn]) -> HandIn | None:
    """The attempt with the best outcome, of those the one with the fewest moves, of those the first."""
    return min(attempts, key=lambda one: (one.outcome.rank, one.moves, one.attempt), default=None)


def standings(session: Session, assignment: Assignment) -> list[Standing]:
    """One standing per student of the class, by name."""
    works = {
        work.student_id: work
        for work in session.scalars(
            select(Work).where(Work.assignment_id == assignment.id).options(selectinload(Work.hand_ins))
        )
    }
    return [standing(student, works.get(student.id)) for student in assignment.school_class.students]


def standing(student: Person, work: Work | None) -> Standing:
    """The standing of one student with this work."""
    attempts = list(work.hand_ins) if work else []
    return Standing(student, work, best_of(attempts), attempts[-1] if attempts else None)


def to_do(session: Session, student: Person) -> list[tuple[Assignment, Standing]]:
    """All assignments of a student's classes, in order, with the student's standing."""
    works = {
        work.assignment_id: work
        for work in session.scalars(
            select(Work).where(Work.student_id == student.id).options(selectinload(Work.hand_ins))
        )
    }
    return [
        (assignment, standing(student, works.get(assignment.id)))
        for school_class in student.classes
        if school_class.archived is None
        for assignment in school_class.assignments
    ]
