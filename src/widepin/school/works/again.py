"""Judging again: a class moves to a newer version of its task, and what was handed in is judged by it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import timedelta
from time import monotonic

from sqlalchemy import delete, func, or_, select, update
from sqlalchemy.orm import Session

from ...documents.formats.construction import read_steps
from ...documents.formats.verdict import write_verdict
from ...judge.judging import judge
from ...judge.task import Task
from ...judge.task import Work as Submission
from ...judge.task_check import is_solved
from ...judge.verdict import Verdict
from ...plane.steps import Step
from ..database import Sessions
from ..models import Assignment, HandIn, JudgingAgain, TaskSheet, Work, is_within, now
from ..tasks import graded_series
from ..tasks.assigning import check_finished
from ..tasks.class_tools import uses_in
from ..tasks.scoring import off_for_hints, score_for, table_of
from . import reasoning
from .autosave import task_of


@dataclass(frozen=True)
class Progress:
    """How far judging again has come. ``last``: the attempt to go on after."""

    done: int
    total: int
    last: int


def newer_version(session: Session, assignment: Assignment) -> TaskSheet | None:
    """The latest version of an assignment's task, where the class has an older one; of a level of a graded series, the
    task itself.
    """
    sheet = assignment.sheet
    if sheet.series_of is not None:
        return graded_series.task_of_series(session, assignment)
    newer = select(TaskSheet).where(TaskSheet.family == sheet.family, TaskSheet.version > sheet.version)
    return session.scalars(newer.order_by(TaskSheet.version.desc()).limit(1)).first()


def take_version(
    session: Session, assignment: Assignment, solved: Callable[[Task], bool] = is_solved
) -> list[Assignment]:
    """Give the class the latest version of its task, and with a level of a graded series all of them.

    Returns the assignments that have another version now, none where the class has the latest. Raises NotSolved if that
    is unfinished, or has other levels.
    """
    newer = newer_version(session, assignment)
    if newer is None:
        return []
    if assignment.sheet.series_of is not None:
        return graded_series.renew(session, assignment, newer, solved)
    check_finished(newer, solved)
    assignment.sheet = newer
    return [assignment]


Judged = Callable[[list[tuple[Task, Submission]], float], list[Verdict]]
"""What does as ``judge_for`` does, wherever it does it."""

SILENCE = timedelta(seconds=40)
"""After which nobody is at it any more: a slice of judging takes less."""


def begin(session: Session, assignment: Assignment) -> None:
    """Have all attempts at an assignment judged again, from the first one."""
    session.merge(JudgingAgain(assignment_id=assignment.id, after=0, alive=now() - SILENCE))


def left_undone(session: Session) -> list[int]:
    """The assignments whose attempts nobody judges again any more, though not all of them are done."""
    return list(session.scalars(select(JudgingAgain.assignment_id).where(JudgingAgain.alive < now() - SILENCE)))


def stop(session: Session, assignment: Assignment) -> None:
    """Judge no more of them; what is judged stays."""
    session.execute(delete(JudgingAgain).where(JudgingAgain.assignment_id == assignment.id))


@dataclass(frozen=True)
class Going:
    """Whether judging again goes on, how far it is, and whether nobody is at it at present."""

    is_on: bool
    done: int
    total: int
    is_left: bool


def going(session: Session, assignment: Assignment) -> Going:
    """How judging the attempts at an assignment again goes."""
    found = session.get(JudgingAgain, assignment.id)
    every = select(func.count()).select_from(HandIn).join(Work).where(Work.assignment_id == assignment.id)
    total = session.scalar(every) or 0
    if found is None:
        return Going(False, total, total, False)
    done = session.scalar(every.where(HandIn.id <= found.after)) or 0
    return Going(True, done, total, not is_within(found.alive, SILENCE))


def go_on(sessions: Sessions, assignment_id: int, seconds: float, judging: Judged) -> None:
    """Judge until all is judged, or somebody says stop; each slice of so many seconds is committed."""
    while True:
        with sessions() as session:
            found = session.get(JudgingAgain, assignment_id)
            assignment = session.get(Assignment, assignment_id)
            if found is None or assignment is None:
                return
            progress = judge_again(session, assignment, found.after, seconds, judging)
            still = update(JudgingAgain).where(JudgingAgain.assignment_id == assignment_id)
            session.execute(still.values(after=progress.last, alive=now()))
            if progress.done >= progress.total:
                stop(session, assignment)
            session.commit()


AT_A_TIME = 60
"""Attempts that are read at a time."""


def judge_again(
    session: Session, assignment: Assignment, after: int, seconds: float, judging: Judged | None = None
) -> Progress:
    """Judge attempts with numbers above ``after`` again, for about so many seconds, at least one.

    ``judging``: does what ``judge_for`` does, elsewhere.
    """
    task = task_of(assignment)
    every = select(HandIn).join(Work).where(Work.assignment_id == assignment.id)
    # Of several servers one may have stored an attempt with a lower number a moment later: by the task as it was.
    is_of_before = HandIn.sheet_id.is_distinct_from(assignment.sheet_id)
    waiting = every.where(or_(HandIn.id > after, is_of_before))
    total = session.scalar(select(func.count()).select_from(every.subquery())) or 0
    attempts = list(session.scalars(waiting.order_by(HandIn.id).limit(AT_A_TIME)))
    verdicts = (judging or judge_for)([submission(task, attempt) for attempt in attempts], seconds)
    for attempt, verdict in zip(attempts, verdicts, strict=False):
        attempt.outcome, attempt.moves = verdict.outcome, verdict.counts.moves
        attempt.verdict, attempt.sheet_id = write_verdict(verdict), assignment.sheet_id
        off = off_for_hints(assignment, attempt.hints)
        attempt.score = score_for(verdict, task.budget, table_of(assignment), off)  # an override stays
        if attempt.reasoned is not None:
            reasoning.set_score(attempt)
        after = max(after, attempt.id)
    session.flush()
    left = every.where(or_(HandIn.id > after, is_of_before))
    return Progress(total - (session.scalar(select(func.count()).select_from(left.subquery())) or 0), total, after)


def judge_for(works: list[tuple[Task, Submission]], seconds: float) -> list[Verdict]:
    """The verdicts on works, in their order, as many as come in so many seconds; one at least."""
    until, found = monotonic() + seconds, []
    for task, work in works:
        found.append(judge(task, work))
        if monotonic() > until:
            break
    return found


def submission(task: Task, attempt: HandIn) -> tuple[Task, Submission]:
    """What is judged of an attempt: the task as it is now, with its points where they lay, and the work."""
    document = attempt.document
    places = {step.id: step for part in ("given", "start") for step in read_steps(document[part])}
    lying = replace(task, given=placed(task.given, places), start=placed(task.start, places))
    return lying, Submission(read_steps(document["steps"]), document.get("answer"), uses_in(document))


def placed(steps: tuple[Step, ...], places: dict[str, Step]) -> tuple[Step, ...]:
    """Steps with their points where they lay."""
    return tuple(
        replace(step, at=places[step.id].at) if step.at and step.id in places and places[step.id].at else step
        for step in steps
    )
