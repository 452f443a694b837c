"""What is left to do from a figure that somebody has begun: by a short search, else along a known method.

Objects are compared by what they are in several positions of what is given, never by name. Arbitrary points of a method
are taken to be those that the student has put. Every completion is judged together with what is there.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from random import Random
from typing import Any

import numpy as np

from ..judge.costs.counts import is_move, refused_tool
from ..judge.judging import judge
from ..judge.task import Task, Work
from ..judge.verdict import Outcome
from ..plane.arrays import ARRAYS, Arrays
from ..plane.figure import Figure
from ..plane.makes import MAKES
from ..plane.shapes import LINES, Kind, Point, Shape
from ..plane.steps import Step
from .board import Origin
from .goal import NoGoal, goal_of
from .search import Search
from .writing import CURVES, POINTS, fresh

POSITIONS, THERE = 12, 2
"""Positions in which two objects must be one to count as the same, and in how many of them they must be there."""

SAME = 1e-6
"""Parts of the figure's size by which they may differ there."""

BY_SEARCH, SECONDS = 2, 0.7
"""Moves up to which a completion is searched for, and seconds that this may take."""


@dataclass(frozen=True)
class Completion:
    """Steps that make a work right, in order, under ids that are free there; ``answer``: wanted name -> id.

    ``moves``: how many of them count.
    """

    steps: tuple[Step, ...]
    answer: Mapping[str, str]
    moves: int


def completion_of(task: Task, work: Work, methods: Sequence[Work]) -> Completion | None:
    """The shortest way on that is known: found by search, or along one of some sound works; None where there is none.

    A work that is right already has a completion of no steps.
    """
    verdict = judge(task, Work(work.steps, None, work.uses), report=False)
    if verdict.outcome is Outcome.SOUND and verdict.answer is not None:
        return Completion((), verdict.answer, 0)
    known = [found for method in methods for found in along(task, work, method)]
    best = min(known, key=lambda one: (one.moves, len(one.steps)), default=None)
    most = BY_SEARCH if best is None else min(BY_SEARCH, best.moves - 1)
    with Arrays.quiet():
        return (by_search(task, work, most) if most >= 0 else None) or best


def by_search(task: Task, work: Work, most: int) -> Completion | None:
    """A completion of at most so many moves; None where none is found in time."""
    try:
        goal = goal_of(task)
    except NoGoal:
        return None
    figure = Figure((*task.done, *work.steps))
    drawn, _shapes = figure.drawn()
    position = drawn.copy()
    width = sum(node.inputs.stop - node.inputs.start for node in figure.nodes[: len(task.done)])
    position[:width] = goal.position[:width]
    with Arrays.quiet():
        shapes = figure.evaluate(ARRAYS, position)
    board = goal.board
    for number, step in enumerate(work.steps, len(task.done)):
        shape: Any = type(shapes[number])(*(float(value) for value in shapes[number]))
        if not np.isfinite(sum(shape)):
            continue
        if figure.nodes[number].kind is Kind.POINT:
            place = board.place_of(shape.x, shape.y)
            if place is None:
                board = board.with_point(shape.x, shape.y, Origin(step.make, id=step.id))
            elif not board.origins[place].id:
                origins = list(board.origins)
                origins[place] = Origin(step.make, id=step.id)
                board = replace(board, origins=origins)
        elif board.mark_of(figure.nodes[number].kind, shape) not in board.drawn:
            board = board.with_curve(figure.nodes[number].kind, shape, Origin(step.make, id=step.id))
        board = replace(board, used=board.used | {step.make: board.used.get(step.make, 0) + 1})
    search = Search(task, SECONDS, before=work.steps)
    found = search.run(goal, most, board)
    if found.moves is None:
        return None
    return Completion(found.steps, search.answer, found.moves)


def along(task: Task, work: Work, method: Work) -> Iterator[Completion]:
    """The completion along a method, if it leads to a sound work."""
    if refused_tool(method.steps, task.tools) is not None:
        return
    verdict = judge(task, method, report=False)
    if verdict.outcome is not Outcome.SOUND or verdict.answer is None:
        return
    needed = _needed(task, method.steps, verdict.answer.values())
    same = _matched(task, work.steps, needed)
    taken = {step.id for step in (*task.done, *work.steps)} | {one.name for one in task.wanted}
    names = dict(same)
    missing = []
    for step in needed:
        if step.id in names:
            continue
        is_point = MAKES[step.make].gives is Kind.POINT
        names[step.id] = fresh(POINTS if is_point else CURVES, taken)
        taken.add(names[step.id])
        missing.append(step.renamed(names))
    answer = {name: names.get(id_, id_) for name, id_ in verdict.answer.items()}
    made = Work((*work.steps, *missing), answer, work.uses)
    if judge(task, made, report=False).outcome is Outcome.SOUND:
        yield Completion(tuple(missing), answer, sum(is_move(step.make) for step in missing))


