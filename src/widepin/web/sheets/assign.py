"""Giving a task to classes."""

from __future__ import annotations

from collections.abc import Sequence

from flask import flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from ...documents.formats.kept import Policy
from ...documents.language import gettext as _
from ...documents.wording.explaining import FEEDBACK_WORDS
from ...documents.wording.misfit_words import misfit_in_words
from ...documents.wording.words import listed
from ...judge.task_check import check_task
from ...school.models import Assignment, SchoolClass, TaskSheet
from ...school.people import removing
from ...school.people.directory import present_classes_of
from ...school.people.teaching import teaches
from ...school.refused import Refused
from ...school.tasks import assigning, graded_series, settings, sheets, wrong_solutions
from ..access import me, on_clock_of, own_class, own_sheet, teachers_only
from ..database import session
from ..figures import task_figure
from ..jobs.judging import apart
from ..reading import number_of
from ..removed.notice import in_the_bin
from . import just_assigned
from .views import ready


@teachers_only
def ask_assign(sheet_id: int) -> ResponseReturnValue:
    """To whom a task is to be given, and when."""
    return show_assign(own_sheet(sheet_id))


def show_assign(found: TaskSheet, trouble: str | None = None, passed: bool = False, misfits: Sequence[str] = ()) -> str:
    """The page that asks how to assign; with what is wrong, whether a time that has passed may be meant, and what of
    the task does not fit together.
    """
    task, present = ready(found), present_classes_of(session(), me())
    on_clock_of(*present)
    return render_template(
        "sheets/assign.html",
        sheet=found,
        levels=len(graded_series.levels(found.document)),
        classes=assigning.with_tasks(session(), *present),
        figure=task_figure(task),
        feedback_levels=FEEDBACK_WORDS,
        policy=Policy.model_validate(found.policy),
        typed=request.form,
        trouble=trouble,
        passed=passed,
        misfits=misfits,
    )


@teachers_only
def assign(sheet_id: int) -> ResponseReturnValue:
    """Give a task to a class, or to several at once; to all of them or to none."""
    sheet = own_sheet(sheet_id)
    classes = [own_class(number_of(one)) for one in dict.fromkeys(request.form.getlist("class"))]
    if not classes:
        return show_assign(sheet, _("Choose a class.")), 422
    on_clock_of(*present_classes_of(session(), me()))  # as the page has said
    task, must_fail = ready(sheet), wrong_solutions.steps_of(sheet)
    # Before anything is written: the transaction ends with it.
    tried = apart(check_task, task, 0, must_fail)
    if tried.is_solved and tried.misfits and "all_the_same" not in request.form:
        return show_assign(sheet, misfits=[misfit_in_words(task, misfit) for misfit in tried.misfits]), 422
    try:
        assigning.check_finished(sheet, lambda _task: tried.is_solved)
        with session().begin_nested():
            made = [assign_to(sheet, school_class) for school_class in classes]
    except (Refused, sheets.NotSolved) as wrong:
        return show_assign(sheet, str(wrong), isinstance(wrong, settings.DuePassed)), 422
    names = listed([school_class.name for school_class in classes])
    everything = [one for levels in made for one in levels]
    if "series" in request.form:
        said = _(
            "%(title)s is a graded series of %(count)s levels for %(names)s.",
            title=sheet.title,
            count=len(made[0]),
            names=names,
        )
        flash(just_assigned.notice(said, sheet.id, everything))
        return redirect(url_for("classes.school_class", class_id=classes[0].id))
    said = _("%(title)s is assigned to %(names)s.", title=sheet.title, names=names)
    flash(just_assigned.notice(said, sheet.id, everything))
    return redirect(url_for("classes.assignment", assignment_id=made[0][0].id))


@teachers_only
def take_back() -> Response:
    """Take back what was assigned less than a minute ago."""
    sheet_id, numbers = just_assigned.to_take_back()
    there = [session().get(Assignment, number) for number in numbers]
    found = [one for one in there if one is not None and teaches(me(), one.school_class)]
    if sheet_id is None or not found:
        flash(_("That was more than a minute ago. A task is removed from a class on its own page there."))
        return redirect(url_for("classes.index"))
    names = listed(list(dict.fromkeys(one.school_class.name for one in found)))
    title = found[0].sheet.title
    for one in found:
        removing.remove_assignment(session(), me(), one)
    flash(in_the_bin(_("%(title)s is taken back from %(names)s.", title=title, names=names)))
    return redirect(url_for("sheets.ask_assign", sheet_id=sheet_id))


def assign_to(sheet: TaskSheet, school_class: SchoolClass) -> list[Assignment]:
    """Give a task that is finished to one class, by what was filled in. Raises Refused."""
    terms = settings.read_settings(request.form, school_class)
    if "series" in request.form:
        return graded_series.assign_series(session(), sheet, school_class, terms)
    return [assigning.assign(session(), sheet, school_class, terms, lambda _task: True)]
