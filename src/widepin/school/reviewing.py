"""What a teacher does with a handed-in work: comment on it, override its score, return it for revision."""

from __future__ import annotations

from sqlalchemy.orm import Session

from ..documents.language import gettext as _
from .models import Comment, HandIn, Person, now
from .refused import Refused

LONGEST_COMMENT, LONGEST_REASON, MAX_COMMENTS = 1000, 300, 200


def comment(session: Session, attempt: HandIn, author: Person, text: str, step: str = "") -> Comment:
    """Write a comment on an attempt, or on one of its objects, given or made. Raises Refused."""
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
    made = Comment(attempt=attempt, author=author, text=text, step=step)
    session.add(made)
    session.flush()
    return made


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
