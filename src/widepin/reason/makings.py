"""What each make gives to proofs: one row per make, complete at import.

A row says what follows from the making itself, and what an object must have to be the one that the make gives: there is
only one perpendicular bisector, one parallel through a point. Ways to prove something are tuples of facts that do it
together; an empty one where nothing has to be proved.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations

from ..plane.makes import MakeName
from ..plane.rows import complete
from .drawn import Drawn
from .facts import Fact, Rel, Term, fact

Way = tuple[Fact, ...]
Ways = Iterator[Way]
Names = Sequence[str]
Stated = tuple[Fact, frozenset[str]]
"""A fact, and the steps that state it."""


def says_nothing(drawn: Drawn, id_: str, of: Names) -> None:
    """Nothing follows from the making alone."""


def says_nothing_later(drawn: Drawn, id_: str, of: Names) -> Iterator[Stated]:
    """Nothing follows for points that came to lie on it."""
    yield from ()


def no_way(drawn: Drawn, one: str, of: Names) -> Ways:
    """There is no way to prove it: no curve, or nothing that only one object has."""
    yield from ()


@dataclass(frozen=True)
class Making:
    """A row. All four take the figure and the ids that an object is made ``from``.

    ``says(drawn, id, from)``: puts into the figure what the making of an object says of it. ``says_later``: what is so
    besides once it is known which points lie on it. ``locus(drawn, point, from)``: ways to prove that a point lies on
    what the make gives. ``property(drawn, id, from)``: ways to prove that an object is what the make gives.
    """

    says: Callable[[Drawn, str, Names], None]
    property: Callable[[Drawn, str, Names], Ways]
    locus: Callable[[Drawn, str, Names], Ways] = no_way
    says_later: Callable[[Drawn, str, Names], Iterator[Stated]] = says_nothing_later


# -- what several rows need ---------------------------------------------------------------------------


def as_lines(drawn: Drawn, term: Term) -> list[Term]:
    """A line as it is named, and as pairs of points that are known to lie on it."""
    pairs: list[Term] = list(combinations(drawn.on[term], 2)) if isinstance(term, str) else []
    return [term, *pairs[:6]]


def lies_on(drawn: Drawn, point: str, curve: Term) -> Ways:
    """Ways to prove that a point lies on a curve of the work, or on the line through two points."""
    if isinstance(curve, str) and point in drawn.on[curve]:
        yield ()
    elif isinstance(curve, str) and curve in drawn.circles:
        centre, radius = drawn.centre.get(curve), drawn.radius.get(curve)
        if centre in drawn.points and radius is not None and set(radius) <= set(drawn.points):
            yield (fact(Rel.EQUAL_LENGTH, (str(centre), point), radius),)
        for other in drawn.on[curve]:
            if centre in drawn.points:
                yield (fact(Rel.EQUAL_LENGTH, (str(centre), point), (str(centre), other)),)
        yield (fact(Rel.ON, point, curve),)
    else:
        for p, q in [curve] if not isinstance(curve, str) else combinations(drawn.on[curve], 2):
            if point in (p, q) or drawn.in_a_row((p, q, point)):
                yield ()
            else:
                yield (fact(Rel.COLLINEAR, p, q, point),)
        if isinstance(curve, str):
            yield (fact(Rel.ON, point, curve),)


def _passing(drawn: Drawn, line: str, point: str) -> list[tuple[Fact, ...]]:
    """Ways to prove that a line of the work passes through a point; none where it does not, or is no line."""
    if line not in drawn.lines or point not in drawn.points or not drawn.holds(fact(Rel.ON, point, line)):
        return []
    return [()] if point in drawn.on[line] else list(lies_on(drawn, point, line))[-MOST_PASSING:]


MOST_PASSING = 3
"""Ways to prove that a line passes through a point, the plainest of which comes last."""


def points_on(drawn: Drawn, curve: str) -> list[str]:
    """The points that are known to lie on a curve by its making or theirs; none where it is no curve of the work."""
    return [point for point in drawn.on[curve] if point in drawn.points] if curve not in drawn.points else []


def _state(drawn: Drawn, id_: str, rel: Rel, *terms: Term) -> None:
    drawn.given.append((fact(rel, *terms), frozenset({id_})))


def _put(drawn: Drawn, id_: str, point: str, *curves: str) -> None:
    for curve in curves:
        if curve in drawn.lines or curve in drawn.circles:
            drawn.put(curve, point, frozenset({id_}))


# -- points -------------------------------------------------------------------------------------------


def _lies_on_sources(drawn: Drawn, id_: str, of: Names) -> None:
    _put(drawn, id_, id_, *of)


def _midpoint(drawn: Drawn, id_: str, of: Names) -> None:
    _state(drawn, id_, Rel.MIDPOINT, id_, *of)
    p, q = of
    _put(drawn, id_, id_, drawn.line_through(p, q) or drawn.join(p, q))


def _is_midpoint(drawn: Drawn, one: str, of: Names) -> Ways:
    if one in drawn.points:
        yield (fact(Rel.MIDPOINT, one, *of),)


def _reflection(drawn: Drawn, id_: str, of: Names) -> None:
    drawn.mirrored[of[1]].append((of[0], id_))


def _reflection_later(drawn: Drawn, id_: str, of: Names) -> Iterator[Stated]:
    point, mirror = of
    here = frozenset({id_})
    for other in drawn.on[mirror]:
        yield fact(Rel.EQUAL_LENGTH, (other, point), (other, id_)), here
    yield fact(Rel.PERPENDICULAR, (point, id_), mirror), here


def _is_reflection(drawn: Drawn, one: str, of: Names) -> Ways:
    if one in drawn.points:
        for p, q in combinations(drawn.on[of[1]], 2):
            yield tuple(fact(Rel.EQUAL_LENGTH, (x, one), (x, of[0])) for x in (p, q))


def _translation(drawn: Drawn, id_: str, of: Names) -> None:
    point, tail, tip = of
    _state(drawn, id_, Rel.EQUAL_LENGTH, (point, id_), (tail, tip))
    _state(drawn, id_, Rel.PARALLEL, (point, id_), (tail, tip))
    _state(drawn, id_, Rel.EQUAL_LENGTH, (tail, point), (tip, id_))
    _state(drawn, id_, Rel.PARALLEL, (tail, point), (tip, id_))


def _is_translation(drawn: Drawn, one: str, of: Names) -> Ways:
    if one in drawn.points:
        yield (
            fact(Rel.PARALLEL, (of[0], one), (of[1], of[2])),
            fact(Rel.EQUAL_LENGTH, (of[0], one), (of[1], of[2])),
        )


def _rotation(drawn: Drawn, id_: str, of: Names) -> None:
    point, centre, a, vertex, b = of
    _state(drawn, id_, Rel.EQUAL_LENGTH, (centre, point), (centre, id_))
    _state(drawn, id_, Rel.EQUAL_ANGLE, (point, centre, id_), (a, vertex, b))


def _is_rotation(drawn: Drawn, one: str, of: Names) -> Ways:
    """As far from the centre, at the angle, and turned the same way, which is read off the figure."""
    point, centre, a, vertex, b = of
    if one in drawn.points and drawn.seen("turned_alike", (point, centre, one, a, vertex, b)):
        yield (
            fact(Rel.EQUAL_LENGTH, (centre, point), (centre, one)),
            fact(Rel.EQUAL_ANGLE, (point, centre, one), (a, vertex, b)),
        )


# -- lines --------------------------------------------------------------------------------------------


def _through_both(drawn: Drawn, id_: str, of: Names) -> None:
    for point in of:
        _put(drawn, id_, point, id_)


def _on_line_of_two(drawn: Drawn, point: str, of: Names) -> Ways:
    yield () if point in of or drawn.in_a_row((*of, point)) else (fact(Rel.COLLINEAR, *of, point),)


def _is_line_of_two(drawn: Drawn, one: str, of: Names) -> Ways:
    if one not in drawn.bounded or set(of) <= set(points_on(drawn, one)):
        first, second = (_passing(drawn, one, point) for point in of)
        yield from ((*way, *rest) for way in first for rest in second)


def _is_ray_of_two(drawn: Drawn, one: str, of: Names) -> Ways:
    """Its start, and a point that lies beside a second one of it."""
    yield from _is_line_of_two(drawn, one, of)
    start, through = of
    made = next((step for step in drawn.steps if step.id == one and step.make == MakeName.RAY), None)
    if made is None or made.sources[0] != start or through not in drawn.points or through in points_on(drawn, one):
        return
    if drawn.seen("same_way", (made.sources[1], through, start)):
        yield (fact(Rel.ON, through, one),)


LINE_OF_TWO = Making(_through_both, _is_line_of_two, _on_line_of_two)


def _directed(rel: Rel) -> Making:
    """The row of a line through a point that is parallel or perpendicular to another."""

    def says(drawn: Drawn, id_: str, of: Names) -> None:
        _put(drawn, id_, of[1], id_)
        _state(drawn, id_, rel, id_, of[0])

    def locus(drawn: Drawn, point: str, of: Names) -> Ways:
        yield (fact(rel, (point, of[1]), of[0]),) if point != of[1] else ()

    def is_it(drawn: Drawn, one: str, of: Names) -> Ways:
        for passing in _passing(drawn, one, of[1]):
            yield from ((*passing, fact(rel, line, of[0])) for line in as_lines(drawn, one))

    return Making(says, is_it, locus)


def _perpendicular_bisector(drawn: Drawn, id_: str, of: Names) -> None:
    drawn.mirrored[id_].append((of[0], of[1]))


def _bisector_later(drawn: Drawn, id_: str, of: Names) -> Iterator[Stated]:
    here = frozenset({id_})
    yield fact(Rel.PERPENDICULAR, id_, (of[0], of[1])), here
    for point in drawn.on[id_]:
        yield fact(Rel.EQUAL_LENGTH, (point, of[0]), (point, of[1])), here | {point}


def _on_bisector(drawn: Drawn, point: str, of: Names) -> Ways:
    yield (fact(Rel.EQUAL_LENGTH, (point, of[0]), (point, of[1])),)


def _is_bisector(drawn: Drawn, one: str, of: Names) -> Ways:
    if one not in drawn.lines:
        return
    points = points_on(drawn, one)
    for p, q in combinations(points, 2):
        yield tuple(fact(Rel.EQUAL_LENGTH, (x, of[0]), (x, of[1])) for x in (p, q))
    for p in points:
        yield (fact(Rel.EQUAL_LENGTH, (p, of[0]), (p, of[1])), fact(Rel.PERPENDICULAR, one, (of[0], of[1])))


def _angle_bisector(drawn: Drawn, id_: str, of: Names) -> None:
    drawn.bisecting[id_] = (of[0], of[1], of[2])
    _put(drawn, id_, of[1], id_)


def _angle_bisector_later(drawn: Drawn, id_: str, of: Names) -> Iterator[Stated]:
    p, vertex, q = of
    for point in points_on(drawn, id_):
        if point != vertex:
            yield fact(Rel.EQUAL_ANGLE, (p, vertex, point), (point, vertex, q)), frozenset({id_, point})


def _on_angle_bisector(drawn: Drawn, point: str, of: Names) -> Ways:
    p, vertex, q = of
    yield (fact(Rel.EQUAL_ANGLE, (p, vertex, point), (point, vertex, q)),) if point != vertex else ()


def _is_angle_bisector(drawn: Drawn, one: str, of: Names) -> Ways:
    points = points_on(drawn, one) if one in drawn.lines else []
    for a, b in drawn.mirrored.get(one, ()):  # the perpendicular bisector of the base of an isosceles triangle
        for p, q in ((a, b), (b, a)):
            legs = (drawn.ray(of[1], p), drawn.ray(of[1], q))
            if legs == (drawn.ray(of[1], of[0]), drawn.ray(of[1], of[2])):
                yield (fact(Rel.EQUAL_LENGTH, (of[1], p), (of[1], q)),)
    for passing in _passing(drawn, one, of[1]):
        for point in points:
            if point != of[1]:
                yield from ((*passing, *way) for way in _on_angle_bisector(drawn, point, of))


# -- circles ------------------------------------------------------------------------------------------


def _circle(drawn: Drawn, id_: str, of: Names) -> None:
    drawn.centre[id_], drawn.radius[id_] = of[0], (min(of), max(of))
    _put(drawn, id_, of[1], id_)


def _on_circle(drawn: Drawn, point: str, of: Names) -> Ways:
    yield (fact(Rel.EQUAL_LENGTH, (of[0], point), (of[0], of[1])),) if point != of[1] else ()


def _is_circle(drawn: Drawn, one: str, of: Names) -> Ways:
    if one in drawn.circles and drawn.centre.get(one) == of[0]:
        yield from lies_on(drawn, of[1], one)


def _circle_radius(drawn: Drawn, id_: str, of: Names) -> None:
    drawn.centre[id_], drawn.radius[id_] = of[0], (min(of[1:]), max(of[1:]))


def _on_circle_radius(drawn: Drawn, point: str, of: Names) -> Ways:
    yield (fact(Rel.EQUAL_LENGTH, (of[0], point), (of[1], of[2])),)


def _is_circle_radius(drawn: Drawn, one: str, of: Names) -> Ways:
    if one in drawn.circles and drawn.centre.get(one) == of[0]:
        yield (fact(Rel.EQUAL_LENGTH, drawn.radius[one], (of[1], of[2])),)


def _is_circle_through(drawn: Drawn, one: str, of: Names) -> Ways:
    if one in drawn.circles:
        missing = [point for point in of if point not in drawn.on[one]]
        ways = [list(lies_on(drawn, point, one)) for point in missing]
        if all(ways):
            yield tuple(part for way in ways for part in way[0])


M = MakeName

MAKINGS: dict[str, Making] = complete(
    "MAKINGS",
    MakeName,
    {
        M.FREE_POINT: Making(says_nothing, no_way),
        M.POINT_ON: Making(_lies_on_sources, no_way),
        M.LINE: LINE_OF_TWO,
        M.RAY: Making(_through_both, _is_ray_of_two, _on_line_of_two),
        M.SEGMENT: LINE_OF_TWO,
        M.CIRCLE: Making(_circle, _is_circle, _on_circle),
        M.CIRCLE_RADIUS: Making(_circle_radius, _is_circle_radius, _on_circle_radius),
        M.INTERSECTION: Making(_lies_on_sources, no_way),  # of the model: a point of both curves; see ``goals``
        M.MIDPOINT: Making(_midpoint, _is_midpoint),
        M.PERPENDICULAR: _directed(Rel.PERPENDICULAR),
        M.PARALLEL: _directed(Rel.PARALLEL),
        M.PERPENDICULAR_BISECTOR: Making(_perpendicular_bisector, _is_bisector, _on_bisector, _bisector_later),
        M.ANGLE_BISECTOR: Making(_angle_bisector, _is_angle_bisector, _on_angle_bisector, _angle_bisector_later),
        M.CIRCLE_THROUGH: Making(_through_both, _is_circle_through),
        M.REFLECTION: Making(_reflection, _is_reflection, says_later=_reflection_later),
        M.TRANSLATION: Making(_translation, _is_translation),
        M.ROTATION: Making(_rotation, _is_rotation),
    },
)
"""What each make gives to proofs."""
