"""Objects that a student made although they were there."""

from __future__ import annotations

from typing import Any

import numpy as np

from ..plane.balls import at_rising_precision
from ..plane.shapes import Kind, Shape, Straight, cross
from .alike import alike
from .board import Board, vanishes


def repeated(board: Board) -> dict[str, str]:
    """The student's objects that were there already: id -> id of the earlier object.

    Floats compare all objects of a kind in a few positions at once; balls have the last word.
    """
    nodes = board.figure.nodes
    pairs = []
    for kind in Kind:
        numbers = [n for n in range(board.given + board.own) if nodes[n].kind is kind]
        rows = np.array([_mark(board.sample(n), kind) for n in numbers])
        for group in alike(rows):
            first, *others = board.in_submitted_order(numbers[at] for at in group)
            pairs += [(n, first) for n in others if n >= len(board.task.done)]
    ids = {nodes[n].step.id: nodes[m].step.id for n, m in pairs if _proven(board, n, m)}
    return {id_: ids[id_] for id_ in sorted(ids, key=board.submitted.__getitem__)}


def _mark(values: Any, kind: Kind) -> Any:
    """Numbers by which equal objects can be recognised, in a row. Lines: the line, not what spans it."""
    if kind is Kind.LINE:
        values = _line(*values)
    elif kind is Kind.SEGMENT:
        x, y, dx, dy = values
        values = [2 * x + dx, 2 * y + dy, np.abs(dx), np.abs(dy), dx * dy]
    elif kind is Kind.RAY:
        x, y, dx, dy = values
        values = [x, y, *_unit(dx, dy)]
    return np.concatenate(values)


def _line(x: Any, y: Any, dx: Any, dy: Any) -> list[Any]:
    ux, uy = _unit(dx, dy)
    off = x * uy - y * ux
    return [off * uy, -off * ux, ux * uy, ux * ux]


def _unit(dx: Any, dy: Any) -> tuple[Any, Any]:
    length = np.hypot(dx, dy)
    return dx / length, dy / length


def _proven(board: Board, n: int, m: int) -> bool:
    """Whether two objects that floats find equal are so to sixty digits."""
    kind, proofs = board.figure.nodes[n].kind, board.proofs
    return at_rising_precision(
        lambda: all(vanishes(gap, board.size) for shapes in proofs for gap in _gaps(shapes[n], shapes[m], kind))
    )


def _gaps(a: Shape, b: Shape, kind: Kind) -> list[Any]:
    """Numbers that all vanish where two shapes of balls are equal; that rays point the same way, floats have seen."""
    if not isinstance(a, Straight) or not isinstance(b, Straight):
        return [x - y for x, y in zip(a, b, strict=True)]
    turn = cross(a.dx, a.dy, b.dx, b.dy)
    if kind is Kind.RAY:
        return [a.x - b.x, a.y - b.y, turn]
    if kind is Kind.LINE:
        return [turn, cross(a.dx, a.dy, b.x - a.x, b.y - a.y)]
    if a.dx * b.dx + a.dy * b.dy < 0:
        b = Straight(b.x + b.dx, b.y + b.dy, -b.dx, -b.dy)
    return [x - y for x, y in zip(a, b, strict=True)]
