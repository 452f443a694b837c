"""What a teacher enters into the marks: work on paper, who was absent or excused, and columns of other marks."""

from __future__ import annotations

from flask import Response, abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from flask_login import login_required

from ...documents.joining import ChangedElsewhere
from ...documents.language import gettext as _
from ...documents.language import ngettext
from ...school.models import Assignment, EnteredResult, MarkColumn, now
from ...school.people.teaching import teaches
from ...school.refused import Refused
from ...school.results import entering
from ...school.results.progress import standings
from ..access import me, own_class, own_student, taught_assignment, taught_column, teachers_only
from ..database import locked, session
from ..made_from import joined_form
from ..reading import for_script, sentence


@teachers_only
def results(assignment_id: int) -> str:
    """What is entered for each student of a task."""
    return show_results(taught_assignment(assignment_id))


def show_results(assignment: Assignment, trouble: str | None = None) -> str:
    """The page of results; with what is wrong with what was typed."""
    rows, entered = standings(session(), assignment), entering.results_of(session(), assignment)
    return render_template(
        "marks/results.html",
        assignment=assignment,
        standings=rows,
        entered=entered,
        stored=entering.results_as_typed(entered, [one.student for one in rows]),
        typed=request.form,
        trouble=trouble,
        at=now(),
    )


@teachers_only
def enter(assignment_id: int) -> ResponseReturnValue:
    """Enter results, all of them or none."""
    assignment = locked(taught_assignment(assignment_id))
    students = [one.student for one in standings(session(), assignment)]
    stored = entering.results_as_typed(entering.results_of(session(), assignment), students)
    try:
        form = joined_form(stored, {f"{name}-{one.id}": one.name for one in students for name in FIELDS})
        with session().begin_nested():
            for student in students:
                if (kind := form.get(f"kind-{student.id}")) is not None:
                    score, note = (form.get(f"{name}-{student.id}", "") for name in ("score", "note"))
                    entering.enter(session(), assignment, student, kind, score, note)
    except (Refused, ChangedElsewhere) as wrong:
        return show_results(assignment, str(wrong)), 422
    flash(_("The results are saved."))
    return redirect(url_for("classes.school_class", class_id=assignment.class_id))


FIELDS = ("kind", "score", "note")
"""What is entered for a student."""


@teachers_only
def keep_photo(assignment_id: int, person_id: int) -> ResponseReturnValue:
    """Keep the photo of a student's work on paper, or throw it away."""
    assignment = taught_assignment(assignment_id)
    student = own_student(assignment.school_class, person_id)
    file = request.files.get("photo")
    try:
        if "remove" in request.form:
            entering.remove_photo(session(), assignment, student)
        else:
            entering.keep_photo(session(), assignment, student, file.read() if file else b"")
    except Refused as wrong:
        return ({"error": sentence(wrong)} if for_script() else show_results(assignment, str(wrong))), 422
    session().flush()
    if for_script():
        return {"url": url_for("marks.photo", assignment_id=assignment.id, person_id=student.id)}
    return redirect(url_for("marks.results", assignment_id=assignment.id))


@login_required
def photo(assignment_id: int, person_id: int) -> Response:
    """The photo of a work on paper, for the student and who teaches the class."""
    found = session().get(EnteredResult, (assignment_id, person_id))
    if found is None or found.photo is None:
        abort(404)
    if me().id != person_id and not teaches(me(), session().get_one(Assignment, assignment_id).school_class):
        abort(404)
    return Response(found.photo, mimetype=found.photo_type)


@teachers_only
def add_column(class_id: int) -> ResponseReturnValue:
    """A new column of other marks."""
    school_class = own_class(class_id)
    try:
        made = entering.add_column(
            session(), school_class, request.form.get("title", ""), request.form.get("weight", "")
        )
    except Refused as wrong:
        flash(str(wrong))
        return redirect(url_for("classes.school_class", class_id=class_id, _anchor="columns"))
    return redirect(url_for("marks.column", column_id=made.id))


@teachers_only
def column(column_id: int) -> str:
    """A column of other marks, to be filled in."""
    return show_column(taught_column(column_id))


def show_column(found: MarkColumn, trouble: str | None = None) -> str:
    """The page of a column; with what is wrong with what was typed."""
    stored = entering.column_as_typed(found)
    return render_template(
        "marks/column.html",
        column=found,
        fields=request.form if trouble else stored,
        stored=stored,
        typed=request.form,
        trouble=trouble,
    )


@teachers_only
def change_column(column_id: int) -> ResponseReturnValue:
    """Change a column of other marks, and its marks."""
    found = locked(taught_column(column_id))
    students = found.school_class.students
    try:
        form = joined_form(entering.column_as_typed(found), {f"score-{one.id}": one.name for one in students})
        scores = {student.id: form.get(f"score-{student.id}", "") for student in students}
        entering.change_column(session(), found, form.get("title", ""), form.get("weight", ""), scores)
    except (Refused, ChangedElsewhere) as wrong:
        return show_column(found, str(wrong)), 422
    flash(_("The marks of “%(title)s” are saved.", title=found.title))
    return redirect(url_for("classes.school_class", class_id=found.class_id))


@teachers_only
def ask_remove_column(column_id: int) -> str:
    """Say what would be lost with a column of other marks."""
    found = taught_column(column_id)
    return render_template(
        "confirm.html",
        title=_("Remove the column “%(title)s”?", title=found.title),
        lost=[ngettext("%(n)s mark", "%(n)s marks", len(found.marks))],
        keep=_("The tasks and their marks stay."),
        export=url_for("classes.as_csv", class_id=found.class_id),
        action=url_for("marks.remove_column", column_id=found.id),
        deed=_("Remove the column"),
        back=url_for("marks.column", column_id=found.id),
    )


@teachers_only
def remove_column(column_id: int) -> ResponseReturnValue:
    """Remove a column of other marks."""
    found = taught_column(column_id)
    flash(_("The column “%(title)s” was removed.", title=found.title))
    class_id = found.class_id
    session().delete(found)
    return redirect(url_for("classes.school_class", class_id=class_id))
