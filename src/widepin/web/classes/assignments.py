"""An assignment of a class: its overview, what is done with several works at once, its settings."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from datetime import datetime
from functools import partial
from typing import Any

from flask import abort, flash, get_template_attribute, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from ...documents.formats.construction import write_step
from ...documents.formats.verdict import read_verdict
from ...documents.forms import Form, Moment
from ...documents.joining import ChangedElsewhere
from ...documents.language import gettext as _
from ...documents.reading import JsonObject, Unreadable
from ...documents.wording import amounts
from ...documents.wording.explaining import FEEDBACK_WORDS, explained
from ...documents.wording.words import Words
from ...judge.task import Task
from ...judge.task_check import is_solved
from ...school.lessons import lesson, overview
from ...school.lessons.overview import GroupedBy, Place
from ...school.lessons.overview_groups import SortedBy, grouped, ordered
from ...school.lessons.ways import ways_of
from ...school.models import Assignment, SchoolClass, now
from ...school.people import directory, removing
from ...school.refused import Refused
from ...school.results import marks
from ...school.tasks import assigning, settings, sheets
from ...school.tasks.sheets import NotSolved
from ...school.works import again, phrases, reviewing
from ...school.works.autosave import task_of
from ..access import me, taught_assignment, taught_work, teachers_only
from ..database import locked, session
from ..figures import task_figure, told_figure
from ..jobs import background
from ..jobs.judging import apart
from ..made_from import joined_form
from ..printed.handouts import overview_on_paper
from ..reading import choice_of, number_of
from ..removed.notice import in_the_bin


@teachers_only
def assignment(assignment_id: int) -> str:
    """One task of a class: every student's work as it stands, and the task."""
    return show(taught_assignment(assignment_id))


def show(found: Assignment, trouble: str | None = None, passed: bool = False) -> str:
    """The page of an assignment; with what is wrong with terms that were typed, and whether that may be meant."""
    task, at = task_of(found), now()
    by, order = choice_of(GroupedBy, "by"), choice_of(SortedBy, "sort")
    places = overview.overview_of(session(), found)
    return render_template(
        "classes/assignment.html",
        assignment=found,
        own_class=assigning.with_tasks(session(), found.school_class),
        task=task,
        words=Words(task),
        figure=task_figure(task),
        groups=grouped(places, by, order),
        ways=ways_of(places, task, found.sheet) if by is GroupedBy.MOVES else None,
        by=by,
        order=order,
        **in_numbers(places, at),
        attempts=overview.attempts_at(session(), found),
        at=at,
        newer=again.newer_version(session(), found),
        judging=again.going(session(), found).is_on,
        other_classes=other_classes(found),
        phrases=phrases.of(session(), me()),
        terms=request.form if trouble else settings.as_typed(found),
        chosen=request.form.getlist("student") if trouble else [str(student.id) for student in found.chosen],
        allowed_already=request.form.getlist("class_tool")
        if trouble
        else [str(class_tool.id) for class_tool in found.class_tools],
        trouble=trouble,
        passed=passed,
        terms_stored=settings.all_as_typed(found),
        feedback_stored=assigning.feedback_as_typed(found),
        feedback_levels=FEEDBACK_WORDS,
    )


def other_classes(assignment: Assignment) -> list[SchoolClass]:
    """The classes of this teacher that do not have a task yet, by name."""
    having = assigning.classes_with(session(), assignment.sheet)
    return [one for one in directory.present_classes_of(session(), me()) if one.id not in having]


@teachers_only
def groups(assignment_id: int) -> JsonObject:
    """The groups of the class overview, its numbers and who needs help, as they are now: each as a part of the page."""
    assignment = taught_assignment(assignment_id)
    places, at = overview.overview_of(session(), assignment), now()
    by, task = choice_of(GroupedBy, "by"), task_of(assignment)
    shown = grouped(places, by, choice_of(SortedBy, "sort"))
    ways = ways_of(places, task, assignment.sheet) if by is GroupedBy.MOVES else None
    told = in_numbers(places, at)
    return {
        "groups": render_template(
            "classes/overview_groups.html", groups=shown, ways=ways, task=task, assignment=assignment, at=at
        ),
        "numbers": render_template("classes/overview_numbers.html", **told),
        "help": render_template("classes/overview_help.html", **told),
        "attempts": overview.attempts_at(session(), assignment),
    }


def in_numbers(places: Sequence[Place], at: datetime) -> dict[str, Any]:
    """What the overview tells of a class at a time (UTC) besides its works."""
    return {
        "help": lesson.needing_help(places, at),
        "timeline": lesson.timeline(places),
        "summary": marks.summary_of([place.standing for place in places]),
    }


class Asked(Form):
    """Since when changes are asked for."""

    since: Moment


