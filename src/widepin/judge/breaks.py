"""The simplest position in which an answer fails.

From the failing positions of a trial: as few points as possible are dragged, given points rather than the student's
own, and no farther than needed. Floats look for it, balls confirm it.
"""

from __future__ import annotations

import math
from itertools import chain, combinations

import numpy as np
from numpy.typing import NDArray

from ..plane.balls import BALLS, Undecided, at_rising_precision, ball
from ..plane.shapes import Point
from .board import VISUAL, Board, Ruling, finite, spread
from .drags import Handle
from .trial import Trial
from .verdict import Break, Drag, Outcome

Floats = NDArray[np.float64]

STARTS = 40
"""Failing positions from which a simpler one is looked for."""

PLAIN = 5 * VISUAL
"""Gap, as a multiple of the figure's size, that nobody overlooks."""

SHORTENED = 3
"""The simplest of them whose way is shortened."""

PATH = 25
"""Places on the way of a sliding point that are told."""

STOPS = 64
"""Places along the way to a failing position that are looked at for an earlier failure."""


def simplest_break(board: Board, trial: Trial) -> Break | None:
    """The simplest failing position, or None where nothing needs to be dragged for the answer to fail."""
    if not trial.failing or trial.outcome is Outcome.APPROXIMATE:
        return None
    starts = board.batch.positions[:, spread(np.array(trial.failing), STARTS)]
    simpler = starts[:, :0]
    if trial.by_floats:
        starts = starts[:, _fails(board, trial, starts)]
        simpler = _with_fewer_points(board, trial, starts)
    shortened = (_shortened(board, trial, position) for position in simpler[:, :SHORTENED].T)
    for position in chain(shortened, simpler.T, starts.T):
        ruling, _ = board.rule(position.tolist(), trial.answer)
        if ruling in (Ruling.WRONG, Ruling.UNDEFINED):
            return _described(board, trial, position, ruling)
    return None


def _with_fewer_points(board: Board, trial: Trial, starts: Floats) -> Floats:
    """Failing positions in which only one or two points differ from the drawing, the simplest first; none if none."""
    given = [handle for handle in board.handles if handle.given]
    own = [handle for handle in board.handles if not handle.given]
    for moved in chain(
        ([handle] for handle in (*given, *own)),
        (list(pair) for pair in combinations(given, 2)),
        [given],
        (list(pair) for pair in combinations(board.handles[:8], 2)),
    ):
        tries = np.repeat(board.drawn[:, None], starts.shape[1], axis=1)
        for handle in moved:
            tries[handle.inputs] = starts[handle.inputs]
        fails = np.flatnonzero(_fails(board, trial, tries))
        if len(fails):
            ways = np.linalg.norm(tries[:, fails] - board.drawn[:, None], axis=0)
            return tries[:, fails[np.argsort(ways, kind="stable")]]
    return starts[:, :0]


def _shortened(board: Board, trial: Trial, position: Floats) -> Floats:
    """The first failing position on the straight way from the drawing to a failing one."""
    way = np.linspace(0, 1, STOPS + 1)[1:]
    tries = board.drawn[:, None] + (position - board.drawn)[:, None] * way
    fails = np.flatnonzero(_fails(board, trial, tries))
    return tries[:, fails[0]] if len(fails) else position


def _fails(board: Board, trial: Trial, positions: Floats) -> NDArray[np.bool_]:
    look = board.look(board.figure.evaluate_batch(positions, only=board.needs(trial.answer)), trial.answer)
    if trial.outcome is Outcome.EYEBALLED:  # never exact, so only a failure that can be seen is one, plainly at best
        plain = look.counts & ~(look.gap <= PLAIN)
        return plain if plain.any() else look.counts & ~look.visual
    return look.wrong if trial.outcome is Outcome.SWITCHING else look.wrong | look.undefined


def _described(board: Board, trial: Trial, position: Floats, ruling: Ruling) -> Break:
    shares = np.linspace(0, 1, PATH)
    way = board.figure.evaluate_batch(board.drawn[:, None] + (position - board.drawn)[:, None] * shares)
    drags = []
    for handle in board.handles:
        if not np.array_equal(position[handle.inputs], board.drawn[handle.inputs]):
            drags.append(_drag(board, handle, way[handle.number]))  # type: ignore[arg-type]
    happens, number = (
        ("undefined", _first_undefined(board, trial, position))
        if ruling is Ruling.UNDEFINED
        else ("wrong", max(trial.answer.values()))
    )
    return Break(tuple(drags), happens, board.figure.nodes[number].step.id, tuple(position.tolist()))


def _drag(board: Board, handle: Handle, way: Point) -> Drag:
    """A drag along places that are defined; a free point goes straight."""
    step = board.figure.nodes[handle.number].step
    places = [(x, y) for x, y in np.array([way.x, way.y]).T.tolist() if math.isfinite(x + y)] or [step.at or (0.0, 0.0)]
    if step.make == "free_point":
        places = [places[0], places[-1]]
    return Drag(step.id, places[0], places[-1], "given" if handle.given else "own", tuple(places))


def _first_undefined(board: Board, trial: Trial, position: Floats) -> int:
    """The first object that the answer is made from and that is gone in this position, as balls see it."""
    needed = board.figure.ancestors(trial.answer.values())

    def compute() -> int:
        shapes = board.figure.evaluate(BALLS, [ball(float(x)) for x in position], only=needed)
        return next((n for n in sorted(needed) if not finite(shapes[n])), max(needed))

    try:
        return at_rising_precision(compute)
    except Undecided:  # pragma: no cover - the position was decided before
        return max(needed)
