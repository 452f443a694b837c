"""The positions that a verdict is based on.

A batch is made of *groups*, each a way of dragging: small movements and large ones, of all points, of the given points
alone and of the student's own alone; mirror images; and named shapes where three given points can form a triangle.
In large movements the student's own points go anywhere over the figure and as far around it, wherever they were put, so
that a method is judged and not where a helper happens to lie. The same figure always gets the same batch.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cache
from itertools import permutations
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ...plane.arrays import Floats
from ...plane.figure import Figure, is_defined
from ...plane.shapes import Circle, Kind, Line, Point, Shape

SMALL = 0.02
"""Reach of a small movement, as a multiple of the figure's size."""

LARGE = 1.5
"""Reach of a large movement, as a multiple of the figure's size."""

END = 0.002
"""How close to an end of its segment or ray a sliding point is put, as a share of the way between its points."""

COARSE, DENSE = (300, 180), (3000, 1200)
"""Large movements in the first batch and in the further one: of all points, and of the given or own points alone."""

SMALL_COUNTS = (110, 66)
"""Small movements: of all points, and of the given or own points alone."""

POOL, STRIDE = 1 << 16, 193
"""Random places in a disc that are drawn once for all figures, and how far apart in the pool two points begin to take
theirs.
"""

MIRRORS = 8
"""Lines in which the figure is mirrored."""

TRIANGLES: dict[str, tuple[float, float]] = {
    # angles at the first two corners, in degrees
    "acute": (55, 65),
    "right": (90, 38),
    "obtuse": (118, 36),
    "isosceles": (50, 50),
    "sharp": (9, 80),
    "wide": (160, 11),
    "nearly flat": (176.5, 1.2),
}


@dataclass(frozen=True)
class Batch:
    """Positions to try. ``positions``: (width, n). ``groups``: name, as "shape obtuse" -> its columns."""

    positions: Floats
    groups: dict[str, slice]

    @classmethod
    def of(cls, parts: Sequence[tuple[str, Floats]]) -> Batch:
        """The batch of these groups, each by its name and its positions (width, n).

        >>> Batch.of([("small all", np.zeros((2, 3))), ("mirror", np.ones((2, 1)))]).groups
        {'small all': slice(0, 3, None), 'mirror': slice(3, 4, None)}
        """
        groups, first = {}, 0
        for name, part in parts:
            groups[name] = slice(first, first := first + part.shape[1])
        return cls(np.concatenate([part for _, part in parts], axis=1), groups)

    def joined(self, other: Batch) -> Batch:
        """The groups of both batches; their names must differ.

        >>> Batch.of([("ends", np.zeros((2, 3)))]).joined(Batch.of([("mirror", np.ones((2, 1)))])).positions.shape
        (2, 4)
        """
        parts = [(name, one.positions[:, columns]) for one in (self, other) for name, columns in one.groups.items()]
        return Batch.of(parts)

    def in_group(self, start: str) -> NDArray[np.bool_]:
        """Which positions belong to groups whose name starts so.

        >>> Batch.of([("small all", np.zeros((2, 2))), ("mirror", np.ones((2, 1)))]).in_group("small").tolist()
        [True, True, False]
        """
        inside = np.zeros(self.positions.shape[1], dtype=bool)
        for name, columns in self.groups.items():
            if name.startswith(start):
                inside[columns] = True
        return inside


@dataclass(frozen=True)
class Handle:
    """A point that can be dragged: number of its object, inputs it owns, whether it is given."""

    number: int
    inputs: slice
    given: bool


def handles(figure: Figure, given: int, own: int) -> list[Handle]:
    """The draggable points: those of the first ``given`` objects, and of the ``own`` that follow them.

    >>> [point.number for point in handles(on_a_segment, 3, 2)], handles(on_a_segment, 3, 2)[-1].given
    ([0, 1, 3], False)
    """
    return [
        Handle(number, node.inputs, number < given)
        for number, node in enumerate(figure.nodes[: given + own])
        if node.inputs.stop > node.inputs.start
    ]


@dataclass(frozen=True)
class Region:
    """A disc: the figure and as far around it as large movements reach, in centimetres."""

    middle: Point[float]
    radius: float


def region_about(shapes: Iterable[Shape[float]], middle: Point[float], size: float) -> Region:
    """The region of these given points and circles, about their centroid.

    >>> region_about([Point(0.0, 0.0), Point(4.0, 0.0)], Point(2.0, 0.0), 2.0).radius == 2 + LARGE * 2
    True
    """
    farthest = 0.0
    for shape in shapes:
        if isinstance(shape, Point | Circle) and is_defined(shape):
            beyond = math.sqrt(shape.rr) if isinstance(shape, Circle) else 0.0
            farthest = max(farthest, math.hypot(shape.x - middle.x, shape.y - middle.y) + beyond)
    return Region(middle, farthest + LARGE * size)


