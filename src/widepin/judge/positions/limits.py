"""Positions beyond the limits where objects stop existing or trade places, which chance seldom finds.

An answer that is right in every position of a random batch may still fail in a small corner of it. It then turns
wrong or is gone where something that it is made from comes to a limit: circles that part, a circle whose radius
shrinks to nothing, lines that become parallel, two intersections that are equally near. How far an object is from its
limits is its *clearance*. The search starts where clearances are smallest, makes them smaller still, and looks at the
answer on the way.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence

import numpy as np

from ...plane import measurement
from ...plane.arrays import ARRAYS, Arrays, Floats, Mask
from ...plane.figure import Figure, Node
from ...plane.intersections import other_intersection
from ...plane.makes import MakeName
from ...plane.shapes import (
    Circle,
    Kind,
    Line,
    Point,
    Shape,
    cross,
    line_through,
    mapped,
)
from ...plane.tolerances import ALWAYS_AT_THE_LIMIT, TIGHT
from .drags import Handle

MAX_SEARCHED = 4
"""Limits that are searched for, the tightest first."""

ROUNDS, TRIES = 3, 24
"""Rounds of a search, and positions tried in each for each limit."""

LOOKED_AT = 256
"""Positions of a batch in which clearances are measured."""

MAX_FOUND = 24
"""Failing positions that are given."""

Fails = Callable[[Floats], Mask]
"""In which positions (width, n) the answer fails."""


def beyond_limits(
    figure: Figure,
    numbers: Sequence[int],
    handles: Sequence[Handle],
    positions: Floats,
    shapes: Sequence[Shape[Floats]],
    size: float,
    fails: Fails,
) -> Floats:
    """Positions (width, n) in which the answer fails; n is 0 where the search finds none.

    ``numbers``: the objects whose limits are looked at. ``positions``: (width, m), in none of which the answer fails,
    whose shapes these are; every position between two of them must be within reach. ``size`` in centimetres.
    """
    targets = tightest(figure, numbers, shapes, positions.shape[1], size)
    if not targets:
        return positions[:, :0]
    rng = np.random.default_rng(20261124)
    starts = [positions[:, column] for _, _, column in targets]
    towards = figure.plan(ARRAYS, figure.ancestors(number for number, _, _ in targets))
    tried = []
    for turn in range(ROUNDS):
        tries = np.concatenate([_around(start, handles, positions, 0.5**turn, rng) for start in starts], axis=1)
        tried.append(tries)
        with Arrays.quiet():
            there = towards(tries)
            for index, (number, which, _) in enumerate(targets):
                columns = slice(index * TRIES, (index + 1) * TRIES)
                left = np.broadcast_to(clearances(figure, number, there)[which], (tries.shape[1],))[columns]
                if not np.isnan(left).all():
                    starts[index] = tries[:, columns][:, int(np.nanargmin(left))]
    every = np.concatenate(tried, axis=1)
    return np.asarray(every[:, np.flatnonzero(fails(every))[:MAX_FOUND]])


def _around(
    start: Floats, handles: Sequence[Handle], positions: Floats, reach: float, rng: np.random.Generator
) -> Floats:
    """Tries near a position: part of the way from there to others, half of them with one point dragged only."""
    others = positions[:, rng.integers(positions.shape[1], size=TRIES)]
    moves = (others - start[:, None]) * (reach * rng.uniform(0, 1, TRIES))
    single = rng.integers(len(handles), size=TRIES // 2)
    for number, handle in enumerate(handles):
        moves[handle.inputs, : TRIES // 2] *= single == number
    return start[:, None] + moves


def tightest(
    figure: Figure, numbers: Sequence[int], shapes: Sequence[Shape[Floats]], count: int, size: float
) -> list[tuple[int, int, int]]:
    """Limits that are close in some of ``count`` positions: the object, which of its clearances, and the tightest
    column.
    """
    step = max(1, count // LOOKED_AT)
    looked_at = {
        n: mapped(shapes[n], lambda value: value[::step] if np.ndim(value) else value)
        for n in figure.ancestors(numbers)
    }
    rows, of = [], []
    with Arrays.quiet():
        for number in numbers:
            for which, clearance in enumerate(clearances(figure, number, looked_at)):
                if np.ndim(clearance):
                    rows.append(clearance)
                    of.append((number, which))
    if not rows:
        return []
    seen = np.array(rows) / size
    seen[np.isnan(seen)] = np.inf
    least, column = seen.min(axis=1), seen.argmin(axis=1)
    seen[np.isinf(seen)] = 0
    found: dict[float, tuple[int, int, int]] = {}
    for row in np.flatnonzero((least < TIGHT) & (seen.max(axis=1) > ALWAYS_AT_THE_LIMIT)):
        # Equal radii, and what else has the same clearance, count once.
        found.setdefault(round(float(least[row]), 9), (*of[row], int(column[row]) * step))
    return [found[clearance] for clearance in sorted(found)[:MAX_SEARCHED]]


def clearances(
    figure: Figure, number: int, shapes: Sequence[Shape[Floats]] | Mapping[int, Shape[Floats]]
) -> list[Floats]:
    """How far an object is from each of its limits, in centimetres, NaN where it is gone."""
    node = figure.nodes[number]
    sources = [shapes[source] for source in node.sources]
    shape = shapes[number]
    if node.step.make == "intersection":
        assert isinstance(shape, Point)
        kinds = [figure.nodes[source].kind for source in node.sources]
        found = list(slack(kinds, sources[0], sources[1], shape))
        if node.reference is not None and Kind.CIRCLE in kinds:
            found += _tie(node, sources, shape, shapes[node.reference])
        # An intersection that is gone has no slack, whatever its curves say.
        return [np.where(np.isnan(shape.x), np.nan, value) for value in found]
    if node.step.make == MakeName.CIRCLE_THROUGH:
        p, q, r = sources
        assert isinstance(p, Point) and isinstance(q, Point) and isinstance(r, Point)
        return [np.abs(measurement.offset(ARRAYS, r, line_through(p, q)))]
    if isinstance(shape, Circle):
        return [measurement.radius(ARRAYS, shape)]
    if isinstance(shape, Line) and len(node.sources) > 1 and node.kind is not Kind.POINT:
        return [measurement.length(ARRAYS, shape)] if all(isinstance(source, Point) for source in sources) else []
    return []


def slack(kinds: Sequence[Kind], a: Shape[Floats], b: Shape[Floats], point: Point[Floats]) -> Iterator[Floats]:
    """How far curves could still move apart, in centimetres, before their intersection at the point is gone."""
    if isinstance(a, Circle) and isinstance(b, Circle):
        for beyond in measurement.separation(ARRAYS, a, b):
            yield -beyond
    if isinstance(a, Line) and isinstance(b, Line):
        # Lines that are nearly parallel meet far away. The sine of their angle is counted as if it were at 1 cm.
        yield np.abs(cross(*measurement.unit(ARRAYS, a.dx, a.dy), *measurement.unit(ARRAYS, b.dx, b.dy)))
    for curve, kind, other in ((a, kinds[0], b), (b, kinds[1], a)):
        if not isinstance(curve, Line):
            continue
        if isinstance(other, Circle):
            centre = Point(other.x, other.y)
            yield measurement.radius(ARRAYS, other) - np.abs(measurement.offset(ARRAYS, centre, curve))
        along = measurement.along(ARRAYS, curve, point)
        if kind is not Kind.LINE:
            yield along
        if kind is Kind.SEGMENT:
            yield measurement.length(ARRAYS, curve) - along


def _tie(node: Node, sources: Sequence[Shape[Floats]], point: Point[Floats], reference: Shape[Floats]) -> list[Floats]:
    """How much nearer one intersection is to the point that it is chosen by than the other, in centimetres."""
    if node.step.choice == "other_than":
        return []
    assert isinstance(reference, Point)
    a, b = sources
    assert not isinstance(a, Point) and not isinstance(b, Point)
    other = other_intersection(ARRAYS, a, b, point)
    here, there = (measurement.distance(ARRAYS, one, reference) for one in (point, other))
    return [np.abs(here - there)]
