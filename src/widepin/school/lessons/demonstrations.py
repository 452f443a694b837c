"""The demonstration of a task: as it follows from its sample solution, or as the teacher has changed it."""

from __future__ import annotations

from datetime import datetime
from hashlib import sha256
from json import dumps

from ...documents.formats.construction import read_steps
from ...documents.formats.demonstration import (
    demonstration_of,
    demonstration_of_drawing,
    demonstration_of_work,
    following,
    read_demonstration,
    with_words_of,
)
from ...documents.joining import ChangedElsewhere
from ...documents.language import gettext as _
from ...documents.reading import JsonObject, Unreadable
from ..models import Assignment, HandIn, TaskSheet
from ..refused import Refused
from ..results.release import is_shown
from ..tasks.sheets import task_in

LARGEST = 200_000
"""Characters of a demonstration as JSON."""


def demonstration_for(sheet: TaskSheet) -> JsonObject:
    """The demonstration of a task: made from its sample solution, with what somebody has changed of it. One that was
    made of a student's work stays. Raises Unreadable where nothing is drawn.
    """
    kept = sheet.demonstration
    if kept is not None and kept.get("source") == "work":
        return kept
    made = made_from(sheet)
    return made if kept is None else following(kept, made)


def mark_of(sheet: TaskSheet) -> str:
    """What tells one state of a demonstration from another. Raises Unreadable where nothing is drawn."""
    return _mark(demonstration_for(sheet))


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


def keep(sheet: TaskSheet, frames: object, mark: str | None = None, title: str | None = None) -> None:
    """Keep a demonstration as a teacher has changed it: its frames, and its title if one is given.

    ``mark``: of the state that was found. Raises Unreadable, Refused, and ChangedElsewhere where there is another one
    by now.
    """
    there = demonstration_for(sheet)
    named = {"title": title.strip(), "named": True} if title and title.strip() not in ("", there["title"]) else {}
    document = read_demonstration({**there, **named, "frames": frames})
    if document["source"] != "work":
        document["frames"] = with_words_of(document["frames"], made_from(sheet))
    if mark not in (None, _mark(there)) and _mark(document) != _mark(there):
        raise ChangedElsewhere(["frames"])
    if len(dumps(document)) > LARGEST:
        raise Refused(_("The demonstration is larger than %(size)s kB; shorten it.", size=LARGEST // 1000))
    sheet.demonstration = document


def _mark(demonstration: JsonObject) -> str:
    """What tells one state from another: of all that a teacher changes."""
    return sha256(dumps([demonstration["title"], demonstration["frames"]], sort_keys=True).encode()).hexdigest()


def may_see(assignment: Assignment, best: HandIn | None, at: datetime) -> bool:
    """Whether a student may go through the demonstration of an assignment at a time (UTC): before it, or once it is
    solved or was due, as the teacher has decided.
    """
    return is_shown(assignment.demonstration, assignment, best, at)
