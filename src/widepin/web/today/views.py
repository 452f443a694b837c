"""A teacher's first page: what is new, what is due, who needs help."""

from __future__ import annotations

from flask import flash, redirect, render_template, url_for
from flask.typing import ResponseReturnValue

from ...documents.language import gettext as _
from ...documents.language import marked
from ...school.lessons.first_week import Milestone, dismiss
from ...school.lessons.today import Hint, today_of
from ...school.models import now
from ...school.people import removing
from ..access import me, teachers_only
from ..database import session
from ..figures import draft_figure
from ..jobs import background


@teachers_only
def index() -> ResponseReturnValue:
    """What is new since the last visit, per class; who has no class yet begins with one."""
    if removing.is_any_outdated(session()):
        background.after_this(background.erase_outdated)
    found = today_of(session(), me())
    if not found.classes and found.path is None:
        return redirect(url_for("classes.index"))
    return render_template(
        "today/index.html",
        today=found,
        at=now(),
        draft_figure=draft_figure,
        address_of=address_of,
        milestones=MILESTONES,
        first=found.classes[0].school_class if found.classes else None,
    )


MILESTONES = {
    Milestone.CLASS: (marked("Create a class"), "class"),
    Milestone.STUDENTS: (marked("Add its students, and print their name cards"), "class"),
    Milestone.TASK: (marked("Assign a task of the library"), "library"),
    Milestone.LESSON: (marked("Let them hand in, and watch the overview"), "overview"),
    Milestone.COMMENT: (marked("Comment on a work"), "comments"),
    Milestone.MARKS: (marked("Look at the marks: add a column, or override a score"), "marks"),
}
"""The steps of the first week in words, and the sections of the guide about them."""


@teachers_only
def dismiss_path() -> ResponseReturnValue:
    """Show the path of the first week no more."""
    dismiss(me())
    flash(_("The path of the first week is gone; the guide says the same."))
    return redirect(url_for("today.index"))


def address_of(hint: Hint) -> str:
    """Where a hint leads."""
    kind, number = hint.target
    match kind:
        case "hand-in":
            return url_for("handins.hand_in", hand_in_id=number)
        case "work":
            return url_for("classes.replay", work_id=number)
        case _assignment:
            return url_for("classes.assignment", assignment_id=number)
