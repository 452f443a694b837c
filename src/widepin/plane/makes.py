"""Every make of a step: what it is made from, what it gives, and how it is computed.

Each function takes the number system and the shapes it is made from. Directions, parameters and undefined
cases are those of docs/formats.md; ``crossings`` holds the intersections.

A shape is undefined as a whole: where one of its coordinates is, all are. So whatever is made from it is undefined too,
however few of the coordinates it is computed from.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from .numbers import NumberSystem
from .shapes import (
    CURVES,
    STRAIGHTS,
    Circle,
    Kind,
    Point,
    Straight,
    at_parameter,
    cross,
    rounding_of_square,
    square_distance,
    zero_where_defined,
)


def line(system: NumberSystem, p: Point, q: Point) -> Straight:
    """The straight from p to q, whatever its extent; undefined where they are one point."""
    dx, dy = q.x - p.x, q.y - p.y
    return spanned(system, p, dx, dy, rounding_of_square(p))


def spanned(system: NumberSystem, p: Point, dx: Any, dy: Any, size: Any) -> Straight:
    """The straight from p in a direction; undefined where that has no length. ``size``: of the terms of its square."""
    way = dx * dx + dy * dy
    zero = zero_where_defined(system.where_positive(way, size, way))
    return Straight(p.x + zero, p.y + zero, dx + zero, dy + zero)


def midpoint(system: NumberSystem, p: Point, q: Point) -> Point:
    """The point halfway between p and q, p itself where they are equal."""
    return Point((p.x + q.x) * 0.5, (p.y + q.y) * 0.5)


def perpendicular(system: NumberSystem, parent: Straight, p: Point) -> Straight:
    """The line through p, its way the parent's turned a quarter left."""
    return directed(p, -parent.dy, parent.dx)


def parallel(system: NumberSystem, parent: Straight, p: Point) -> Straight:
    """The line through p with the parent's way."""
    return directed(p, parent.dx, parent.dy)


def directed(p: Point, dx: Any, dy: Any) -> Straight:
    """The straight from p in a direction that has a length; undefined where either is undefined."""
    here, there = zero_where_defined(p.x), zero_where_defined(dx)
    return Straight(p.x + there, p.y + there, dx + here, dy + here)


def perpendicular_bisector(system: NumberSystem, p: Point, q: Point) -> Straight:
    """The line through the midpoint of p and q, its way that from p to q turned a quarter left."""
    return perpendicular(system, line(system, p, q), midpoint(system, p, q))


def angle_bisector(system: NumberSystem, p: Point, vertex: Point, q: Point) -> Straight:
    """The ray from the vertex inside the angle; its second point is where it meets the side from p to q.

    That point divides the side as the legs (Euclid VI.3). Undefined for a straight angle, whose inside could
    be either side, and where a leg has length zero.
    """
    u, w = line(system, vertex, p), line(system, vertex, q)
    uu, ww = u.dx * u.dx + u.dy * u.dy, w.dx * w.dx + w.dy * w.dy
    u_length, w_length = system.root(uu, uu), system.root(ww, ww)
    both = u_length + w_length
    dx = system.over(u.dx * w_length + w.dx * u_length, both, both)
    dy = system.over(u.dy * w_length + w.dy * u_length, both, both)
    return spanned(system, vertex, dx, dy, (uu + ww) * 1e-12)


def circle_radius(system: NumberSystem, centre: Point, p: Point, q: Point) -> Circle:
    """The circle with the distance of p and q as radius; undefined where that is 0."""
    return round_about(system, centre, square_distance(p, q) + zero_where_defined(centre.x), rounding_of_square(p))


def circle(system: NumberSystem, centre: Point, p: Point) -> Circle:
    """The circle about centre through p; undefined where they are one point."""
    return round_about(system, centre, square_distance(centre, p), rounding_of_square(centre))


def round_about(system: NumberSystem, centre: Point, rr: Any, size: Any) -> Circle:
    """The circle with this square of its radius; undefined where that is 0. ``size``: of the terms of the square."""
    rr = system.where_positive(rr, size, rr)
    zero = zero_where_defined(rr)
    return Circle(centre.x + zero, centre.y + zero, rr)


def circle_through(system: NumberSystem, p: Point, q: Point, r: Point) -> Circle:
    """The circle through three points; undefined where they lie on one line, or two of them are one."""
    bx, by, cx, cy = q.x - p.x, q.y - p.y, r.x - p.x, r.y - p.y
    area = 2 * cross(bx, by, cx, cy)
    bb, cc = bx * bx + by * by, cx * cx + cy * cy
    # Not the terms of the area, which all vanish where r is p: what is compared with them could not be decided.
    size = bb + cc + rounding_of_square(p)
    ux = system.over(cy * bb - by * cc, area, size)
    uy = system.over(bx * cc - cx * bb, area, size)
    return Circle(p.x + ux, p.y + uy, ux * ux + uy * uy)


def on_straight(system: NumberSystem, parent: Straight, t: Any) -> Point:
    """The sliding point with parameter t on a straight."""
    return at_parameter(parent, t)


def on_circle(system: NumberSystem, parent: Circle, angle: Any) -> Point:
    """The sliding point at an angle, in radians from the x direction, on a circle."""
    radius = system.root(parent.rr, parent.rr)
    return Point(parent.x + radius * system.cos(angle), parent.y + radius * system.sin(angle))


Role = frozenset[Kind]
A_POINT: Role = frozenset({Kind.POINT})
A_STRAIGHT: Role = STRAIGHTS
A_CURVE: Role = CURVES


@dataclass(frozen=True)
class Make:
    """One row of the table of makes.

    ``sources``: the kinds that each entry of ``from`` may have, in order. ``inputs``: how many numbers of its
    own a position gives it (2 for a free point, 1 for a sliding one). ``counts``: whether using it is a move.
    ``compute`` is None for the three makes that ``figure`` treats itself: free and sliding points, crossings.
    """

    name: str
    sources: tuple[Role, ...]
    gives: Kind
    compute: Callable[..., Any] | None
    inputs: int = 0
    counts: bool = True


MAKES: dict[str, Make] = {
    make.name: make
    for make in (
        Make("free_point", (), Kind.POINT, None, inputs=2, counts=False),
        Make("point_on", (A_CURVE,), Kind.POINT, None, inputs=1, counts=False),
        Make("intersection", (A_CURVE, A_CURVE), Kind.POINT, None, counts=False),
        Make("midpoint", (A_POINT, A_POINT), Kind.POINT, midpoint),
        Make("line", (A_POINT, A_POINT), Kind.LINE, line),
        Make("ray", (A_POINT, A_POINT), Kind.RAY, line),
        Make("segment", (A_POINT, A_POINT), Kind.SEGMENT, line),
        Make("perpendicular", (A_STRAIGHT, A_POINT), Kind.LINE, perpendicular),
        Make("parallel", (A_STRAIGHT, A_POINT), Kind.LINE, parallel),
        Make("perpendicular_bisector", (A_POINT, A_POINT), Kind.LINE, perpendicular_bisector),
        Make("angle_bisector", (A_POINT, A_POINT, A_POINT), Kind.RAY, angle_bisector),
        Make("circle", (A_POINT, A_POINT), Kind.CIRCLE, circle),
        Make("circle_radius", (A_POINT, A_POINT, A_POINT), Kind.CIRCLE, circle_radius),
        Make("circle_through", (A_POINT, A_POINT, A_POINT), Kind.CIRCLE, circle_through),
    )
}