def _needed(task: Task, steps: Sequence[Step], ids: Any) -> list[Step]:
    """The steps that some objects are made from, with these."""
    by_id = {step.id: step for step in steps}
    wanted, waiting = set(), list(ids)
    while waiting:
        id_ = waiting.pop()
        if id_ in by_id and id_ not in wanted:
            wanted.add(id_)
            waiting += by_id[id_].parents
    return [step for step in steps if step.id in wanted]


def _matched(task: Task, own: Sequence[Step], method: Sequence[Step]) -> dict[str, str]:
    """Which objects of a method are there already, under which ids: those of the student, or given ones."""
    prefix = {step.id: f"m{number}_" for number, step in enumerate(method)}
    bound: dict[str, str] = {}
    for _round in range(3):
        before = len(bound)
        same = _same(task, own, method, prefix, bound)
        _bind(own, method, same, bound)
        if len(bound) == before:
            return same | bound
    return _same(task, own, method, prefix, bound) | bound


def _bind(own: Sequence[Step], method: Sequence[Step], same: Mapping[str, str], bound: dict[str, str]) -> None:
    """Let arbitrary points of a method be those that the student has put, on the same curve or anywhere."""
    for step in method:
        if step.make not in ("free_point", "point_on") or step.id in bound:
            continue
        sources = tuple(same.get(source, source) for source in step.sources)
        for one in own:
            if one.make == step.make and one.sources == sources and one.id not in bound.values():
                bound[step.id] = one.id
                break


def _same(
    task: Task, own: Sequence[Step], method: Sequence[Step], prefix: Mapping[str, str], bound: Mapping[str, str]
) -> dict[str, str]:
    """The objects of a method that are equal to one on the board in every position."""
    names = {**prefix, **bound}
    others = [step.renamed(names) for step in method if step.id not in bound]
    figure = Figure((*task.done, *own, *others))
    drawn, _shapes = figure.drawn()
    rng = Random(7)
    given = len(task.done)
    positions = np.repeat(drawn[:, None], POSITIONS, axis=1)
    points = [shape for shape in _shapes[:given] if isinstance(shape, Point) and np.isfinite(sum(shape))]
    spread = float(np.std([[p.x, p.y] for p in points], axis=0).max()) if len(points) > 1 else 0.0
    size = spread if spread > 1e-3 else 3.0
    for node in figure.nodes:
        for row in range(node.inputs.start, node.inputs.stop):
            reach = size * 0.4 if node.step.make == "free_point" else 0.15
            positions[row] += [reach * rng.uniform(-1, 1) for _ in range(POSITIONS)]
    shapes = figure.evaluate_batch(positions)
    there = [(node.step.id, node.kind, shapes[number]) for number, node in enumerate(figure.nodes[: given + len(own)])]
    back = {new: old for old, new in prefix.items()}
    found = {}
    for number in range(given + len(own), len(figure.nodes)):
        node = figure.nodes[number]
        if node.step.make in ("free_point", "point_on"):
            continue
        for id_, kind, shape in there:
            if (kind is node.kind or (kind is Kind.LINE and node.kind in LINES)) and _is_one(
                shapes[number], shape, size
            ):
                found[back[node.step.id]] = id_
                break
    return found


def _is_one(a: Shape[Any], b: Shape[Any], size: float) -> bool:
    """Whether two objects of a kind are one in every position."""
    if isinstance(a, Point) or type(a) is not type(b):
        if not isinstance(a, Point) or not isinstance(b, Point):
            return False
        gaps = [a.x - b.x, a.y - b.y]
    elif len(a) == 3:
        gaps = [a.x - b.x, a.y - b.y, np.sqrt(a.rr) - np.sqrt(b.rr)]  # type: ignore[union-attr]
    else:
        length = np.hypot(b.dx, b.dy)  # type: ignore[union-attr]
        gaps = [
            ((x - b.x) * b.dy - (y - b.y) * b.dx) / length  # type: ignore[union-attr]
            for x, y in ((a.x, a.y), (a.x + a.dx, a.y + a.dy))  # type: ignore[union-attr]
        ]
    is_there, other_is = np.isfinite(np.asarray(sum(a))), np.isfinite(np.asarray(sum(b)))
    if (is_there != other_is).any() or is_there.sum() < THERE:
        return False
    return bool(all((np.abs(np.asarray(gap))[is_there] < SAME * size).all() for gap in gaps))
