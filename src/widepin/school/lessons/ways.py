"""How many moves a class takes: every right work by its moves, against the fewest that are known."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ...judge.costs.counts import moves_within
from ...judge.task import Task
from ...judge.verdict import Outcome
from ..models import TaskSheet
from ..tasks.sheets import fewest_known
from .overview import Place


@dataclass(frozen=True)
class Ways:
    """``columns``: for every number of moves from the least to the most, who took so many, by name.

    ``possible``: the fewest that are known; ``is_least``: whether every shorter way is excluded. ``shorter``: who beats
    the sample solution, whose moves are ``of_model``.
    """

    columns: Sequence[tuple[int, Sequence[Place]]]
    possible: int | None
    is_least: bool
    shorter: Sequence[Place]
    of_model: int


def ways_of(places: Sequence[Place], task: Task, sheet: TaskSheet) -> Ways | None:
    """The ways of a class at a task; None where nobody has a work that is right as drawn."""
    right = [place for place in places if place.standing.best and place.standing.best.outcome.is_right_as_drawn]
    if not right:
        return None
    taken = {place.student.id: place.standing.best.moves for place in right if place.standing.best}
    found = fewest_known(sheet) or {}
    of_model = moves_within(task.model, task.tools) if task.model else 0
    sound = [place for place in right if place.standing.best and place.standing.best.outcome is Outcome.SOUND]
    known = [
        moves for moves in (found.get("moves"), *(taken[place.student.id] for place in sound)) if moves is not None
    ]
    possible = min(known, default=None)
    numbers = range(min([*taken.values(), *known]), max(taken.values()) + 1)
    return Ways(
        [(moves, [place for place in right if taken[place.student.id] == moves]) for moves in numbers],
        possible,
        possible is not None and found.get("excluded", 0) == possible - 1,
        [place for place in sound if of_model and taken[place.student.id] < of_model],
        of_model,
    )
