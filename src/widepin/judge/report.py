"""What a verdict can say beyond its outcome: the raw material that is worded and drawn elsewhere."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Any

import numpy as np

from ..plane.balls import BALLS, Undecided, at_rising_precision, ball
from ..plane.shapes import Kind, Point, Shape, Straight, at_parameter, start
from .conditions import Measure, Term, same
from .drags import TRIANGLES
from .mends import mends, placed_by_eye
from .trial import DIGITS, VISUAL, Board, Trial, finding, seen_by_floats
from .verdict import Break, ConditionReport, Outcome, Report

SAMPLES = 12
"""Positions in which two objects must agree before balls are asked whether they are one."""


def report_on(board: Board, trial: Trial, found: Break | None) -> Report:
    """Everything worth saying about a judged answer."""
    return Report(
        conditions=conditions(board, trial, found),
        shapes=by_shape(board, trial),
        by_eye=by_eye(board, trial),
        repeated=repeated(board),
        mends=mends(board, trial),
    )


def conditions(board: Board, trial: Trial, found: Break | None) -> tuple[ConditionReport, ...]:
    """For each condition, its largest gap in centimetres as drawn and in the break, and whether it looks fulfilled."""
    at_break = board.figure.evaluate_batch(np.array(found.position)[:, None]) if found else None
    reports = []
    for place in range(len(board.task.conditions)):
        drawn_gap, drawn_holds = _look_at(board, trial, place, board.shapes)
        break_gap, break_holds = _look_at(board, trial, place, at_break) if at_break else (None, None)
        reports.append(ConditionReport(place, bool(drawn_holds), drawn_gap, break_holds, break_gap))
    return tuple(reports)


def _look_at(board: Board, trial: Trial, place: int, shapes: list[Shape]) -> tuple[float | None, bool]:
    def look_up(name: str) -> Term:
        number = board.number(name, trial.answer)
        return Term(shapes[number], board.figure.nodes[number].kind)

    with np.errstate(all="ignore"):
        measure = board.measure(shapes)
        found = finding(measure, board.task.conditions[place], look_up)
        gaps, clear = seen_by_floats([found], measure.size, (1,))
        gap, size = float(gaps[0]), float(np.ravel(measure.size)[0])
    return (None, False) if np.isnan(gap) else (gap * size, bool(clear[0]) and gap <= VISUAL)


def by_shape(board: Board, trial: Trial) -> dict[str, str]:
    """For each named shape of the given triangle: "holds", "vanishes" or "goes wrong"."""
    found = {}
    for name in TRIANGLES:
        group = trial.look.counts & board.batch.in_group(f"shape {name}")
        if not group.any():
            continue
        if (trial.look.wrong & group).any():
            found[name] = "goes wrong"
        else:
            found[name] = "vanishes" if (trial.look.undefined & group).any() else "holds"
    return found


def by_eye(board: Board, trial: Trial) -> tuple[str, ...]:
    """The student's own points that the answer hangs on without being tied to anything.

    A point is by eye where moving it alone spoils the answer; a helper that may lie anywhere does not.
    """
    if trial.outcome not in (Outcome.EYEBALLED, Outcome.APPROXIMATE):
        return ()
    rng = np.random.default_rng(11)
    guilty = []
    for number in sorted(placed_by_eye(board, trial)):
        inputs = board.figure.nodes[number].inputs
        moved = np.repeat(board.drawn[:, None], 8, axis=1)
        way = 0.05 * float(board.size) if inputs.stop - inputs.start == 2 else 0.05
        moved[inputs] += rng.uniform(-way, way, (inputs.stop - inputs.start, 8))
        gaps = board.look(board.figure.evaluate_batch(moved), trial.answer).gap
        if not np.allclose(gaps, trial.gap, atol=1e-6, equal_nan=False):
            guilty.append(board.figure.nodes[number].step.id)
    return tuple(guilty)


def repeated(board: Board) -> dict[str, str]:
    """The student's objects that were there already: id -> id of the earlier object.

    Floats compare all objects of a kind in a few positions at once; balls have the last word in one of them.
    """
    columns = np.flatnonzero(board.batch.in_group("large all"))[:SAMPLES]
    nodes = board.figure.nodes
    pairs = []
    for kind in Kind:
        numbers = [n for n in range(board.given + board.own) if nodes[n].kind is kind]
        marks = np.array([_mark(board.batch_shapes[n], columns) for n in numbers])
        for at, earlier in _first_equals(marks):
            if numbers[at] >= len(board.task.done):
                pairs.append((numbers[at], numbers[earlier]))
    return {nodes[n].step.id: nodes[m].step.id for n, m in sorted(proven(board, pairs, columns))}


def _mark(shape: Shape, columns: Any) -> Any:
    """Numbers by which equal objects can be recognised, in a row. Straights: their line, not what spans it."""
    # What nothing moves is one number for all positions.
    values = [value[columns] if np.ndim(value) else np.full(len(columns), value) for value in shape]
    if isinstance(shape, Straight):
        x, y, dx, dy = values
        with np.errstate(all="ignore"):
            length = np.hypot(dx, dy)
            values = [(x * dy - y * dx) / length * np.sign(dx), np.abs(dx) / length, dx * dy / length**2]
    return np.concatenate(values)


def _first_equals(marks: Any) -> Iterator[tuple[int, int]]:
    """Pairs of rows (later, first equal one). Rows must agree on where they are undefined."""
    if len(marks) < 2:
        return
    there = ~np.isnan(marks)
    values = np.nan_to_num(marks)
    for at in range(1, len(marks)):
        off = np.abs(values[:at] - values[at]).max(axis=1)
        equal = (off <= 1e-8 * (1 + np.abs(values[at]).max())) & (there[:at] == there[at]).all(axis=1)
        if equal.any() and there[at].sum() * 4 >= there.shape[1]:
            yield at, int(np.argmax(equal))


def proven(board: Board, pairs: list[tuple[int, int]], columns: Any) -> list[tuple[int, int]]:
    """Those of the pairs of objects that balls find equal in a random position."""
    if not pairs:
        return []
    position = board.batch.positions[:, columns[0]].tolist()
    needed = board.figure.ancestors(number for pair in pairs for number in pair)

    def compute() -> list[tuple[int, int]]:
        shapes = board.figure.evaluate(BALLS, [ball(x) for x in position], only=needed)
        return [(n, m) for n, m in pairs if _equal(board, shapes[n], shapes[m], board.figure.nodes[n].kind)]

    try:
        return at_rising_precision(compute)
    except Undecided:
        return []


def _equal(board: Board, a: Shape, b: Shape, kind: Kind) -> bool:
    """Whether two shapes of balls are equal to sixty digits, rays and segments with their ends."""
    measure = Measure(BALLS, ball(float(board.size)), Point(ball(0), ball(0)))

    def vanish(gaps: Iterable[Any]) -> bool:
        return all(abs(gap) < ball(10) ** -DIGITS for gap in gaps)

    if not vanish(same(measure, Term(a, kind), Term(b, kind)).gaps):
        return False
    if kind is not Kind.SEGMENT:
        return True
    assert isinstance(a, Straight) and isinstance(b, Straight)
    (p, q), (r, s) = ((start(one), at_parameter(one, 1)) for one in (a, b))
    ways = (((p, r), (q, s)), ((p, s), (q, r)))
    return any(vanish(measure.distance(*ends) for ends in way) for way in ways)
