"""Scores for the links of platforms: what has changed since it was sent, what waits, and what becomes of a try.

What changes a score is noted with the change itself (``watch``), so that nothing that does needs to know of platforms.
Practice has no links, so that nothing is sent for it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta

from sqlalchemy import event, func, inspect, or_, select, update
from sqlalchemy.orm import Session, UOWTransaction, joinedload, selectinload

from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...documents.wording.verdict_words import OUTCOME_WORDS
from ...joining.lti.services import Score
from ..database import Sessions
from ..models import (
    Assignment,
    EnteredResult,
    HandIn,
    Identity,
    PlatformCourse,
    PlatformLink,
    SchoolClass,
    SentScore,
    Work,
    now,
)
from ..results.entering import results_of
from ..results.progress import Standing, standings
from ..states import Entered, Role
from ..turns import locked_by_key
from .platforms import LTI

FIRST_PAUSE, LONGEST_PAUSE = timedelta(seconds=30), timedelta(hours=6)
"""After a try that failed, and at most; each pause is twice as long as the one before."""

AT_ONCE = 200
"""Scores that are sent in one go."""


def watch(sessions: Sessions) -> None:
    """Note, with each change of a score, that the platform's may be another; in the same transaction."""
    event.listen(sessions, "after_flush", _note_changes)


def _note_changes(session: Session, _transaction: UOWTransaction) -> None:
    works, assignments = set[int](), set[int]()
    for one in (*session.new, *session.dirty, *session.deleted):
        is_returned = isinstance(one, Work) and inspect(one).attrs.returned.history.has_changes()
        if isinstance(one, HandIn):
            works.add(one.work_id)
        elif is_returned or isinstance(one, EnteredResult):
            assignments.add(one.assignment_id)
    if not works and not assignments:
        return
    of_works = select(Work.assignment_id).where(Work.id.in_(works))
    concerned = or_(PlatformLink.assignment_id.in_(of_works), PlatformLink.assignment_id.in_(assignments))
    session.execute(
        update(PlatformLink).where(concerned).values(changed=now()).execution_options(synchronize_session=False)
    )


def compare(session: Session) -> None:
    """Let every score wait that is another than was sent, for links where something has changed."""
    wanted = (
        select(PlatformLink)
        .where(PlatformLink.changed.is_not(None), PlatformLink.line_item != "")
        .options(
            joinedload(PlatformLink.course).joinedload(PlatformCourse.platform),
            joinedload(PlatformLink.assignment).joinedload(Assignment.school_class).selectinload(SchoolClass.students),
            joinedload(PlatformLink.assignment).selectinload(Assignment.chosen),
        )
        .with_for_update(of=PlatformLink)
        .limit(20)
    )
    for link in session.scalars(wanted).unique():
        if link.assignment is not None:
            _compare(session, link)
        link.changed = None
    session.flush()


def _compare(session: Session, link: PlatformLink) -> None:
    known = {one.person_id: one for one in session.scalars(select(SentScore).where(SentScore.link_id == link.id))}
    entered = results_of(session, link.assignment)
    for one in standings(session, link.assignment):
        reached = _reached(one, entered.get(one.student.id))
        row = known.get(one.student.id)
        if row is None:
            if reached is None:
                continue
            row = SentScore(link_id=link.id, person_id=one.student.id)
            session.add(row)
        said = reached or {"percent": None, "final": False, "comment": ""}
        last = row.waiting if row.waiting is not None else row.sent
        if said == last:
            continue
        if said == row.sent:  # it is again as it was sent
            row.waiting, row.next_try, row.trouble = None, None, ""
            continue
        row.waiting, row.since, row.next_try, row.tries = said, now(), now(), 0


