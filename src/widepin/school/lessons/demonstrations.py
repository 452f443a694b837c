"""The demonstration of a task: as it follows from its sample solution, or as the teacher has changed it."""

from __future__ import annotations

from datetime import datetime
from hashlib import sha256
from json import dumps

from ...documents.construction import read_steps
from ...documents.demonstration import (
    demonstration_of,
    demonstration_of_drawing,
    demonstration_of_work,
    read_demonstration,
)
from ...documents.joining import ChangedElsewhere
from ...documents.language import gettext as _
from ...documents.reading import JsonObject, Unreadable
from ..models import Assignment, HandIn, TaskSheet
from ..refused import Refused
from ..results.release import is_released
from ..states import Release, Showing
from ..tasks.sheets import task_in

LARGEST = 200_000
"""Characters of a demonstration as JSON."""


def demonstration_for(sheet: TaskSheet) -> JsonObject:
    """The demonstration of a task; made from its sample solution where nobody has changed it, or where that has become
    another since. One that was made of a student's work stays. Raises Unreadable where nothing is drawn.
    """
    kept = sheet.demonstration
    if kept is not None and kept.get("source") == "work":
        return kept
    made = made_from(sheet)
    if kept is None or (kept["given"], kept["steps"]) != (made["given"], made["steps"]):
        return made
    return kept


def mark_of(sheet: TaskSheet) -> str:
    """What tells one state of a demonstration from another. Raises Unreadable where nothing is drawn."""
    return sha256(dumps(demonstration_for(sheet)["frames"], sort_keys=True).encode()).hexdigest()


def is_made(sheet: TaskSheet, document: JsonObject) -> bool:
    """Whether a demonstration is as it follows from the sample solution of a task, and nobody has changed it."""
    return document.get("source", "sample solution") == "sample solution" and document == made_from(sheet)


def made_from(sheet: TaskSheet) -> JsonObject:
    """The demonstration that follows from what is drawn: of the sample solution where the task is finished, else of the
    drawing as such. Raises Unreadable where nothing is drawn.
    """
    try:
        return demonstration_of(task_in(sheet))
    except Unreadable:
        document = sheet.document
        given, drawn = read_steps(document["given"]), read_steps(document["model"])
        if not given and not drawn:
            raise Unreadable("model", _("is empty; draw what is to be shown")) from None
        return demonstration_of_drawing(sheet.title, document.get("text", ""), given, drawn)


def make_of_work(attempt: HandIn) -> None:
    """Make the demonstration of a task from a student's work on it, without the student's name."""
    sheet, document = attempt.work.assignment.sheet, attempt.document
    given = read_steps([*document["given"], *document.get("start", [])])
    answer = sorted((attempt.verdict["answer"] or {}).values())
    sheet.demonstration = demonstration_of_work(task_in(sheet), given, read_steps(document["steps"]), answer)


def keep(sheet: TaskSheet, frames: object, made_from: str | None = None) -> None:
    """Keep the frames of a demonstration as a teacher has changed them.

    ``made_from``: the mark of those that were found. Raises Unreadable, Refused, and ChangedElsewhere where there are
    others by now.
    """
    there = demonstration_for(sheet)
    document = read_demonstration({**there, "frames": frames})
    if made_from not in (None, mark_of(sheet)) and document["frames"] != there["frames"]:
        raise ChangedElsewhere(["frames"])
    if len(dumps(document)) > LARGEST:
        raise Refused(_("The demonstration is larger than %(size)s kB; shorten it.", size=LARGEST // 1000))
    sheet.demonstration = document


def may_see(assignment: Assignment, best: HandIn | None, at: datetime) -> bool:
    """Whether a student may go through the demonstration of an assignment at a time (UTC): before it, or once it is
    solved or was due, as the teacher has decided.
    """
    match assignment.demonstration:
        case Showing.NEVER:
            return False
        case Showing.BEFORE:
            return True
        case Showing.AFTER:
            return is_released(Release.CORRECT, assignment, best, at)
