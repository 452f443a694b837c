"""What can be measured of a condition: the values that should be equal, or zero, or a right angle."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence

import numpy as np

from ...plane import measurement
from ...plane.arrays import ARRAYS, Arrays
from ...plane.intersections import intersection
from ...plane.rows import complete
from ...plane.shapes import (
    Circle,
    Kind,
    Line,
    Point,
    Shape,
    cross,
    dot,
    line_through,
)
from ..conditions import RelationName, Term
from ..task import Condition, Names
from ..verdict import Measured, Quantity

Look = Callable[[str], Term[float]]


Value = tuple[Quantity, tuple[Names, ...], float | None]
"""What is measured, of which terms, and the value: centimetres, degrees or square centimetres."""


def measured(condition: Condition, drawn: Look, at_break: Look | None) -> tuple[Measured, ...]:
    """The values of a condition as drawn and in the break: centimetres, and degrees for angles.

    ``drawn`` and ``at_break`` give what a name stands for in one position, in floats. Conditions on order alone have no
    values.
    """
    measure = MEASURES[condition.rel]
    with Arrays.quiet():
        before = list(measure(condition.of, drawn))
        after = [value for *_, value in measure(condition.of, at_break)] if at_break else [None] * len(before)
    return tuple(
        Measured(what, of, _number(value), _number(later))
        for (what, of, value), later in zip(before, after, strict=True)
    )


def nothing(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """Conditions on order alone, and on points being different, have no values."""
    yield from ()


def lengths(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """The distance of every pair of points."""
    yield from ((Quantity.LENGTH, (pair,), _length(pair, look)) for pair in of)


def halves(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """How far a point lies from each of two others."""
    yield from ((Quantity.LENGTH, ((str(of[0]), str(end)),), _length((str(of[0]), str(end)), look)) for end in of[1:])


def angles(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """Every angle, vertex second."""
    yield from ((Quantity.ANGLE, (triple,), _angle_at(triple, look)) for triple in of)


def areas(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """The area of every triangle."""
    yield from ((Quantity.AREA, (triple,), _area(triple, look)) for triple in of)


def from_first_line(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """How far points lie from the line through the first two."""
    p, q, *others = map(str, of)
    line = _line((p, q), look)
    yield from ((Quantity.DISTANCE, (one, (p, q)), distance_between(look(one).shape, line)) for one in others)


def from_each_line(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """How far a point lies from each of several lines."""
    point, *lines = of
    yield from (
        (Quantity.DISTANCE, (point, one), distance_between(look(str(point)).shape, _line(one, look))) for one in lines
    )


def misses(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """How far lines miss the point in which the first two meet."""
    first, second, *others = (_line(term, look) for term in of)
    with Arrays.quiet():
        meeting = intersection(ARRAYS, first, Kind.LINE, second, Kind.LINE)
    yield from (
        (Quantity.DISTANCE_OF_INTERSECTION, (of[0], of[1], term), distance_between(meeting, line))
        for term, line in zip(of[2:], others, strict=True)
    )


def between_lines(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """The angle of two lines."""
    yield Quantity.ANGLE, tuple(of), angle_between(_line(of[0], look), _line(of[1], look))


def off_its_curve(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """How far a point lies from a curve, and how far beyond its end."""
    point, curve = look(str(of[0])).shape, _curve(of[1], look)
    yield Quantity.DISTANCE, tuple(of), distance_between(point, curve)
    if isinstance(curve, Line) and isinstance(point, Point) and _ends(of[1], look):
        yield Quantity.BEYOND_END, tuple(of), _beyond_end(point, curve, look(str(of[1])).kind)


def touching(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """How far a circle's centre lies from a line or another centre, and the radii."""
    shapes = [_curve(term, look) for term in of]
    circles = [(term, shape) for term, shape in zip(of, shapes, strict=True) if isinstance(shape, Circle)]
    if len(circles) == 2:
        (_, a), (_, b) = circles
        yield Quantity.DISTANCE_OF_CENTRES, tuple(of), distance_between(Point(a.x, a.y), Point(b.x, b.y))
    else:
        ((name, circle),) = circles
        term, line = next((t, s) for t, s in zip(of, shapes, strict=True) if isinstance(s, Line))
        centre = Point(circle.x, circle.y)
        yield Quantity.DISTANCE_OF_CENTRE, (name, term), distance_between(centre, line)
        if _ends(term, look):
            yield Quantity.BEYOND_END, (name, term), _beyond_end(centre, line, look(str(term)).kind)
    yield from ((Quantity.RADIUS, (term,), _radius(circle)) for term, circle in circles)


