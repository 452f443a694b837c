"""Where two curves meet, and which of two meeting points is meant.

Two lines meet once. A line and a circle are solved along the line (``t`` as in ``shapes.Line``),
two circles along the way from the first centre to the second. The extent of a segment or ray is looked at only
after the choice is made.
"""

from __future__ import annotations

from enum import StrEnum
from typing import assert_never

from .measurement import parameter
from .numbers import N, NumberSystem
from .shapes import (
    LINES,
    Circle,
    Kind,
    Line,
    Point,
    Shape,
    at_parameter,
    cross,
    dot,
    rounding_of_square,
    square_distance,
)
from .tolerances import ROUNDING


class Choice(StrEnum):
    """How an intersection of two is chosen: by number, or by a point."""

    PICK = "pick"
    OTHER_THAN = "other_than"
    NEAREST_TO = "nearest_to"
    FARTHEST_FROM = "farthest_from"

    __hash__ = str.__hash__  # so that one read from a document is the same in a table


CHOICES = tuple(Choice)


def within_extent(system: NumberSystem[N], kind: Kind, t: N, point: Point[N]) -> Point[N]:
    """``point``, undefined where its parameter t lies outside a ray or segment. Ends belong to both.

    >>> plain(within_extent(ARRAYS, Kind.SEGMENT, 1.5, Point(6, 0)))
    (nan, nan)
    """
    x, y = point
    if kind in (Kind.RAY, Kind.SEGMENT):
        x, y = system.where_not_negative(t, x), system.where_not_negative(t, y)
    if kind is Kind.SEGMENT:
        x, y = system.where_not_negative(1 - t, x), system.where_not_negative(1 - t, y)
    return Point(x, y)


def lines_meet(system: NumberSystem[N], a: Line[N], a_kind: Kind, b: Line[N], b_kind: Kind) -> Point[N]:
    """Where two lines cross; undefined where they are parallel or an extent ends before the intersection.

    >>> plain(lines_meet(ARRAYS, Line(0, 0, 4, 0), Kind.LINE, Line(1, -1, 0, 2), Kind.SEGMENT))
    (1.0, 0.0)
    """
    spread = cross(a.dx, a.dy, b.dx, b.dy)
    # Not the terms of the spread, which vanish for two level lines.
    size = (system.absolute(a.dx) + system.absolute(a.dy)) * (system.absolute(b.dx) + system.absolute(b.dy))
    ex, ey = b.x - a.x, b.y - a.y
    t = system.over(cross(ex, ey, b.dx, b.dy), spread, size)
    point = within_extent(system, a_kind, t, at_parameter(a, t))
    if b_kind is Kind.LINE:
        return point
    return within_extent(system, b_kind, system.over(cross(ex, ey, a.dx, a.dy), spread, size), point)


def along_line(system: NumberSystem[N], line: Line[N], circle: Circle[N]) -> tuple[N, N]:
    """Parameters of the two places where a line meets a circle, the first met first.

    >>> plain(along_line(ARRAYS, Line(-5, 0, 10, 0), Circle(0, 0, 25)))
    (0.0, 1.0)
    """
    ex, ey = line.x - circle.x, line.y - circle.y
    way = dot(line.dx, line.dy, line.dx, line.dy)
    off = cross(ex, ey, line.dx, line.dy)
    off_square = system.over(off * off, way, way)
    half = system.root(system.over(circle.rr - off_square, way, way), system.over(circle.rr + off_square, way, way))
    foot = parameter(system, line, Point(circle.x, circle.y))
    return foot - half, foot + half


def circles_meet(system: NumberSystem[N], c: Circle[N], d: Circle[N]) -> tuple[Point[N], Point[N]]:
    """The two meeting points of circles: left, then right of the way from c's centre to d's.

    >>> plain(circles_meet(ARRAYS, Circle(0, 0, 25), Circle(6, 0, 25)))
    ((3.0, 4.0), (3.0, -4.0))
    """
    dx, dy = d.x - c.x, d.y - c.y
    apart = dx * dx + dy * dy
    size = c.rr + d.rr + apart
    # Centres closer than rounding count as one: concentric circles do not meet, or coincide.
    apart = system.where_positive(apart, size * ROUNDING, apart)
    along = system.over(c.rr - d.rr + apart, 2 * apart, apart)
    reach = system.over(c.rr, apart, apart)
    up = system.root(reach - along * along, reach + along * along)
    foot = Point(c.x + along * dx, c.y + along * dy)
    return Point(foot.x - up * dy, foot.y + up * dx), Point(foot.x + up * dy, foot.y - up * dx)


