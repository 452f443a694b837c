"""Is it so: numbers whose sign, or whose vanishing, answers a question about shapes, over any number system.

They are free of roots and divisions, so that balls decide them at the least expense.
"""

from __future__ import annotations

from .numbers import N
from .shapes import Circle, Kind, Line, Point, Shape, cross, dot, square_distance


def side(line: Line[N], p: Point[N]) -> N:
    """On which side of a line a point lies: positive to its left, negative to its right, 0 on it.

    >>> side(Line(0, 0, 4, 0), Point(1, 2)), side(Line(0, 5, 4, 0), Point(1, 2)), side(Line(2, 0, 0, 1), Point(1, 2))
    (8, -12, 1)
    """
    return cross(line.dx, line.dy, p.x - line.x, p.y - line.y)


def acute(p: Point[N], vertex: Point[N], q: Point[N]) -> N:
    """Whether an angle is acute: positive where it is, 0 for a right angle, negative for an obtuse one.

    >>> acute(Point(1, 0), Point(0, 0), Point(1, 1)) > 0
    True
    """
    return dot(p.x - vertex.x, p.y - vertex.y, q.x - vertex.x, q.y - vertex.y)


def incidence(p: Shape[N], curve: Shape[N]) -> tuple[N, N]:
    """A number that is zero where a point lies on a circle or a line, however far that extends; and its magnitude.

    >>> incidence(Point(3, 4), Circle(0, 0, 25))[0]
    0
    """
    assert isinstance(p, Point)
    if isinstance(curve, Circle):
        square = square_distance(p, Point(curve.x, curve.y))
        return square - curve.rr, curve.rr + square
    assert isinstance(curve, Line)
    ex, ey = p.x - curve.x, p.y - curve.y
    magnitude = abs(curve.dx * ey) + abs(curve.dy * ex) + curve.dx * curve.dx + curve.dy * curve.dy
    return side(curve, p), magnitude


def coincidence(a: Shape[N], b: Shape[N], kind: Kind) -> list[N]:
    """Numbers that all vanish where two shapes of one kind are the same object.

    Lines are the same whatever points they are drawn through, segments whichever end comes first. That rays point the
    same way, and not opposite ways, is not asked here.

    >>> coincidence(Line(0, 0, 2, 0), Line(5, 0, -1, 0), Kind.LINE)
    [0, 0]
    """
    if not isinstance(a, Line) or not isinstance(b, Line):
        return [x - y for x, y in zip(a, b, strict=True)]
    parallel = cross(a.dx, a.dy, b.dx, b.dy)
    if kind is Kind.RAY:
        return [a.x - b.x, a.y - b.y, parallel]
    if kind is Kind.LINE:
        return [parallel, cross(a.dx, a.dy, b.x - a.x, b.y - a.y)]
    if a.dx * b.dx + a.dy * b.dy < 0:
        b = Line(b.x + b.dx, b.y + b.dy, -b.dx, -b.dy)
    return [x - y for x, y in zip(a, b, strict=True)]
