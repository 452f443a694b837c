"""Giving a task to a class or to some of its students."""

from __future__ import annotations

from collections.abc import Callable, Collection
from dataclasses import dataclass
from datetime import datetime

from pydantic import Field
from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from ..documents.explaining import Feedback
from ..documents.forms import Fields, Form, Moment
from ..documents.kept import Policy
from ..documents.language import gettext as _
from ..documents.reading import Unreadable
from ..judge.task import Task
from ..judge.task_check import is_solved
from .models import Assignment, ClassTool, Person, SchoolClass, TaskSheet, now
from .refused import Refused
from .sheets import NotSolved, task_in
from .states import Late, Showing


class DuePassed(Refused):
    """A time that has passed already; it may be meant."""


@dataclass(frozen=True)
class Terms:
    """Who has to do a task, when, and with which class tools of the class besides. Times are UTC."""

    opens: datetime | None = None
    due: datetime | None = None
    late: Late = Late.TAKEN
    feedback: Feedback = Feedback.BREAK
    attempts: int | None = None
    after: Assignment | None = None
    chosen: tuple[Person, ...] = ()
    class_tools: tuple[ClassTool, ...] = ()


class TermsForm(Form):
    """Terms as they are filled in."""

    opens: Moment | None = Field(None, title="Opens")
    due: Moment | None = Field(None, title="Due")
    late: Late = Field(Late.TAKEN, title="Late works")
    feedback: Feedback = Field(Feedback.BREAK, title="Feedback")
    attempts: int | None = Field(
        None, ge=1, le=99, title="Attempts", description="must be a number from 1 to 99, or nothing for any number"
    )
    after: int | None = Field(None, title="Prerequisite")
    student: list[int] = Field([], title="Students")
    class_tool: list[int] = Field([], title="Class tools")
    passed: bool = Field(False, title="It was due already")


def read_terms(sent: Fields, school_class: SchoolClass, known: datetime | None = None) -> Terms:
    """Terms from what was filled in; ``known``: when the task was due before.

    Raises Refused, and DuePassed for a time that has passed unless that is meant.
    """
    try:
        form = TermsForm.read(sent)
    except Unreadable as wrong:
        raise Refused(f"{wrong}.") from None
    if form.opens and form.due and form.due <= form.opens:
        raise Refused(_("The task is due before it opens; change one of the two."))
    if form.due and form.due <= now() and not form.passed and form.due != known:
        raise DuePassed(_("The task would be due already. Change the time, or say below that this is meant."))
    return Terms(
        form.opens,
        form.due,
        form.late,
        form.feedback,
        form.attempts,
        next((assignment for assignment in school_class.assignments if assignment.id == form.after), None),
        tuple(student for student in school_class.students if student.id in form.student),
        tuple(class_tool for class_tool in school_class.class_tools if class_tool.id in form.class_tool),
    )


def check_finished(sheet: TaskSheet, solved: Callable[[Task], bool] = is_solved) -> None:
    """That a class can be given a version of a task. Raises NotSolved with what is missing.

    ``solved``: does what ``is_solved`` does, elsewhere.
    """
    try:
        task = task_in(sheet)
    except Unreadable as wrong:
        raise NotSolved(_("The task is not finished yet: %(wrong)s.", wrong=wrong)) from None
    if not solved(task):
        raise NotSolved(
            _(
                "Its sample solution does not solve this task; check the task on its page."
                " Correct the sample solution or the conditions."
            )
        )


def assign(
    session: Session,
    sheet: TaskSheet,
    school_class: SchoolClass,
    terms: Terms,
    solved: Callable[[Task], bool] = is_solved,
) -> Assignment:
    """Give a task to a class, after its other tasks.

    Raises NotSolved for a task whose model does not solve it, Refused where the class has it already.
    """
    check_finished(sheet, solved)
    there = select(Assignment.id).where(Assignment.class_id == school_class.id, Assignment.sheet_id == sheet.id)
    if session.scalar(there):
        raise Refused(_("%(name)s has this task already.", name=school_class.name))
    policy = Policy.model_validate(sheet.policy)
    made = Assignment(
        school_class=school_class,
        sheet=sheet,
        position=max((assignment.position for assignment in school_class.assignments), default=-1) + 1,
        opens=terms.opens,
        due=terms.due,
        late=terms.late,
        feedback=terms.feedback,
        measuring=policy.measuring,
        finding=policy.finding,
        loci=policy.loci,
        attempts=terms.attempts,
        scoring=policy.scoring,
        after=terms.after,
        chosen=list(terms.chosen),
        class_tools=list(terms.class_tools),
    )
    session.add(made)
    session.flush()
    return made


def with_tasks(session: Session, *classes: SchoolClass) -> list[SchoolClass]:
    """Classes with all that a choice of terms shows of them, in a fixed number of queries.

    Their students, their class_tools, and their tasks with titles alone.
    """
    tasks = selectinload(SchoolClass.assignments)
    wanted = (
        select(SchoolClass)
        .where(SchoolClass.id.in_(school_class.id for school_class in classes))
        .options(
            tasks.selectinload(Assignment.sheet).load_only(TaskSheet.title),
            selectinload(SchoolClass.class_tools).selectinload(ClassTool.assignments),
            selectinload(SchoolClass.students),
        )
        .order_by(SchoolClass.name)
    )
    return list(session.scalars(wanted))


def terms_as_typed(assignment: Assignment) -> dict[str, str]:
    """The terms of an assignment as they stand in the fields of a form."""
    return {
        "opens": assignment.opens.isoformat(timespec="minutes") if assignment.opens else "",
        "due": assignment.due.isoformat(timespec="minutes") if assignment.due else "",
        "late": assignment.late,
        "attempts": str(assignment.attempts or ""),
        "after": str(assignment.after_id or ""),
    }


def change_terms(assignment: Assignment, terms: Terms) -> None:
    """Change when and for whom a task is. Raises Refused for a task that would wait for itself."""
    before: Assignment | None = terms.after
    while before is not None:
        if before is assignment:
            raise Refused(_("This task would wait for itself; choose another that unlocks it."))
        before = before.after
    assignment.opens, assignment.due, assignment.late = terms.opens, terms.due, terms.late
    assignment.attempts, assignment.after, assignment.chosen = terms.attempts, terms.after, list(terms.chosen)
    assignment.class_tools = list(terms.class_tools)


def remove(session: Session, assignment: Assignment) -> None:
    """Take a task away from its class, with all works on it."""
    session.delete(assignment)


def set_feedback(assignment: Assignment, level: str, may: Collection[str] | None, showing: str | None = None) -> None:
    """Choose how much a hand-in tells the students, and what they ``may``: measure, find, locus; None leaves
    that; and when they see the demonstration, ``showing``.

    Raises Refused.
    """
    if level not in list(Feedback):
        raise Refused(_("Choose how much students see: %(levels)s.", levels=", ".join(Feedback)))
    assignment.feedback = Feedback(level)
    if showing is not None:
        if showing not in list(Showing):
            raise Refused(_("Choose when students see the demonstration."))
        assignment.demonstration = Showing(showing)
    if may is not None:
        assignment.measuring, assignment.finding, assignment.loci = (one in may for one in ("measure", "find", "locus"))


def move(assignment: Assignment, way: int) -> None:
    """Move a task by so many places among the tasks of its class."""
    tasks = sorted(assignment.school_class.assignments, key=lambda one: (one.position, one.id))
    place = tasks.index(assignment)
    tasks.insert(max(0, place + way), tasks.pop(place))
    for number, task in enumerate(tasks):
        task.position = number
