"""What a search looks for: a position of the given figure, and the answers that are right there."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import product
from random import Random
from typing import Any

import numpy as np

from ..judge.conditions import Measure, Term
from ..judge.judging import judge
from ..judge.task import TOOLS, Allowance, Task, Work
from ..judge.trials.findings import finding
from ..plane.arrays import ARRAYS, Arrays
from ..plane.figure import Figure, is_defined
from ..plane.makes import MAKES
from ..plane.measurement import distance
from ..plane.shapes import Kind, Point, Shape
from ..plane.steps import Step
from .board import Board, Origin

ALL_TOOLS = tuple(Allowance(tool) for tool in TOOLS)
EXACT = 1e-8
"""Parts of the figure's size below which a gap counts as none; what is found by it is judged."""

MOST_CHOICES = 7
"""Intersections of the sample solution whose other choice is tried, for other right answers."""


class NoGoal(Exception):
    """The task has no sample solution that the judge calls sound, or not in any position that was tried."""


@dataclass(frozen=True)
class Goal:
    """A position of the figure with the right answers in it.

    ``board``: what stands on it before the first move. ``shapes``: of given objects and the model's, by the names that
    conditions have for them. ``answers``: for each right answer, the kind and shape of every wanted object, by name.
    """

    task: Task
    board: Board
    shapes: Mapping[str, Term[Any]]
    answers: Sequence[Mapping[str, Term[Any]]]
    measure: Measure[Any]
    figure: Figure
    position: Any


def goal_of(task: Task, seed: int = 1) -> Goal:
    """A position in which to search, chosen at random. Raises NoGoal."""
    answer = judge(replace(task, tools=ALL_TOOLS), Work(task.model), report=False).answer if task.model else None
    if answer is None:
        raise NoGoal
    rng = Random(seed)
    for _ in range(60):
        found = _in_position(task, answer, rng)
        if found is not None:
            return found
    raise NoGoal


def _in_position(task: Task, answer: Mapping[str, str], rng: Random) -> Goal | None:
    figure = Figure((*task.done, *task.model))
    drawn, shapes = figure.drawn()
    points = [shape for shape in shapes[: len(task.done)] if isinstance(shape, Point) and is_defined(shape)]
    size, home = _extent(points)
    position = drawn.copy()
    for node in figure.nodes[: len(task.done)]:
        for place in range(node.inputs.start, node.inputs.stop):
            is_free = node.step.make == "free_point"
            position[place] += (size * 0.35 if is_free else 0.15) * rng.uniform(-1, 1)
    there = _evaluated(figure, position)
    given = {step.id: there[number] for number, step in enumerate(task.done)}
    if not all(is_defined(shape) for shape in there[: len(task.done)]):
        return None
    size, home = _extent([shape for shape in given.values() if isinstance(shape, Point)])
    measure = Measure(ARRAYS, size, home)
    named = {step.id: Term(given[step.id], MAKES[step.make].gives) for step in task.done}
    named |= {
        f"model:{step.id}": Term(there[len(task.done) + number], MAKES[step.make].gives)
        for number, step in enumerate(task.model)
    }
    answers = []
    for steps in _other_choices(task.model):
        made = _evaluated(Figure((*task.done, *steps)), position)
        by_id = {
            step.id: Term(made[number], MAKES[step.make].gives) for number, step in enumerate((*task.done, *steps))
        }
        one = {name: by_id[id_] for name, id_ in answer.items()}
        if all(is_defined(term.shape) for term in one.values()) and holds(task, one, named, measure):
            answers.append(one)
    if not answers:
        return None
    return Goal(task, _board(task, figure, there, size), named, _different(answers, size), measure, figure, position)


def _evaluated(figure: Figure, position: Any) -> list[Shape[float]]:
    """All shapes in one position, in floats."""
    with Arrays.quiet():
        shapes = figure.evaluate(ARRAYS, position)
    return [type(shape)(*(float(value) for value in shape)) for shape in shapes]


def _extent(points: Sequence[Point[float]]) -> tuple[float, Point[float]]:
    """The size of points about their centroid, in centimetres; 5 where they span nothing."""
    if not points:
        return 5.0, Point(0.0, 0.0)
    home = Point(float(np.mean([p.x for p in points])), float(np.mean([p.y for p in points])))
    size = float(np.sqrt(np.mean([float(distance(ARRAYS, p, home)) ** 2 for p in points])))
    return (size if size > 1e-3 else 5.0), home


def _other_choices(steps: Sequence[Step]) -> list[tuple[Step, ...]]:
    """The same steps with every choice of their intersections."""
    free = [number for number, step in enumerate(steps) if step.make == "intersection" and step.choice == "pick"][
        :MOST_CHOICES
    ]
    found = []
    for picks in product((False, True), repeat=len(free)):
        turned = {number for number, is_other in zip(free, picks, strict=True) if is_other}
        found.append(
            tuple(replace(step, pick=3 - step.pick) if number in turned else step for number, step in enumerate(steps))
        )
    return found


def holds(task: Task, answer: Mapping[str, Term[Any]], named: Mapping[str, Term[Any]], measure: Measure[Any]) -> bool:
    """Whether all conditions hold of an answer in the position, in floats."""
    known = {**named, **answer}
    with Arrays.quiet():
        for condition in task.conditions:
            found = finding(measure, condition, known.__getitem__)
            gaps = [float(gap) for gap in found.gaps]
            margins = [float(margin) for margin in found.margins]
            if not all(abs(gap) < EXACT * measure.size for gap in gaps):
                return False
            if not all(margin > 0 for margin in margins):
                return False
    return True


def _different(answers: Sequence[Mapping[str, Term[Any]]], size: float) -> list[Mapping[str, Term[Any]]]:
    """Answers that differ in some object."""
    board = Board(size, np.empty((0, 2)), [])
    found = {tuple(board.key_of(term.kind, term.shape) for _name, term in sorted(one.items())): one for one in answers}
    return list(found.values())


def _board(task: Task, figure: Figure, shapes: Sequence[Shape[float]], size: float) -> Board:
    """What stands on the board before the first move, with all its crossings."""
    board = Board(size, np.empty((0, 2)), [])
    for number, step in enumerate(task.done):
        shape, kind = shapes[number], figure.nodes[number].kind
        origin = Origin(step.make, id=step.id)
        if kind is Kind.POINT:
            place = board.place_of(shape.x, shape.y)
            if place is not None:  # a crossing that the task has named
                origins = list(board.origins)
                origins[place] = origin
                board = replace(board, origins=origins)
            board = board.with_point(shape.x, shape.y, origin)
        else:
            board = board.with_curve(kind, shape, origin)
    return board
