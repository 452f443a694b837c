"""What the browser measures on a figure: lengths, distances, angles and radii, and how far curves miss each other.

Lengths are centimetres. How far curves are apart is positive where they miss each other in that way.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from typing import Any

from .intersections import parameter
from .numbers import NumberSystem
from .shapes import SHAPE_OF, Circle, Kind, Line, Point, cross, dot, square_distance
from .tape import Recording, Tape


def circles_apart(system: NumberSystem, c: Circle, d: Circle) -> tuple[Any, Any]:
    """By how much two circles lie outside each other, and by how much one lies inside the other."""
    dx, dy = d.x - c.x, d.y - c.y
    apart = system.root(dx * dx + dy * dy, c.rr + d.rr)
    r, s = system.root(c.rr, c.rr), system.root(d.rr, d.rr)
    return apart - (r + s), system.absolute(r - s) - apart


def circles_differ(system: NumberSystem, c: Circle, d: Circle) -> tuple[Any, Any]:
    """How far the centres of two circles are apart, and by how much their radii differ; both 0 where they are one
    circle.
    """
    r, s = system.root(c.rr, c.rr), system.root(d.rr, d.rr)
    return length(system, Point(c.x, c.y), Point(d.x, d.y))[0], system.absolute(r - s)


def lines_differ(system: NumberSystem, a: Line, b: Line) -> tuple[Any, Any]:
    """How far the two points that one line was drawn through lie from the line of the other; 0 where they are one
    line.
    """
    first, second = Point(b.x, b.y), Point(b.x + b.dx, b.y + b.dy)
    return distance(system, first, a)[0], distance(system, second, a)[0]


def line_apart(system: NumberSystem, line: Line, circle: Circle) -> tuple[Any]:
    """By how much the line of a line misses a circle."""
    way = line.dx * line.dx + line.dy * line.dy
    length = system.root(way, way)
    off = cross(line.dx, line.dy, circle.x - line.x, circle.y - line.y)
    return (system.over(system.absolute(off), length, length) - system.root(circle.rr, circle.rr),)


def beyond_ends(system: NumberSystem, line: Line, p: Point) -> tuple[Any, Any]:
    """By how much a place on the line of a line lies before its first point, and beyond its second."""
    way = line.dx * line.dx + line.dy * line.dy
    length = system.root(way, way)
    t = parameter(system, line, p)
    return -t * length, (t - 1) * length


def length(system: NumberSystem, p: Point, q: Point) -> tuple[Any]:
    """The distance of two points."""
    square = square_distance(p, q)
    return (system.root(square, square),)


def distance(system: NumberSystem, p: Point, line: Line) -> tuple[Any]:
    """The distance of a point from the line of a line."""
    way = line.dx * line.dx + line.dy * line.dy
    off = cross(line.dx, line.dy, p.x - line.x, p.y - line.y)
    return (system.over(system.absolute(off), *[system.root(way, way)] * 2),)


def turn(system: NumberSystem, p: Point, vertex: Point, q: Point) -> tuple[Any, Any]:
    """The cosine and the sine of the angle from p over the vertex to q, times the lengths of its legs."""
    ux, uy, vx, vy = p.x - vertex.x, p.y - vertex.y, q.x - vertex.x, q.y - vertex.y
    return dot(ux, uy, vx, vy), system.absolute(cross(ux, uy, vx, vy))


def radius(system: NumberSystem, circle: Circle) -> tuple[Any]:
    """The radius of a circle."""
    return (system.root(circle.rr, circle.rr),)


@cache
def gauge_tapes() -> dict[str, Recording]:
    """The tapes of these, by key in the tool book."""
    book = {}
    rows: tuple[tuple[str, Callable[..., tuple[Any, ...]], tuple[Kind, ...]], ...] = (
        ("apart circle circle", circles_apart, (Kind.CIRCLE, Kind.CIRCLE)),
        ("differ circle circle", circles_differ, (Kind.CIRCLE, Kind.CIRCLE)),
        ("differ line line", lines_differ, (Kind.LINE, Kind.LINE)),
        ("apart line circle", line_apart, (Kind.LINE, Kind.CIRCLE)),
        ("beyond line point", beyond_ends, (Kind.LINE, Kind.POINT)),
        ("length point point", length, (Kind.POINT, Kind.POINT)),
        ("length point line", distance, (Kind.POINT, Kind.LINE)),
        ("turn point point point", turn, (Kind.POINT, Kind.POINT, Kind.POINT)),
        ("radius circle", radius, (Kind.CIRCLE,)),
    )
    for key, compute, kinds in rows:
        tape = Tape(sum(len(SHAPE_OF[kind]._fields) for kind in kinds))
        inputs = iter([tape.input(place) for place in range(tape.inputs)])
        shapes = [SHAPE_OF[kind](*(next(inputs) for _ in SHAPE_OF[kind]._fields)) for kind in kinds]
        book[key] = tape.recording(compute(tape, *shapes))
    return book
