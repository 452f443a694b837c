"""Why an object that was pointed out does not exist as drawn."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations

import numpy as np

from ...plane.arrays import ARRAYS, Arrays, Floats
from ...plane.figure import Node, is_defined
from ...plane.intersections import Choice, along_line, circles_meet, lines_meet
from ...plane.makes import MAKES, Undefined
from ...plane.measurement import distance
from ...plane.shapes import Circle, Kind, Line, Point, Shape, at_parameter, cross
from ...plane.tolerances import TOUCHING
from ..trials.examination import Examination
from ..verdict import Absent, Why


def absent(examined: Examination, ids: Sequence[str]) -> tuple[Absent, ...]:
    """Of these objects, those that do not exist as drawn."""
    found = []
    for id_ in ids:
        number = examined.figure.index[id_]
        if is_defined(examined.shapes[number]):
            continue
        first = next(n for n in sorted(examined.figure.ancestors([number])) if not is_defined(examined.shapes[n]))
        node = examined.figure.nodes[first]
        why, of = _why(examined, node)
        found.append(Absent(id_, node.step.id, why, of))
    return tuple(found)


UNDEFINED: dict[Undefined, Why] = {
    Undefined.ONE_POINT: Why.ONE_POINT,
    Undefined.IN_A_ROW: Why.IN_A_ROW,
    Undefined.NO_ANGLE: Why.NO_ANGLE,
}
"""What is said of a make by its row; an intersection is looked at more closely."""


def _why(examined: Examination, node: Node) -> tuple[Why, tuple[str, ...]]:
    make, sources = MAKES[node.step.make], node.step.sources
    if node.step.make == "intersection":
        with Arrays.quiet():
            return _why_no_intersection(examined, node)
    names = tuple(sources[entry] for entry in make.spanned) or sources
    why = UNDEFINED.get(make.undefined, Why.ONE_POINT)
    if why is Why.IN_A_ROW and (same := _points_that_are_one(examined, names)):
        return Why.ONE_POINT, same
    return why, names


def _points_that_are_one(examined: Examination, names: Sequence[str]) -> tuple[str, ...]:
    """Two of the points that lie in one place, if there are any."""
    for p, q in combinations(names, 2):
        a, b = (examined.shapes[examined.figure.index[name]] for name in (p, q))
        if isinstance(a, Point) and isinstance(b, Point) and _is_nothing(examined, distance(ARRAYS, a, b)):
            return p, q
    return ()


def _is_nothing(examined: Examination, length: Floats | float) -> bool:
    return float(np.ravel(length)[0]) < TOUCHING * float(examined.size)


def _why_no_intersection(examined: Examination, node: Node) -> tuple[Why, tuple[str, ...]]:
    """Of two curves that exist: whether they are one, do not meet, meet beyond an end, or are both as near."""
    names = node.step.sources
    shapes = [examined.shapes[number] for number in node.sources]
    kinds = [examined.figure.nodes[number].kind for number in node.sources]
    first, second = shapes
    if _are_one(examined, first, second):
        return Why.ONE_CURVE, names
    places = _places(first, second)
    if not places:
        return Why.PARALLEL, names
    there = [place for place in places if is_defined(place)]
    if not there:
        return Why.APART, names
    if node.step.choice in (Choice.NEAREST_TO, Choice.FARTHEST_FROM) and len(there) == 2 and node.reference is not None:
        reference = examined.shapes[node.reference]
        assert isinstance(reference, Point)
        one, other = (distance(ARRAYS, place, reference) for place in there)
        if _is_nothing(examined, abs(one - other)):
            return Why.TIE, (*names, examined.figure.nodes[node.reference].step.id)
    ending = [name for name, kind in zip(names, kinds, strict=True) if kind in (Kind.RAY, Kind.SEGMENT)]
    return Why.BEYOND_END, (*names, *ending)


def _are_one(examined: Examination, a: Shape[Floats], b: Shape[Floats]) -> bool:
    if isinstance(a, Circle) and isinstance(b, Circle):
        apart = distance(ARRAYS, Point(a.x, a.y), Point(b.x, b.y))
        return _is_nothing(examined, apart) and _is_nothing(examined, abs(np.sqrt(a.rr) - np.sqrt(b.rr)))
    if isinstance(a, Line) and isinstance(b, Line):
        length = np.hypot(b.dx, b.dy)
        ends = (at_parameter(a, 0.0), at_parameter(a, 1.0))
        return all(_is_nothing(examined, abs(cross(b.dx, b.dy, p.x - b.x, p.y - b.y)) / length) for p in ends)
    return False


def _places(a: Shape[Floats], b: Shape[Floats]) -> list[Point[Floats]]:
    """Where two curves meet, whatever their extent; none for parallels, undefined places where a circle is missed."""
    if isinstance(a, Circle) and isinstance(b, Circle):
        return list(circles_meet(ARRAYS, a, b))
    if isinstance(a, Circle):
        a, b = b, a
    assert isinstance(a, Line)
    if isinstance(b, Circle):
        return [at_parameter(a, t) for t in along_line(ARRAYS, a, b)]
    assert isinstance(b, Line)
    turned = cross(a.dx, a.dy, b.dx, b.dy)
    if abs(float(turned)) < TOUCHING * float(np.hypot(a.dx, a.dy) * np.hypot(b.dx, b.dy)):
        return []
    return [lines_meet(ARRAYS, a, Kind.LINE, b, Kind.LINE)]
