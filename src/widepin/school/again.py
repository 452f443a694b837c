"""Judging again: a class moves to a newer version of its task, and what was handed in is judged by it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from time import monotonic

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from ..documents.construction import read_steps
from ..documents.verdict import write_verdict
from ..judge.judging import judge
from ..judge.task import Task
from ..judge.task import Work as Submission
from ..plane.steps import Step
from .assigning import check_finished
from .class_instruments import uses_in
from .credit import credit_for
from .models import Assignment, HandIn, TaskSheet, Work
from .works import task_of


@dataclass(frozen=True)
class Progress:
    """How far judging again has come. ``last``: the attempt to go on after."""

    done: int
    total: int
    last: int


def newer_version(session: Session, assignment: Assignment) -> TaskSheet | None:
    """The latest version of an assignment's task, where the class has an older one."""
    sheet = assignment.sheet
    newer = select(TaskSheet).where(TaskSheet.family == sheet.family, TaskSheet.version > sheet.version)
    return session.scalars(newer.order_by(TaskSheet.version.desc()).limit(1)).first()


def take_version(session: Session, assignment: Assignment) -> TaskSheet | None:
    """Give the class the latest version of its task; None where it has it. Raises NotSolved if that is unfinished."""
    newer = newer_version(session, assignment)
    if newer is not None:
        check_finished(newer)
        assignment.sheet = newer
    return newer


def judge_again(session: Session, assignment: Assignment, after: int, seconds: float) -> Progress:
    """Judge attempts with numbers above ``after`` again, for about so many seconds, at least one."""
    task = task_of(assignment)
    every = select(HandIn).join(Work).where(Work.assignment_id == assignment.id)
    total = session.scalar(select(func.count()).select_from(every.subquery())) or 0
    until = monotonic() + seconds
    for attempt in session.scalars(every.where(HandIn.id > after).order_by(HandIn.id)):
        judge_attempt(task, assignment, attempt)
        after = attempt.id
        if monotonic() > until:
            break
    session.flush()
    done = session.scalar(select(func.count()).select_from(every.where(HandIn.id <= after).subquery())) or 0
    return Progress(done, total, after)


def judge_attempt(task: Task, assignment: Assignment, attempt: HandIn) -> None:
    """Give an attempt the verdict that the task as it is now gives it; credit by hand stays."""
    document = attempt.document
    places = {step.id: step for part in ("given", "start") for step in read_steps(document[part])}
    lying = replace(task, given=placed(task.given, places), start=placed(task.start, places))
    verdict = judge(lying, Submission(read_steps(document["steps"]), document.get("answer"), uses_in(document)))
    attempt.outcome, attempt.moves = verdict.outcome, verdict.counts.moves
    attempt.verdict = write_verdict(verdict)
    attempt.credit = credit_for(verdict, task.budget, assignment.credit)


def placed(steps: tuple[Step, ...], places: dict[str, Step]) -> tuple[Step, ...]:
    """Steps with their points where they lay."""
    return tuple(
        replace(step, at=places[step.id].at) if step.at and step.id in places and places[step.id].at else step
        for step in steps
    )
