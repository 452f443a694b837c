"""What can be measured of a condition: the values that should be equal, or zero, or a right angle."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence

import numpy as np

from ..plane.shapes import Circle, Kind, Line, Point, Shape
from .conditions import Term
from .task import Condition, Names
from .verdict import Measured

Look = Callable[[str], Term]


def measured(condition: Condition, drawn: Look, at_break: Look | None) -> tuple[Measured, ...]:
    """The values of a condition as drawn and in the break: centimetres, and degrees for angles.

    ``drawn`` and ``at_break`` give what a name stands for in one position, in floats. Conditions on order alone have no
    values.
    """
    before = list(_values(condition, drawn))
    after = [value for *_, value in _values(condition, at_break)] if at_break else [None] * len(before)
    return tuple(
        Measured(what, of, _number(value), _number(later))
        for (what, of, value), later in zip(before, after, strict=True)
    )


Value = tuple[str, tuple[Names, ...], float | None]


def _values(condition: Condition, look: Look) -> Iterator[Value]:
    of = condition.of
    match condition.rel:
        case "equal_length" | "ratio":
            yield from (("length", (pair,), _length(pair, look)) for pair in of)
        case "midpoint":
            yield from (("length", ((str(of[0]), str(end)),), _length((str(of[0]), str(end)), look)) for end in of[1:])
        case "equal_angle":
            yield from (("angle", (triple,), _angle_at(triple, look)) for triple in of)
        case "equal_area":
            yield from (("area", (triple,), _area(triple, look)) for triple in of)
        case "collinear":
            p, q, *others = map(str, of)
            line = _line((p, q), look)
            yield from (("distance", (one, (p, q)), distance(look(one).shape, line)) for one in others)
        case "parallel" | "perpendicular":
            yield "angle", of, angle_between(_line(of[0], look), _line(of[1], look))
        case "on":
            yield "distance", of, distance(look(str(of[0])).shape, _curve(of[1], look))
        case "tangent":
            yield from _touching(of, look)
        case "same":
            x, y = (_curve(term, look) for term in of)
            if isinstance(x, Circle) and isinstance(y, Circle):
                yield from (("radius", (term,), _radius(circle)) for term, circle in zip(of, (x, y), strict=True))
            elif isinstance(x, Line) and isinstance(y, Line):
                rays = all(isinstance(term, str) and look(term).kind is Kind.RAY for term in of)
                yield "angle", of, _turn(x, y) if rays else angle_between(x, y)
                yield "distance", of, distance(Point(x.x, x.y), y)
            else:
                yield "distance", of, distance(x, y)


def _touching(of: Sequence[Names], look: Look) -> Iterator[Value]:
    shapes = [_curve(term, look) for term in of]
    circles = [(term, shape) for term, shape in zip(of, shapes, strict=True) if isinstance(shape, Circle)]
    if len(circles) == 2:
        (_, a), (_, b) = circles
        yield "distance of centres", tuple(of), math.hypot(a.x - b.x, a.y - b.y)
    else:
        ((name, circle),) = circles
        touching, line = next((t, s) for t, s in zip(of, shapes, strict=True) if isinstance(s, Line))
        yield "distance of centre", (name, touching), distance(Point(circle.x, circle.y), line)
    yield from (("radius", (term,), _radius(circle)) for term, circle in circles)


def _curve(term: Names, look: Look) -> Shape:
    return look(term).shape if isinstance(term, str) else _line(term, look)


def _line(term: Names, look: Look) -> Line:
    if isinstance(term, str):
        shape = look(term).shape
        assert isinstance(shape, Line)
        return shape
    p, q = (look(name).shape for name in term)
    assert isinstance(p, Point) and isinstance(q, Point)
    return Line(p.x, p.y, q.x - p.x, q.y - p.y)


def _length(pair: Names, look: Look) -> float:
    line = _line(tuple(pair), look)
    return math.hypot(line.dx, line.dy)


def _angle_at(triple: Names, look: Look) -> float:
    p, vertex, q = tuple(triple)
    return _turn(_line((vertex, p), look), _line((vertex, q), look))


def _area(triple: Names, look: Look) -> float:
    p, q, r = tuple(triple)
    one, other = _line((p, q), look), _line((p, r), look)
    return float(abs(one.dx * other.dy - one.dy * other.dx)) / 2


def _turn(a: Line, b: Line) -> float:
    """The angle of two directions, 0 to 180 degrees."""
    return abs(math.degrees(math.atan2(a.dx * b.dy - a.dy * b.dx, a.dx * b.dx + a.dy * b.dy)))


def angle_between(a: Line, b: Line) -> float:
    """The angle of two lines, 0 to 90 degrees."""
    return math.degrees(math.atan2(abs(a.dx * b.dy - a.dy * b.dx), abs(a.dx * b.dx + a.dy * b.dy)))


def distance(p: Shape, other: Shape) -> float:
    """The distance of a point from a point, a circle, or the line of a line."""
    assert isinstance(p, Point)
    if isinstance(other, Point):
        return math.hypot(p.x - other.x, p.y - other.y)
    if isinstance(other, Circle):
        return abs(math.hypot(p.x - other.x, p.y - other.y) - _radius(other))
    length = math.hypot(other.dx, other.dy)
    return abs((p.x - other.x) * other.dy - (p.y - other.y) * other.dx) / length if length else math.nan


def _radius(circle: Circle) -> float:
    return math.sqrt(circle.rr)


def _number(value: float | None) -> float | None:
    """A value, None where it does not exist."""
    return None if value is None or not np.isfinite(value) else float(value)
