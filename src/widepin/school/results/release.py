"""The sample solution and the shortest work of a class, shown to students when their teacher lets them."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from ...judge.verdict import Outcome
from ..models import Assignment, HandIn, Work
from ..states import Release, Showing
from ..tasks.sheets import fewest_known

SOLVED = (Outcome.SOUND, Outcome.FRAGILE)
"""Outcomes that unlock what comes after: right wherever it exists."""


def is_solved(best: HandIn | None) -> bool:
    """Whether an attempt unlocks what comes after."""
    return best is not None and best.outcome in SOLVED


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


def is_shown(showing: Showing, assignment: Assignment, best: HandIn | None, at: datetime) -> bool:
    """Whether a student with this best attempt sees something that may be shown before the work, at a time (UTC)."""
    match showing:
        case Showing.NEVER:
            return False
        case Showing.BEFORE:
            return True
        case Showing.AFTER:
            return is_released(Release.CORRECT, assignment, best, at)


def possible_moves(assignment: Assignment, best: HandIn | None, at: datetime) -> int | None:
    """The fewest moves that are known of a task, where its students may see them at a time (UTC)."""
    if not is_shown(assignment.possible, assignment, best, at):
        return None
    return (fewest_known(assignment.sheet) or {}).get("moves")


def any_released(assignment: Assignment, best: HandIn | None, at: datetime) -> bool:
    """Whether there is anything to show to a student with this best attempt at a time (UTC)."""
    return bool(released(assignment, best, at))


def released(assignment: Assignment, best: HandIn | None, at: datetime) -> list[str]:
    """What there is to show to a student with this best attempt at a time (UTC): "solution", "shortest"."""
    kinds = {"solution": assignment.solution, "shortest": assignment.shortest}
    return [name for name, release in kinds.items() if is_released(release, assignment, best, at)]


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
