"""Handing in: the work as it stands is judged, and kept with its verdict."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from datetime import timedelta
from secrets import token_hex

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from ...documents.formats.construction import read_steps
from ...documents.formats.operations import remake
from ...documents.formats.uses import write_uses
from ...documents.formats.verdict import read_verdict, write_verdict
from ...documents.language import gettext as _
from ...documents.language import ngettext
from ...documents.reading import JsonObject
from ...documents.wording.verdict_words import Only, only_by
from ...judge.judging import judge
from ...judge.task import Work as Submission
from ...judge.verdict import Mend, Outcome, Verdict
from ...plane.errors import CoreError
from ...plane.steps import Step
from ..models import Assignment, HandIn, Work, is_within, now
from ..states import Late
from ..tasks.scoring import off_for_hints, score_for, table_of
from .autosave import StaleLog, lock, state_of, store, task_of
from .history import OperationRefused

MAX_A_MINUTE = 12
"""Attempts at one task that are taken within a minute."""


class NothingToHandIn(CoreError):
    """The board is empty."""


class NotTaken(CoreError):
    """It is not taken as it is: late, beyond the attempts, or without its answer. The message is for the student."""


class FixOffered(CoreError):
    """Only the choice of an intersection makes it fail, and the student may choose another one first."""

    def __init__(self, verdict: Verdict, mend: Mend):
        super().__init__()
        self.verdict = verdict
        self.mend = mend


class BoardHasChanged(CoreError):
    """The board is no longer as it was when it was handed in, so that a mend of it would not fit."""


def answer_of(assignment: Assignment, pointed_out: list[str]) -> dict[str, str] | None:
    """The answer that somebody pointed out, object by object in the order of the task; None where it is to be found.

    Raises NotTaken where only a part of it is pointed out, or none where the task asks for it.
    """
    names = [wanted.name for wanted in task_of(assignment).wanted]
    if not any(pointed_out):
        if not assignment.finding:
            raise NotTaken(_("Point out the answer: which object is meant by each name."))
        return None
    if not all(pointed_out) or len(pointed_out) != len(names):
        raise NotTaken(_("Point out every part of the answer, or leave all of it to be found."))
    return dict(zip(names, pointed_out, strict=True))


def hand_in(
    session: Session,
    work: Work,
    answer: dict[str, str] | None = None,
    judging: Callable[..., Verdict] = judge,
    offering: bool = False,
    key: str | None = None,
) -> HandIn:
    """Judge a work as it stands and keep the attempt. Raises NothingToHandIn for an empty board, and NotTaken.

    ``answer``: wanted name -> id, where the student points it out. ``judging``: does what ``judge`` does, elsewhere.
    ``offering``: where another choice of an intersection would make it right, FixOffered is raised and nothing is kept.
    ``key``: of this hand-in; where one with it is there already, that one is what was handed in.
    """
    if known := _with_key(session, work, key):
        return known
    state = state_of(work)
    steps = tuple(state.steps)
    if not steps:
        raise NothingToHandIn
    check_taken(work, len(work.hand_ins))
    verdict = judging(state.as_it_stands, Submission(steps, answer, state.uses))
    if only_by(verdict) is Only.SEARCH:
        raise NotTaken(
            _("The answer was not found in time among so many objects. Point it out; no attempt was taken for it.")
        )
    if offering and only_by(verdict) is Only.CHOICE and verdict.report is not None and verdict.report.mends:
        raise FixOffered(verdict, verdict.report.mends[0])
    # Judging is done; what another tab has handed in meanwhile is seen once the lock is had.
    lock(session, work)
    if known := _with_key(session, work, key):
        return known
    attempts = session.scalar(select(func.max(HandIn.attempt)).where(HandIn.work_id == work.id)) or 0
    check_taken(work, attempts)
    attempt = HandIn(
        work_id=work.id,
        attempt=attempts + 1,
        key=key,
        sheet_id=work.assignment.sheet_id,
        outcome=verdict.outcome,
        moves=verdict.counts.moves,
        document={
            **state.figure,
            "notes": list(state.board.notes.values()),
            "uses": write_uses(state.uses),
            "answer": answer,
        },
        verdict=write_verdict(verdict),
        handed_in=now(),
        hints=hints_that_cost(work),
        score=score_for(
            verdict, state.task.budget, table_of(work.assignment), off_for_hints(work.assignment, hints_that_cost(work))
        ),
    )
    session.add(attempt)
    work.returned = None
    session.flush()
    return attempt


def _with_key(session: Session, work: Work, key: str | None) -> HandIn | None:
    """The attempt that was stored under a key already."""
    if key is None:
        return None
    return session.scalar(select(HandIn).where(HandIn.work_id == work.id, HandIn.key == key))


def figure_of(attempt: HandIn) -> JsonObject:
    """A handed-in work as it is drawn, with its answer, and its break where it has one."""
    verdict = attempt.verdict
    return {
        **attempt.document,
        "answer": sorted((verdict["answer"] or {}).values()),
        "outcome": attempt.outcome.value,
        "breaks": verdict["breaks"],
    }


def check_taken(work: Work, attempts: int) -> None:
    """That another attempt is taken after so many. Raises NotTaken."""
    assignment = work.assignment
    if why := why_not_taken(assignment, attempts, work.returned is not None):
        raise NotTaken(why)
    if work.returned is not None:
        return
    recent = [hand_in for hand_in in work.hand_ins if is_within(hand_in.handed_in, timedelta(minutes=1))]
    if len(recent) >= MAX_A_MINUTE:
        raise NotTaken(
            _(
                "That would be more than %(most)s attempts within a minute. Wait a moment, then try again.",
                most=MAX_A_MINUTE,
            )
        )


def why_not_taken(assignment: Assignment, attempts: int, is_returned: bool) -> str | None:
    """Why no further attempt is taken after so many, in words for the student; None where one is.

    ``is_returned``: the teacher has returned the work, so that it is taken once more whatever else.
    """
    if is_returned:
        return None
    if is_closed(assignment):
        return _("It was due, and late works are refused. Ask your teacher; what you built is kept.")
    if assignment.attempts is not None and attempts >= assignment.attempts:
        return ngettext(
            "The one attempt is used up. What you built is kept.",
            "All %(n)s attempts are used up. What you built is kept.",
            assignment.attempts,
            n=assignment.attempts,
        )
    return None


def hints_that_cost(work: Work) -> int:
    """How many hints the student of a work has taken; those that the teacher sent are not among them."""
    return sum(not one.sent for one in work.hints)


def is_closed(assignment: Assignment) -> bool:
    """Whether it was due, and late works are refused."""
    return assignment.due is not None and assignment.late is Late.REFUSED and now() > assignment.due


def is_late(attempt: HandIn) -> bool:
    """Whether an attempt was handed in after it was due."""
    due = attempt.work.assignment.due
    return due is not None and attempt.handed_in > due


def shortest_sound(session: Session, assignment: Assignment) -> int | None:
    """The fewest moves of a sound work in the class, None while there is none."""
    return session.scalar(
        select(func.min(HandIn.moves))
        .join(Work, HandIn.work_id == Work.id)
        .where(Work.assignment_id == assignment.id, HandIn.outcome == Outcome.SOUND)
    )


def mend_on_board(session: Session, attempt: HandIn, place: int) -> Mend:
    """Make one of the mends that the verdict proposes, by its place among them, on the student's board.

    Raises BoardHasChanged where the step is made otherwise by now, IndexError where there is no such mend.
    """
    report = read_verdict(attempt.verdict).report
    if report is None or not 0 <= place < len(report.mends):
        raise IndexError(place)
    mend = report.mends[place]
    handed_in = {step.id: step for step in read_steps(attempt.document["steps"])}
    there = {step.id: step for step in state_of(attempt.work).steps}
    left = [step for step in mend.steps if there.get(step.id) != step]
    if any(_moved_aside(there.get(step.id)) != _moved_aside(handed_in[step.id]) for step in left):
        raise BoardHasChanged
    known = len(attempt.work.operations)
    try:
        with session.begin_nested():  # both steps or none
            for number, step in enumerate(left):
                store(session, attempt.work, token_hex(16), known + number, remake(step))
    except (StaleLog, OperationRefused):
        raise BoardHasChanged from None
    return mend


def _moved_aside(step: Step | None) -> Step | None:
    """A step without its place: where a point lies does not matter for whether it is still the same step."""
    return replace(step, at=None) if step else None
