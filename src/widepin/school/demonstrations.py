"""The demonstration of a task: as it follows from its sample solution, or as the teacher has changed it."""

from __future__ import annotations

from datetime import datetime
from json import dumps

from ..documents.demonstration import demonstration_of, read_demonstration
from ..documents.language import gettext as _
from ..documents.reading import JsonObject
from .models import Assignment, HandIn, TaskSheet
from .refused import Refused
from .release import is_released
from .sheets import task_in
from .states import Release, Showing

LARGEST = 200_000
"""Characters of a demonstration as JSON."""


def demonstration_for(sheet: TaskSheet) -> JsonObject:
    """The demonstration of a task; made from its sample solution where nobody has changed it, or where that has become
    another since. Raises Unreadable for a task that is not finished.
    """
    made = demonstration_of(task_in(sheet))
    kept = sheet.demonstration
    is_same = kept is not None and (kept["given"], kept["steps"]) == (made["given"], made["steps"])
    return kept if is_same and kept is not None else made


def keep(sheet: TaskSheet, frames: object) -> None:
    """Keep the frames of a demonstration as a teacher has changed them. Raises Unreadable and Refused."""
    document = read_demonstration({**demonstration_of(task_in(sheet)), "frames": frames})
    if len(dumps(document)) > LARGEST:
        raise Refused(_("The demonstration is larger than %(size)s kB; shorten it.", size=LARGEST // 1000))
    sheet.demonstration = document


def discard(sheet: TaskSheet) -> None:
    """The demonstration as it follows from the sample solution again."""
    sheet.demonstration = None


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
