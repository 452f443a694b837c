"""Does the method hold: would other crossings have made the answer right wherever it fails?"""

from __future__ import annotations

from itertools import combinations, islice, product

import numpy as np

from ..plane.shapes import Kind
from .trial import Board, Ruling, Trial
from .verdict import Outcome

MOST_COMBINATIONS = 64
"""Bound on the combinations of crossings that are tried."""

MOST_POSITIONS = 24
"""Failing positions that are looked at."""

CONFIRMED = 4
"""Positions in which balls confirm what floats found."""


def method_holds(board: Board, trial: Trial) -> bool | None:
    """Whether in every failing position another choice of crossings makes the answer right.

    None for outcomes where the question does not arise.
    """
    if trial.outcome not in (Outcome.FRAGILE, Outcome.SWITCHING) or not trial.failing:
        return None
    failing = trial.failing[:: max(1, len(trial.failing) // MOST_POSITIONS)][:MOST_POSITIONS]
    choices = combinations_of_crossings(board, trial)
    if not choices:
        return False
    if not trial.by_floats:
        return all(_mended(board, trial, n, choices) for n in failing[:CONFIRMED])
    positions = board.batch.positions[:, list(failing)]
    needed = board.needs(trial.answer)
    mends = np.array(
        [board.look(board.figure.evaluate_batch(positions, picks, needed), trial.answer).exact for picks in choices]
    )
    if not mends.any(axis=0).all():
        return False
    return all(
        _mended(board, trial, n, [choices[int(np.argmax(mends[:, column]))]])
        for column, n in enumerate(failing[:CONFIRMED])
    )


def combinations_of_crossings(board: Board, trial: Trial) -> list[dict[int, int]]:
    """Ways to pick at the crossings with a circle that the answer needs: all of them, or few changes where many."""
    crossings = needed_crossings(board, trial)
    if not crossings:
        return []
    changed = [tuple(crossings)]
    if 2 ** len(crossings) > MOST_COMBINATIONS:
        changed = [*combinations(crossings, 1), *combinations(crossings, 2)]
    ways = (dict(zip(some, picks, strict=True)) for some in changed for picks in product((1, 2), repeat=len(some)))
    return list(islice(ways, MOST_COMBINATIONS))


def needed_crossings(board: Board, trial: Trial) -> list[int]:
    """The student's crossings with a circle that the answer depends on."""
    nodes = board.figure.nodes
    own = range(len(board.task.done), board.given + board.own)
    return [
        number
        for number in sorted(board.figure.ancestors(trial.answer.values()))
        if number in own
        and nodes[number].step.make == "intersection"
        and any(nodes[source].kind is Kind.CIRCLE for source in nodes[number].sources)
    ]


def _mended(board: Board, trial: Trial, number: int, choices: list[dict[int, int]]) -> bool:
    position = board.batch.positions[:, number].tolist()
    return any(board.rule(position, trial.answer, picks)[0] is Ruling.RIGHT for picks in choices[:16])