def differing(of: Sequence[Names], look: Look) -> Iterator[Value]:
    """How far two objects are from being one: distances, radii, the angle of two lines."""
    x, y = (_curve(term, look) for term in of)
    if isinstance(x, Circle) and isinstance(y, Circle):
        yield from ((Quantity.RADIUS, (term,), _radius(circle)) for term, circle in zip(of, (x, y), strict=True))
    elif isinstance(x, Line) and isinstance(y, Line):
        rays = all(isinstance(term, str) and look(term).kind is Kind.RAY for term in of)
        yield Quantity.ANGLE, tuple(of), _turn(x, y) if rays else angle_between(x, y)
        yield Quantity.DISTANCE, tuple(of), distance_between(Point(x.x, x.y), y)
    else:
        yield Quantity.DISTANCE, tuple(of), distance_between(x, y)


R = RelationName

MEASURES: dict[str, Callable[[Sequence[Names], Look], Iterator[Value]]] = complete(
    "MEASURES",
    RelationName,
    {
        R.SAME: differing,
        R.ON: off_its_curve,
        R.PARALLEL: between_lines,
        R.PERPENDICULAR: between_lines,
        R.TANGENT: touching,
        R.MIDPOINT: halves,
        R.COLLINEAR: from_first_line,
        R.CONCURRENT: misses,
        R.EQUIDISTANT: from_each_line,
        R.EQUAL_LENGTH: lengths,
        R.EQUAL_ANGLE: angles,
        R.EQUAL_AREA: areas,
        R.RATIO: lengths,
        R.DISTINCT: nothing,
        R.SAME_SIDE: nothing,
        R.OPPOSITE_SIDE: nothing,
        R.INSIDE_ANGLE: nothing,
    },
)
"""What is measured of each relation."""


def _curve(term: Names, look: Look) -> Shape[float]:
    return look(term).shape if isinstance(term, str) else _line(term, look)


def _line(term: Names, look: Look) -> Line[float]:
    if isinstance(term, str):
        shape = look(term).shape
        assert isinstance(shape, Line)
        return shape
    p, q = (look(name).shape for name in term)
    assert isinstance(p, Point) and isinstance(q, Point)
    return line_through(p, q)


def _ends(term: Names, look: Look) -> bool:
    """Whether a term is a ray or a segment."""
    return isinstance(term, str) and look(term).kind in (Kind.RAY, Kind.SEGMENT)


def _beyond_end(point: Point[float], line: Line[float], kind: Kind) -> float:
    """How far the foot of a point lies beyond the ends of a ray or segment, in centimetres; 0 within."""
    with Arrays.quiet():
        t = float(measurement.parameter(ARRAYS, line, point))
        length = float(measurement.length(ARRAYS, line))
    beyond = max(0.0, -t if kind is not Kind.LINE else 0.0, t - 1 if kind is Kind.SEGMENT else 0.0)
    return beyond * length


def _length(pair: Names, look: Look) -> float:
    return float(measurement.length(ARRAYS, _line(tuple(pair), look)))


def _angle_at(triple: Names, look: Look) -> float:
    p, vertex, q = tuple(triple)
    return _turn(_line((vertex, p), look), _line((vertex, q), look))


def _area(triple: Names, look: Look) -> float:
    p, q, r = (look(name).shape for name in triple)
    assert isinstance(p, Point) and isinstance(q, Point) and isinstance(r, Point)
    return float(abs(measurement.double_area(p, q, r))) / 2


def _turn(a: Line[float], b: Line[float]) -> float:
    """The angle of two directions, 0 to 180 degrees."""
    return abs(math.degrees(math.atan2(*_sine_and_cosine(a, b))))


def angle_between(a: Line[float], b: Line[float]) -> float:
    """The angle of two lines, 0 to 90 degrees."""
    sine, cosine = _sine_and_cosine(a, b)
    return math.degrees(math.atan2(abs(sine), abs(cosine)))


def _sine_and_cosine(a: Line[float], b: Line[float]) -> tuple[float, float]:
    return cross(a.dx, a.dy, b.dx, b.dy), dot(a.dx, a.dy, b.dx, b.dy)


def distance_between(p: Shape[float], other: Shape[float]) -> float:
    """The distance of a point from a point, a circle or a line."""
    assert isinstance(p, Point)
    with Arrays.quiet():
        if isinstance(other, Point):
            return float(measurement.distance(ARRAYS, p, other))
        return abs(float(measurement.off_curve(ARRAYS, p, other)))


def _radius(circle: Circle[float]) -> float:
    return float(measurement.radius(ARRAYS, circle))


def _number(value: float | None) -> float | None:
    """A value, None where it does not exist."""
    return None if value is None or not np.isfinite(value) else float(value)
