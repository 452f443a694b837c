"""The relations that a task can ask for.

Each relation is written once, over the number systems of ``plane``, and answers with a ``Finding``: *gaps*, lengths
that must all be zero, and *margins*, lengths that must all be positive. Angles are turned into lengths by the size of
the figure, so that one visual tolerance serves all relations.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from itertools import combinations
from typing import Any, Generic, NamedTuple, assert_never

from ..plane import measurement
from ..plane.measurement import double_area, parameter
from ..plane.numbers import N, NumberSystem
from ..plane.rows import complete
from ..plane.shapes import (
    LINES,
    Circle,
    Kind,
    Line,
    Point,
    Shape,
    at_parameter,
    cross,
    dot,
    start,
)
from ..plane.tolerances import PARALLEL, ROUNDING


@dataclass
class Finding(Generic[N]):
    """What a relation found in a position: lengths that must vanish, and lengths that must be positive."""

    gaps: list[N] = field(default_factory=list)
    margins: list[N] = field(default_factory=list)


class Term(NamedTuple, Generic[N]):
    """A shape in a relation, with its kind."""

    shape: Shape[N]
    kind: Kind


@dataclass(frozen=True)
class Measure(Generic[N]):
    """The number system at work and the scale of the figure.

    ``size``: root mean square distance of the given points from ``home``, their centroid, in centimetres.
    """

    system: NumberSystem[N]
    size: N
    home: Point[N]

    @property
    def _square_of_nothing(self) -> N:
        return self.size * self.size * ROUNDING

    def length(self, x: N, y: N) -> N:
        """The length of a vector."""
        return self.system.root(x * x + y * y, self.size * self.size)

    def distance(self, p: Point[N], q: Point[N]) -> N:
        """The distance of two points."""
        return measurement.distance(self.system, p, q, self.size * self.size)

    def unit(self, dx: N, dy: N) -> tuple[N, N]:
        """The vector of length 1 in a direction; undefined for the zero vector."""
        # The size is the figure's, not the vector's: that of two equal points could not be decided.
        return measurement.unit(self.system, dx, dy, self._square_of_nothing)

    def offset(self, p: Point[N], line: Line[N]) -> N:
        """The signed distance of a point from a line, however far that extends; positive to its left."""
        return measurement.offset(self.system, p, line, self._square_of_nothing)

    def radius(self, circle: Circle[N]) -> N:
        """The radius of a circle."""
        return measurement.radius(self.system, circle)

    def beyond(self, t: N, line: Line[N], kind: Kind) -> list[N]:
        """How far a parameter lies beyond the ends of a ray or segment, as lengths; 0 inside."""
        length = self.length(line.dx, line.dy)
        overshoots = {Kind.LINE: [], Kind.RAY: [-t], Kind.SEGMENT: [-t, t - 1]}[kind]
        return [(x + self.system.absolute(x)) * 0.5 * length for x in overshoots]


def same(m: Measure[N], x: Term[N], y: Term[N]) -> Finding[N]:
    """Equal points or circles; lines on one line; two rays also from one point the same way.

    >>> plain(found(same(unit_figure, Term(Point(0, 0), Kind.POINT), Term(Point(3, 4), Kind.POINT))))
    ((5.0,), ())
    """
    a, b = x.shape, y.shape
    if isinstance(a, Point) and isinstance(b, Point):
        return Finding([m.distance(a, b)])
    if isinstance(a, Circle) and isinstance(b, Circle):
        return Finding([m.distance(Point(a.x, a.y), Point(b.x, b.y)), m.radius(a) - m.radius(b)])
    assert isinstance(a, Line) and isinstance(b, Line)
    ux, uy = m.unit(a.dx, a.dy)
    if x.kind is Kind.RAY and y.kind is Kind.RAY:
        vx, vy = m.unit(b.dx, b.dy)
        gaps = [m.distance(start(a), start(b)), cross(ux, uy, vx, vy) * m.size]
        return Finding(gaps, [dot(ux, uy, vx, vy) * m.size])
    # Two lines look the same if they stay together over the extent of the figure.
    foot = at_parameter(a, parameter(m.system, a, m.home))
    ends = [Point(foot.x + s * m.size * ux, foot.y + s * m.size * uy) for s in (1, -1)]
    return Finding([m.offset(end, b) for end in ends])


def on(m: Measure[N], p: Term[N], curve: Term[N]) -> Finding[N]:
    """The point lies on the line or circle; on a ray or segment also within its extent.

    >>> plain(found(on(unit_figure, Term(Point(3, 5), Kind.POINT), Term(Line(0, 0, 4, 0), Kind.SEGMENT))))
    ((5.0, 0.0, 0.0), ())
    """
    point, shape = p.shape, curve.shape
    assert isinstance(point, Point)
    if isinstance(shape, Circle):
        return Finding([m.distance(point, Point(shape.x, shape.y)) - m.radius(shape)])
    assert isinstance(shape, Line)
    t = parameter(m.system, shape, point)
    return Finding([m.offset(point, shape), *m.beyond(t, shape, curve.kind)])


def parallel(m: Measure[N], x: Term[N], y: Term[N]) -> Finding[N]:
    """The lines have one direction, or opposite ones.

    >>> plain(found(parallel(unit_figure, Term(Line(0, 0, 1, 0), Kind.LINE), Term(Line(0, 3, 2, 0), Kind.LINE))))
    ((0.0,), ())
    """
    (ux, uy), (vx, vy) = _directions(m, x, y)
    return Finding([cross(ux, uy, vx, vy) * m.size])


def perpendicular(m: Measure[N], x: Term[N], y: Term[N]) -> Finding[N]:
    """The lines stand at right angles.

    >>> plain(found(perpendicular(unit_figure, Term(Line(0, 0, 1, 0), Kind.LINE), Term(Line(0, 3, 2, 0), Kind.LINE))))
    ((1.0,), ())
    """
    (ux, uy), (vx, vy) = _directions(m, x, y)
    return Finding([dot(ux, uy, vx, vy) * m.size])


def _directions(m: Measure[N], x: Term[N], y: Term[N]) -> list[tuple[N, N]]:
    assert isinstance(x.shape, Line) and isinstance(y.shape, Line)
    return [m.unit(x.shape.dx, x.shape.dy), m.unit(y.shape.dx, y.shape.dy)]


def tangent(m: Measure[N], x: Term[N], y: Term[N]) -> Finding[N]:
    """The circle touches the line, within its extent, or the other circle, from outside or inside.

    >>> plain(found(tangent(unit_figure, Term(Circle(0, 3, 4), Kind.CIRCLE), Term(Line(0, 0, 1, 0), Kind.LINE))))
    ((1.0,), ())
    """
    if isinstance(x.shape, Line):
        x, y = y, x
    circle, other = x.shape, y.shape
    assert isinstance(circle, Circle)
    centre = Point(circle.x, circle.y)
    if isinstance(other, Line):
        gap = m.system.absolute(m.offset(centre, other)) - m.radius(circle)
        return Finding([gap, *m.beyond(parameter(m.system, other, centre), other, y.kind)])
    assert isinstance(other, Circle)
    apart = m.distance(centre, Point(other.x, other.y))
    r, s = m.radius(circle), m.radius(other)
    absolute = m.system.absolute
    outside, inside = absolute(apart - r - s), absolute(apart - absolute(r - s))
    smaller = (outside + inside - absolute(outside - inside)) * 0.5
    return Finding([smaller], [apart])


def equal_length(m: Measure[N], *pairs: Sequence[Point[N]]) -> Finding[N]:
    """All pairs of points are equally far apart.

    >>> plain(found(equal_length(unit_figure, (Point(0, 0), Point(3, 4)), (Point(0, 0), Point(0, 2)))))
    ((3.0,), ())
    """
    first, *others = [m.distance(p, q) for p, q in pairs]
    return Finding([first - other for other in others])


def equal_angle(m: Measure[N], *triples: Sequence[Point[N]]) -> Finding[N]:
    """All undirected angles, vertex second, are equal.

    >>> plain(found(equal_angle(unit_figure, *[(Point(1, 0), Point(0, 0), Point(0, 1))] * 2)))
    ((0.0,), (1.0,))
    """
    turns = []
    for p, vertex, q in triples:
        ux, uy = m.unit(p.x - vertex.x, p.y - vertex.y)
        vx, vy = m.unit(q.x - vertex.x, q.y - vertex.y)
        turns.append((dot(ux, uy, vx, vy), m.system.absolute(cross(ux, uy, vx, vy))))
    (cos, sin), *others = turns
    return Finding([(sin * c - cos * s) * m.size for c, s in others], [(cos * c + sin * s) * m.size for c, s in others])


def ratio(m: Measure[N], first: Sequence[Point[N]], second: Sequence[Point[N]], n: float, d: float) -> Finding[N]:
    """The first distance is n/d times the second.

    >>> plain(found(ratio(unit_figure, (Point(0, 0), Point(1, 0)), (Point(0, 0), Point(3, 0)), 1, 3)))
    ((0.0,), ())
    """
    scale = max(abs(n), abs(d), 1)
    return Finding([(m.distance(*first) * d - m.distance(*second) * n) * (1 / scale)])


def midpoint(m: Measure[N], x: Term[N], p: Term[N], q: Term[N]) -> Finding[N]:
    """The first point lies halfway between the two others.

    >>> a, b, c = Term(Point(2, 0), Kind.POINT), Term(Point(0, 0), Kind.POINT), Term(Point(4, 0), Kind.POINT)
    >>> plain(found(midpoint(unit_figure, a, b, c)))
    ((0.0,), ())
    """
    middle, a, b = x.shape, p.shape, q.shape
    assert isinstance(middle, Point) and isinstance(a, Point) and isinstance(b, Point)
    return Finding([m.distance(middle, Point((a.x + b.x) * 0.5, (a.y + b.y) * 0.5))])


def distinct(m: Measure[N], *terms: Term[N]) -> Finding[N]:
    """All points differ.

    >>> plain(found(distinct(unit_figure, Term(Point(0, 0), Kind.POINT), Term(Point(3, 4), Kind.POINT))))
    ((), (5.0,))
    """
    points = [term.shape for term in terms]
    return Finding(
        [],
        [
            m.distance(p, q)
            for number, p in enumerate(points)
            for q in points[number + 1 :]
            if isinstance(p, Point) and isinstance(q, Point)
        ],
    )


def same_side(m: Measure[N], line: Term[N], p: Term[N], q: Term[N]) -> Finding[N]:
    """Both points lie strictly on one side of the line, however far that extends.

    >>> a, b, c = Term(Line(0, 0, 1, 0), Kind.LINE), Term(Point(0, 1), Kind.POINT), Term(Point(5, 2), Kind.POINT)
    >>> plain(found(same_side(unit_figure, a, b, c)))
    ((), (2.0,))
    """
    return Finding([], [_sides(m, line, p, q)])


def opposite_side(m: Measure[N], line: Term[N], p: Term[N], q: Term[N]) -> Finding[N]:
    """The points lie strictly on different sides of the line, however far that extends.

    >>> a, b, c = Term(Line(0, 0, 1, 0), Kind.LINE), Term(Point(0, 1), Kind.POINT), Term(Point(5, 2), Kind.POINT)
    >>> plain(found(opposite_side(unit_figure, a, b, c)))
    ((), (-2.0,))
    """
    return Finding([], [-_sides(m, line, p, q)])


def _sides(m: Measure[N], line: Term[N], p: Term[N], q: Term[N]) -> N:
    assert isinstance(line.shape, Line) and isinstance(p.shape, Point) and isinstance(q.shape, Point)
    product = m.offset(p.shape, line.shape) * m.offset(q.shape, line.shape)
    return m.system.over(product, m.size, m.size)


def inside_angle(m: Measure[N], p: Term[N], angle: Sequence[Point[N]]) -> Finding[N]:
    """The point lies strictly inside the angle AVB, given as its three points.

    >>> plain(found(inside_angle(unit_figure, Term(Point(1, 0), Kind.POINT), (Point(1, 0), Point(0, 0), Point(0, 1)))))
    ((), (0.0, 1.0))
    """
    a, vertex, b = angle
    assert isinstance(p.shape, Point)
    (ux, uy), (vx, vy), (px, py) = (m.unit(end.x - vertex.x, end.y - vertex.y) for end in (a, b, p.shape))
    turn = cross(ux, uy, vx, vy) * m.size
    return Finding([], [cross(ux, uy, px, py) * turn, cross(px, py, vx, vy) * turn])


def equal_area(m: Measure[N], *triangles: Sequence[Point[N]]) -> Finding[N]:
    """All triangles have one area; those of three points in a row have none.

    >>> plain(found(equal_area(unit_figure, *[(Point(0, 0), Point(4, 0), Point(x, 3)) for x in (1, 9)])))
    ((0.0,), ())
    """
    first, *others = [m.system.absolute(double_area(*corners)) * 0.5 for corners in triangles]
    # As a length: what one side of the figure's size would have to be longer.
    return Finding([m.system.over(first - other, m.size, m.size) for other in others])


def collinear(m: Measure[N], *terms: Term[N]) -> Finding[N]:
    """All points lie on one line: of any three, the one off the longest side lies on it.

    >>> a, b, c = Term(Point(0, 0), Kind.POINT), Term(Point(4, 0), Kind.POINT), Term(Point(2, 0), Kind.POINT)
    >>> plain(found(collinear(unit_figure, a, b, c)))
    ((0.0,), ())
    """
    gaps = []
    for one in combinations([term.shape for term in terms], 3):
        p, q, r = one
        assert isinstance(p, Point) and isinstance(q, Point) and isinstance(r, Point)
        area = double_area(p, q, r)
        sides = [m.distance(p, q), m.distance(q, r), m.distance(r, p)]
        # The size is the figure's: where all three are one point, their area could not be compared with their sides.
        longest = _larger(m, _larger(m, sides[0], sides[1]), sides[2])
        gaps.append(m.system.over(area, longest, longest + m.size * ROUNDING))
    return Finding(gaps)


def concurrent(m: Measure[N], *terms: Term[N]) -> Finding[N]:
    """All lines pass through one point, whatever their extent; not where two of them are one line, or parallel.

    Of any three: how far the third misses the point where the two meet that stand the most upright to each other.

    >>> lines = Line(0, 0, 1, 0), Line(0, 0, 0, 1), Line(2, 0, -1, 1)
    >>> plain(found(concurrent(unit_figure, *(Term(one, Kind.LINE) for one in lines))))
    ((1.414214,), (1.0, 0.707107, 0.707107))
    """
    lines = [term.shape for term in terms if isinstance(term.shape, Line)]
    # Measured from the middle of the figure, so that a line is its direction and its distance from there.
    normals = [(*m.unit(line.dx, line.dy), m.offset(m.home, line)) for line in lines]
    turns = {
        (i, j): cross(normals[i][0], normals[i][1], normals[j][0], normals[j][1])
        for i, j in combinations(range(len(lines)), 2)
    }
    gaps = []
    for i, j, k in combinations(range(len(lines)), 3):
        # The volume of the three lines as vectors (ux, uy, offset), which vanishes where they meet or are parallel.
        volume = normals[i][2] * turns[j, k] - normals[j][2] * turns[i, k] + normals[k][2] * turns[i, j]
        sines = [m.system.absolute(turns[pair]) for pair in ((i, j), (j, k), (i, k))]
        steepest = _larger(m, _larger(m, sines[0], sines[1]), sines[2])
        gaps.append(m.system.over(volume, steepest + PARALLEL, steepest + PARALLEL))
    return Finding(gaps, [m.system.absolute(turn) * m.size for turn in turns.values()])


def equidistant(m: Measure[N], p: Term[N], *terms: Term[N]) -> Finding[N]:
    """The point has one distance from all lines, whatever their extent, and lies on none of them.

    >>> p, g, h = Term(Point(1, 2), Kind.POINT), Term(Line(0, 0, 1, 0), Kind.LINE), Term(Line(0, 0, 0, 1), Kind.LINE)
    >>> plain(found(equidistant(unit_figure, p, g, h)))
    ((1.0,), (2.0,))
    """
    assert isinstance(p.shape, Point)
    first, *others = [
        m.system.absolute(m.offset(p.shape, term.shape)) for term in terms if isinstance(term.shape, Line)
    ]
    return Finding([first - other for other in others], [first])


def _larger(m: Measure[N], x: N, y: N) -> N:
    return (x + y + m.system.absolute(x - y)) * 0.5


class TermKind(StrEnum):
    """What a term of a relation is: a name, or a list of names of points.

    In the place of ``STRAIGHT``, ``CURVE`` and ``OBJECT``, two points may stand for the line through them.
    """

    OBJECT = "object"
    POINT = "point"
    STRAIGHT = "straight"
    CURVE = "curve"
    PAIR = "pair"
    TRIPLE = "triple"

    __hash__ = str.__hash__

    @property
    def size(self) -> int | None:
        """How many points a list has in its place; None where only a name may stand."""
        match self:
            case TermKind.POINT:
                return None
            case TermKind.TRIPLE:
                return 3
            case TermKind.OBJECT | TermKind.STRAIGHT | TermKind.CURVE | TermKind.PAIR:
                return 2
            case _ as never:
                assert_never(never)

    @property
    def is_list(self) -> bool:
        """Whether only a list of points may stand there."""
        return self in (TermKind.PAIR, TermKind.TRIPLE)


class RelationName(StrEnum):
    """Every relation that a task can ask for."""

    SAME = "same"
    ON = "on"
    PARALLEL = "parallel"
    PERPENDICULAR = "perpendicular"
    TANGENT = "tangent"
    MIDPOINT = "midpoint"
    COLLINEAR = "collinear"
    CONCURRENT = "concurrent"
    EQUIDISTANT = "equidistant"
    EQUAL_LENGTH = "equal_length"
    EQUAL_ANGLE = "equal_angle"
    EQUAL_AREA = "equal_area"
    RATIO = "ratio"
    DISTINCT = "distinct"
    SAME_SIDE = "same_side"
    OPPOSITE_SIDE = "opposite_side"
    INSIDE_ANGLE = "inside_angle"

    __hash__ = str.__hash__  # so that the name in a document finds its row


@dataclass(frozen=True)
class Relation:
    """A row of the table of relations: all that is geometry about one.

    ``of``: what each term is, in order; where there may be ``many``, the last stands for all that follow, and that is
    how few of them there are at least. ``symmetric``: places whose terms may trade places without changing the meaning.
    ``settles``: how many numbers it settles at most, as an equality, not counting those that each term beyond ``many``
    settles: one more.
    """

    name: str
    of: tuple[TermKind, ...]
    check: Callable[..., Finding[Any]]
    many: int = 0
    symmetric: tuple[int, ...] = ()
    settles: int = 0

    def settled_by(self, terms: int) -> int:
        """How many numbers it settles at most with so many terms; inequalities settle none."""
        return self.settles + (terms - self.fewest if self.many and self.settles else 0)

    @property
    def fixed(self) -> int:
        """How many terms stand before those that there may be many of."""
        return len(self.of) - 1 if self.many else len(self.of)

    @property
    def fewest(self) -> int:
        """How many terms there are at least."""
        return self.fixed + self.many

    def roles(self, terms: int) -> tuple[TermKind, ...]:
        """What each of so many terms is."""
        return self.of[: self.fixed] + self.of[self.fixed :] * (terms - self.fixed)

    def exchangeable(self, terms: int) -> tuple[int, ...]:
        """The places of so many terms that may trade places."""
        return tuple(range(self.fixed, terms)) if self.many else self.symmetric


R = RelationName
T = TermKind

RELATIONS: dict[str, Relation] = complete(
    "RELATIONS",
    RelationName,
    {
        relation.name: relation
        for relation in (
            Relation(R.SAME, (T.OBJECT, T.OBJECT), same, symmetric=(0, 1), settles=2),
            Relation(R.ON, (T.POINT, T.CURVE), on, settles=1),
            Relation(R.PARALLEL, (T.STRAIGHT, T.STRAIGHT), parallel, symmetric=(0, 1), settles=1),
            Relation(R.PERPENDICULAR, (T.STRAIGHT, T.STRAIGHT), perpendicular, symmetric=(0, 1), settles=1),
            Relation(R.TANGENT, (T.CURVE, T.CURVE), tangent, symmetric=(0, 1), settles=1),
            Relation(R.MIDPOINT, (T.POINT, T.POINT, T.POINT), midpoint, symmetric=(1, 2), settles=2),
            Relation(R.COLLINEAR, (T.POINT,), collinear, many=3, settles=1),
            Relation(R.CONCURRENT, (T.STRAIGHT,), concurrent, many=3, settles=1),
            Relation(R.EQUIDISTANT, (T.POINT, T.STRAIGHT), equidistant, many=2, settles=1),
            Relation(R.EQUAL_LENGTH, (T.PAIR,), equal_length, many=2, settles=1),
            Relation(R.EQUAL_ANGLE, (T.TRIPLE,), equal_angle, many=2, settles=1),
            Relation(R.EQUAL_AREA, (T.TRIPLE,), equal_area, many=2, settles=1),
            Relation(R.RATIO, (T.PAIR, T.PAIR), ratio, settles=1),
            Relation(R.DISTINCT, (T.POINT,), distinct, many=2),
            Relation(R.SAME_SIDE, (T.STRAIGHT, T.POINT, T.POINT), same_side, symmetric=(1, 2)),
            Relation(R.OPPOSITE_SIDE, (T.STRAIGHT, T.POINT, T.POINT), opposite_side, symmetric=(1, 2)),
            Relation(R.INSIDE_ANGLE, (T.POINT, T.TRIPLE), inside_angle),
        )
    },
)

KINDS_OF_TERM: dict[str, frozenset[Kind]] = complete(
    "KINDS_OF_TERM",
    TermKind,
    {
        T.OBJECT: frozenset(Kind),
        T.POINT: frozenset({Kind.POINT}),
        T.STRAIGHT: LINES,
        T.CURVE: LINES | {Kind.CIRCLE},
        T.PAIR: frozenset({Kind.POINT}),
        T.TRIPLE: frozenset({Kind.POINT}),
    },
)
"""What a name in a term of each kind may stand for."""
