"""The sample solution and the shortest work of a class, shown to students when their teacher lets them."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from ...judge.verdict import Outcome
from ..models import Assignment, HandIn, Work
from ..states import Release
from .progress import is_solved


def is_released(release: Release, assignment: Assignment, best: HandIn | None, at: datetime) -> bool:
    """Whether a student with this best attempt may see something of an assignment at a time (UTC).

    What is shown after a correct work is shown after the due date as well.
    """
    was_due = assignment.due is not None and at > assignment.due
    match release:
        case Release.NEVER:
            return False
        case Release.DUE:
            return was_due
        case Release.CORRECT:
            return was_due or is_solved(best)


def any_released(assignment: Assignment, best: HandIn | None, at: datetime) -> bool:
    """Whether there is anything to show to a student with this best attempt at a time (UTC)."""
    return any(is_released(one, assignment, best, at) for one in (assignment.solution, assignment.shortest))


def shortest_work(session: Session, assignment: Assignment) -> HandIn | None:
    """The sound attempt of the class with the fewest moves, of those the first; None while there is none."""
    return session.scalar(
        select(HandIn)
        .join(Work, HandIn.work_id == Work.id)
        .where(Work.assignment_id == assignment.id, HandIn.outcome == Outcome.SOUND)
        .order_by(HandIn.moves, HandIn.id)
        .limit(1)
        .options(joinedload(HandIn.work))
    )
