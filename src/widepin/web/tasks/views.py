"""The student's tasks and the board."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial
from typing import Any

from flask import flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from pydantic import Field

from ...documents.explaining import explained
from ...documents.language import gettext as _
from ...documents.reading import JsonObject, Unreadable
from ...documents.verdict import read_verdict
from ...documents.words import Words, results_of
from ...judge.judging import judge
from ...school import handins
from ...school.history import OperationRefused
from ...school.models import Assignment, HandIn, Operation, now
from ...school.progress import to_do
from ...school.works import MAX_OPERATIONS, StaleLog, is_open, save, task_of, work_of
from ...school.works import import_steps as store_all
from ..access import assignment_to_do, me, own_work, students_only
from ..database import session
from ..figures import board_setting, class_tools_setting, task_figure, told_figure
from ..judging import apart
from ..reading import JsonBody, json_body, number_of


@students_only
def index() -> str:
    """All tasks of the student, with their state."""
    rows = [(one, figure_of_task(one.assignment)) for one in to_do(session(), me())]
    return render_template("tasks/index.html", rows=rows, at=now())


def figure_of_task(assignment: Assignment) -> JsonObject | None:
    """The given figure of an assignment's task; None for one that cannot be read, so that it breaks no list."""
    try:
        return task_figure(task_of(assignment))
    except Unreadable:
        return None


@students_only
def board(assignment_id: int) -> str:
    """The drawing board."""
    assignment = assignment_to_do(assignment_id)
    work = own_work(assignment)
    task = task_of(assignment)
    setting = {
        **board_setting(task),
        "measuring": assignment.measuring,
        "finding": assignment.finding,
        "class_tools": class_tools_setting(assignment),
        "log": written(work.operations) if work else [],
        "student": me().id,
        "urls": {
            "operations": url_for("tasks.operations", assignment_id=assignment.id),
            "import": url_for("tasks.import_steps", assignment_id=assignment.id),
            "here": url_for("tasks.here", assignment_id=assignment.id),
        },
    }
    return render_template(
        "tasks/board.html",
        task=task,
        words=Words(task),
        setting=setting,
        work=work,
        hand_in_url=url_for("tasks.hand_in", assignment_id=assignment.id),
    )


@students_only
def operations(assignment_id: int) -> ResponseReturnValue:
    """The log of the student's work, from after operation ``after`` on."""
    work = own_work(assignment_to_do(assignment_id))
    after = number_of(request.args.get("after"))
    return {"operations": written(work.operations[max(0, after) :]) if work else []}


class Sent(JsonBody):
    """An operation, under a key of its own, that follows operation number ``after``."""

    key: str = Field(min_length=8, max_length=40)
    after: int = Field(ge=0, le=2 * MAX_OPERATIONS, strict=True)
    operation: Any


@students_only
def store(assignment_id: int) -> ResponseReturnValue:
    """Store one operation: 200 with what is stored, 409 with what the sender missed, 422 with what is wrong."""
    assignment, sent = assignment_to_do(assignment_id), json_body(Sent)
    try:
        stored = save(session(), assignment, me(), sent.key, sent.after, sent.operation)
    except StaleLog as behind:
        return {"operations": written(behind.missed)}, 409
    except (OperationRefused, Unreadable) as wrong:
        return {"error": str(wrong)}, 422
    return written([stored])[0]


@students_only
def here(assignment_id: int) -> ResponseReturnValue:
    """The board says that it is open before somebody."""
    is_open(session(), assignment_to_do(assignment_id), me())
    return {}


class BroughtIn(JsonBody):
    """A work document, whose steps follow operation number ``after``."""

    after: int = Field(ge=0, le=2 * MAX_OPERATIONS, strict=True)
    work: Any


@students_only
def import_steps(assignment_id: int) -> ResponseReturnValue:
    """Store the steps of a work document: 200 with the operations, 409 for who is behind, 422 with place and remedy."""
    assignment, sent = assignment_to_do(assignment_id), json_body(BroughtIn)
    try:
        stored = store_all(session(), work_of(session(), assignment, me()), sent.after, sent.work)
    except StaleLog as behind:
        return {"operations": written(behind.missed)}, 409
    except (OperationRefused, Unreadable) as wrong:
        return {"error": str(wrong)}, 422
    return {"operations": written(stored)}


@students_only
def hand_in(assignment_id: int) -> ResponseReturnValue:
    """Hand the work in as it stands, and show what the judge says."""
    assignment = assignment_to_do(assignment_id)
    try:
        answer = handins.answer_of(assignment, request.form.getlist("answer"))
        attempt = handins.hand_in(session(), work_of(session(), assignment, me()), answer, partial(apart, judge))
    except handins.NothingToHandIn:
        return not_handed_in(_("There is nothing on the board to hand in yet."), assignment_id)
    except handins.NotTaken as wrong:
        return not_handed_in(str(wrong), assignment_id)
    if request.accept_mimetypes.best != "application/json":
        return redirect(url_for("handins.hand_in", hand_in_id=attempt.id))
    return result_on_board(attempt)


def not_handed_in(words: str, assignment_id: int) -> ResponseReturnValue:
    """Why nothing was handed in: to the board in place, else as a notice on it."""
    if request.accept_mimetypes.best == "application/json":
        return {"error": words}, 422
    flash(words)
    return redirect(url_for("tasks.board", assignment_id=assignment_id))


def result_on_board(attempt: HandIn) -> JsonObject:
    """What the board itself shows of a result, as far as the teacher lets it tell."""
    assignment = attempt.work.assignment
    task = task_of(assignment)
    figure = told_figure(attempt, assignment.feedback)
    return {
        "url": url_for("handins.hand_in", hand_in_id=attempt.id),
        "results": [
            {"word": word, "state": state, "meaning": meaning}
            for word, state, meaning in results_of(attempt.outcome, attempt.moves, task.budget)
        ],
        "sentences": explained(read_verdict(attempt.verdict), task, assignment.feedback),
        "outcome": figure["outcome"],
        "answer": figure["answer"],
        "breaks": figure["breaks"],
    }


def written(log: Iterable[Operation]) -> list[JsonObject]:
    """Operations as the board knows them."""
    return [{"number": one.number, "key": one.key, "operation": one.document} for one in log]
