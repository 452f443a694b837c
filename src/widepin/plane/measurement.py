"""How far and how big: what is measured on shapes, over any number system.

Lengths are centimetres. A measure is undefined where a shape is. ``size``, where a function takes it, is the magnitude
of the terms of a square that may vanish (see ``numbers``): without it, balls could not decide that two points are one.
"""

from __future__ import annotations

from .numbers import N, NumberSystem
from .shapes import Circle, Line, Point, cross, dot, square_distance


def distance(system: NumberSystem[N], p: Point[N], q: Point[N], size: N | None = None) -> N:
    """The distance of two points; 0 where they are one.

    >>> from .arrays import ARRAYS
    >>> float(distance(ARRAYS, Point(0, 0), Point(3, 4)))
    5.0
    """
    square = square_distance(p, q)
    return system.root(square, square if size is None else size)


def length(system: NumberSystem[N], line: Line[N]) -> N:
    """The distance of the two points that a line is drawn through: the length of a segment.

    >>> plain(length(ARRAYS, Line(1, 1, 3, 4)))
    5.0
    """
    square = dot(line.dx, line.dy, line.dx, line.dy)
    return system.root(square, square)


def radius(system: NumberSystem[N], circle: Circle[N]) -> N:
    """The radius of a circle.

    >>> plain(radius(ARRAYS, Circle(1, 1, 9)))
    3.0
    """
    return system.root(circle.rr, circle.rr)


def unit(system: NumberSystem[N], dx: N, dy: N, size: N | float = 0) -> tuple[N, N]:
    """The vector of length 1 in a direction; undefined for the zero vector. ``size``: added to that of its square.

    >>> plain(unit(ARRAYS, 3, 4))
    (0.6, 0.8)
    """
    square = dx * dx + dy * dy
    length = system.root(square, square + size)
    return system.over(dx, length, length), system.over(dy, length, length)


def offset(system: NumberSystem[N], p: Point[N], line: Line[N], size: N | float = 0) -> N:
    """The signed distance of a point from a line, however far that extends; positive to its left.

    Undefined for a line through two equal points. ``size``: added to that of the square of its length.

    >>> from .arrays import ARRAYS
    >>> float(offset(ARRAYS, Point(1, 2), Line(0, 0, 4, 0)))
    2.0
    """
    ux, uy = unit(system, line.dx, line.dy, size)
    return cross(ux, uy, p.x - line.x, p.y - line.y)


def off_curve(system: NumberSystem[N], p: Point[N], curve: Line[N] | Circle[N]) -> N:
    """How far a point lies off a curve: left of a line, or outside a circle; negative on the other side.

    >>> plain(off_curve(ARRAYS, Point(7, 0), Circle(0, 0, 25)))
    2.0
    """
    if isinstance(curve, Circle):
        outside: N = distance(system, p, Point(curve.x, curve.y)) - radius(system, curve)
        return outside
    return offset(system, p, curve)


def parameter(system: NumberSystem[N], line: Line[N], p: Point[N]) -> N:
    """The parameter of the point of a line that is nearest to p: 0 at its first point, 1 at its second.

    >>> from .arrays import ARRAYS
    >>> float(parameter(ARRAYS, Line(0, 0, 4, 0), Point(1, 2)))
    0.25
    """
    square = dot(line.dx, line.dy, line.dx, line.dy)
    return system.over(dot(p.x - line.x, p.y - line.y, line.dx, line.dy), square, square)


def along(system: NumberSystem[N], line: Line[N], p: Point[N]) -> N:
    """How far along a line the point nearest to p lies from its first point.

    >>> plain(along(ARRAYS, Line(0, 0, 4, 0), Point(3, 2)))
    3.0
    """
    ux, uy = unit(system, line.dx, line.dy)
    return dot(ux, uy, p.x - line.x, p.y - line.y)


def separation(system: NumberSystem[N], c: Circle[N], d: Circle[N]) -> tuple[N, N]:
    """By how much two circles lie outside each other, and by how much one lies inside the other.

    Each is negative where they do not: circles meet in two points where both are.

    >>> plain(separation(ARRAYS, Circle(0, 0, 4), Circle(5, 0, 4)))
    (1.0, -5.0)
    """
    apart = distance(system, Point(c.x, c.y), Point(d.x, d.y), c.rr + d.rr)
    r, s = radius(system, c), radius(system, d)
    return apart - (r + s), system.absolute(r - s) - apart


def turn(p: Point[N], vertex: Point[N], q: Point[N]) -> tuple[N, N]:
    """The cosine and the sine of the angle from p over the vertex to q, times the lengths of its legs.

    The sine is positive where q lies left of the way from the vertex to p.

    >>> plain(turn(Point(3, 0), Point(0, 0), Point(0, 2)))
    (0.0, 6.0)
    """
    ux, uy, vx, vy = p.x - vertex.x, p.y - vertex.y, q.x - vertex.x, q.y - vertex.y
    return dot(ux, uy, vx, vy), cross(ux, uy, vx, vy)


def double_area(p: Point[N], q: Point[N], r: Point[N]) -> N:
    """Twice the area of a triangle, in square centimetres; positive where its corners run to the left, 0 in a row.

    >>> plain(double_area(Point(0, 0), Point(4, 0), Point(0, 3)))
    12.0
    """
    return cross(q.x - p.x, q.y - p.y, r.x - p.x, r.y - p.y)


def line_coordinates(system: NumberSystem[N], line: Line[N]) -> tuple[N, N, N, N]:
    """Numbers that are equal where two lines are one, whatever points they are drawn through.

    They are the foot of the perpendicular from the origin, and two products of the direction that have no sign.

    >>> plain(line_coordinates(ARRAYS, Line(0, 2, 5, 0))) == plain(line_coordinates(ARRAYS, Line(9, 2, -1, 0)))
    True
    """
    ux, uy = unit(system, line.dx, line.dy)
    off = line.x * uy - line.y * ux
    return off * uy, -off * ux, ux * uy, ux * ux
