"""Kinds of object and the numbers that each is made of.

The coordinates are numbers of whatever number system is at work: floats, whole arrays of floats, balls, or
registers of a tape. An object that is undefined has undefined (NaN) coordinates.
"""

from __future__ import annotations

from enum import StrEnum
from typing import Any, NamedTuple

from .tolerances import ROUNDING


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


class Point(NamedTuple):
    """A point, in centimetres."""

    x: Any
    y: Any


class Line(NamedTuple):
    """A line: its first point and the way from there to its second.

    A place on it is ``first + t * way``; a ray has the places with t >= 0, a segment those with 0 <= t <= 1.
    """

    x: Any
    y: Any
    dx: Any
    dy: Any


class Circle(NamedTuple):
    """A circle: its centre and the square of its radius. The square keeps most makes free of roots."""

    x: Any
    y: Any
    rr: Any


Shape = Point | Line | Circle

SHAPE_OF: dict[Kind, type[Shape]] = {
    Kind.POINT: Point,
    Kind.LINE: Line,
    Kind.RAY: Line,
    Kind.SEGMENT: Line,
    Kind.CIRCLE: Circle,
}


def start(line: Line) -> Point:
    """The first point of a line, where a ray starts."""
    return Point(line.x, line.y)


def line_through(p: Point, q: Point) -> Line:
    """The line from p to q, without asking whether they differ; ``makes.line`` does."""
    return Line(p.x, p.y, q.x - p.x, q.y - p.y)


def at_parameter(line: Line, t: Any) -> Point:
    """The place ``first + t * way`` on a line."""
    return Point(line.x + t * line.dx, line.y + t * line.dy)


def cross(ax: Any, ay: Any, bx: Any, by: Any) -> Any:
    """The signed area spanned by two vectors; positive where b lies to the left of a."""
    return ax * by - ay * bx


def dot(ax: Any, ay: Any, bx: Any, by: Any) -> Any:
    """The scalar product of two vectors."""
    return ax * bx + ay * by


def square_distance(p: Point, q: Point) -> Any:
    """The squared distance of two points, in square centimetres."""
    dx, dy = q.x - p.x, q.y - p.y
    return dx * dx + dy * dy


def rounding_of_square(p: Point) -> Any:
    """The size of the terms of a squared distance from p to a point so close that the two may be one.

    Squares round at the square of the rounding of what they are squares of. A coordinate is taken to be 1 cm at
    least, so that the size is never zero and balls can decide that two points at the origin are one.
    """
    return (p.x * p.x + p.y * p.y + 1) * ROUNDING


def zero_where_defined(x: Any) -> Any:
    """0, undefined where x is undefined."""
    return x * 0.0
