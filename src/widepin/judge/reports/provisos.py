"""Under which condition a work holds that is fragile only by a point of the student's own.

The method is right then, and the point may lie anywhere but for some places. A plain condition on it is looked for
that says exactly where the work holds; else it is that two curves meet.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import permutations

import numpy as np
from numpy.typing import NDArray

from ...plane.arrays import ARRAYS, Mask
from ...plane.figure import Evaluation
from ...plane.measurement import distance
from ...plane.predicates import side
from ...plane.shapes import LINES, Line, Point
from ..task import Condition, Names
from ..trials.examination import Examination, spread
from ..trials.trial import Trial
from ..verdict import Break, Outcome, Whose

MAX_POINTS = 5
"""Given points that the student's is compared with."""

LOOKED_AT = 800
"""Positions in which a condition must say where the work holds."""

AGREES = 0.995
"""Share of them in which it must; on the very limit floats may see either."""


def proviso(examined: Examination, trial: Trial, found: Break | None) -> Condition | None:
    """What must be true of the student's own point for the work to hold, None where that is not what the work is
    fragile by.

    Relations are ``longer_than_half``, ``longer`` and ``shorter`` (of two pairs of points), ``nearer`` (a point, to
    one, than to another), ``same_side`` and ``opposite_side``, ``meet`` (of two curves).
    """
    if trial.outcome is not Outcome.FRAGILE or found is None or found.by is not Whose.OWN:
        return None
    needed = examined.figure.ancestors(trial.answer.values())
    own = [handle for handle in examined.handles if not handle.given and handle.number in needed]
    if len(own) == 1:
        columns = spread(np.flatnonzero(trial.look.counts & trial.batch.in_group("large")), LOOKED_AT)
        right = trial.look.exact[columns]
        for condition, holds in conditions_on(examined, own[0].number, trial.batch.positions[:, columns]):
            if np.mean(holds == right) >= AGREES and holds.any() and not holds.all():
                return condition
    step = examined.figure.nodes[examined.figure.index[found.object]].step
    return Condition("meet", step.sources) if step.make == "intersection" else None


def conditions_on(
    examined: Examination, number: int, positions: NDArray[np.float64]
) -> Iterator[tuple[Condition, Mask]]:
    """Conditions on a point, the plainest first, and in which of the positions each holds."""
    nodes = examined.figure.nodes
    given = examined.given_points[:MAX_POINTS]
    lines = [n for n in range(examined.given) if nodes[n].kind in LINES]
    shapes = Evaluation(examined.figure, positions).shapes(examined.figure.ancestors([number, *given, *lines]))

    def name(n: int) -> str:
        return nodes[n].step.id

    def far(p: int, q: int) -> NDArray[np.float64]:
        a, b = shapes[p], shapes[q]
        assert isinstance(a, Point) and isinstance(b, Point)
        return np.asarray(distance(ARRAYS, a, b))

    me = name(number)
    for a, b in permutations(given, 2):
        mine, between = far(number, a), far(a, b)
        pairs: tuple[Names, Names] = ((me, name(a)), (name(a), name(b)))
        yield Condition("longer_than_half", pairs), mine > between / 2
        yield Condition("longer", pairs), mine > between
        yield Condition("shorter", pairs), mine < between
        yield Condition("nearer", (me, name(a), name(b))), mine < far(number, b)
    own = shapes[number]
    for line in lines:
        drawn = shapes[line]
        for p in given:
            other = shapes[p]
            assert isinstance(drawn, Line) and isinstance(own, Point) and isinstance(other, Point)
            sides = side(drawn, own) * side(drawn, other)
            yield Condition("same_side", (name(line), me, name(p))), sides > 0
            yield Condition("opposite_side", (name(line), me, name(p))), sides < 0
