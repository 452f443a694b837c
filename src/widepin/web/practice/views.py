"""Practice with the library, and the map of what is mastered."""

from __future__ import annotations

from flask import abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from ...documents.language import gettext as _
from ...school.refused import Refused
from ...school.results import practice
from ...school.tasks.library import LEVELS, LIBRARY
from ..access import known_task, me, own_class, students_only, teachers_only
from ..database import session
from ..figures import draft_figure


@students_only
def index() -> str:
    """The map of a student's: what is mastered, what comes next, and what may be practised."""
    classes = [one for one in me().classes if not one.archived]
    attempts = practice.attempts_by(session(), [me().id])
    topics = practice.map_of(practice.mastery_of(attempts.get(me().id, {})), practice.open_topics(session(), *classes))
    return render_template(
        "practice/index.html",
        topics=topics,
        next=practice.what_comes_next(topics),
        known=LIBRARY,
        levels=LEVELS,
        figure_of=figure_of,
    )


def figure_of(key: str) -> dict[str, object]:
    """The given figure of a task of the library; its solution is not shown."""
    return draft_figure(LIBRARY[key].document()) | {"steps": [], "answer": []}


@students_only
def begin(key: str) -> ResponseReturnValue:
    """Open the board of a task to be practised."""
    task = known_task(key)
    school_class = practice.class_to_practise_in(session(), me(), task)
    if school_class is None:
        abort(403, _("Your teacher has not opened this topic for practice."))
    found = practice.practice_of(session(), school_class, task)
    return redirect(url_for("tasks.board", assignment_id=found.id))


@teachers_only
def of_class(class_id: int) -> str:
    """The map of a class: how many have mastered each task, and which topics are open for practice."""
    school_class = own_class(class_id)
    return render_template(
        "practice/of_class.html",
        school_class=school_class,
        topics=practice.class_map(session(), school_class),
        opened=practice.open_topics(session(), school_class),
        figure_of=figure_of,
    )


@teachers_only
def set_topics(class_id: int) -> ResponseReturnValue:
    """Open topics of the library for practice."""
    school_class = own_class(class_id)
    try:
        practice.set_topics(session(), school_class, set(request.form.getlist("topic")))
    except Refused as wrong:
        abort(400, str(wrong))
    flash(_("The topics open for practice are saved."))
    return redirect(url_for("practice.of_class", class_id=school_class.id))


@teachers_only
def works(class_id: int, key: str) -> ResponseReturnValue:
    """The works of a class on a task: what was practised, or else the task itself."""
    school_class, task = own_class(class_id), known_task(key)
    found = practice.assignment_of(session(), school_class, task)
    if found is None:
        return redirect(url_for("sheets.library_task", key=key, class_id=school_class.id))
    return redirect(url_for("classes.assignment", assignment_id=found.id))
