"""Small changes that would make a work sound, each verified by judging the changed work.

For a work whose crossing jumps or vanishes: another way to say which crossing is meant. For a point placed by eye: the
crossing that it should have been.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace
from itertools import combinations, islice

import numpy as np

from ..plane.arrays import ARRAYS, Arrays
from ..plane.figure import is_defined
from ..plane.shapes import Kind, Point
from ..plane.steps import IllFormed, Step
from .method import needed_crossings, tried_together
from .references import check_references, off, passes_through
from .trial import VISUAL, Board, Trial
from .verdict import Mend, Outcome

MOST_CHANGES = 48
"""Changes that floats look at."""

MOST_JUDGED = 6
"""Changed works that are judged at most."""

MOST_FAILING = 40
"""Failing positions in which floats look at a change."""

NEAR_BY_EYE = 2.5 * VISUAL
"""How far from a crossing a point by eye may lie, as a multiple of the figure's size."""


def mends(board: Board, trial: Trial) -> tuple[Mend, ...]:
    """Changes of one step that make this answer sound; the ones that change least come first."""
    if trial.outcome in (Outcome.SWITCHING, Outcome.FRAGILE):
        changes = crossings_said_otherwise(board, trial)
    elif trial.outcome in (Outcome.EYEBALLED, Outcome.APPROXIMATE):
        changes = points_tied_down(board, trial)
    else:
        return ()
    found: dict[str, Mend] = {}
    judged = 0
    for number, step in that_stand(board, trial, list(islice(changes, MOST_CHANGES))):
        if step.id not in found and judged < MOST_JUDGED:
            judged += 1
            if is_sound(board, trial, number, step):
                found[step.id] = Mend(step.id, step)
    return tuple(found.values())


def that_stand(board: Board, trial: Trial, changes: list[tuple[int, Step]]) -> list[tuple[int, Step]]:
    """Those of the changes with which floats see the work right where it failed; much quicker than judging it."""
    if not changes:
        return []
    positions = board.batch.positions[:, list(trial.failing[:MOST_FAILING])]
    look = tried_together(board, trial, positions, [{n: board.figure.link(step)} for n, step in changes])
    fails = np.any((look.undefined | look.wrong).reshape(len(changes), -1), axis=1)
    return [change for change, failed in zip(changes, fails.tolist(), strict=True) if not failed]


def is_sound(board: Board, trial: Trial, number: int, step: Step) -> bool:
    """Whether the work with one step replaced is sound, with the same answer."""
    steps = list(board.steps)
    steps[number - len(board.task.done)] = step
    try:
        check_references(board.task.figure(steps), len(board.task.done))
    except IllFormed:
        return False
    changed = Board(board.task, steps)
    return changed.looks_right(trial.answer) and changed.try_answer(trial.answer).outcome is Outcome.SOUND


def crossings_said_otherwise(board: Board, trial: Trial) -> Iterator[tuple[int, Step]]:
    """The needed crossings, each by another choice that means the same point as drawn."""
    for number in needed_crossings(board, trial):
        node = board.figure.nodes[number]
        here = board.shapes[number]
        assert isinstance(here, Point)
        points = [
            n
            for n in range(number)
            if board.figure.nodes[n].kind is Kind.POINT and is_defined(board.shapes[n]) and n != node.reference
        ]
        on_both = [n for n in points if all(passes_through(board.figure, curve, n) for curve in node.sources)]
        for choice, references in (("other_than", on_both), ("farthest_from", points), ("nearest_to", points)):
            for reference in references:
                name = board.figure.nodes[reference].step.id
                changed = replace(node.step, choice=choice, reference=name, pick=1)
                if changed != node.step and _same_place(board, number, changed):
                    yield number, changed


def _same_place(board: Board, number: int, step: Step) -> bool:
    """Whether a crossing said otherwise is the same point as drawn."""
    here, there = board.shapes[number], _as_drawn(board, step)
    assert isinstance(here, Point)
    return math.hypot(here.x - there.x, here.y - there.y) < 1e-6 * float(board.size)


def _as_drawn(board: Board, step: Step) -> Point:
    """Where a crossing of objects on the board lies as drawn."""
    with Arrays.quiet():
        place = board.figure.link(step).made(ARRAYS, board.shapes, ())
    return Point(float(place.x), float(place.y))


def placed_by_eye(board: Board, trial: Trial) -> list[int]:
    """The student's free and sliding points that the answer depends on, the last one first."""
    needed = board.figure.ancestors(trial.answer.values())
    return [handle.number for handle in reversed(board.handles) if not handle.given and handle.number in needed]


def points_tied_down(board: Board, trial: Trial) -> Iterator[tuple[int, Step]]:
    """Points placed by eye, each as a crossing of curves that were there and pass close by, the closest first."""
    for number in placed_by_eye(board, trial):
        point = board.shapes[number]
        assert isinstance(point, Point)
        curves = [n for n in range(number) if board.figure.nodes[n].kind is not Kind.POINT and _close(board, point, n)]
        ways: list[tuple[float, Step]] = []
        for pair in combinations(curves, 2):
            ways += _crossings_near(board, number, pair)
        for _, step in sorted(ways, key=lambda way: way[0]):
            yield number, step


def _close(board: Board, point: Point, curve: int) -> bool:
    shape = board.shapes[curve]
    if not is_defined(shape):
        return False
    distance, size = off(point, shape)
    return abs(float(distance)) <= 0.2 * float(size)


def _crossings_near(board: Board, number: int, pair: tuple[int, int]) -> list[tuple[float, Step]]:
    node = board.figure.nodes[number]
    names = tuple(board.figure.nodes[curve].step.id for curve in pair)
    round_ = any(board.figure.nodes[curve].kind is Kind.CIRCLE for curve in pair)
    place = board.shapes[number]
    assert isinstance(place, Point)
    found = []
    for pick in (1, 2) if round_ else (1,):
        step = Step(node.step.id, "intersection", names, pick=pick)
        shape = _as_drawn(board, step)
        far = math.hypot(shape.x - place.x, shape.y - place.y) / float(board.size)
        if far <= NEAR_BY_EYE:
            found.append((far, step))
    return found
