"""The teacher's classes, and one of their students."""

from __future__ import annotations

from collections.abc import Sequence

from flask import render_template, request
from werkzeug.wrappers import Response

from ...documents.formats.roster import write_roster
from ...documents.wording import amounts
from ...school.models import HandIn
from ...school.people import directory
from ...school.results import marks, practice, student_page
from ..access import me, own_class, own_student, teachers_only
from ..database import session
from ..downloads import download
from ..reading import choice_of


@teachers_only
def index() -> str:
    """All classes of the teacher."""
    return show_classes()


def show_classes(typed: str | None = None, trouble: str | None = None) -> str:
    """The page of all classes; with what was typed for a new one, and what is wrong with it."""
    classes = directory.classes_of(session(), me())
    return render_template(
        "classes/index.html",
        classes=[school_class for school_class in classes if not school_class.archived],
        archived=[school_class for school_class in classes if school_class.archived],
        typed=typed,
        trouble=trouble,
    )


@teachers_only
def school_class(class_id: int) -> str:
    """A class: its tasks, and who has handed in what with which verdict."""
    school_class = own_class(class_id)
    table, order = marks.table_of(session(), school_class), request.args.get("sort", "name")
    which = choice_of(marks.ShownRows, "show")
    return render_template(
        "classes/school_class.html",
        school_class=school_class,
        table=table,
        rows=table.shown(which, order),
        moves={
            one.best.moves: amounts.moves(one.best.moves) for row in table.rows for one in row.cells if one and one.best
        },
        which=which,
        order=order,
    )


@teachers_only
def student(class_id: int, person_id: int) -> str:
    """A student over time: topics, typical mistakes, every task of the class, and the score as it came."""
    school_class = own_class(class_id)
    person = own_student(school_class, person_id)
    page = student_page.page_of(session(), school_class, person)
    attempts = practice.attempts_by(session(), [person.id]).get(person.id, {})
    return render_template(
        "classes/student.html",
        school_class=school_class,
        student=person,
        page=page,
        places=score_curve(page.scored),
        curve=[(x, y) for x, y, _attempt in score_curve(page.scored)],
        mastery=practice.map_of(practice.mastery_of(attempts), practice.open_topics(session(), school_class)),
        score_of=marks.score_of,
    )


def score_curve(attempts: Sequence[HandIn]) -> list[tuple[float, float, HandIn]]:
    """Places of attempts by day and score, in a picture of 600 by 130 units whose scale is from x = 34 on."""
    if not attempts:
        return []
    first, last = attempts[0].handed_in, attempts[-1].handed_in
    span = max((last - first).total_seconds(), 1)
    return [
        (
            round(40 + 550 * (one.handed_in - first).total_seconds() / span, 1),
            110 - one.score_that_counts,
            one,
        )
        for one in attempts
    ]


@teachers_only
def as_csv(class_id: int) -> Response:
    """The marks of a class, for a spreadsheet or a mark book."""
    school_class = own_class(class_id)
    headings, rows = marks.as_rows(marks.table_of(session(), school_class))
    return download(write_roster(headings, rows), f"{school_class.name}, marks.csv", "text/csv")
