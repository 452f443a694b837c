"""Whether the point that an intersection names with ``other_than`` lies on both curves in every position.

Mostly that is plain from how curve and point were made. Where it is not, balls look at the point in random positions.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property

import numpy as np

from ...plane.balls import (
    BALLS,
    PRECISIONS,
    Ball,
    Undecided,
    at_precision,
    ball,
    sign,
)
from ...plane.figure import Figure
from ...plane.makes import MAKES
from ...plane.predicates import incidence
from ...plane.rules import StepRule, broken
from ...plane.shapes import Point, Shape
from ...plane.steps import IllFormed
from .drags import LARGE, dragged, extent, handles

POSITIONS = 4


def check_references(figure: Figure, first: int) -> None:
    """That every ``other_than`` from object ``first`` on names a point of both curves. Raises IllFormed.

    The index in the error counts from ``first``.
    """
    watch = Watch(figure)
    for number, node in enumerate(figure.nodes[first:]):
        if node.step.choice != "other_than" or node.reference is None:
            continue
        reference = node.reference
        if all(passes_through(figure, curve, reference) for curve in node.sources):
            continue
        for curve, source in zip(node.sources, node.step.sources, strict=True):
            if not watch.stays_on(reference, curve):
                raise IllFormed(
                    number,
                    "other_than",
                    broken(StepRule.NOT_ON_BOTH, reference=node.step.reference, source=source),
                    node.step.id,
                )


def passes_through(figure: Figure, curve: int, point: int) -> bool:
    """Whether the curve passes through the point by the making of one of them."""
    node = figure.nodes[curve]
    defining = [node.sources[entry] for entry in MAKES[node.step.make].through]
    point_made = figure.nodes[point]
    return point in defining or (point_made.step.make in ("point_on", "intersection") and curve in point_made.sources)


class Watch:
    """Balls watch the points of a figure in random positions, which are made when they are first needed."""

    def __init__(self, figure: Figure):
        self.figure = figure
        self._evaluated: dict[tuple[int, int], list[Shape[Ball] | None]] = {}

    @cached_property
    def positions(self) -> list[list[float]]:
        """As drawn, and after some large movements."""
        figure = self.figure
        drawn, shapes = figure.drawn()
        points = handles(figure, len(figure.nodes), 0)
        places = [shape for shape in shapes if isinstance(shape, Point) and np.isfinite(shape.x)]
        size = float(extent(places)[1]) if places else 1.0
        rng = np.random.default_rng(7)
        moved = dragged(figure, drawn, shapes, points, LARGE * max(size, 1e-3), POSITIONS - 1, rng)
        found: list[list[float]] = np.concatenate([drawn[:, None], moved], axis=1).T.tolist()
        return found

    def stays_on(self, point: int, curve: int) -> bool:
        """Whether the point is found on the curve (its line, for a ray or segment) wherever both exist."""
        return all(self._lies_on(index, point, curve) is not False for index in range(len(self.positions)))

    def _lies_on(self, place: int, point: int, curve: int) -> bool | None:
        for bits in PRECISIONS:
            there = self._shapes(place, bits)
            one, other = there[point], there[curve]
            if one is None or other is None:
                continue
            try:
                return at_precision(bits, lambda: _zero(*incidence(one, other)))  # noqa: B023
            except Undecided:
                continue
        return None

    def _shapes(self, place: int, bits: int) -> list[Shape[Ball] | None]:
        """The whole figure in one position in balls of so many bits, made once; None for what they cannot decide."""
        key = (place, bits)
        if key not in self._evaluated:
            self._evaluated[key] = at_precision(bits, lambda: self._evaluate(self.positions[place]))
        return self._evaluated[key]

    def _evaluate(self, position: Sequence[float]) -> list[Shape[Ball] | None]:
        shapes: list[Shape[Ball] | None] = []
        own = [ball(x) for x in position]
        for node in self.figure.nodes:
            try:
                known = all(shapes[parent] is not None for parent in node.parents)
                shapes.append(node.link.made(BALLS, shapes, own) if known else None)  # type: ignore[arg-type]
            except Undecided:
                shapes.append(None)
        return shapes


def _zero(x: Ball, size: Ball) -> bool | None:
    """Whether a ball is zero, None where it is undefined. Raises Undecided."""
    s = sign(x, size)
    return None if s is None else s == 0
