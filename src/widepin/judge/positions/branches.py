"""Which positions balls look at: some on every branch that arrays can see.

Within a branch (which of two intersections is taken, on which side of a line a point lies, in which order points lie
on a line, which circle is larger) coordinates depend on the position smoothly, so an answer that is exact in a random
position of a branch is exact on all of it. Where the branches of an answer differ by less than doubles can tell, only
a probe on each can see it.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from ...plane.arrays import ARRAYS, Floats, Mask
from ...plane.figure import Figure
from ...plane.intersections import other_intersection
from ...plane.predicates import acute, side
from ...plane.shapes import (
    Circle,
    Kind,
    Line,
    Point,
    Shape,
    cross,
    dot,
    line_through,
    mapped,
)
from ...plane.steps import Step

MAX_COMPARED = 12
"""Points, and lines, that are compared with each other: the last that the answer needs."""

LOOKED_AT = 192
"""Positions among which probes are chosen."""


def across_branches(
    figure: Figure, numbers: Sequence[int], shapes: Sequence[Shape[Floats]], columns: NDArray[np.intp], count: int
) -> list[int]:
    """At most ``count`` of these columns of a batch, so that each branch that some take is taken by one at least.

    ``numbers``: the objects that the answer is made from, in order; ``shapes``: theirs in the whole batch.
    """
    every, columns = columns, columns[:: max(1, len(columns) // LOOKED_AT)]
    if len(columns) <= count or not any(map(takes_branches, (figure.nodes[number].step for number in numbers))):
        return [int(column) for column in columns[:: -(-len(columns) // count)]] if len(columns) else []
    columns = np.union1d(columns, with_rare_signs(branches(figure, numbers, shapes, every), every, columns))
    signs = branches(figure, numbers, shapes, columns)
    sides = np.concatenate([signs, ~signs]).astype(np.float32)
    # Every position is on a branch of its own as well, so that what is left over is spread over all.
    rng = np.random.default_rng(20261125)
    order = rng.permutation(len(columns))
    chosen: list[int] = []
    missing = np.ones(len(sides), dtype=np.float32)
    spread = iter(order)
    while len(chosen) < count:
        gain = missing @ sides if missing.any() else np.zeros(1)
        column = int(np.argmax(gain)) if gain.max() > 0 and len(chosen) * 4 < count * 3 else int(next(spread))
        if column not in chosen:
            chosen.append(column)
        missing[sides[:, column] > 0] = 0
    return [int(columns[column]) for column in chosen]


def with_rare_signs(signs: Mask, every: NDArray[np.intp], columns: NDArray[np.intp]) -> NDArray[np.intp]:
    """Of all columns, one for each sign that none of the chosen ``columns`` has: what is rare is not left to chance.

    ``signs``: (k, n), in every column.

    >>> signs = np.array([[False, False, False, True], [True, False, True, False]])
    >>> with_rare_signs(signs, np.array([10, 11, 12, 13]), np.array([10, 11])).tolist()
    [13]
    """
    among = np.isin(every, columns)
    found = []
    for sides in (signs, ~signs):
        rare = sides.any(axis=1) & ~sides[:, among].any(axis=1)
        found += [int(every[place]) for place in np.argmax(sides[rare], axis=1)]
    return np.array(sorted(set(found)), dtype=np.intp)


def takes_branches(step: Step) -> bool:
    """Whether a step chooses between two intersections by where things lie, not by another point of both curves."""
    return step.make == "intersection" and step.choice != "other_than"


def branches(
    figure: Figure, numbers: Sequence[int], shapes: Sequence[Shape[Floats]], columns: NDArray[np.intp]
) -> Mask:
    """Signs (k, n) that tell branches apart; those that are the same in all the columns are left out."""
    taken = {number: mapped(shapes[number], lambda value: at_columns(value, columns)) for number in numbers}
    with np.errstate(all="ignore"):
        rows = list(_signs(figure, numbers, taken))
    signs = np.zeros((len(rows), len(columns)), dtype=bool)
    for index, row in enumerate(rows):
        signs[index] = row
    varied = signs.any(axis=1) & ~signs.all(axis=1)
    different = {row.tobytes(): index for index, row in enumerate(np.packbits(signs[varied], axis=1))}
    return np.asarray(signs[varied][list(different.values())])


def at_columns(value: Floats, columns: NDArray[np.intp]) -> Floats:
    """A coordinate in some columns of a batch; what nothing moves is one number for all."""
    return value[columns] if isinstance(value, np.ndarray) and value.ndim else value


def _signs(figure: Figure, numbers: Sequence[int], shapes: dict[int, Shape[Floats]]) -> Iterator[Mask]:
    for number in numbers:
        node = figure.nodes[number]
        if node.step.make != "intersection":
            continue
        point = shapes[number]
        assert isinstance(point, Point)
        a, b = (shapes[source] for source in node.sources)
        yield from _signs_of_intersection(a, b, point)
    points = [shape for number in numbers if isinstance(shape := shapes[number], Point)][-MAX_COMPARED:]
    lines = [shape for number in numbers if isinstance(shape := shapes[number], Line)][-MAX_COMPARED:]
    for line in lines:
        for point in points:
            yield side(line, point) > 0
    for one, other in combinations(lines, 2):
        yield dot(one.dx, one.dy, other.dx, other.dy) > 0
        yield cross(one.dx, one.dy, other.dx, other.dy) > 0
    given = [shapes[n] for n in numbers if figure.nodes[n].kind is Kind.POINT and not figure.nodes[n].parents][:5]
    for p, q, r in combinations(given, 3):
        assert isinstance(p, Point) and isinstance(q, Point) and isinstance(r, Point)
        yield side(line_through(p, q), r) > 0
        for apex, end, far in ((p, q, r), (q, r, p), (r, p, q)):
            yield acute(end, apex, far) > 0


def _signs_of_intersection(a: Shape[Floats], b: Shape[Floats], point: Point[Floats]) -> Iterator[Mask]:
    """Which of two it is, where it lies along a line, and how two circles lie to each other."""
    if isinstance(a, Circle) or isinstance(b, Circle):
        other = other_intersection(ARRAYS, a, b, point)
        if isinstance(a, Circle) and isinstance(b, Circle):
            yield side(line_through(Point(a.x, a.y), Point(b.x, b.y)), point) > 0
            yield a.rr > b.rr
            yield (b.x - a.x) ** 2 + (b.y - a.y) ** 2 > np.maximum(a.rr, b.rr)
        for line in (a, b):
            if isinstance(line, Line):
                yield line.dx * (point.x - other.x) + line.dy * (point.y - other.y) > 0
    for line in (a, b):
        if isinstance(line, Line):
            along = (point.x - line.x) * line.dx + (point.y - line.y) * line.dy
            yield along > 0
            yield along > line.dx**2 + line.dy**2