def mirrored_in_centres(system: NumberSystem[N], c: Circle[N], d: Circle[N], p: Point[N]) -> Point[N]:
    """The second meeting point of two circles that both pass through p: p mirrored in the line of centres.

    >>> plain(mirrored_in_centres(ARRAYS, Circle(0, 0, 25), Circle(6, 0, 25), Point(3, 4)))
    (3.0, -4.0)
    """
    dx, dy = d.x - c.x, d.y - c.y
    apart = dx * dx + dy * dy
    apart = system.where_positive(apart, (c.rr + d.rr + apart) * ROUNDING, apart)
    along = system.over(dot(p.x - c.x, p.y - c.y, dx, dy), apart, apart)
    return Point(2 * (c.x + along * dx) - p.x, 2 * (c.y + along * dy) - p.y)


def other_intersection(system: NumberSystem[N], a: Shape[N], b: Shape[N], p: Point[N]) -> Point[N]:
    """The second point where two curves meet, at least one of them a circle, of which p is the first.

    >>> plain(other_intersection(ARRAYS, Line(-5, 0, 10, 0), Circle(0, 0, 25), Point(-5, 0)))
    (5.0, 0.0)
    """
    if isinstance(a, Circle) and isinstance(b, Circle):
        return mirrored_in_centres(system, a, b, p)
    if isinstance(a, Circle):
        a, b = b, a
    assert isinstance(a, Line) and isinstance(b, Circle)
    return at_parameter(a, 2 * parameter(system, a, Point(b.x, b.y)) - parameter(system, a, p))


def chosen(
    system: NumberSystem[N], choice: Choice, pick: int, first: Point[N], second: Point[N], reference: Point[N] | None
) -> Point[N]:
    """One of two meeting points: by ``pick``, or by its distance from the reference point.

    >>> plain(chosen(ARRAYS, "nearest_to", 1, Point(3, 4), Point(3, -4), Point(0, -1)))
    (3.0, -4.0)
    """
    if reference is None:
        return first if pick == 1 else second
    to_first, to_second = square_distance(first, reference), square_distance(second, reference)
    match choice:
        case Choice.NEAREST_TO:
            test = to_second - to_first
        case Choice.FARTHEST_FROM | Choice.OTHER_THAN:
            # The intersection other than the reference lies farther from it, which is itself the other one.
            test = to_first - to_second
        case Choice.PICK:
            raise ValueError("a pick needs no reference")
        case _ as never:
            assert_never(never)
    size = to_first + to_second + rounding_of_square(reference)
    return Point(system.choose(test, size, first.x, second.x), system.choose(test, size, first.y, second.y))


def intersection(
    system: NumberSystem[N],
    a: Line[N] | Circle[N],
    a_kind: Kind,
    b: Line[N] | Circle[N],
    b_kind: Kind,
    choice: Choice = Choice.PICK,
    pick: int = 1,
    reference: Point[N] | None = None,
) -> Point[N]:
    """The meeting point of two curves that the choice names.

    ``choice`` is one of ``CHOICES``; all but "pick" come with the ``reference`` point. Undefined where the
    curves do not meet, where nearest or farthest is a tie, or where the chosen place lies outside an extent.

    >>> plain(intersection(ARRAYS, Line(-9, 0, 1, 0), Kind.LINE, Circle(0, 0, 25), Kind.CIRCLE, "pick", 2))
    (5.0, 0.0)
    """
    if isinstance(a, Circle) and isinstance(b, Circle):
        if choice == Choice.OTHER_THAN and reference is not None:
            return mirrored_in_centres(system, a, b, reference)
        return chosen(system, choice, pick, *circles_meet(system, a, b), reference)
    if isinstance(a, Line) and isinstance(b, Line):
        return lines_meet(system, a, a_kind, b, b_kind)
    if isinstance(a, Circle):
        a, a_kind, b = b, b_kind, a
    assert isinstance(a, Line) and isinstance(b, Circle)
    assert a_kind in LINES
    if choice == Choice.OTHER_THAN and reference is not None:
        t = 2 * parameter(system, a, Point(b.x, b.y)) - parameter(system, a, reference)
        return within_extent(system, a_kind, t, at_parameter(a, t))
    if choice == Choice.PICK:
        t = along_line(system, a, b)[pick - 1]
        return within_extent(system, a_kind, t, at_parameter(a, t))
    ts = along_line(system, a, b)
    point = chosen(system, choice, pick, at_parameter(a, ts[0]), at_parameter(a, ts[1]), reference)
    if a_kind is Kind.LINE:
        return point
    return within_extent(system, a_kind, parameter(system, a, point), point)
