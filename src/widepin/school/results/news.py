"""What a student has not seen yet of a task: comments, a return, a solution that is shown, a new version."""

from __future__ import annotations

from datetime import datetime
from enum import StrEnum

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from ...documents.reading import JsonObject
from ..models import Assignment, Comment, HandIn, Work
from .release import released


class News(StrEnum):
    """Something that a student has not seen yet."""

    COMMENT = "comment"
    RETURNED = "returned"
    SOLUTION = "solution"
    VERSION = "version"


def state_of(assignment: Assignment, work: Work, best: HandIn | None, comment: int, at: datetime) -> JsonObject:
    """What there is to see at a time (UTC). ``comment``: the number of the last one by others, 0 for none."""
    return {
        News.COMMENT: comment,
        News.RETURNED: work.returned.isoformat() if work.returned else None,
        News.SOLUTION: released(assignment, best, at),
        News.VERSION: assignment.sheet_id,
    }


def unseen(work: Work, state: JsonObject) -> list[News]:
    """What of a state the student has not seen. A work of before this was kept has nothing new."""
    seen = work.looked
    if seen is None:
        return []
    found = []
    for one in News:
        # A version is only another one to who has seen one; of the rest, nothing is what is seen at first.
        before = seen.get(one, state[one] if one is News.VERSION else None)
        is_more = set(state[one]) - set(before or ()) if one is News.SOLUTION else state[one] != before
        if state[one] and is_more:
            found.append(one)
    return found


def look(session: Session, work: Work, best: HandIn | None, at: datetime) -> None:
    """Its student sees a work and all that is said of it."""
    last = (
        select(func.max(Comment.id))
        .join(HandIn, HandIn.id == Comment.hand_in_id)
        .where(HandIn.work_id == work.id, Comment.author_id != work.student_id)
    )
    state = state_of(work.assignment, work, best, session.scalar(last) or 0, at)
    if work.looked != state:
        work.looked = state