def batch(
    figure: Figure,
    drawn: Floats,
    shapes: Sequence[Shape[Floats]],
    points: Sequence[Handle],
    size: float,
    region: Region,
) -> Batch:
    """The positions for a verdict on a figure drawn so: (width, n), in named groups. ``size`` in centimetres.

    The same figure always gets the same batch. A figure in which nothing can be dragged gets its drawing alone.

    >>> drawn, shapes = on_a_segment.drawn()
    >>> points = handles(on_a_segment, 3, 2)
    >>> tried = batch(on_a_segment, drawn, shapes, points, 2.0, Region(Point(2.0, 0.0), 9.0))
    >>> sorted({name.split()[0] for name in tried.groups}), tried.positions.shape[0]
    (['ends', 'large', 'mirror', 'small'], 5)
    """
    rng = np.random.default_rng(20261123)
    given = [point for point in points if point.given]
    parts: list[tuple[str, Floats]] = []
    for whose, moved, count in choices(points, SMALL_COUNTS):
        parts.append((f"small {whose}", dragged(figure, drawn, shapes, moved, SMALL * size, count, rng)))
    for whose, moved, count in choices(points, COARSE):
        parts.append((f"large {whose}", dragged(figure, drawn, shapes, moved, LARGE * size, count, rng, region)))
    parts += ends(figure, drawn, shapes, points, size, region, rng)
    parts += named_shapes(figure, drawn, given, size, rng)
    parts += mirror_images(figure, drawn, points, rng)
    return Batch.of(parts)


def further(
    figure: Figure,
    drawn: Floats,
    shapes: Sequence[Shape[Floats]],
    points: Sequence[Handle],
    size: float,
    region: Region,
) -> Batch:
    """Many more large movements, for a work that has not failed in the first batch.

    >>> drawn, shapes = on_a_segment.drawn()
    >>> points = handles(on_a_segment, 3, 2)
    >>> list(further(on_a_segment, drawn, shapes, points, 2.0, Region(Point(2.0, 0.0), 9.0)).groups)
    ['large all, more', 'large given, more', 'large own, more']
    """
    rng = np.random.default_rng(20261125)
    return Batch.of(
        [
            (f"large {whose}, more", dragged(figure, drawn, shapes, moved, LARGE * size, count, rng, region))
            for whose, moved, count in choices(points, DENSE)
        ]
    )


def choices(points: Sequence[Handle], counts: tuple[int, int]) -> list[tuple[str, list[Handle], int]]:
    """Which points are dragged together: all, the given alone, the own alone; and how often each.

    >>> [(whose, len(moved), count) for whose, moved, count in choices(handles(on_a_segment, 3, 2), (20, 10))]
    [('all', 3, 20), ('given', 2, 10), ('own', 1, 10)]
    """
    own = [point for point in points if not point.given]
    given = [point for point in points if point.given]
    every = [("all", list(points), counts[0])]
    return [*every, ("given", given, counts[1]), ("own", own, counts[1])] if own and given else every


def dragged(
    figure: Figure,
    drawn: Floats,
    shapes: Sequence[Shape[Floats]],
    moved: Sequence[Handle],
    reach: float,
    count: int,
    rng: np.random.Generator,
    region: Region | None = None,
) -> Floats:
    """Positions (width, count) with some points moved at random.

    Without a region, each point moves up to ``reach`` centimetres. With one, that is so for given free points only:
    own free points go anywhere in it, and sliding points over the whole of their curve, on lines and rays as far as
    it reaches.

    >>> drawn, shapes = on_a_segment.drawn()
    >>> moved = dragged(on_a_segment, drawn, shapes, handles(on_a_segment, 3, 2)[:1], 0.5, 40, np.random.default_rng(1))
    >>> bool(np.all(np.hypot(moved[0], moved[1]) <= 0.5)), bool(np.all(moved[2:] == drawn[2:, None]))
    (True, True)
    """
    positions = np.repeat(drawn[:, None], count, axis=1)
    first = int(rng.integers(POOL))
    for index, point in enumerate(moved):
        node = figure.nodes[point.number]
        if node.step.make == "free_point":
            start, radius = drawn[point.inputs][:, None], reach
            if region is not None and not point.given:
                start, radius = np.array([[region.middle.x], [region.middle.y]]), region.radius
            positions[point.inputs] = start + radius * in_unit_disc(first + index * STRIDE, count)
        else:
            kind, curve = figure.nodes[node.sources[0]].kind, shapes[node.sources[0]]
            t = float(drawn[point.inputs][0])
            if region is None:
                positions[point.inputs] = slid(kind, curve, t, reach, count, rng)
            else:
                positions[point.inputs] = anywhere_on(kind, curve, t, region, count, rng)
    return positions


