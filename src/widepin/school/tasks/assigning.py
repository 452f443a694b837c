"""Giving a task to a class or to some of its students."""

from __future__ import annotations

from collections.abc import Callable, Collection
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import Field
from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from ...documents import clock
from ...documents.explaining import Feedback
from ...documents.forms import ClockTime, Fields, Form
from ...documents.kept import Policy
from ...documents.language import gettext as _
from ...documents.reading import Unreadable
from ...judge.task import Task
from ...judge.task_check import is_solved
from ..models import (
    Assignment,
    ClassTool,
    Person,
    SchoolClass,
    TaskSheet,
    now,
)
from ..people.roster import new_class
from ..refused import Refused
from ..states import Late, Reasons, Release, Showing
from .scoring import HEAVIEST
from .sheets import NotSolved, task_in

WEIGHT = f"must be a whole number from 0 to {HEAVIEST}; 0 does not count"


PERCENT = "must be a number from 0 to 100"


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
    weight: int = 1
    demonstration: Showing = Showing.NEVER
    solution: Release = Release.NEVER
    shortest: Release = Release.NEVER
    reasons: Reasons = Reasons.NONE
    reasons_share: int = 0


class TermsForm(Form):
    """Terms as they are filled in."""

    opens: ClockTime | None = Field(None, title="Opens")
    due: ClockTime | None = Field(None, title="Due")
    late: Late = Field(Late.TAKEN, title="Late works")
    feedback: Feedback = Field(Feedback.BREAK, title="Feedback")
    attempts: int | None = Field(
        None, ge=1, le=99, title="Attempts", description="must be a number from 1 to 99, or nothing for any number"
    )
    after: int | None = Field(None, title="Prerequisite")
    student: list[int] = Field([], title="Students")
    class_tool: list[int] = Field([], title="Class tools")
    weight: int = Field(1, ge=0, le=HEAVIEST, title="Weight", description=WEIGHT)
    demonstration: Showing = Field(Showing.NEVER, title="Demonstration")
    solution: Release = Field(Release.NEVER, title="Sample solution")
    shortest: Release = Field(Release.NEVER, title="Shortest work of the class")
    reasons: Reasons = Field(Reasons.NONE, title="Give the reason")
    reasons_share: int = Field(0, ge=0, le=100, title="Share of the score", description=PERCENT)
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
        form.weight,
        form.demonstration,
        form.solution,
        form.shortest,
        form.reasons,
        form.reasons_share,
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
        weight=terms.weight,
        demonstration=terms.demonstration,
        solution=terms.solution,
        shortest=terms.shortest,
        reasons=terms.reasons,
        reasons_share=terms.reasons_share,
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
        "opens": clock.as_typed(assignment.opens) if assignment.opens else "",
        "due": clock.as_typed(assignment.due) if assignment.due else "",
        "late": assignment.late,
        "attempts": str(assignment.attempts or ""),
        "after": str(assignment.after_id or ""),
        "weight": str(assignment.weight),
        "demonstration": assignment.demonstration,
        "solution": assignment.solution,
        "shortest": assignment.shortest,
        "reasons": assignment.reasons,
        "reasons_share": str(assignment.reasons_share),
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
    assignment.weight, assignment.demonstration = terms.weight, terms.demonstration
    assignment.solution, assignment.shortest = terms.solution, terms.shortest
    assignment.reasons, assignment.reasons_share = terms.reasons, terms.reasons_share


class SeveralForm(Form):
    """Terms that several tasks get; what is left empty stays as it is for each of them.

    ``days``: by how many days dates that are set move, before a date of this form is set. ``attempts``: "any" too.
    """

    assignment: list[int] = Field([], title="Tasks")
    opens: ClockTime | None = Field(None, title="Opens")
    due: ClockTime | None = Field(None, title="Due")
    days: int | None = Field(None, ge=-366, le=366, title="Days", description="must be a number from -366 to 366")
    late: Late | None = Field(None, title="Late works")
    feedback: Feedback | None = Field(None, title="Feedback")
    attempts: Literal["any"] | Annotated[int, Field(ge=1, le=99)] | None = Field(
        None, title="Attempts", description="must be a number from 1 to 99, or “any”, or nothing"
    )
    weight: int | None = Field(None, ge=0, le=HEAVIEST, title="Weight", description=WEIGHT)
    demonstration: Showing | None = Field(None, title="Demonstration")
    solution: Release | None = Field(None, title="Sample solution")
    shortest: Release | None = Field(None, title="Shortest work of the class")
    reasons: Reasons | None = Field(None, title="Give the reason")
    reasons_share: int | None = Field(None, ge=0, le=100, title="Share of the score", description=PERCENT)


