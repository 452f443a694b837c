"""Settings of tasks that are assigned: of several at once, and for another class."""

from __future__ import annotations

from flask import flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from ...documents.joining import ChangedElsewhere
from ...documents.language import gettext as _
from ...documents.language import ngettext
from ...documents.wording.explaining import FEEDBACK_WORDS
from ...school.models import SchoolClass, now
from ...school.refused import Refused
from ...school.tasks import assigning, scoring, settings
from ..access import own_class, taught_assignment, teachers_only
from ..database import locked, session
from ..made_from import joined_form
from ..reading import number_of


@teachers_only
def several(class_id: int) -> str:
    """The tasks of a class with their terms, to change those of several at once."""
    return show_several(own_class(class_id))


def show_several(school_class: SchoolClass, trouble: str | None = None) -> str:
    """The page of terms; with what is wrong with what was filled in."""
    return render_template(
        "terms/several.html",
        school_class=assigning.with_tasks(session(), school_class)[0],
        typed=request.form,
        chosen=request.form.getlist("assignment"),
        feedback_levels=FEEDBACK_WORDS,
        scoring={words: (row, scoring.SCORING[row]) for row, words in scoring.OF_CLASS.items()},
        scoring_stored=scoring.class_table_as_typed(school_class),
        trouble=trouble,
        at=now(),
    )


@teachers_only
def change_several(class_id: int) -> ResponseReturnValue:
    """Change the terms of several tasks."""
    school_class = own_class(class_id)
    try:
        changed = settings.change_several(school_class, request.form)
    except Refused as wrong:
        return show_several(school_class, str(wrong)), 422
    flash(ngettext("The settings of %(n)s task are changed.", "The settings of %(n)s tasks are changed.", len(changed)))
    return redirect(url_for("terms.several", class_id=school_class.id))


@teachers_only
def set_scoring(class_id: int) -> ResponseReturnValue:
    """Choose what works of this class are worth whose method is right."""
    school_class = locked(own_class(class_id))
    titles = {f"row-{number}": _(words) for number, words in enumerate(scoring.OF_CLASS.values())}
    try:
        scoring.set_for_class(school_class, joined_form(scoring.class_table_as_typed(school_class), titles))
    except (Refused, ChangedElsewhere) as wrong:
        return show_several(school_class, str(wrong)), 422
    flash(_("From now on works of this class are scored so. Check works again to score those that are handed in."))
    return redirect(url_for("terms.several", class_id=school_class.id))


@teachers_only
def copy(assignment_id: int) -> ResponseReturnValue:
    """Give a task with its terms to another class of this teacher's."""
    assignment = taught_assignment(assignment_id)
    school_class = own_class(number_of(request.form.get("class")))
    try:
        made = assigning.copy_to(session(), assignment, school_class)
    except Refused as wrong:
        flash(str(wrong))
        return redirect(url_for("classes.assignment", assignment_id=assignment.id))
    flash(
        _(
            "%(title)s is assigned to %(name)s with the same terms. Look at its dates.",
            title=assignment.sheet.title,
            name=school_class.name,
        )
    )
    return redirect(url_for("classes.assignment", assignment_id=made.id, _anchor="task"))