def _reached(standing: Standing, entered: EnteredResult | None) -> JsonObject | None:
    """What a student has reached, as it is sent; None for nothing yet. What was entered by hand comes first."""
    if entered is not None:
        if entered.kind is Entered.PAPER:
            return {"percent": entered.score, "final": True, "comment": entered.note or _("Work on paper.")}
        words = _("Absent.") if entered.kind is Entered.ABSENT else _("Excused.")
        return {"percent": None, "final": True, "comment": entered.note or words}
    best, work = standing.best, standing.work
    if best is None:
        return None
    if work is not None and work.returned is not None:
        return {"percent": best.score_that_counts, "final": False, "comment": _("Returned for revision.")}
    said = _(OUTCOME_WORDS[best.outcome])
    comment = best.reason or f"{said[:1].upper()}{said[1:]}."
    return {"percent": best.score_that_counts, "final": True, "comment": comment}


@dataclass(frozen=True)
class Delivery:
    """A score that is to be sent now. ``key``: of its row."""

    key: tuple[int, int]
    platform_id: int
    line_item: str
    score: Score


def due(session: Session) -> list[Delivery]:
    """What is to be sent now, what waits longest first; nobody is sent whom the platform does not know."""
    wanted = (
        select(SentScore, PlatformLink, Identity.subject)
        .join(SentScore.link)
        .join(PlatformLink.course)
        .join(
            Identity,
            (Identity.person_id == SentScore.person_id)
            & (Identity.source == func.concat(LTI, PlatformCourse.platform_id))
            & (Identity.role == Role.STUDENT),
        )
        .where(SentScore.next_try <= now(), SentScore.waiting.is_not(None), PlatformLink.line_item != "")
        .options(joinedload(SentScore.link).joinedload(PlatformLink.course))
        .order_by(SentScore.next_try)
        .limit(AT_ONCE)
    )
    found = []
    for row, link, subject in session.execute(wanted):
        waiting = row.waiting or {}
        score = Score(subject, waiting["percent"], waiting["final"], waiting["comment"], row.since or now())
        found.append(Delivery((row.link_id, row.person_id), link.course.platform_id, link.line_item, score))
    return found


def sent(session: Session, delivery: Delivery) -> None:
    """A score has arrived; where it has changed since, the newer one still waits."""
    row = locked_by_key(session, SentScore, delivery.key)
    if row is None:
        return
    row.sent = _as_row(delivery.score)
    row.trouble, row.tries = "", 0
    if row.waiting == row.sent:
        row.waiting, row.next_try = None, None


def failed(session: Session, delivery: Delivery, trouble: str, is_passing: bool) -> None:
    """A score has not arrived: it is tried again, later each time, and much later where it was refused."""
    row = locked_by_key(session, SentScore, delivery.key)
    if row is None:
        return
    row.next_try = now() + (pause(row.tries) if is_passing else LONGEST_PAUSE)
    row.tries += 1
    row.trouble = trouble[:300]


def pause(tries: int) -> timedelta:
    """How long to wait after so many tries have failed before.

    >>> [pause(tries).total_seconds() for tries in (0, 1, 2, 20)]
    [30.0, 60.0, 120.0, 21600.0]
    """
    return min(LONGEST_PAUSE, FIRST_PAUSE * int(2 ** min(tries, 20)))


def _as_row(score: Score) -> JsonObject:
    return {"percent": score.percent, "final": score.is_final, "comment": score.comment}


def waiting_of(session: Session, school_class: SchoolClass) -> Sequence[SentScore]:
    """Scores of a class whose last try has failed, which wait to be sent again."""
    wanted = (
        select(SentScore)
        .join(SentScore.link)
        .join(PlatformLink.course)
        .where(PlatformCourse.class_id == school_class.id, SentScore.waiting.is_not(None), SentScore.trouble != "")
        .options(selectinload(SentScore.person))
    )
    return list(session.scalars(wanted))


def try_again_now(session: Session, platform_id: int) -> None:
    """Let everything that waits for a platform be tried at once."""
    links = select(PlatformLink.id).join(PlatformLink.course).where(PlatformCourse.platform_id == platform_id)
    session.execute(
        update(SentScore).where(SentScore.link_id.in_(links), SentScore.waiting.is_not(None)).values(next_try=now())
    )
