"""The teacher's classes and their assignments."""

from __future__ import annotations

from flask import abort, flash, redirect, render_template, request, url_for
from sqlalchemy import select
from sqlalchemy.orm import selectinload
from werkzeug.wrappers import Response

from ...documents.explaining import HELP
from ...documents.roster import write_roster
from ...documents.words import Words
from ...school import marks
from ...school.models import SchoolClass
from ...school.progress import standings
from ...school.works import task_of
from ..access import me, own_class, taught_assignment, teachers_only
from ..database import session
from ..downloads import download
from ..figures import hand_in_figure, task_figure


@teachers_only
def index() -> str:
    """All classes of the teacher."""
    return show_classes()


def show_classes(typed: str | None = None, trouble: str | None = None) -> str:
    """The page of all classes; with what was typed for a new one, and what is wrong with it."""
    own = select(SchoolClass).where(SchoolClass.teacher_id == me().id).order_by(SchoolClass.name)
    own = own.options(selectinload(SchoolClass.students), selectinload(SchoolClass.assignments))
    classes = list(session().scalars(own))
    return render_template(
        "classes/index.html",
        classes=[one for one in classes if not one.archived],
        archived=[one for one in classes if one.archived],
        typed=typed,
        trouble=trouble,
    )


@teachers_only
def school_class(class_id: int) -> str:
    """A class: its tasks, and who has handed in what with which verdict."""
    found = own_class(class_id)
    return render_template(
        "classes/school_class.html", school_class=found, table=marks.table_of(session(), found), mark_of=marks.mark_of
    )


@teachers_only
def as_csv(class_id: int) -> Response:
    """The marks of a class, for a spreadsheet or a mark book."""
    found = own_class(class_id)
    headings, rows = marks.as_rows(marks.table_of(session(), found))
    return download(write_roster(headings, rows), f"{found.name}, marks.csv", "text/csv")


@teachers_only
def assignment(assignment_id: int) -> str:
    """One task of a class: its figure, instruments, what must be built, and every student's work."""
    found = taught_assignment(assignment_id)
    task = task_of(found)
    works = sorted(
        standings(session(), found),
        key=lambda one: (one.best is None, one.best.outcome.rank if one.best else 0, one.student.name),
    )
    return render_template(
        "classes/assignment.html",
        assignment=found,
        task=task,
        words=Words(task),
        figure=task_figure(task),
        works=works,
        hand_in_figure=hand_in_figure,
        levels=HELP_IN_WORDS,
    )


@teachers_only
def set_help(assignment_id: int) -> Response:
    """Choose how much a hand-in tells the students of this class, and what they may."""
    found = taught_assignment(assignment_id)
    level = request.form.get("help", "")
    if level not in HELP:
        abort(400, "Choose one of the levels of help.")
    found.help = level
    if "may" in request.form:  # a form without it leaves that as it is
        may = request.form.getlist("may")
        found.measuring, found.finding = "measure" in may, "find" in may
    flash("From now on students see: " + HELP_IN_WORDS[level] + ".")
    return redirect(url_for("classes.assignment", assignment_id=found.id))


HELP_IN_WORDS = {
    "seals": "only the seals",
    "conditions": "which conditions fail",
    "break": "where it breaks, and what would mend it",
}
