"""A graded series: tasks from one model, nearly done at first, with one more move left to the student each time."""

from __future__ import annotations

from dataclasses import replace

from sqlalchemy.orm import Session

from ...documents.construction import read_steps
from ...documents.kept import Policy
from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...judge.costs.counts import moves_of
from ..models import Assignment, SchoolClass, TaskSheet
from ..refused import Refused
from .assigning import assign
from .settings import Settings
from .sheets import new_sheet


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


def assign_series(
    session: Session, sheet: TaskSheet, school_class: SchoolClass, settings: Settings
) -> list[Assignment]:
    """Give a graded series to a class: each level opens when the one below is solved. Raises NotSolved and Refused."""
    documents = levels(sheet.document)
    if len(documents) < 2:
        raise Refused(_("The sample solution has too few moves for a graded series; assign the task as it is."))
    made: list[Assignment] = []
    for number, document in enumerate(documents, 1):
        document = {
            **document,
            "title": _(
                "%(title)s, level %(number)s of %(count)s", title=sheet.title[:170], number=number, count=len(documents)
            ),
        }
        level = new_sheet(session, sheet.owner, document, sheet.topic)
        level.series_of = sheet.family
        level.policy = Policy.model_validate(sheet.policy).model_dump(mode="json")
        below = made[-1] if made else settings.after
        made.append(assign(session, level, school_class, replace(settings, after=below)))
        made[-1].level, made[-1].levels = number, len(documents)
    return made
