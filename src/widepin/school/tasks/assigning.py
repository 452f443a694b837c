"""Giving a task to a class or to some of its students."""

from __future__ import annotations

from collections.abc import Callable, Collection

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from ...documents.formats.kept import Policy
from ...documents.language import gettext as _
from ...documents.language import marked
from ...documents.reading import Unreadable
from ...documents.wording.explaining import Feedback
from ...judge.task import Task
from ...judge.task_check import is_solved
from ..models import (
    Assignment,
    ClassTool,
    SchoolClass,
    TaskSheet,
)
from ..people.roster import new_class
from ..refused import Refused
from .settings import Settings, copy_of
from .sheets import NotSolved, task_in


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
    settings: Settings,
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
        **settings.values,
        measuring=policy.measuring,
        finding=policy.finding,
        loci=policy.loci,
        scoring=policy.scoring,
        after=settings.after,
        chosen=list(settings.chosen),
        class_tools=list(settings.class_tools),
    )
    session.add(made)
    session.flush()
    return made


def classes_with(session: Session, sheet: TaskSheet) -> set[int]:
    """The numbers of the classes that were given a version of a task."""
    return set(session.scalars(select(Assignment.class_id).where(Assignment.sheet_id == sheet.id)))


def with_tasks(session: Session, *classes: SchoolClass) -> list[SchoolClass]:
    """Classes with all that a choice of settings shows of them, in a fixed number of queries.

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
    """Give a task with its settings to another class, after its other tasks; what has to be solved first too, where
    that class has the same task. Raises Refused where the class has the task already.
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


def set_feedback(assignment: Assignment, level: str, may: Collection[str] | None) -> None:
    """Choose how much a hand-in tells the students, and what they ``may``: measure, find, locus; None leaves that.

    Raises Refused.
    """
    if level not in list(Feedback):
        raise Refused(_("Choose how much students see: %(levels)s.", levels=", ".join(Feedback)))
    assignment.feedback = Feedback(level)
    if may is not None:
        assignment.measuring, assignment.finding, assignment.loci = (one in may for one in ("measure", "find", "locus"))


def feedback_as_typed(assignment: Assignment) -> dict[str, str | list[str]]:
    """How much a hand-in tells, and what students may, as it stands in the form."""
    may = {"measure": assignment.measuring, "find": assignment.finding, "locus": assignment.loci}
    return {"feedback": assignment.feedback.value, "may": ["", *(one for one, is_so in may.items() if is_so)]}


FEEDBACK_TITLES = {"feedback": marked("what students see"), "may": marked("what students may")}


def move(assignment: Assignment, way: int) -> None:
    """Move a task by so many places among the tasks of its class."""
    tasks = sorted(assignment.school_class.assignments, key=lambda one: (one.position, one.id))
    place = tasks.index(assignment)
    tasks.insert(max(0, place + way), tasks.pop(place))
    for number, task in enumerate(tasks):
        task.position = number
