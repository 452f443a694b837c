"""What the browser measures on a figure: lengths, distances, angles and radii, and how far curves miss each other.

Lengths are centimetres. How far curves are apart is positive where they miss each other in that way.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from typing import Any

from .measurement import along, distance, length, offset, radius, separation, turn
from .numbers import N, NumberSystem
from .shapes import SHAPE_OF, Circle, Kind, Line, Point, at_parameter, start
from .tape import Recording, Tape


def circles_differ(system: NumberSystem[N], c: Circle[N], d: Circle[N]) -> tuple[N, N]:
    """How far the centres of two circles are apart, and by how much their radii differ; both 0 where they are one."""
    apart = distance(system, Point(c.x, c.y), Point(d.x, d.y))
    return apart, system.absolute(radius(system, c) - radius(system, d))


def lines_differ(system: NumberSystem[N], a: Line[N], b: Line[N]) -> tuple[N, N]:
    """How far the two points that one line was drawn through lie from the other line; 0 where they are one line."""
    return off_line(system, start(b), a)[0], off_line(system, at_parameter(b, 1), a)[0]


def line_apart(system: NumberSystem[N], line: Line[N], circle: Circle[N]) -> tuple[N]:
    """By how much a line misses a circle."""
    return (off_line(system, Point(circle.x, circle.y), line)[0] - radius(system, circle),)


def beyond_ends(system: NumberSystem[N], line: Line[N], p: Point[N]) -> tuple[N, N]:
    """By how much a position on a line lies before its first point, and beyond its second."""
    reached = along(system, line, p)
    return -reached, reached - length(system, line)


def off_line(system: NumberSystem[N], p: Point[N], line: Line[N]) -> tuple[N]:
    """The distance of a point from a line."""
    return (system.absolute(offset(system, p, line)),)


def angle(system: NumberSystem[N], p: Point[N], vertex: Point[N], q: Point[N]) -> tuple[N, N]:
    """The cosine and the sine of the angle from p over the vertex to q, times the lengths of its legs."""
    cosine, sine = turn(p, vertex, q)
    return cosine, system.absolute(sine)


def side(system: NumberSystem[N], p: Point[N], vertex: Point[N], q: Point[N]) -> tuple[N]:
    """Positive where the way from p over the vertex to q turns left about the vertex, negative where it turns right."""
    return (turn(p, vertex, q)[1],)


@cache
def gauge_tapes() -> dict[str, Recording]:
    """The tapes of these, by key in the tool book."""
    book = {}
    rows: tuple[tuple[str, Callable[..., tuple[Any, ...]], tuple[Kind, ...]], ...] = (
        ("apart circle circle", separation, (Kind.CIRCLE, Kind.CIRCLE)),
        ("differ circle circle", circles_differ, (Kind.CIRCLE, Kind.CIRCLE)),
        ("differ line line", lines_differ, (Kind.LINE, Kind.LINE)),
        ("apart line circle", line_apart, (Kind.LINE, Kind.CIRCLE)),
        ("beyond line point", beyond_ends, (Kind.LINE, Kind.POINT)),
        ("length point point", lambda system, p, q: (distance(system, p, q),), (Kind.POINT, Kind.POINT)),
        ("length point line", off_line, (Kind.POINT, Kind.LINE)),
        ("turn point point point", angle, (Kind.POINT, Kind.POINT, Kind.POINT)),
        ("side point point point", side, (Kind.POINT, Kind.POINT, Kind.POINT)),
        ("radius circle", lambda system, circle: (radius(system, circle),), (Kind.CIRCLE,)),
    )
    for key, compute, kinds in rows:
        tape = Tape(sum(len(SHAPE_OF[kind]._fields) for kind in kinds))
        inputs = iter([tape.input(index) for index in range(tape.inputs)])
        shapes = [SHAPE_OF[kind](*(next(inputs) for _ in SHAPE_OF[kind]._fields)) for kind in kinds]
        book[key] = tape.recording(compute(tape, *shapes))
    return book
