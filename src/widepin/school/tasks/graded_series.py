"""A graded series: tasks from one model, nearly done at first, with one more move left to the student each time."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from sqlalchemy import select
from sqlalchemy.orm import Session

from ...documents.formats.construction import read_steps
from ...documents.formats.kept import Policy
from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...judge.costs.counts import moves_of
from ...judge.task import Task
from ..models import Assignment, SchoolClass, TaskSheet
from ..refused import Refused
from .assigning import assign, check_finished
from .settings import Settings
from .sheets import NotSolved, new_sheet, next_version


def levels(document: JsonObject) -> list[JsonObject]:
    """The tasks of a graded series, the lowest level first: all of the model is done but one move, then but two ...

    What is wanted is never done already. A model of one move has one level, the task itself.
    """
    steps = read_steps(document["model"])
    wanted = {one["name"] for one in document["wanted"]}
    most = next((index for index, step in enumerate(steps) if step.id in wanted), len(steps))
    # The longest beginning for each number of moves that is left.
    left = {moves_of(steps[done:]): done for done in range(most + 1)}
    left[moves_of(steps)] = 0  # nothing is done on the highest level
    return [
        {**document, "start": document["model"][:done], "budget": {"moves": moves}}
        for moves, done in sorted(left.items())
        if moves
    ]


def task_of_series(session: Session, level: Assignment) -> TaskSheet | None:
    """The task as it is now of whose graded series an assignment is a level, where the level is of an older state."""
    versions = select(TaskSheet).where(TaskSheet.family == level.sheet.series_of).order_by(TaskSheet.version.desc())
    task = session.scalars(versions.limit(1)).first()
    if task is None or level.level is None:
        return None
    now = levels(task.document)
    is_the_same = len(now) == level.levels and _but_title(now[level.level - 1]) == _but_title(level.sheet.document)
    return None if is_the_same else task


def _but_title(document: JsonObject) -> JsonObject:
    return {name: value for name, value in document.items() if name != "title"}


def renew(session: Session, level: Assignment, task: TaskSheet, solved: Callable[[Task], bool]) -> list[Assignment]:
    """Give a class the levels of a graded series as they follow from its task now, all of them or none.

    ``level``: any of them. Returns the assignments. Raises NotSolved, also where there are more or fewer levels now.
    """
    documents = levels(task.document)
    if len(documents) != level.levels:
        raise NotSolved(
            _(
                "The graded series has %(before)s levels, and %(now)s by the changed task: remove the series from the"
                " class and assign it anew, or leave it as it is.",
                before=level.levels,
                now=len(documents),
            )
        )
    every = [one for one in level.school_class.assignments if one.sheet.series_of == task.family]
    found = [(one, number) for one in every if (number := one.level) is not None and one.levels == len(documents)]
    renewed = []
    for one, number in found:
        sheet = next_version(one.sheet, one.sheet.version + 1)
        title = _level_title(task.title, number, len(documents))
        sheet.title, sheet.document = title, {**documents[number - 1], "title": title}
        sheet.policy, sheet.topic = task.policy, task.topic
        renewed.append((one, sheet))
    for _one, sheet in renewed:
        check_finished(sheet, solved)
    for one, sheet in renewed:
        session.add(sheet)
        one.sheet = sheet
    session.flush()
    return [one for one, _sheet in renewed]


def _level_title(title: str, number: int, count: int) -> str:
    return _("%(title)s, level %(number)s of %(count)s", title=title[:170], number=number, count=count)


def assign_series(
    session: Session, sheet: TaskSheet, school_class: SchoolClass, settings: Settings
) -> list[Assignment]:
    """Give a graded series to a class: each level opens when the one below is solved. Raises NotSolved and Refused."""
    documents = levels(sheet.document)
    if len(documents) < 2:
        raise Refused(_("The sample solution has too few moves for a graded series; assign the task as it is."))
    made: list[Assignment] = []
    for number, document in enumerate(documents, 1):
        document = {**document, "title": _level_title(sheet.title, number, len(documents))}
        level = new_sheet(session, sheet.owner, document, sheet.topic)
        level.series_of = sheet.family
        level.policy = Policy.model_validate(sheet.policy).model_dump(mode="json")
        below = made[-1] if made else settings.after
        made.append(assign(session, level, school_class, replace(settings, after=below)))
        made[-1].level, made[-1].levels = number, len(documents)
    return made
