"""What a verdict can say beyond its outcome: the raw material that is worded and drawn elsewhere."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import cache

import numpy as np
from numpy.typing import NDArray

from ..plane.shapes import Shape
from .alike import CLOSE
from .conditions import Term
from .costs import Costs, Way, costs
from .counts import is_move
from .drags import TRIANGLES
from .measured import measured
from .mends import mends, placed_by_eye
from .repeats import repeated
from .trial import VISUAL, Board, Trial, finding, seen_by_floats
from .truths import what_stays_true
from .verdict import Break, ConditionReport, Outcome, Report


def report_on(board: Board, trial: Trial | None, found: Break | None) -> Report:
    """Everything worth saying about a work; of its answer, where it has one that looks right."""
    first, last, every = len(board.task.done), board.given + board.own, len(board.figure.nodes)
    again = repeated(board)
    answer = sorted(trial.answer.values()) if trial else []
    common = Report(
        repeated=again,
        truths=what_stays_true(board, answer, list(again)),
        costs=costs_of(board, first, last),
        model_costs=costs_of(board, last, every) if every > last else None,
    )
    if trial is None:
        return common
    return replace(
        common,
        conditions=conditions(board, trial, found),
        shapes=by_shape(board, trial),
        by_eye=by_eye(board, trial),
        mends=mends(board, trial),
    )


def conditions(board: Board, trial: Trial, found: Break | None) -> tuple[ConditionReport, ...]:
    """For each condition, its largest gap in centimetres as drawn and in the break, and whether it looks fulfilled."""
    at_break = board.figure.evaluate_batch(np.array(found.position)[:, None]) if found else None
    reports = []
    for place in range(len(board.task.conditions)):
        drawn_gap, drawn_holds = _look_at(board, trial, place, board.shapes)
        break_gap, break_holds = _look_at(board, trial, place, at_break) if at_break else (None, None)
        values = measured(
            board.task.conditions[place],
            _one_position(board, trial, board.shapes),
            _one_position(board, trial, at_break) if at_break else None,
        )
        reports.append(ConditionReport(place, bool(drawn_holds), drawn_gap, break_holds, break_gap, values))
    return tuple(reports)


def _one_position(board: Board, trial: Trial, shapes: list[Shape]) -> Callable[[str], Term]:
    """What names stand for in one position, in plain floats."""

    def look(name: str) -> Term:
        number = board.number(name, trial.answer)
        shape = type(shapes[number])(*(float(np.ravel(value)[0]) for value in shapes[number]))
        return Term(shape, board.figure.nodes[number].kind)

    return look


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


def costs_of(board: Board, first: int, last: int) -> Costs:
    """What the objects from number ``first`` to before ``last`` cost."""

    @cache
    def length(way: Way) -> NDArray[np.float64]:
        (px, py), (qx, qy) = (board.sample(point) for point in way)
        return np.asarray(np.hypot(px - qx, py - qy) / float(board.size))

    def same_way(a: Way, b: Way) -> bool:
        return bool(np.nanmax(np.abs(length(a) - length(b)), initial=0.0) < CLOSE)

    return costs(board.figure, range(first, last), is_move, same_way)