@teachers_only
def changes(assignment_id: int) -> ResponseReturnValue:
    """What changed on the class overview since a time: cards to replace, and what everybody is doing."""
    assignment = taught_assignment(assignment_id)
    try:
        since = Asked.read(request.args).since
    except Unreadable as wrong:
        abort(400, f"{wrong}.")
    at = now()
    # Where the clock was set back, what was touched since then stands before the last look: all is told again.
    places = overview.overview_of(session(), assignment, since if since <= at else None)
    card = get_template_attribute("classes/overview_card.html", "card")
    budget = task_of(assignment).budget
    return {
        "at": at.isoformat(),
        "cards": {str(place.student.id): str(card(place, budget, at)) for place in places},
        "groups": {str(place.student.id): dict(place.group) for place in places},
        "presence": {str(id_): words for id_, words in overview.presences(session(), assignment, at).items()},
        "attempts": overview.attempts_at(session(), assignment),
    }


@teachers_only
def several(assignment_id: int) -> Response:
    """One comment to several students, one score, or the return of all their works."""
    assignment = taught_assignment(assignment_id)
    attempts = reviewing.latest_attempts(
        session(), assignment, [number_of(one) for one in request.form.getlist("student")]
    )
    count = amounts.works(len(attempts))
    try:
        match request.form.get("what"):
            case "comment":
                text, key = request.form.get("text", ""), request.form.get("key", "")[:40] or None
                reviewing.comment_on_all(session(), attempts, me(), text, key)
                if "keep" in request.form:
                    phrases.keep(session(), me(), request.form["text"])
                said = _("The comment stands on %(count)s.", count=count)
            case "score":
                reviewing.score_all(attempts, request.form.get("score", ""), request.form.get("reason", ""))
                said = _("The score is set for %(count)s.", count=count)
            case "return":
                reviewing.return_all(attempts)
                said = _("%(count)s returned for revision.", count=count)
            case _other:
                abort(400, _("Choose what to do with the selected works."))
    except Refused as wrong:
        said = str(wrong)
    flash(said)
    by, sort = request.form.get("by") or None, request.form.get("sort") or None
    return redirect(url_for("classes.assignment", assignment_id=assignment.id, by=by, sort=sort))


@teachers_only
def projector(assignment_id: int) -> str:
    """One work after the other, large, for the class to see."""
    assignment = taught_assignment(assignment_id)
    task = task_of(assignment)
    places = ordered(overview.overview_of(session(), assignment), choice_of(SortedBy, "sort"))
    return render_template(
        "classes/projector.html",
        assignment=assignment,
        task=task,
        shown=[shown_large(place, task) for place in places if place.is_handed_in],
    )


def shown_large(place: overview.Place, task: Task) -> JsonObject:
    """A work as the projector shows it: whose, its figure with the sample solution, and what is to be said of it."""
    best = place.standing.best
    assert best is not None
    figure = told_figure(best, "break")
    return {
        "student": place.student.name,
        "heading": place.group[GroupedBy.TROUBLE],
        "sentences": explained(read_verdict(best.verdict), task)[:2],
        "figure": {**figure, "model": figure.get("model") or [write_step(step) for step in task.model]},
    }


@teachers_only
def on_paper(assignment_id: int) -> Response:
    """The class overview as a PDF."""
    assignment = taught_assignment(assignment_id)
    return overview_on_paper(
        assignment,
        task_of(assignment).budget,
        grouped(overview.overview_of(session(), assignment), choice_of(GroupedBy, "by")),
    )


@teachers_only
def copy_task(assignment_id: int) -> Response:
    """A task of one's own that begins as a colleague's stands, which a class has that both teach."""
    made = sheets.copy_of(session(), me(), taught_assignment(assignment_id).sheet)
    return redirect(url_for("sheets.sheet", sheet_id=made.id))


@teachers_only
def take_version(assignment_id: int) -> Response:
    """Give the class the latest version of its task; the works are judged again from the page that follows, those on
    other levels of a graded series by themselves.
    """
    assignment = taught_assignment(assignment_id)
    try:
        changed = again.take_version(session(), assignment, partial(apart, is_solved))
    except NotSolved as wrong:
        flash(_("The class keeps version %(version)s. %(wrong)s", version=assignment.sheet.version, wrong=wrong))
        return redirect(url_for("classes.assignment", assignment_id=assignment.id, _anchor="task"))
    if not changed:
        abort(400, _("The class has the latest version already."))
    for level in changed:
        if level is not assignment:
            again.begin(session(), level)
            background.after_this(partial(background.judge_again, level.id))
    flash(
        _("All %(count)s levels of the graded series are as the task is now.", count=len(changed))
        if assignment.sheet.series_of is not None
        else _("The class has version %(version)s now.", version=assignment.sheet.version)
    )
    return redirect(url_for("classes.assignment", assignment_id=assignment.id, judge="again"))