@cache
def _pool() -> Floats:
    """Random places (2, POOL) in the disc of radius 1 about the origin."""
    rng = np.random.default_rng(20261125)
    angle, radius = rng.uniform(0, 2 * math.pi, POOL), np.sqrt(rng.uniform(0, 1, POOL))
    return np.asarray(radius * np.array([np.cos(angle), np.sin(angle)]))


def in_unit_disc(first: int, count: int) -> Floats:
    """Random points (2, count) in the disc of radius 1 about the origin, those of the pool from an index on.

    >>> in_unit_disc(7, 5).shape, bool(np.all(np.hypot(*in_unit_disc(7, 5)) <= 1))
    ((2, 5), True)
    """
    first %= POOL - count
    return _pool()[:, first : first + count]


def slid(kind: Kind, curve: Shape[Floats], t: float, reach: float, count: int, rng: np.random.Generator) -> Floats:
    """Parameters of a sliding point moved up to ``reach`` along its curve, kept on the curve.

    Ends are approached but not reached: there a helper may well coincide with a given point. On a curve that is
    undefined the point stays where it is.

    >>> t = slid(Kind.SEGMENT, Line(0.0, 0.0, 4.0, 0.0), 0.9, 1.0, 200, np.random.default_rng(1))
    >>> bool(np.all((t > 0.6) & (t < 1)))
    True
    """
    if not is_defined(curve):
        return np.full(count, t)
    if isinstance(curve, Circle):
        radius = math.sqrt(curve.rr)
        span = min(reach / radius, math.pi) if radius > 0 else math.pi
        return np.asarray(t + rng.uniform(-span, span, count))
    assert isinstance(curve, Line)
    span = reach / math.hypot(curve.dx, curve.dy)
    moved = t + rng.uniform(-span, span, count)
    if kind is Kind.LINE:
        return np.asarray(moved)
    # What runs over an end is spread over the whole curve instead of piling up at the end.
    far = 1.0 if kind is Kind.SEGMENT else max(t, 0.0) + span
    inside = (moved > 0) & (moved < far)
    return np.asarray(np.where(inside, moved, rng.uniform(max(0, t - span), min(far, t + span), count)))


def anywhere_on(
    kind: Kind, curve: Shape[Floats], t: float, region: Region, count: int, rng: np.random.Generator
) -> Floats:
    """Parameters of a sliding point over the whole of its curve, on lines and rays as far as the region reaches.

    >>> far = Region(Point(0.0, 0.0), 8.0)
    >>> t = anywhere_on(Kind.RAY, Line(0.0, 0.0, 4.0, 0.0), 0.5, far, 200, np.random.default_rng(1))
    >>> bool(np.all((t >= 0) & (t <= 2)))
    True
    """
    if not is_defined(curve):
        return np.full(count, t)
    if isinstance(curve, Circle):
        return np.asarray(t + rng.uniform(-math.pi, math.pi, count))
    assert isinstance(curve, Line)
    if kind is Kind.SEGMENT:
        return rng.uniform(0.0, 1.0, count)
    square = curve.dx**2 + curve.dy**2
    foot = ((region.middle.x - curve.x) * curve.dx + (region.middle.y - curve.y) * curve.dy) / square
    span = region.radius / math.sqrt(square)
    low, high = foot - span, foot + span
    if kind is Kind.RAY:
        low, high = max(low, 0.0), high if high > 0 else span
    return rng.uniform(low, high, count)


def ends(
    figure: Figure,
    drawn: Floats,
    shapes: Sequence[Shape[Floats]],
    points: Sequence[Handle],
    size: float,
    region: Region,
    rng: np.random.Generator,
) -> list[tuple[str, Floats]]:
    """Every point that slides on a segment or ray close to its ends, the others as drawn and elsewhere.

    >>> drawn, shapes = on_a_segment.drawn()
    >>> points, far = handles(on_a_segment, 3, 2), Region(Point(2.0, 0.0), 9.0)
    >>> ((name, positions),) = ends(on_a_segment, drawn, shapes, points, 2.0, far, np.random.default_rng(1))
    >>> sorted({float(t) for t in positions[-1]}) == [END, 1 - END]
    True
    """
    parts = []
    for point in points:
        node = figure.nodes[point.number]
        kind = figure.nodes[node.sources[0]].kind if node.step.make == "point_on" else None
        for t in {Kind.SEGMENT: (END, 1 - END), Kind.RAY: (END,)}.get(kind, ()) if kind else ():
            elsewhere = dragged(figure, drawn, shapes, points, LARGE * size, 3, rng, region)
            positions = np.concatenate([drawn[:, None], elsewhere], axis=1)
            positions[point.inputs] = t
            parts.append(positions)
    return [("ends", np.concatenate(parts, axis=1))] if parts else []


