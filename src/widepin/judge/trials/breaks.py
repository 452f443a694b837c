"""The simplest position in which an answer fails so that it can be seen.

From the failing positions of a trial: given points are dragged rather than the student's own, as few as possible, and
no farther than needed. Floats look for it, balls confirm it.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from ...plane.arrays import Floats
from ...plane.balls import BALLS, Undecided, at_rising_precision, ball
from ...plane.figure import Evaluation
from ...plane.shapes import Point
from ...plane.tolerances import PLAIN_TO_SEE, VISUAL
from ..positions.drags import Handle
from ..verdict import Break, Drag, Failure, Outcome, Whose
from .examination import Examination, spread
from .findings import Ruling, finite
from .trial import Trial

STARTS = 24
"""Failing positions from which a simpler one is looked for."""


SHORTENED = 3
"""The simplest of them whose way is shortened."""

PATH = 25
"""Places on the way of a sliding point that are told."""

STOPS, FURTHER = 64, 6
"""Places along the way to a failing position that are looked at for an earlier failure, and how many of them it goes on
from there, so that what vanishes is seen to have gone."""

MAX_TOGETHER = 8
"""Points of which pairs are dragged."""


def simplest_break(examined: Examination, trial: Trial) -> Break | None:
    """The simplest failing position, or None where nothing needs to be dragged, or no failure can be seen.

    >>> from widepin.judge.judging import judge
    >>> ends = (Step("A", "free_point", at=(0, 0)), Step("B", "free_point", at=(4, 0)))
    >>> halfway = Condition("midpoint", ("M", "A", "B"))
    >>> middle = Task("", ends, (Allowance("points"),), (Wanted("M", "point"),), (halfway,))
    >>> found = judge(middle, Work((Step("P", "free_point", at=(2, 0)),))).breaks
    >>> [drag.id for drag in found.drags], found.happens.value, found.object
    (['A'], 'wrong', 'P')
    """
    if not trial.failing or trial.outcome is Outcome.APPROXIMATE:
        return None
    for enough in (PLAIN_TO_SEE, VISUAL):
        for position in _tries(examined, trial, enough):
            ruling, gap = examined.certify(position.tolist(), trial.answer)
            if ruling is Ruling.UNDEFINED or (ruling is Ruling.WRONG and gap > enough):
                return _described(examined, trial, position, ruling)
    return None


def _tries(examined: Examination, trial: Trial, enough: float) -> Iterator[Floats]:
    """Positions in which floats see the answer fail by enough, the simplest first."""
    seen = trial.look.undefined | (trial.look.there & (~trial.look.clear | (trial.look.gap > enough)))
    failing = np.zeros(len(seen), dtype=bool)
    failing[list(trial.failing)] = True
    columns = np.flatnonzero(failing & seen & trial.only_given_dragged)
    if not len(columns):
        columns = np.flatnonzero(failing & seen)
    if not len(columns):
        return
    starts = trial.batch.positions[:, spread(columns, STARTS)]
    simpler = _with_fewer_points(examined, trial, starts, enough)
    if simpler.shape[1]:
        simpler[:, 0] = _with_points_put_back(examined, trial, simpler[:, 0], enough)
    for position in simpler[:, :SHORTENED].T:
        yield _shortened(examined, trial, position, enough)
    yield from simpler.T
    yield from starts.T


def _with_points_put_back(examined: Examination, trial: Trial, position: Floats, enough: float) -> Floats:
    """A failing position from which no point can be put back where it was drawn without the failure going away."""
    moved = [handle for handle in examined.handles if (position[handle.inputs] != examined.drawn[handle.inputs]).any()]
    while len(moved) > 1:
        tries = np.repeat(position[:, None], len(moved), axis=1)
        for index, handle in enumerate(moved):
            tries[handle.inputs, index] = examined.drawn[handle.inputs]
        fails = np.flatnonzero(_fails(examined, trial, tries, enough))
        if not len(fails):
            break
        # The student's own points are put back first.
        put_back = max(fails, key=lambda place: (not moved[place].given, -place))
        position = tries[:, put_back]
        del moved[put_back]
    return position


def _with_fewer_points(examined: Examination, trial: Trial, starts: Floats, enough: float) -> Floats:
    """Failing positions in which only some points differ from the drawing, the simplest first; none if none."""
    given = [handle for handle in examined.handles if handle.given]
    own = [handle for handle in examined.handles if not handle.given]
    moved_together: list[tuple[Handle, ...]] = [
        *((handle,) for handle in given),
        *combinations(given[:MAX_TOGETHER], 2),
        tuple(given),
        *((handle,) for handle in own),
        *combinations(examined.handles[:MAX_TOGETHER], 2),
        tuple(own),
    ]
    kinds_of_drag = list({tuple(handle.number for handle in drag): drag for drag in moved_together if drag}.values())
    tries = np.repeat(examined.drawn[:, None], len(kinds_of_drag) * starts.shape[1], axis=1)
    for place, moved in enumerate(kinds_of_drag):
        for handle in moved:
            tries[handle.inputs, place * starts.shape[1] : (place + 1) * starts.shape[1]] = starts[handle.inputs]
    failing = _fails(examined, trial, tries, enough).reshape(len(kinds_of_drag), -1)
    if not failing.any():
        return starts[:, :0]
    place = int(np.argmax(failing.any(axis=1)))
    columns = place * starts.shape[1] + np.flatnonzero(failing[place])
    lengths = _way(examined, tries[:, columns])
    # The shortest drags first, but those that nobody would see last.
    return tries[:, columns[np.argsort(np.where(lengths < PLAIN_TO_SEE, np.inf, lengths), kind="stable")]]


def _shortened(examined: Examination, trial: Trial, position: Floats, enough: float) -> Floats:
    """The first failing position on the straight way from the drawing to a failing one."""
    shares = np.linspace(0, 1, STOPS + 1)[1:]
    tries = examined.drawn[:, None] + (position - examined.drawn)[:, None] * shares
    failing = _fails(examined, trial, tries, enough)
    fails = np.flatnonzero(failing & (_way(examined, tries) >= PLAIN_TO_SEE))
    if not len(fails):
        return position
    # What vanishes has done so by nothing there: it is dragged on until that can be seen.
    seen = fails[0]
    for stop in range(fails[0] + 1, min(fails[0] + FURTHER, STOPS - 1) + 1):
        if not failing[stop]:
            break
        seen = stop
    return tries[:, seen]


def _way(examined: Examination, positions: Floats) -> Floats:
    """How far the point that is dragged farthest is dragged in each position, as a multiple of the figure's size."""
    farthest = np.zeros(positions.shape[1])
    for handle in examined.handles:
        moved = np.linalg.norm(positions[handle.inputs] - examined.drawn[handle.inputs][:, None], axis=0)
        farthest = np.maximum(farthest, moved * examined.unit(handle) / float(examined.size))
    return farthest


