"""What a teacher does with a handed-in work: comment on it, override its score, return it for revision."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from ...documents.language import gettext as _
from ..database import WITH_REMOVED
from ..models import (
    Assignment,
    Comment,
    HandIn,
    Person,
    Work,
    now,
)
from ..refused import Refused
from ..turns import locked

LONGEST_COMMENT, LONGEST_REASON, MAX_COMMENTS = 1000, 300, 200


def comment(
    session: Session, attempt: HandIn, author: Person, text: str, step: str = "", key: str | None = None
) -> Comment:
    """Write a comment on an attempt, or on one of its objects, given or made. Raises Refused.

    ``key``: of this comment; where one with it is there already, nothing is written again.
    """
    if key is not None:
        locked(session, attempt)  # two that are sent at once come one after the other
        sent = select(Comment).where(Comment.hand_in_id == attempt.id, Comment.key == key)
        if known := session.scalar(sent.execution_options(**WITH_REMOVED)):
            return known
    text = text.strip()
    if not text:
        raise Refused(_("Write something first."))
    if len(text) > LONGEST_COMMENT:
        raise Refused(
            _(
                "A comment has %(most)s characters at most; this one has %(count)s.",
                most=LONGEST_COMMENT,
                count=len(text),
            )
        )
    if len(attempt.comments) >= MAX_COMMENTS:
        raise Refused(
            _(
                "There are %(most)s comments on this attempt already; no more are taken.",
                most=MAX_COMMENTS,
            )
        )
    if step and step not in {one["id"] for part in ("given", "start", "steps") for one in attempt.document[part]}:
        raise Refused(_("%(step)s is no object of this work.", step=step[:24]))
    made = Comment(attempt=attempt, author=author, text=text, step=step, key=key)
    session.add(made)
    session.flush()
    return made


def score_as_typed(attempt: HandIn) -> dict[str, str]:
    """The overridden score of an attempt as it stands in the form."""
    return {"score": "" if attempt.score_override is None else str(attempt.score_override), "reason": attempt.reason}


def set_score(attempt: HandIn, text: str, reason: str) -> None:
    """Override the score of an attempt, with a reason; no number takes that back. Raises Refused."""
    text, reason = text.strip(), " ".join(reason.split())
    if not text:
        attempt.score_override, attempt.reason = None, ""
        return
    if not text.isdecimal() or len(text) > 3 or int(text) > 100:
        raise Refused(_("The score is a number from 0 to 100."))
    if not reason:
        raise Refused(_("Say why; the student reads it too."))
    if len(reason) > LONGEST_REASON:
        raise Refused(_("A reason has %(most)s characters at most.", most=LONGEST_REASON))
    attempt.score_override, attempt.reason = int(text), reason


def return_work(attempt: HandIn) -> None:
    """Ask for another try: one more attempt is taken, even late or beyond the last one."""
    attempt.work.returned = now()


# -- several works at once: all of it, or nothing ---------------------------------------------------------------


def latest_attempts(session: Session, assignment: Assignment, students: Sequence[int]) -> list[HandIn]:
    """The latest attempt at an assignment of each of these students, by their numbers; who has none is left out."""
    works = select(Work).where(Work.assignment_id == assignment.id, Work.student_id.in_(students))
    found = session.scalars(works.options(selectinload(Work.hand_ins).selectinload(HandIn.comments)))
    return [work.hand_ins[-1] for work in found if work.hand_ins]


def comment_on_all(
    session: Session, attempts: Sequence[HandIn], author: Person, text: str, key: str | None = None
) -> None:
    """One comment on each of these attempts. Raises Refused, and then none is written."""
    check_some(attempts)
    with session.begin_nested():
        for attempt in attempts:
            comment(session, attempt, author, text, key=key)


def score_all(attempts: Sequence[HandIn], text: str, reason: str) -> None:
    """One score for each of these attempts. Raises Refused."""
    check_some(attempts)
    for attempt in attempts:
        set_score(attempt, text, reason)


def return_all(attempts: Sequence[HandIn]) -> None:
    """Ask for another try of each of these works. Raises Refused."""
    check_some(attempts)
    for attempt in attempts:
        return_work(attempt)


def check_some(attempts: Sequence[HandIn]) -> None:
    """That something is selected that was handed in. Raises Refused."""
    if not attempts:
        raise Refused(_("Select works that are handed in first."))