def named_shapes(
    figure: Figure, drawn: Floats, given: Sequence[Handle], size: float, rng: np.random.Generator
) -> list[tuple[str, Floats]]:
    """Triangles of named shapes, either way round and turned, where three given points are free; else nothing.

    >>> drawn, _ = triangle.drawn()
    >>> shaped = named_shapes(triangle, drawn, handles(triangle, 3, 0), 2.0, np.random.default_rng(1))
    >>> shaped[0][0], shaped[0][1].shape
    ('shape acute', (6, 12))
    """
    corners = [point for point in given if figure.nodes[point.number].step.make == "free_point"]
    if len(corners) != 3:
        return []
    home = np.mean([drawn[point.inputs] for point in corners], axis=0)
    parts = []
    for name, angles in TRIANGLES.items():
        positions = []
        for order in permutations(corners):
            for side in (1, -1):
                turn, scale = rng.uniform(0, 2 * math.pi), rng.uniform(0.6, 1.6) * size
                triangle = shaped_triangle(*angles) * [1, side]
                triangle *= scale / math.sqrt(float((triangle**2).sum()) / 3)
                c, s = math.cos(turn), math.sin(turn)
                position = drawn.copy()
                for point, corner in zip(order, triangle @ np.array([[c, s], [-s, c]]), strict=True):
                    position[point.inputs] = home + corner
                positions.append(position)
        parts.append((f"shape {name}", np.array(positions).T))
    return parts


def shaped_triangle(alpha: float, beta: float) -> Floats:
    """Corners (3, 2) of the triangle with these angles, in degrees, at the first two, about its centroid.

    >>> a, b, c = shaped_triangle(90, 45)
    >>> plain(list(b - a)), plain(list(c - a))
    ((1.0, 0.0), (0.0, 1.0))
    """
    a, b = math.radians(alpha), math.radians(beta)
    side = math.sin(b) / math.sin(a + b)
    triangle = np.array([[0, 0], [1, 0], [side * math.cos(a), side * math.sin(a)]])
    return np.asarray(triangle - triangle.mean(axis=0))


def mirror_images(
    figure: Figure, drawn: Floats, points: Sequence[Handle], rng: np.random.Generator
) -> list[tuple[str, Floats]]:
    """The figure mirrored in lines through its centre, with and without the student's own points.

    >>> drawn, _ = triangle.drawn()
    >>> ((_, positions),) = mirror_images(triangle, drawn, handles(triangle, 3, 0), np.random.default_rng(1))
    >>> sides = np.hypot(positions[2] - positions[0], positions[3] - positions[1])  # of A and B, in every image
    >>> bool(np.allclose(sides, 4))
    True
    """
    free = [point for point in points if figure.nodes[point.number].step.make == "free_point"]
    if not free:
        return []
    home = np.mean([drawn[point.inputs] for point in free], axis=0)
    angles = 2 * rng.uniform(0, math.pi, MIRRORS)
    c, s = np.cos(angles), np.sin(angles)
    positions = np.repeat(drawn[:, None], 2 * MIRRORS, axis=1)
    for point in free:
        x, y = drawn[point.inputs] - home
        mirrored = home[:, None] + np.array([c * x + s * y, s * x - c * y])
        positions[point.inputs, :MIRRORS] = mirrored
        if point.given:
            positions[point.inputs, MIRRORS:] = mirrored
    return [("mirror", positions)]


def extent(points: Sequence[Point[Any]]) -> tuple[Point[Any], Any]:
    """Centroid and size of points: the root mean square of their distances from it (arrays or floats).

    >>> plain(extent([Point(0.0, 0.0), Point(4.0, 0.0)]))
    ((2.0, 0.0), 2.0)
    """
    x = sum(point.x for point in points) / len(points)
    y = sum(point.y for point in points) / len(points)
    square = sum((point.x - x) ** 2 + (point.y - y) ** 2 for point in points) / len(points)
    return Point(x, y), np.sqrt(square)