def _fails(examined: Examination, trial: Trial, positions: Floats, enough: float) -> NDArray[np.bool_]:
    """In which positions floats see the answer fail by more than ``enough``, a multiple of the figure's size.

    That is its size in the position or as drawn, whichever is larger: a figure that is dragged small shows little.
    """
    shapes = Evaluation(examined.figure, positions).shapes(examined.needs(trial.answer))
    look = examined.evaluate(shapes, trial.answer)
    shrunk = np.minimum(1.0, examined.measure(shapes).size / float(examined.size))
    failing = look.there & (~look.clear | (look.gap * shrunk > enough))
    if trial.outcome is not Outcome.SWITCHING:
        failing = failing | look.undefined
    return np.broadcast_to(failing, (positions.shape[1],))


def _described(examined: Examination, trial: Trial, position: Floats, ruling: Ruling) -> Break:
    shares = np.linspace(0, 1, PATH)
    dragged = [
        handle
        for handle in examined.handles
        if not np.array_equal(position[handle.inputs], examined.drawn[handle.inputs])
    ]
    needed = examined.figure.ancestors(handle.number for handle in dragged)
    path = Evaluation(examined.figure, examined.drawn[:, None] + (position - examined.drawn)[:, None] * shares).shapes(
        needed
    )
    drags = [_drag(examined, handle, path[handle.number]) for handle in dragged]  # type: ignore[arg-type]
    happens, number = (
        (Failure.UNDEFINED, _first_undefined(examined, trial, position))
        if ruling is Ruling.UNDEFINED
        else (Failure.WRONG, _first_off(examined, trial, position))
    )
    return Break(tuple(drags), happens, examined.figure.nodes[number].step.id, tuple(position.tolist()))


def _drag(examined: Examination, handle: Handle, path: Point[float]) -> Drag:
    """A drag along places that are defined; a free point goes straight."""
    step = examined.figure.nodes[handle.number].step
    places = [(x, y) for x, y in np.array([path.x, path.y]).T.tolist() if math.isfinite(x + y)] or [
        step.at or (0.0, 0.0)
    ]
    if step.make == "free_point":
        places = [places[0], places[-1]]
    return Drag(step.id, places[0], places[-1], Whose.GIVEN if handle.given else Whose.OWN, tuple(places))


def _first_undefined(examined: Examination, trial: Trial, position: Floats) -> int:
    """The first object that the answer is made from and that is gone in this position, as balls see it."""
    needed = examined.figure.ancestors(trial.answer.values())
    in_order = examined.in_submitted_order(needed)

    def compute() -> int:
        shapes = examined.figure.evaluate(BALLS, [ball(float(x)) for x in position], only=needed)
        return next((number for number in in_order if not finite(shapes[number])), in_order[-1])

    try:
        return at_rising_precision(compute)
    except Undecided:  # pragma: no cover - the position was decided before
        return in_order[-1]


def _first_off(examined: Examination, trial: Trial, position: Floats) -> int:
    """The first part of the answer that is off in this position.

    A condition that fails is spoilt by the last of the objects that it names; of several the first is told, since
    others may only follow from it.
    """
    if len(trial.answer) == 1:
        return next(iter(trial.answer.values()))
    shapes = examined.rounded_at(position.tolist(), trial.answer)
    spoilt = []
    for condition, look in zip(
        examined.task.conditions, examined.look_at_each_condition(shapes, trial.answer), strict=True
    ):
        named = [trial.answer[name] for name in condition.names if name in trial.answer]
        if named and not bool(look.visual[0]):
            spoilt.append(examined.in_submitted_order(named)[-1])
    return examined.in_submitted_order(spoilt or trial.answer.values())[0 if spoilt else -1]
