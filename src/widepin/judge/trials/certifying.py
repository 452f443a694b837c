"""Truths about a board, and their proof by balls."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from ...plane.arrays import Arrays
from ...plane.balls import BALLS, Ball, Undecided, at_rising_precision, ball
from ...plane.figure import is_defined
from ...plane.makes import circle_through
from ...plane.numbers import N
from ...plane.shapes import Kind, Point, Shape
from ...plane.tolerances import EXACT_IN_FLOATS
from ..conditions import (
    RELATIONS,
    Finding,
    Measure,
    Relation,
    Term,
    TermKind,
    on,
)
from ..task import Condition
from .examination import Examination, spread
from .findings import finding, seen_by_floats, vanishes

FEWEST = 3
"""Positions in which balls prove a truth at least."""

GHOSTS = 6
"""Positions in which floats may see a truth fail before it is dropped; balls look at them."""


def concyclic(measure: Measure[N], *points: Term[N]) -> Finding[N]:
    """All points lie on the circle through the first three; undefined where these lie on one line.

    >>> corners = [Term(Point(x, y), Kind.POINT) for x, y in ((5.0, 0.0), (0.0, 5.0), (-5.0, 0.0), (3.0, -4.0))]
    >>> plain(found(concyclic(unit_figure, *corners)))
    ((0.0,), ())
    """
    p, q, r = (point.shape for point in points[:3])
    circle = Term(circle_through(measure.system, p, q, r), Kind.CIRCLE)  # type: ignore[arg-type]
    return Finding([gap for point in points[3:] for gap in on(measure, point, circle).gaps])


TRUTHS = {
    name: RELATIONS[name]
    for name in (
        *("perpendicular", "equal_length", "on", "tangent", "equal_angle", "ratio", "parallel"),
        *("concurrent", "equidistant"),
    )
} | {"concyclic": Relation("concyclic", (TermKind.POINT,), concyclic, many=4)}
"""The relations that are looked for, the most telling first."""


class Certifier:
    """Proves truths about a board, each in positions where its own objects exist."""

    def __init__(self, examined: Examination, relations: Mapping[str, Relation] = TRUTHS):
        self.examined = examined
        self.relations = relations
        self.in_balls: dict[int, list[Shape[Ball]] | None] = dict(examined.proofs)
        self.size = float(examined.size)
        self.measure = Measure(BALLS, ball(float(examined.size)), Point(ball(0), ball(0)))

    def is_proven(self, truth: Condition) -> bool:
        """Whether floats see a truth hold wherever its objects exist, but for ghosts, and balls prove it.

        They do so where floats see it fail, and on every branch of the figure on which its objects exist.

        >>> made = constructed("c circle A B\\nd circle B A\\nC intersection c d pick=1")
        >>> certifier = Certifier(Examination(apex, made))
        >>> certifier.is_proven(Condition("equal_length", (("A", "C"), ("B", "C"))))
        True
        >>> certifier.is_proven(Condition("ratio", (("A", "C"), ("A", "B")), (2, 1)))
        False
        """
        columns, failing = self.seen_by_floats(truth)
        if len(failing) > GHOSTS or len(columns) < FEWEST:
            return False
        there = set(columns.tolist())
        chosen = [column for column in self.examined.proofs if column in there]
        if len(chosen) < FEWEST:
            chosen += spread(columns, FEWEST)
        proven = self.holds_in_balls(truth, list(dict.fromkeys([*map(int, failing), *chosen])))
        return proven and not self.fails_further(truth)

    def fails_further(self, truth: Condition) -> bool:
        """Whether a truth fails in one of many more positions where floats see it fail, and balls as well.

        >>> made = constructed("c circle A B\\nd circle B A\\nC intersection c d pick=1")
        >>> Certifier(Examination(apex, made)).fails_further(Condition("ratio", (("A", "C"), ("A", "B")), (2, 1)))
        True
        """
        _there, failing = self.seen_by_floats(truth, further=True)
        positions = self.examined.further.positions
        return any(not self.holds_at(truth, positions[:, column].tolist()) for column in spread(failing, GHOSTS))

    def holds_at(self, truth: Condition, position: Sequence[float]) -> bool:
        """Whether balls find a truth in a position, or cannot tell.

        >>> made = constructed("c circle A B\\nd circle B A\\nC intersection c d pick=1")
        >>> truth = Condition("equal_length", (("A", "C"), ("B", "C")))
        >>> Certifier(Examination(apex, made)).holds_at(truth, [0, 0, 3, 1])
        True
        """
        shapes = self.examined.in_balls(position)
        try:
            return shapes is None or at_rising_precision(lambda: self._holds(truth, shapes))
        except Undecided:
            return True

    def seen_by_floats(self, truth: Condition, further: bool = False) -> tuple[NDArray[np.intp], NDArray[np.intp]]:
        """The columns of the batch in which the objects of a truth exist, and those of them in which floats see it
        fail; or of the ``further`` batch.
        """
        examined = self.examined
        evaluation = examined.further_evaluation if further else examined.evaluation
        numbers = [examined.figure.index[name] for name in truth.names]
        shapes = evaluation.shapes(examined.figure.ancestors([*numbers, *examined.given_points]))
        count = (examined.further if further else examined.batch).positions.shape[1]
        with Arrays.quiet():
            there = np.broadcast_to(np.logical_and.reduce([is_defined(shapes[n]) for n in numbers]), (count,))
            measure = examined.measure(shapes)
            gap, clear = seen_by_floats([self.finding(measure, truth, shapes)], measure.size, (count,))
        # Where two points of a pair are one, there is no line through them.
        there = there & ~np.isnan(gap)
        return np.flatnonzero(there), np.flatnonzero(there & ~((gap < EXACT_IN_FLOATS) & clear))

    def holds_in_balls(self, truth: Condition, columns: Sequence[int]) -> bool:
        """Whether a truth holds in these columns of the batch, to ``DIGITS`` digits; where its objects are gone, it
        is not denied.
        """
        found = [self.shapes_in_balls(column) for column in columns]
        try:
            return at_rising_precision(
                lambda: all(shapes is not None and self._holds(truth, shapes) for shapes in found)
            )
        except Undecided:
            return False

    def _holds(self, truth: Condition, shapes: Sequence[Shape[Ball]]) -> bool:
        seen = self.finding(self.measure, truth, shapes)
        if any(value.is_nan() for value in (*seen.gaps, *seen.margins)):
            return True
        return all(vanishes(gap, self.size) for gap in seen.gaps) and all(m > 0 for m in seen.margins)

    def shapes_in_balls(self, column: int) -> list[Shape[Ball]] | None:
        """The whole board in balls in a column of the batch."""
        if column not in self.in_balls:
            self.in_balls[column] = self.examined.in_balls(self.examined.batch.positions[:, column].tolist())
        return self.in_balls[column]

    def finding(self, measure: Measure[N], truth: Condition, shapes: Sequence[Shape[N]]) -> Finding[N]:
        """What a truth finds in these shapes."""
        nodes, index = self.examined.figure.nodes, self.examined.figure.index
        return finding(measure, truth, lambda name: Term(shapes[index[name]], nodes[index[name]].kind), self.relations)
