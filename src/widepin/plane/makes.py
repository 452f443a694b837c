"""Every make of a step: what it is made from, what it gives, and how it is computed.

Each function takes the number system and the shapes it is made from. Directions, parameters and undefined
cases are those of docs/formats.md; ``intersections`` holds the intersections.

A shape is undefined as a whole: where one of its coordinates is, all are. So whatever is made from it is undefined too,
however few of the coordinates it is computed from.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import Enum, StrEnum
from typing import Any

from .numbers import N, NumberSystem
from .rows import complete
from .shapes import (
    CURVES,
    LINES,
    Circle,
    Kind,
    Line,
    Point,
    at_parameter,
    cross,
    dot,
    rounding_of_square,
    square_distance,
    zero_where_defined,
)
from .strokes import FREE_CIRCLE, LINE, Price, strokes
from .tolerances import ROUNDING


def line(system: NumberSystem[N], p: Point[N], q: Point[N]) -> Line[N]:
    """The line from p to q, whatever its extent; undefined where they are one point.

    >>> plain(line(ARRAYS, Point(1, 2), Point(4, 6)))
    (1.0, 2.0, 3.0, 4.0)
    """
    dx, dy = q.x - p.x, q.y - p.y
    return spanned(system, p, dx, dy, rounding_of_square(p))


def spanned(system: NumberSystem[N], p: Point[N], dx: N, dy: N, size: N) -> Line[N]:
    """The line from p in a direction; undefined where that has no length. ``size``: of the terms of its square."""
    square = dx * dx + dy * dy
    zero = zero_where_defined(system.where_positive(square, size, square))
    return Line(p.x + zero, p.y + zero, dx + zero, dy + zero)


def midpoint(system: NumberSystem[N], p: Point[N], q: Point[N]) -> Point[N]:
    """The point halfway between p and q, p itself where they are equal.

    >>> plain(midpoint(ARRAYS, Point(1, 2), Point(4, 6)))
    (2.5, 4.0)
    """
    return Point((p.x + q.x) * 0.5, (p.y + q.y) * 0.5)


def perpendicular(system: NumberSystem[N], parent: Line[N], p: Point[N]) -> Line[N]:
    """The line through p, its way the parent's turned a quarter left.

    >>> plain(perpendicular(ARRAYS, Line(0, 0, 2, 0), Point(1, 3)))
    (1.0, 3.0, 0.0, 2.0)
    """
    return directed(p, -parent.dy, parent.dx)


def parallel(system: NumberSystem[N], parent: Line[N], p: Point[N]) -> Line[N]:
    """The line through p with the parent's way.

    >>> plain(parallel(ARRAYS, Line(0, 0, 2, 0), Point(1, 3)))
    (1.0, 3.0, 2.0, 0.0)
    """
    return directed(p, parent.dx, parent.dy)


def directed(p: Point[N], dx: N, dy: N) -> Line[N]:
    """The line from p in a direction that has a length; undefined where either is undefined."""
    here, there = zero_where_defined(p.x), zero_where_defined(dx)
    return Line(p.x + there, p.y + there, dx + here, dy + here)


def perpendicular_bisector(system: NumberSystem[N], p: Point[N], q: Point[N]) -> Line[N]:
    """The line through the midpoint of p and q, its way that from p to q turned a quarter left.

    >>> plain(perpendicular_bisector(ARRAYS, Point(0, 0), Point(4, 0)))
    (2.0, 0.0, 0.0, 4.0)
    """
    return perpendicular(system, line(system, p, q), midpoint(system, p, q))


def angle_bisector(system: NumberSystem[N], p: Point[N], vertex: Point[N], q: Point[N]) -> Line[N]:
    """The ray from the vertex inside the angle; its second point is where it meets the side from p to q.

    That point divides the side as the legs (Euclid VI.3). Undefined for a straight angle, whose inside could
    be either side, and where a leg has length zero.

    >>> plain(angle_bisector(ARRAYS, Point(4, 0), Point(0, 0), Point(0, 4)))
    (0.0, 0.0, 2.0, 2.0)
    """
    u, w = line(system, vertex, p), line(system, vertex, q)
    uu, ww = u.dx * u.dx + u.dy * u.dy, w.dx * w.dx + w.dy * w.dy
    u_length, w_length = system.root(uu, uu), system.root(ww, ww)
    both = u_length + w_length
    dx = system.over(u.dx * w_length + w.dx * u_length, both, both)
    dy = system.over(u.dy * w_length + w.dy * u_length, both, both)
    return spanned(system, vertex, dx, dy, (uu + ww) * ROUNDING)


def circle_radius(system: NumberSystem[N], centre: Point[N], p: Point[N], q: Point[N]) -> Circle[N]:
    """The circle with the distance of p and q as radius; undefined where that is 0.

    >>> plain(circle_radius(ARRAYS, Point(1, 1), Point(0, 0), Point(3, 4)))
    (1.0, 1.0, 25.0)
    """
    return round_about(system, centre, square_distance(p, q) + zero_where_defined(centre.x), rounding_of_square(p))


def circle(system: NumberSystem[N], centre: Point[N], p: Point[N]) -> Circle[N]:
    """The circle about centre through p; undefined where they are one point.

    >>> plain(circle(ARRAYS, Point(0, 0), Point(3, 4)))
    (0.0, 0.0, 25.0)
    """
    return round_about(system, centre, square_distance(centre, p), rounding_of_square(centre))


def round_about(system: NumberSystem[N], centre: Point[N], rr: N, size: N) -> Circle[N]:
    """The circle with this square of its radius; undefined where that is 0. ``size``: of the terms of the square."""
    rr = system.where_positive(rr, size, rr)
    zero = zero_where_defined(rr)
    return Circle(centre.x + zero, centre.y + zero, rr)


def circle_through(system: NumberSystem[N], p: Point[N], q: Point[N], r: Point[N]) -> Circle[N]:
    """The circle through three points; undefined where they lie on one line, or two of them are one.

    >>> plain(circle_through(ARRAYS, Point(5, 0), Point(0, 5), Point(-5, 0)))
    (0.0, 0.0, 25.0)
    """
    bx, by, cx, cy = q.x - p.x, q.y - p.y, r.x - p.x, r.y - p.y
    area = 2 * cross(bx, by, cx, cy)
    bb, cc = bx * bx + by * by, cx * cx + cy * cy
    # Not the terms of the area, which all vanish where r is p: what is compared with them could not be decided.
    size = bb + cc + rounding_of_square(p)
    ux = system.over(cy * bb - by * cc, area, size)
    uy = system.over(bx * cc - cx * bb, area, size)
    return Circle(p.x + ux, p.y + uy, ux * ux + uy * uy)


def on_line(system: NumberSystem[N], parent: Line[N], t: N) -> Point[N]:
    """The sliding point with parameter t on a line.

    >>> plain(on_line(ARRAYS, Line(1, 2, 4, 0), 0.25))
    (2.0, 2.0)
    """
    return at_parameter(parent, t)


def on_circle(system: NumberSystem[N], parent: Circle[N], angle: N) -> Point[N]:
    """The sliding point at an angle, in radians from the x direction, on a circle.

    >>> plain(on_circle(ARRAYS, Circle(1, 1, 4), 0.0))
    (3.0, 1.0)
    """
    radius = system.root(parent.rr, parent.rr)
    return Point(parent.x + radius * system.cos(angle), parent.y + radius * system.sin(angle))


def reflection(system: NumberSystem[N], p: Point[N], mirror: Line[N]) -> Point[N]:
    """The mirror image of p in a line, however far that extends.

    >>> plain(reflection(ARRAYS, Point(1, 3), Line(0, 0, 2, 0)))
    (1.0, -3.0)
    """
    square = mirror.dx * mirror.dx + mirror.dy * mirror.dy
    off = system.over(cross(mirror.dx, mirror.dy, p.x - mirror.x, p.y - mirror.y), square, square)
    return Point(p.x + 2 * off * mirror.dy, p.y - 2 * off * mirror.dx)


def translation(system: NumberSystem[N], p: Point[N], tail: Point[N], tip: Point[N]) -> Point[N]:
    """The point p moved by the way from tail to tip; p itself where these are equal.

    >>> plain(translation(ARRAYS, Point(1, 1), Point(0, 0), Point(2, 3)))
    (3.0, 4.0)
    """
    return Point(p.x + (tip.x - tail.x), p.y + (tip.y - tail.y))


def rotation(
    system: NumberSystem[N], p: Point[N], centre: Point[N], a: Point[N], vertex: Point[N], b: Point[N]
) -> Point[N]:
    """The point p turned about the centre by the directed angle from a over the vertex to b; undefined where a leg of
    that angle has length zero. p itself where it is the centre.

    >>> plain(rotation(ARRAYS, Point(3, 1), Point(1, 1), Point(5, 0), Point(0, 0), Point(0, 2)))
    (1.0, 3.0)
    """
    u, w = line(system, vertex, a), line(system, vertex, b)
    uu, ww = u.dx * u.dx + u.dy * u.dy, w.dx * w.dx + w.dy * w.dy
    both = system.root(uu, uu) * system.root(ww, ww)
    cosine = system.over(dot(u.dx, u.dy, w.dx, w.dy), both, both)
    sine = system.over(cross(u.dx, u.dy, w.dx, w.dy), both, both)
    x, y = p.x - centre.x, p.y - centre.y
    return Point(centre.x + (cosine * x - sine * y), centre.y + (sine * x + cosine * y))


class MakeName(StrEnum):
    """Every make there is, in the order in which people meet them."""

    FREE_POINT = "free_point"
    POINT_ON = "point_on"
    LINE = "line"
    RAY = "ray"
    SEGMENT = "segment"
    CIRCLE = "circle"
    CIRCLE_RADIUS = "circle_radius"
    INTERSECTION = "intersection"
    MIDPOINT = "midpoint"
    PERPENDICULAR = "perpendicular"
    PARALLEL = "parallel"
    PERPENDICULAR_BISECTOR = "perpendicular_bisector"
    ANGLE_BISECTOR = "angle_bisector"
    CIRCLE_THROUGH = "circle_through"
    REFLECTION = "reflection"
    TRANSLATION = "translation"
    ROTATION = "rotation"

    __hash__ = str.__hash__  # so that the name in a document finds its row


class By(Enum):
    """What draws an object of which nothing else needs to be said: one stroke of a class tool, or none."""

    RULER = "ruler"
    COMPASS = "compass"
    NOTHING = "nothing"


class Undefined(StrEnum):
    """Why what a make gives can be undefined although all that it is made from is defined."""

    NEVER = "never"
    ONE_POINT = "one point"  # the two points that span it are one
    IN_A_ROW = "in a row"  # its three points lie on one line
    NO_ANGLE = "no angle"  # the vertex of its angle is a point of a leg
    APART = "apart"  # its curves do not meet, or meet where it is not meant


Role = frozenset[Kind]
A_POINT: Role = frozenset({Kind.POINT})
A_LINE: Role = LINES
A_CURVE: Role = CURVES

Entries = tuple[int, ...]
"""Numbers of entries of ``from``."""

NONE: Entries = ()
SECOND, BOTH, LAST_TWO, ALL, LAST_THREE = (1,), (0, 1), (1, 2), (0, 1, 2), (2, 3, 4)
FIRST_TWO = ((0, 1),)


@dataclass(frozen=True)
class Make:
    """One row of the table of makes: all that is geometry about a make.

    ``sources``: the kinds that each entry of ``from`` may have, in order. ``inputs``: how many numbers of its
    own a position gives it (2 for a free point, 1 for a sliding one). ``counts``: whether using it is a move.
    ``compute`` is None for the three makes that ``figure`` treats itself: free and sliding points, intersections.
    ``price``: what it costs with compass and ruler. ``through``: the entries of ``from`` that lie on what it gives.
    ``spanned``: the entries that must not be one point, lie in a row, or make no angle, for ``undefined``. ``apart``:
    the pairs of entries that must be different points; ``trivial``: those that give nothing new where they are one.
    ``symmetric``: whether its sources may trade places without changing the object, but which intersection is meant.
    """

    name: MakeName
    sources: tuple[Role, ...]
    gives: Kind
    compute: Callable[..., Any] | None
    price: Price | By
    through: Entries = NONE
    undefined: Undefined = Undefined.NEVER
    spanned: Entries = NONE
    apart: tuple[tuple[int, int], ...] = ()
    trivial: tuple[tuple[int, int], ...] = ()
    symmetric: bool = False
    inputs: int = 0
    counts: bool = True


M, U = MakeName, Undefined

ROWS = (
    Make(M.FREE_POINT, (), Kind.POINT, None, By.NOTHING, inputs=2, counts=False),
    Make(M.POINT_ON, (A_CURVE,), Kind.POINT, None, By.NOTHING, inputs=1, counts=False),
    Make(
        M.INTERSECTION,
        (A_CURVE, A_CURVE),
        Kind.POINT,
        None,
        By.NOTHING,
        NONE,
        U.APART,
        BOTH,
        symmetric=True,
        counts=False,
    ),
    # Two equal circles about the ends, the line through where they meet (Euclid I.10), and that through both points.
    Make(
        M.MIDPOINT,
        (A_POINT, A_POINT),
        Kind.POINT,
        midpoint,
        Price(4, strokes(FREE_CIRCLE, FREE_CIRCLE, LINE, LINE)),
        trivial=FIRST_TWO,
        symmetric=True,
    ),
    Make(M.LINE, (A_POINT, A_POINT), Kind.LINE, line, By.RULER, BOTH, U.ONE_POINT, BOTH, FIRST_TWO, symmetric=True),
    Make(M.RAY, (A_POINT, A_POINT), Kind.RAY, line, By.RULER, BOTH, U.ONE_POINT, BOTH, FIRST_TWO),
    Make(
        M.SEGMENT, (A_POINT, A_POINT), Kind.SEGMENT, line, By.RULER, BOTH, U.ONE_POINT, BOTH, FIRST_TWO, symmetric=True
    ),
    # Shortest: two circles through the point about points of the line, and the line through their intersections.
    # Simplest: a free circle about the point, equal circles about where it cuts the line, the line (Euclid I.12).
    Make(
        M.PERPENDICULAR,
        (A_LINE, A_POINT),
        Kind.LINE,
        perpendicular,
        Price(3, strokes(FREE_CIRCLE, FREE_CIRCLE, FREE_CIRCLE, LINE)),
        SECOND,
    ),
    # Shortest: a circle about a point of the line through the point, then the same chord from its other end.
    # Simplest: the rhombus of three equal circles, about the point, about where the first one cuts the line, and
    # about where the second one does; and the line.
    Make(
        M.PARALLEL,
        (A_LINE, A_POINT),
        Kind.LINE,
        parallel,
        Price(3, strokes(FREE_CIRCLE, FREE_CIRCLE, FREE_CIRCLE, LINE)),
        SECOND,
    ),
    # Two equal circles about the ends, the line through their intersections (Euclid I.10).
    Make(
        M.PERPENDICULAR_BISECTOR,
        (A_POINT, A_POINT),
        Kind.LINE,
        perpendicular_bisector,
        Price(3, strokes(FREE_CIRCLE, FREE_CIRCLE, LINE)),
        NONE,
        U.ONE_POINT,
        BOTH,
        FIRST_TWO,
        symmetric=True,
    ),
    # A circle about the vertex through the first point; the second leg; equal circles about both of its points on the
    # legs; the ray to where they meet (Euclid I.9, with a rhombus).
    Make(
        M.ANGLE_BISECTOR,
        (A_POINT, A_POINT, A_POINT),
        Kind.RAY,
        angle_bisector,
        Price(5, strokes("C1", FREE_CIRCLE, LINE, FREE_CIRCLE, FREE_CIRCLE, LINE)),
        SECOND,
        U.IN_A_ROW,
        ALL,
        ((0, 1), (1, 2)),
        trivial=((0, 2),),
    ),
    Make(M.CIRCLE, (A_POINT, A_POINT), Kind.CIRCLE, circle, By.COMPASS, SECOND, U.ONE_POINT, BOTH, FIRST_TWO),
    Make(
        M.CIRCLE_RADIUS,
        (A_POINT, A_POINT, A_POINT),
        Kind.CIRCLE,
        circle_radius,
        By.COMPASS,
        NONE,
        U.ONE_POINT,
        LAST_TWO,
        ((1, 2),),
    ),
    # Three equal circles about the points, two bisectors, and the circle about their intersection (Euclid IV.5).
    Make(
        M.CIRCLE_THROUGH,
        (A_POINT, A_POINT, A_POINT),
        Kind.CIRCLE,
        circle_through,
        Price(6, strokes(FREE_CIRCLE, FREE_CIRCLE, FREE_CIRCLE, LINE, LINE, "C1", FREE_CIRCLE)),
        ALL,
        U.IN_A_ROW,
        ALL,
        ((0, 1), (0, 2), (1, 2)),
        symmetric=True,
    ),
    # Two circles through the point about points of the line; their other intersection. With equal openings, both about
    # where a circle round the point cuts the line, none is set anew.
    Make(
        M.REFLECTION,
        (A_POINT, A_LINE),
        Kind.POINT,
        reflection,
        Price(2, strokes(FREE_CIRCLE, FREE_CIRCLE, FREE_CIRCLE)),
    ),
    # The fourth corner of a parallelogram: the circle about the point with the first way as its radius, and that about
    # the tip with the way from the tail to the point (Euclid I.33).
    Make(
        M.TRANSLATION,
        (A_POINT, A_POINT, A_POINT),
        Kind.POINT,
        translation,
        Price(2, strokes("C1 C1", FREE_CIRCLE, "C1 C1", FREE_CIRCLE)),
        trivial=((1, 2),),
    ),
    # The angle is copied to the centre (Euclid I.23): both legs, a circle about the vertex with the way from the centre
    # to the point as its radius, the same about the centre, and what the legs cut out taken from the point on that.
    Make(
        M.ROTATION,
        (A_POINT, A_POINT, A_POINT, A_POINT, A_POINT),
        Kind.POINT,
        rotation,
        Price(5, strokes(LINE, LINE, "C1 C1", FREE_CIRCLE, FREE_CIRCLE, "C1 C1", FREE_CIRCLE)),
        NONE,
        U.NO_ANGLE,
        LAST_THREE,
        ((2, 3), (3, 4)),
        trivial=((0, 1), (2, 4)),
    ),
)

MAKES: dict[str, Make] = complete("MAKES", MakeName, {row.name: row for row in ROWS})