@teachers_only
def judge_again(assignment_id: int) -> ResponseReturnValue:
    """Have all attempts judged again, whether or not somebody looks on; says how far it is."""
    assignment = taught_assignment(assignment_id)
    again.begin(session(), assignment)
    session().flush()
    return how_judging_goes(assignment)


@teachers_only
def judging(assignment_id: int) -> ResponseReturnValue:
    """How far judging again is."""
    return how_judging_goes(taught_assignment(assignment_id))


def how_judging_goes(assignment: Assignment) -> JsonObject:
    """How far judging again is; what a process that has ended left undone is gone on with."""
    going = again.going(session(), assignment)
    if going.is_on and going.is_left:
        background.after_this(partial(background.judge_again, assignment.id))
    return asdict(going)


@teachers_only
def stop_judging(assignment_id: int) -> ResponseReturnValue:
    """Judge no more attempts again; what is judged stays."""
    assignment = taught_assignment(assignment_id)
    again.stop(session(), assignment)
    session().flush()
    return asdict(again.going(session(), assignment))


@teachers_only
def replay(work_id: int) -> str:
    """A work, operation by operation."""
    work = taught_work(work_id)
    figure = task_figure(task_of(work.assignment))
    log = [
        {"stored": operation.stored.isoformat(timespec="seconds") + "Z", **operation.document}
        for operation in work.operations
    ]
    return render_template("classes/replay.html", work=work, figure=figure, log=log)


@teachers_only
def set_terms(assignment_id: int) -> ResponseReturnValue:
    """Change when and for whom a task is."""
    assignment = locked(taught_assignment(assignment_id))
    try:
        form = joined_form(settings.all_as_typed(assignment), settings.TITLES)
        settings.change(assignment, settings.read_settings(form, assignment.school_class, assignment))
    except (Refused, ChangedElsewhere) as wrong:
        return show(assignment, str(wrong), isinstance(wrong, settings.DuePassed)), 422
    flash(_("The dates and conditions are changed."))
    return redirect(url_for("classes.assignment", assignment_id=assignment.id))


@teachers_only
def set_place(assignment_id: int) -> Response:
    """Move a task before the one before it, or after the one after it."""
    assignment = taught_assignment(assignment_id)
    assigning.move(assignment, -1 if request.form.get("way") == "before" else 1)
    return redirect(url_for("classes.school_class", class_id=assignment.class_id))


@teachers_only
def ask_remove(assignment_id: int) -> str:
    """Say what would be lost with an assignment."""
    assignment = taught_assignment(assignment_id)
    attempts = sum(len(work.hand_ins) for work in assignment.works)
    return render_template(
        "confirm.html",
        title=_("Remove “%(title)s” from %(name)s?", title=assignment.sheet.title, name=assignment.school_class.name),
        lost=[
            _(
                "%(works)s with %(attempts)s, their results and comments",
                works=amounts.works(len(assignment.works)),
                attempts=amounts.attempts(attempts),
            )
        ],
        consequence=_("This goes to Recently deleted, and is erased after 30 days:"),
        keep=_("The task itself stays among your tasks."),
        export=url_for("roster.class_data", class_id=assignment.class_id),
        action=url_for("classes.remove", assignment_id=assignment.id),
        deed=_("Remove from the class"),
        back=url_for("classes.assignment", assignment_id=assignment.id),
    )


@teachers_only
def remove(assignment_id: int) -> Response:
    """Take a task away from a class, with all works on it."""
    assignment = taught_assignment(assignment_id)
    title, school_class = assignment.sheet.title, assignment.school_class
    removing.remove_assignment(session(), me(), assignment)
    flash(in_the_bin(_("%(title)s was removed from %(name)s.", title=title, name=school_class.name)))
    return redirect(url_for("classes.school_class", class_id=school_class.id))


@teachers_only
def set_feedback(assignment_id: int) -> Response:
    """Choose how much a hand-in tells the students of this class, and what they may."""
    assignment = locked(taught_assignment(assignment_id))
    try:
        form = joined_form(assigning.feedback_as_typed(assignment), assigning.FEEDBACK_TITLES)
    except ChangedElsewhere as wrong:
        flash(str(wrong))
        return redirect(url_for("classes.assignment", assignment_id=assignment.id))
    may = form.getlist("may") if "may" in form else None
    assigning.set_feedback(assignment, form.get("feedback", ""), may)
    flash(_("From now on students see: %(what)s.", what=_(FEEDBACK_WORDS[assignment.feedback])))
    return redirect(url_for("classes.assignment", assignment_id=assignment.id))