SAME_FOR_ALL = (
    *("opens", "due", "late", "feedback", "weight", "demonstration", "solution", "shortest"),
    *("reasons", "reasons_share"),
)
"""Fields of the form that are those of an assignment."""


def change_several(school_class: SchoolClass, sent: Fields) -> list[Assignment]:
    """Change the terms of several tasks of a class, of all of them or of none; those that were changed.

    Raises Refused.
    """
    try:
        form = SeveralForm.read(sent)
    except Unreadable as wrong:
        raise Refused(f"{wrong}.") from None
    chosen = [one for one in school_class.assignments if one.id in form.assignment]
    if not chosen:
        raise Refused(_("Select the tasks that are to be changed."))
    changes = {name: value for name in SAME_FOR_ALL if (value := getattr(form, name)) is not None}
    if not changes and form.days is None and form.attempts is None:
        raise Refused(_("Fill in what is to be changed; what is left empty stays as it is."))

    def moved(at: datetime | None) -> datetime | None:
        return at and clock.days_later(at, form.days or 0)

    for one in chosen:
        opens, due = (changes.get(name) or moved(at) for name, at in (("opens", one.opens), ("due", one.due)))
        if opens and due and due <= opens:
            raise Refused(_("“%(title)s” would be due before it opens; nothing was changed.", title=one.sheet.title))
    for one in chosen:
        one.opens, one.due = moved(one.opens), moved(one.due)
        for name, value in changes.items():
            setattr(one, name, value)
        if form.attempts is not None:
            one.attempts = None if form.attempts == "any" else form.attempts
    return chosen


COPIED = (
    *("position", "opens", "due", "late", "attempts", "scoring", "feedback", "measuring", "finding", "loci", "weight"),
    *("demonstration", "solution", "shortest", "reasons", "reasons_share", "level", "levels"),
)
"""What a copy of an assignment has from the one that it is made of."""


def copy_of(assignment: Assignment, **changed: Any) -> Assignment:
    """An assignment of the same task with the same terms, for no class yet, with no prerequisite, for everybody."""
    return Assignment(sheet=assignment.sheet, **({name: getattr(assignment, name) for name in COPIED} | changed))


def copy_class(session: Session, school_class: SchoolClass, name: str, with_students: bool) -> SchoolClass:
    """A class with the same tasks and class tools, without dates, and with the same students if wanted.

    Raises Refused, NameTaken among it.
    """
    made = new_class(session, school_class.teacher, name)
    class_tools = {
        class_tool.id: ClassTool(name=class_tool.name, document=class_tool.document, moves=class_tool.moves)
        for class_tool in school_class.class_tools
    }
    copies = {assignment.id: copy_of(assignment, opens=None, due=None) for assignment in school_class.assignments}
    made.class_tools, made.assignments = list(class_tools.values()), list(copies.values())
    for assignment in school_class.assignments:
        copies[assignment.id].after = copies.get(assignment.after_id) if assignment.after_id else None
        copies[assignment.id].class_tools = [class_tools[lent.id] for lent in assignment.class_tools]
    if with_students:
        made.students = list(school_class.students)
    session.flush()
    return made


def copy_to(session: Session, assignment: Assignment, school_class: SchoolClass) -> Assignment:
    """Give a task with its terms to another class, after its other tasks; what has to be solved first too, where that
    class has the same task. Raises Refused where the class has the task already.
    """
    if any(one.sheet_id == assignment.sheet_id for one in school_class.assignments):
        raise Refused(_("%(name)s has this task already.", name=school_class.name))
    before = assignment.after.sheet_id if assignment.after else None
    position = max((one.position for one in school_class.assignments), default=-1) + 1
    made = copy_of(
        assignment,
        position=position,
        school_class=school_class,
        after=next((one for one in school_class.assignments if one.sheet_id == before), None),
    )
    session.add(made)
    session.flush()
    return made


def remove(session: Session, assignment: Assignment) -> None:
    """Take a task away from its class, with all works on it."""
    session.delete(assignment)


def set_feedback(assignment: Assignment, level: str, may: Collection[str] | None) -> None:
    """Choose how much a hand-in tells the students, and what they ``may``: measure, find, locus; None leaves that.

    Raises Refused.
    """
    if level not in list(Feedback):
        raise Refused(_("Choose how much students see: %(levels)s.", levels=", ".join(Feedback)))
    assignment.feedback = Feedback(level)
    if may is not None:
        assignment.measuring, assignment.finding, assignment.loci = (one in may for one in ("measure", "find", "locus"))


def move(assignment: Assignment, way: int) -> None:
    """Move a task by so many places among the tasks of its class."""
    tasks = sorted(assignment.school_class.assignments, key=lambda one: (one.position, one.id))
    place = tasks.index(assignment)
    tasks.insert(max(0, place + way), tasks.pop(place))
    for number, task in enumerate(tasks):
        task.position = number
