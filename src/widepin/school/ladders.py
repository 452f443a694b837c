"""Ladders: from one model a series of tasks, nearly done at first, with one more move left to the student each time."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from sqlalchemy.orm import Session

from ..documents.construction import read_steps
from ..judge.counts import moves_of
from .assigning import Refused, Terms, assign
from .models import Assignment, SchoolClass, TaskSheet
from .sheets import Policy, new_sheet


def rungs(document: dict[str, Any]) -> list[dict[str, Any]]:
    """The tasks of a ladder, the lowest rung first: all of the model is done but its last move, then but two ...

    What is wanted is never done already. A model of one move has one rung, the task itself.
    """
    steps = read_steps(document["model"])
    wanted = {one["name"] for one in document["wanted"]}
    most = next((place for place, step in enumerate(steps) if step.id in wanted), len(steps))
    # The longest beginning for each number of moves that is left.
    left = {moves_of(steps[done:]): done for done in range(most + 1)}
    left[moves_of(steps)] = 0  # nothing is done on the highest rung
    return [
        {**document, "start": document["model"][:done], "budget": {"moves": moves}}
        for moves, done in sorted(left.items())
        if moves
    ]


def assign_ladder(session: Session, sheet: TaskSheet, school_class: SchoolClass, terms: Terms) -> list[Assignment]:
    """Give a ladder to a class: each rung opens when the one below it is climbed. Raises NotSolved and Refused."""
    documents = rungs(sheet.document)
    if len(documents) < 2:
        raise Refused("The model has too few moves for a ladder; assign the task as it is.")
    made: list[Assignment] = []
    for number, document in enumerate(documents, 1):
        document = {**document, "title": f"{sheet.title[:170]}, rung {number} of {len(documents)}"}
        rung = new_sheet(session, sheet.owner, document, sheet.topic)
        rung.ladder_of = sheet.family
        rung.policy = Policy.model_validate(sheet.policy).model_dump()
        below = made[-1] if made else terms.after
        made.append(assign(session, rung, school_class, replace(terms, after=below)))
        made[-1].rung, made[-1].rungs = number, len(documents)
    return made
