"""What programs ask and do, with the open documents."""

from __future__ import annotations

from functools import partial
from typing import Any

from flask import abort, current_app
from pydantic import TypeAdapter

from ...documents.formats.bundle import named_work
from ...documents.formats.task import read_task
from ...documents.formats.verdict import judge_document, write_verdict
from ...documents.reading import JsonObject, Unreadable
from ...documents.reasons.proofs import write_proof
from ...judge.task import Task
from ...judge.task_check import is_solved
from ...judge.verdict import Outcome
from ...reason.proving import prove
from ...school.models import Assignment, HandIn, TaskSheet
from ...school.people import directory
from ...school.results.progress import standings
from ...school.tasks import proofs, settings, sheets
from ...school.tasks.assigning import assign as give
from ..access import me, own_class, own_sheet, taught_assignment, visible_hand_in
from ..database import session
from ..jobs.judging import apart
from ..reading import json_body
from .answers import (
    AssignmentRow,
    AttemptRow,
    AttemptWhole,
    CheckedWork,
    ClassRow,
    Named,
    NewAssignment,
    NewTask,
    ProofWhole,
    TaskRow,
    TaskWhole,
    ToCheck,
    WorkRow,
)
from .description import openapi
from .endpoints import BY_NAME
from .guard import by_token


def written(name: str, value: Any) -> Any:
    """An answer as JSON, in the form that the endpoint's row says."""
    return TypeAdapter(BY_NAME[name].gives).dump_python(value, mode="json")


def description() -> JsonObject:
    """The description of this interface."""
    return openapi(current_app.config["ADDRESS"] or "/")


@by_token
def tasks() -> Any:
    """One's own tasks, the newest first."""
    return written("tasks", [TaskRow(**_task_row(one)) for one in sheets.own_sheets(session(), me())])


@by_token
def task(sheet_id: int) -> Any:
    """One of one's own tasks."""
    sheet = own_sheet(sheet_id)
    return written("task", TaskWhole(**_task_row(sheet), task=sheet.document))


@by_token
def make_task() -> Any:
    """Keep a new task."""
    document = json_body(NewTask).task
    try:
        made = sheets.from_document(session(), me(), document)
    except Unreadable as wrong:
        abort(422, f"{wrong.inside('task')}.")
    return written("make_task", TaskRow(**_task_row(made))), 201


@by_token
def classes() -> Any:
    """The classes that one teaches, with their students."""
    rows = [
        ClassRow(
            id=one.id, name=one.name, students=[Named(id=student.id, name=student.name) for student in one.students]
        )
        for one in directory.classes_of(session(), me())
        if one.archived is None
    ]
    return written("classes", rows)


@by_token
def assignments(class_id: int) -> Any:
    """The tasks of a class."""
    return written("assignments", list(map(_assignment_row, own_class(class_id).assignments)))


@by_token
def assign(class_id: int) -> Any:
    """Give a class a task of one's own, with the settings that are proposed."""
    body, school_class = json_body(NewAssignment), own_class(class_id)
    settings.check_order(body.opens, body.due)
    chosen = settings.proposed(opens=body.opens, due=body.due)
    made = give(session(), own_sheet(body.task), school_class, chosen, solved=partial(apart, is_solved))
    return written("assign", _assignment_row(made)), 201


@by_token
def works(assignment_id: int) -> Any:
    """What the students have made of a task so far."""
    rows = [
        WorkRow(
            student=Named(id=one.student.id, name=one.student.name),
            attempts=[AttemptRow(**_attempt_row(attempt)) for attempt in (one.work.hand_ins if one.work else ())],
        )
        for one in standings(session(), taught_assignment(assignment_id))
    ]
    return written("works", rows)


@by_token
def attempt(hand_in_id: int) -> Any:
    """An attempt."""
    found = visible_hand_in(hand_in_id)
    return written("attempt", AttemptWhole(**_attempt_row(found), work=found.document, verdict=found.verdict))


@by_token
def proof(hand_in_id: int) -> Any:
    """Why a sound attempt is right; no lines for any other."""
    found = visible_hand_in(hand_in_id)
    if found.outcome is not Outcome.SOUND:
        return written("proof", ProofWhole(proof=None, open=[]))
    asked = proofs.of_attempt(found)
    made = apart(prove, asked.task, asked.steps, asked.answer)
    return written("proof", ProofWhole(proof=write_proof(made) if made.lines else None, open=list(made.open)))


@by_token
def check() -> Any:
    """Judge works without keeping anything."""
    body = json_body(ToCheck)
    try:
        asked = read_task(body.task)
    except Unreadable as wrong:
        abort(422, f"{wrong.inside('task')}.")
    try:
        named = [named_work(number, work) for number, work in enumerate(body.works)]
    except Unreadable as wrong:
        abort(422, f"{wrong}.")
    return written("check", apart(verdicts, asked, named))


def verdicts(asked: Task, named: list[tuple[str, JsonObject]]) -> list[CheckedWork]:
    """The verdicts on works."""
    return [CheckedWork(name=name, verdict=write_verdict(judge_document(asked, work))) for name, work in named]


def _task_row(one: TaskSheet) -> dict[str, Any]:
    return {
        "id": one.id,
        "title": one.title,
        "version": one.version,
        "topic": one.topic,
        "archived": one.archived is not None,
    }


def _assignment_row(one: Assignment) -> AssignmentRow:
    return AssignmentRow(id=one.id, title=one.sheet.title, task=one.sheet_id, opens=one.opens, due=one.due)


def _attempt_row(one: HandIn) -> dict[str, Any]:
    return {
        "id": one.id,
        "attempt": one.attempt,
        "handed_in": one.handed_in,
        "outcome": one.outcome,
        "moves": one.moves,
        "score": one.score_that_counts,
    }
