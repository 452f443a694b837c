"""Does the method hold: would other intersections have made the answer right wherever it fails?"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from itertools import combinations, islice, product

import numpy as np

from ...plane.arrays import ARRAYS, Arrays, Floats
from ...plane.figure import Evaluation, Link, Mixed, is_defined
from ...plane.intersections import Choice, other_intersection
from ...plane.measurement import distance
from ...plane.shapes import Kind, Point, Shape
from ...plane.tolerances import TOUCHING
from ..verdict import Outcome
from .examination import Examination, spread
from .findings import Look, Ruling
from .trial import Trial

MAX_COMBINATIONS = 64
"""Bound on the combinations of intersections that are tried."""

FIRST, MAX_POSITIONS = 3, 24
"""Failing positions that are looked at, first a few of them."""


CONFIRMED = 4
"""Positions in which balls confirm what floats found."""


def method_holds(examined: Examination, trial: Trial) -> bool | None:
    """Whether in every failing position another choice of intersections makes the answer right.

    Positions where two intersections to choose from are one (a tangent) do not count: no choice is left there. None for
    outcomes where the question does not arise.
    """
    if trial.outcome not in (Outcome.FRAGILE, Outcome.SWITCHING) or not trial.failing:
        return None
    # Most works whose method does not hold show it in the first positions.
    intersections = needed_intersections(examined, trial)
    first = trial.batch.positions[:, spread(np.array(trial.failing), FIRST)]
    if not all(that_may_help(examined, trial.answer, first, intersections)):
        return False
    choices = combinations_of_intersections(examined, trial)
    failing = spread(np.array(trial.failing), 2 * MAX_POSITIONS)
    if trial.by_floats:
        # Where all seem to touch, the intersections may be closer than floats can tell.
        failing = with_a_choice(examined, trial, failing) or failing
    failing = failing[:: -(-len(failing) // MAX_POSITIONS)]
    if not trial.by_floats:
        return all(_mended(examined, trial, n, choices) for n in failing[:CONFIRMED])
    few = trial.batch.positions[:, failing[:FIRST]]
    if not tried_together(examined, trial, few, choices).exact.reshape(len(choices), -1).any(axis=0).all():
        return False
    positions = trial.batch.positions[:, failing]
    mends = tried_together(examined, trial, positions, choices).exact.reshape(len(choices), -1)
    if not mends.any(axis=0).all():
        return False
    return all(
        _mended(examined, trial, n, [choices[place] for place in np.flatnonzero(mends[:, column])])
        for column, n in enumerate(failing[:CONFIRMED])
    )


def with_a_choice(examined: Examination, trial: Trial, columns: Sequence[int]) -> list[int]:
    """Those of the failing columns in which no two intersections that could be chosen are one."""
    intersections = needed_intersections(examined, trial)
    shapes = Evaluation(examined.figure, trial.batch.positions[:, columns]).shapes(
        examined.figure.ancestors(intersections)
    )
    touching = np.zeros(len(columns), dtype=bool)
    with Arrays.quiet():
        for number in intersections:
            a, b = (shapes[source] for source in examined.figure.nodes[number].sources)
            point = shapes[number]
            assert isinstance(point, Point)
            other = other_intersection(ARRAYS, a, b, point)
            touching |= distance(ARRAYS, point, other) < TOUCHING * examined.size
    return [column for column, touches in zip(columns, touching.tolist(), strict=True) if not touches]


def that_may_help(
    examined: Examination, answer: Mapping[str, int], positions: Floats, numbers: Sequence[int]
) -> list[list[int]]:
    """For each position where the answer fails, those of the objects of which another choice or make may help.

    Where something that the answer needs is undefined, that is what the first such object is made from, and that object
    itself if its curves do meet.
    """
    figure = examined.figure
    needed = sorted(figure.ancestors(answer.values()))
    shapes = Evaluation(figure, positions).shapes(needed)
    there = np.array([np.broadcast_to(is_defined(shapes[number]), (positions.shape[1],)) for number in needed])
    found = []
    for column, gone in enumerate(np.where(there.all(axis=0), -1, np.argmin(there, axis=0))):
        if gone < 0:
            found.append(list(numbers))
            continue
        helping = figure.ancestors([needed[gone]])
        if needed[gone] in numbers and not _meet(examined, needed[gone], shapes, column):
            helping.remove(needed[gone])
        found.append([number for number in numbers if number in helping])
    return found


def _meet(examined: Examination, number: int, shapes: Sequence[Shape[Floats]], column: int) -> bool:
    """Whether the curves of an intersection have a point in common in a position, within extents."""
    with Arrays.quiet():
        picked = [picked_intersection(examined, number, pick).made(ARRAYS, shapes, ()) for pick in (1, 2)]
    return any(bool(np.ravel(is_defined(shape))[column if np.ndim(shape.x) else 0]) for shape in picked)


def tried_together(examined: Examination, trial: Trial, positions: Floats, choices: Sequence[dict[int, Link]]) -> Look:
    """What floats see in these positions with each of the choices in turn: one look, choice by choice."""
    count = positions.shape[1]
    of_choice = np.repeat(np.arange(len(choices)), count)
    choices_by_link: dict[int, dict[Link, list[int]]] = {}
    for index, choice in enumerate(choices):
        for number, link in choice.items():
            choices_by_link.setdefault(number, {}).setdefault(link, []).append(index)
    swaps = {
        number: Mixed(
            examined.figure.nodes[number].link, [(np.isin(of_choice, at), link) for link, at in links.items()]
        )
        for number, links in choices_by_link.items()
    }
    parents = [parent for links in choices_by_link.values() for link in links for parent in link.parents]
    needed = examined.needs(trial.answer) | examined.figure.ancestors(parents)
    shapes = examined.figure.evaluate_batch(np.tile(positions, len(choices)), swaps, needed)
    return examined.evaluate(shapes, trial.answer)


def combinations_of_intersections(examined: Examination, trial: Trial) -> list[dict[int, Link]]:
    """Ways to pick at the intersections with a circle that the answer needs: all of them, or few changes where many."""
    intersections = needed_intersections(examined, trial)
    if not intersections:
        return []
    changed = [tuple(intersections)]
    if 2 ** len(intersections) > MAX_COMBINATIONS:
        changed = [*combinations(intersections, 1), *combinations(intersections, 2)]
    tries = ((some, picks) for some in changed for picks in product((0, 1), repeat=len(some)))
    picked = {number: [picked_intersection(examined, number, pick) for pick in (1, 2)] for number in intersections}
    return [
        {number: picked[number][pick] for number, pick in zip(some, picks, strict=True)}
        for some, picks in islice(tries, MAX_COMBINATIONS)
    ]


def picked_intersection(examined: Examination, number: int, pick: int) -> Link:
    """How an intersection would be computed that is simply picked."""
    step = examined.figure.nodes[number].step
    return examined.figure.link(replace(step, choice=Choice.PICK, pick=pick, reference=None))


def needed_intersections(examined: Examination, trial: Trial) -> list[int]:
    """The student's intersections with a circle that the answer depends on."""
    nodes = examined.figure.nodes
    own = range(len(examined.task.done), examined.given + examined.own)
    return [
        number
        for number in sorted(examined.figure.ancestors(trial.answer.values()))
        if number in own
        and nodes[number].step.make == "intersection"
        and any(nodes[source].kind is Kind.CIRCLE for source in nodes[number].sources)
    ]


def _mended(examined: Examination, trial: Trial, number: int, choices: Sequence[dict[int, Link]]) -> bool:
    position = trial.batch.positions[:, number].tolist()
    return any(examined.certify(position, trial.answer, choice)[0] is Ruling.RIGHT for choice in choices[:16])
