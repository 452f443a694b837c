"""Kinds of object and the numbers that each is made of.

The coordinates are numbers of whatever number system is at work: floats, whole arrays of floats, balls, or
registers of a tape. An object that is undefined has undefined (NaN) coordinates.
"""

from __future__ import annotations

from collections.abc import Callable
from enum import StrEnum
from typing import Any, Generic, NamedTuple, TypeVar

from .numbers import N, Number
from .tolerances import ROUNDING

M = TypeVar("M", bound=Number)


class Kind(StrEnum):
    """What an object is.

    Rays and segments are lines with an extent: ``Line`` and ``LINES`` mean any of the three. A curve is one of them or
    a circle.
    """

    POINT = "point"
    LINE = "line"
    RAY = "ray"
    SEGMENT = "segment"
    CIRCLE = "circle"

    __hash__ = str.__hash__  # an enumeration's own is written in Python, and kinds are looked up for every step


LINES = frozenset({Kind.LINE, Kind.RAY, Kind.SEGMENT})
CURVES = LINES | {Kind.CIRCLE}


class Point(NamedTuple, Generic[N]):
    """A point, in centimetres."""

    x: N
    y: N


class Line(NamedTuple, Generic[N]):
    """A line: its first point and the way from there to its second.

    A place on it is ``first + t * way``; a ray has the places with t >= 0, a segment those with 0 <= t <= 1.
    """

    x: N
    y: N
    dx: N
    dy: N


class Circle(NamedTuple, Generic[N]):
    """A circle: its centre and the square of its radius. The square keeps most makes free of roots."""

    x: N
    y: N
    rr: N


Shape = Point[N] | Line[N] | Circle[N]

SHAPE_OF: dict[Kind, type[Shape[Any]]] = {
    Kind.POINT: Point,
    Kind.LINE: Line,
    Kind.RAY: Line,
    Kind.SEGMENT: Line,
    Kind.CIRCLE: Circle,
}


def mapped(shape: Shape[N], change: Callable[[N], M]) -> Shape[M]:
    """A shape of the same type, with every coordinate changed.

    >>> mapped(Circle(1, 2, 9), float)
    Circle(x=1.0, y=2.0, rr=9.0)
    """
    of_type: Callable[..., Shape[M]] = type(shape)  # type: ignore[assignment]
    return of_type(*map(change, shape))


def start(line: Line[N]) -> Point[N]:
    """The first point of a line, where a ray starts."""
    return Point(line.x, line.y)


def line_through(p: Point[N], q: Point[N]) -> Line[N]:
    """The line from p to q, without asking whether they differ; ``makes.line`` does."""
    return Line(p.x, p.y, q.x - p.x, q.y - p.y)


def at_parameter(line: Line[N], t: N) -> Point[N]:
    """The place ``first + t * way`` on a line."""
    return Point(line.x + t * line.dx, line.y + t * line.dy)


def cross(ax: N, ay: N, bx: N, by: N) -> N:
    """The signed area spanned by two vectors; positive where b lies to the left of a."""
    return ax * by - ay * bx


def dot(ax: N, ay: N, bx: N, by: N) -> N:
    """The scalar product of two vectors."""
    return ax * bx + ay * by


def square_distance(p: Point[N], q: Point[N]) -> N:
    """The squared distance of two points, in square centimetres."""
    dx, dy = q.x - p.x, q.y - p.y
    return dx * dx + dy * dy


def rounding_of_square(p: Point[N]) -> N:
    """The size of the terms of a squared distance from p to a point so close that the two may be one.

    Squares round at the square of the rounding of what they are squares of. A coordinate is taken to be 1 cm at
    least, so that the size is never zero and balls can decide that two points at the origin are one.
    """
    return (p.x * p.x + p.y * p.y + 1) * ROUNDING


def zero_where_defined(x: N) -> N:
    """0, undefined where x is undefined."""
    return x * 0.0
