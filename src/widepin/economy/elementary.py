"""The search with ruler and compass alone: lines, rays, segments and circles, with a few arbitrary points.

The work is done by ``kernel``; here a goal becomes arrays, paths that were found become steps, and the judge has the
last word. A search goes depth by depth, first without arbitrary points, then with one, and says where it stopped, so
that it can go on there.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from threading import Timer
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..judge.task import Task
from ..plane.shapes import LINES, Kind
from . import kernel
from .board import SOURCES, Board, Candidates, Origin
from .goal import Goal

MOVES = {
    "line": kernel.LINE,
    "ray": kernel.RAY,
    "segment": kernel.SEGMENT,
    "circle": kernel.CIRCLE,
    "circle_radius": kernel.CIRCLE_RADIUS,
}
"""The makes that the kernel knows, by its numbers."""

NAMES = {number: name for name, number in MOVES.items()}

CURVES = {
    Kind.LINE: kernel.LINE,
    Kind.RAY: kernel.RAY,
    Kind.SEGMENT: kernel.SEGMENT,
    Kind.CIRCLE: kernel.CIRCLE,
    Kind.POINT: kernel.POINT,
}

NO_LIMIT = 1_000


@dataclass(frozen=True)
class Means:
    """What may be drawn: how often each make, None as often as one likes; where arbitrary points are put.

    ``free``: a place, if any; ``on_curves``: parameters on a segment and on other curves, if any. ``opening``:
    two points of the board, of a compass with one radius.
    """

    limits: Mapping[str, int | None]
    free: tuple[float, float] | None
    on_curves: tuple[float, float] | None
    opening: tuple[int, int] | None = None


class Elementary:
    """A search for a goal from a board, with ``means``; ``task``: whose wanted objects say which kinds will do."""

    def __init__(self, task: Task, goal: Goal, board: Board, means: Means):
        self.task, self.goal, self.board, self.means = task, goal, board, means
        self.sheet = _sheet(board, means)
        self.goals = _goals(task, goal)

    @property
    def states(self) -> int:
        """Boards that were looked at."""
        return int(self.sheet.counts[kernel.STATES])

    def branches(self, moves: int, points: int, first: int = 0) -> Iterator[tuple[int, int]]:
        """Look at one depth, one first move after the other from ``first`` on: its number, and how many there are.

        What was found meanwhile is in ``paths``.
        """
        number, count = first, first + 1
        while number < count and not self.is_stopped:
            self.sheet.counts[kernel.FOUND] = 0
            root = number if moves + points > 1 else -1
            count = int(kernel.grow(self.sheet, self.goals, moves, points, 0, -1, root))
            count = count if root >= 0 else 1
            yield number, count
            number += not self.is_stopped

    @property
    def is_stopped(self) -> bool:
        """Whether the time was over, or there was no room, so that the last branch was not looked at whole."""
        return bool(self.sheet.counts[kernel.STOP] or self.sheet.counts[kernel.FULL])

    def stop(self) -> None:
        """Stop soon; from another thread."""
        self.sheet.counts[kernel.STOP] = 1

    def paths(self) -> Iterator[Board]:
        """The boards that reach an answer, as far as they were found in the last branch, each as it was drawn."""
        for n in range(int(self.sheet.counts[kernel.FOUND])):
            board = self._followed(self.sheet.found[n])
            if board is not None:
                yield board

    def _followed(self, path: NDArray[np.float64]) -> Board | None:
        board: Board | None = self.board
        for row in path:
            assert board is not None
            if row[0] < 0:
                break
            x, y = float(row[1]), float(row[2])
            match int(row[0]):
                case kernel.FREE_POINT:
                    board = board.with_point(x, y, Origin("free_point", at=(x, y)))
                case kernel.POINT_ON:
                    board = board.with_point(x, y, Origin("point_on", (("C", int(row[7])),), at=(x, y)))
                case move:
                    board = self._drawn(board, NAMES[move], row)
            if board is None:
                return None
        return board

    def _drawn(self, board: Board, make: str, row: NDArray[np.float64]) -> Board | None:
        """The board after a move; None where one of its points was too close to others to be told from them."""
        needed = 1 if make == "circle_radius" and self.means.opening else len(SOURCES[make])
        places = [board.place_of(float(row[n]), float(row[n + 1])) for n in (1, 3, 5)[:needed]]
        places += self.means.opening or () if needed < len(SOURCES[make]) else ()
        if any(place is None for place in places):
            return None
        rows = np.array([places], np.int64)
        shape = board.made(make, rows)
        return board.after(Candidates(make, rows, shape), 0, make)


def in_time(search: Elementary, seconds: float) -> Timer:
    """A timer that stops a search, started."""
    timer = Timer(seconds, search.stop)
    timer.daemon = True
    timer.start()
    return timer


def _row(kind: Kind, shape: Any) -> tuple[float, ...]:
    if kind is Kind.POINT:
        return (kernel.POINT, float(shape.x), float(shape.y), 0.0, 0.0)
    if kind is Kind.CIRCLE:
        return (kernel.CIRCLE, float(shape.x), float(shape.y), float(np.sqrt(shape.rr)), 0.0)
    return (CURVES[kind], float(shape.x), float(shape.y), float(shape.dx), float(shape.dy))


def _goals(task: Task, goal: Goal) -> kernel.Goals:
    terms, kinds, firsts = [], [], [0]
    any_straight = any(one.kind == "straight" for one in task.wanted)
    for answer in goal.answers:
        for term in answer.values():
            terms.append(_row(term.kind, term.shape))
            will_do = LINES if term.kind is Kind.LINE and any_straight else {term.kind}
            kinds.append(sum(1 << CURVES[kind] for kind in will_do))
        firsts.append(len(terms))
    return kernel.Goals(np.array(terms, float).reshape(-1, 5), np.array(kinds, np.int64), np.array(firsts, np.int64))


def _sheet(board: Board, means: Means) -> kernel.Sheet:
    a, b = means.opening or (0, 0)
    most = kernel.MOST_POINTS, kernel.MOST_CURVES, kernel.MOST_MOVES, kernel.MOST_FOUND
    limits = [means.limits.get(name, 0) for name in MOVES]
    sheet = kernel.Sheet(
        at=np.zeros((most[0], 2)),
        on=np.zeros(most[0], np.uint64),
        curves=np.zeros((most[1], 5)),
        counts=np.zeros(7, np.int64),
        may=np.array(
            [[board.used.get(name, 0) for name in MOVES], [NO_LIMIT if one is None else one for one in limits]],
            np.int64,
        ),
        means=np.array(
            [
                board.size,
                np.hypot(*(board.points[a] - board.points[b])) if means.opening else 0.0,
                *(means.free or (0.0, 0.0)),
                means.free is not None,
                *(means.on_curves or (np.inf, np.inf)),
            ],
            float,
        ),
        tried=np.zeros(kernel.TABLE, np.int64),
        places=np.zeros(kernel.TABLE, np.int64),
        path=np.zeros((2 * most[2], 8)),
        found=np.zeros((most[3], 2 * most[2], 8)),
    )
    for x, y in board.points:
        kernel.add_point(sheet, float(x), float(y), np.uint64(0))
    for curve in board.curves:
        kernel.push(sheet, np.array(_row(curve.kind, curve.shape)))
    return sheet
