"""The figure that a proof is about, in sampled positions, with what is known of it by its making.

That a point lies on a line that was drawn through it needs no line of a proof: the reader sees it.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from ..plane.steps import Step
from .facts import Fact, Rel, Term, fact, three, two
from .proof import Case

NEAR = 1e-7
"""Share of the figure's size below which a length counts as nothing in floats."""


@dataclass
class Drawn:
    """Points, lines and circles of a board, sampled. Arrays have a column per position; points are complex numbers.

    ``points``: in the order of making. ``on``: curve -> the points known to lie on it -> the steps that say so.
    ``centre``: circle -> its centre, where that is a point. ``radius``: circle -> two points that far apart.
    ``found``: points that were proved to lie on a line besides, with the facts that say so.
    ``given``: facts that makes state, each with its steps. ``model_points``: where the sample solution's lie.
    ``radii``: lengths that are radii of one circle, or of circles drawn with one radius, with the steps that say so.
    ``bounded``: rays and segments. ``mirrored``: line -> pairs of points that are mirror images in it, by its making
    or theirs.
    ``bisecting``: line -> the angle that it bisects by its making. ``steps``: how objects are made.
    """

    points: dict[str, NDArray[np.complex128]]
    lines: dict[str, tuple[NDArray[np.complex128], NDArray[np.complex128]]]
    circles: dict[str, tuple[NDArray[np.complex128], NDArray[np.float64]]]
    size: float
    own: set[str] = field(default_factory=set)
    on: dict[str, dict[str, frozenset[str]]] = field(default_factory=lambda: defaultdict(dict))
    found: dict[str, dict[str, tuple[Fact, ...]]] = field(default_factory=lambda: defaultdict(dict))
    centre: dict[str, str] = field(default_factory=dict)
    radius: dict[str, tuple[str, str]] = field(default_factory=dict)
    bounded: set[str] = field(default_factory=set)
    mirrored: dict[str, list[tuple[str, str]]] = field(default_factory=lambda: defaultdict(list))
    given: list[tuple[Fact, frozenset[str]]] = field(default_factory=list)
    radii: list[dict[tuple[str, str], frozenset[str]]] = field(default_factory=list)
    bisecting: dict[str, tuple[str, str, str]] = field(default_factory=dict)
    steps: list[Step] = field(default_factory=list)
    model_points: dict[str, NDArray[np.complex128]] = field(default_factory=dict)
    _through: dict[tuple[str, bool], set[str]] = field(default_factory=dict)

    # -- lines --------------------------------------------------------------------------------------

    def passes(self, line: str, point: str, made_only: bool = False) -> bool:
        """Whether a line is known to pass through a point: by the making of the figure, or proved."""
        return point in self.on[line] or (not made_only and point in self.found[line])

    def lines_through(self, point: str, made_only: bool = False) -> set[str]:
        """The lines that are known to pass through a point."""
        known = self._through.get((point, made_only))
        if known is None:
            known = {line for line in self.lines if self.passes(line, point, made_only)}
            self._through[point, made_only] = known
        return known

    def line_through(self, p: str, q: str, made_only: bool = False) -> str | None:
        """The first line that is known to pass through two points."""
        both = self.lines_through(p, made_only) & self.lines_through(q, made_only)
        return next((line for line in self.lines if line in both), None) if len(both) > 1 else next(iter(both), None)

    def put(self, curve: str, point: str, steps: frozenset[str]) -> None:
        """A point lies on a curve by the making of the figure."""
        self.on[curve].setdefault(point, steps)
        self._through.clear()

    def put_on(self, line: str, point: str, because: tuple[Fact, ...]) -> None:
        """A point was proved to lie on a line."""
        if point not in self.on[line]:
            self.found[line].setdefault(point, because)
            self._through.clear()

    def join(self, p: str, q: str) -> str:
        """A line through two points that nobody drew, so that others can be known to lie on it."""
        id_ = f"{p} {q}"  # no step is called so
        self.lines[id_] = (self.points[p], self.points[q] - self.points[p])
        self.put(id_, p, frozenset())
        self.put(id_, q, frozenset())
        return id_

    def said(self, term: Term) -> Term:
        """A line as it is said: one that nobody drew as two of its points."""
        return tuple(term.split(" ")) if isinstance(term, str) and " " in term else term

    def line(self, term: Term, made_only: bool = False) -> Term:
        """A line in its normal form: the id of the first line that is the same, else the pair of points."""
        if isinstance(term, str):
            passing = [*self.on[term], *([] if made_only else self.found[term])]
            first = self.line_through(passing[0], passing[1], made_only) if len(passing) > 1 else None
            return first or term
        p, q = two(term)
        return self.line_through(p, q, made_only) or (min(p, q), max(p, q))

    def legs(self, one: Fact, made_only: bool = False) -> tuple[Term, Term]:
        """The lines of a right angle; ``made_only``: as far as the making alone says."""
        p, v, q = three(one.of[0])
        return self.line((v, p), made_only), self.line((v, q), made_only)

    def in_a_row(self, points: Sequence[str], made_only: bool = False) -> bool:
        """Whether points are known to lie on one line."""
        return bool(set.intersection(*(self.lines_through(p, made_only) for p in points)))

    def why_in_a_row(self, points: Sequence[str]) -> list[Fact]:
        """The facts by which points are known to lie on one line; none where the making says it."""
        if self.in_a_row(points, made_only=True):
            return []
        for line in self.lines:
            if all(self.passes(line, p) for p in points):
                return list(dict.fromkeys(why for p in points if p not in self.on[line] for why in self.found[line][p]))
        raise LookupError(f"{points} are not known to lie in a row")

    def ray(self, vertex: str, p: str, made_only: bool = False) -> str:
        """The first point on the ray from a vertex through a point, as far as lines are known."""
        for one in self.points:
            if one == p:
                return p
            if one != vertex and self.in_a_row((vertex, p, one), made_only) and self.same_way(one, p, vertex):
                return one
        return p

    def normal(self, one: Fact, made_only: bool = False) -> Fact:
        """A fact with its lines and rays in normal form; ``made_only``: as far as the making alone says."""
        if one.rel in (Rel.PARALLEL, Rel.PERPENDICULAR):
            return fact(one.rel, *(self.line(term, made_only) for term in one.of))
        if one.rel is Rel.TANGENT:
            if self.circles.keys() >= set(one.of):
                return one
            circle, line = one.of if one.of[0] in self.circles else one.of[::-1]
            return fact(one.rel, circle, self.line(line, made_only))
        if one.rel in (Rel.EQUAL_ANGLE, Rel.ANGLE, Rel.RIGHT_ANGLE):
            return fact(
                one.rel,
                *((self.ray(v, p, made_only), v, self.ray(v, q, made_only)) for p, v, q in map(three, one.of)),
                ratio=one.ratio,
            )
        return one

    # -- what is seen in all positions --------------------------------------------------------------

    def _zero(self, values: NDArray[np.float64], scale: float = 1.0) -> bool:
        return bool((np.abs(values) <= NEAR * self.size * scale).all())

    def cross(self, p: str, q: str, r: str) -> NDArray[np.float64]:
        """Twice the signed area of a triangle."""
        a, b, c = self.points[p], self.points[q], self.points[r]
        return ((b - a).conj() * (c - a)).imag

    def same_way(self, p: str, q: str, vertex: str) -> bool:
        """Whether two points of a line lie on one side of a third, in every position."""
        return bool(self.where("same_way", (p, q, vertex)).all())

    def seen(self, word: str, terms: Sequence[str]) -> bool:
        """Whether what a rule reads off the figure is so in every position."""
        return bool(self.where(word, terms).all())

    def keep(self, case: Case) -> NDArray[np.bool_]:
        """Keep the positions of a case only; which of them these are."""
        of_case: NDArray[np.bool_] = self.where(case.word, case.points) == case.holds
        for places in (self.points, self.model_points):
            places |= {name: at[of_case] for name, at in places.items()}
        self.lines |= {name: (start[of_case], way[of_case]) for name, (start, way) in self.lines.items()}
        self.circles |= {name: (centre[of_case], radius[of_case]) for name, (centre, radius) in self.circles.items()}
        return of_case

    def where(self, word: str, terms: Sequence[str]) -> NDArray[np.bool_]:
        """In which positions what a rule reads off the figure is so."""
        match word:
            case "apart":
                return np.abs(self.cross(terms[0], terms[1], terms[2])) > NEAR * self.size**2
            case "distinct":
                p, q = terms
                return np.abs(self.points[p] - self.points[q]) > NEAR * self.size
            case "unequal":
                end, far, other_far = (self.points[name] for name in terms)
                unequal: NDArray[np.bool_] = np.abs(np.abs(far - end) - np.abs(other_far - end)) > NEAR * self.size
                return unequal
            case "between":
                at, first, second = (self.points[name] for name in terms)
                return ((first - at).conj() * (second - at)).real < 0
            case "opposite" | "same_side":
                p, q, first_end, last_end = terms
                sides = self.cross(first_end, last_end, p), self.cross(first_end, last_end, q)
                is_clear: NDArray[np.bool_] = np.minimum(*map(np.abs, sides)) > NEAR * self.size**2
                product = sides[0] * sides[1]
                return is_clear & ((product < 0) if word == "opposite" else (product > 0))
            case "same_way":
                a, b, v = (self.points[name] for name in terms)
                return ((a - v).conj() * (b - v)).real > 0
            case "bisector":
                line, *pair = terms
                is_so = any(set(one) == set(pair) for one in self.mirrored.get(line, ()))
                return np.full(len(self.points[pair[0]]), is_so)
            case "bisects":
                line, p, vertex, q = terms
                of = self.bisecting.get(line)
                is_so = of is not None and of[1] == vertex and self._is_angle(of, (p, vertex, q))
                return np.full(len(self.points[vertex]), is_so)
            case "centre":
                centre, circle = terms
                return np.full(len(self.points[centre]), self.centre.get(circle) == centre)
            case "radius":
                circle, *pair = terms
                return np.full(len(self.points[pair[0]]), set(self.radius.get(circle, ())) == set(pair))
            case "turned_alike":  # two angles, both to the left or both to the right
                return self.cross(terms[1], terms[0], terms[2]) * self.cross(terms[4], terms[3], terms[5]) >= 0
            case "turned_together":  # two pairs of angles: both turned alike, or both the other way round
                both = [self.cross(terms[n + 1], terms[n], terms[n + 2]) for n in (0, 3, 6, 9)]
                return np.sign(both[0] * both[1]) * np.sign(both[2] * both[3]) >= 0
            case "inside":
                inner, vertex, one, other = terms
                beside = self.where("same_side", (inner, other, vertex, one))
                return beside & self.where("same_side", (inner, one, vertex, other))
        raise LookupError(word)

    def _is_angle(self, one: tuple[str, str, str], other: tuple[str, str, str]) -> bool:
        """Whether two angles are one, by the first points on their legs."""
        legs = ({self.ray(v, p), self.ray(v, q)} for p, v, q in (one, other))
        return next(legs) == next(legs)

    def direction(self, term: Term) -> NDArray[np.complex128]:
        """The way of a line."""
        if isinstance(term, str):
            return self.lines[term][1]
        p, q = two(term)
        return self.points[q] - self.points[p]

    def holds(self, one: Fact) -> bool:
        """Whether a fact is so in every sampled position, in floats; not where something has no direction."""
        with np.errstate(divide="ignore", invalid="ignore"):
            return self._holds(one)

    def _holds(self, one: Fact) -> bool:
        points = self.points
        match one.rel:
            case Rel.EQUAL_LENGTH:
                first, *others = (np.abs(points[p] - points[q]) for p, q in map(two, one.of))
                return all(self._zero(first - other) for other in others)
            case Rel.EQUAL_ANGLE:
                first, *others = (self.angle(*term) for term in one.of)
                return all(bool((np.abs(first - other) < NEAR).all()) for other in others)
            case Rel.RIGHT_ANGLE:
                return bool((np.abs(self.angle(*one.of[0]) - np.pi / 2) < NEAR).all())
            case Rel.ANGLE if one.ratio is not None:
                size = np.deg2rad(one.ratio[0] / one.ratio[1])
                return bool((np.abs(self.angle(*one.of[0]) - size) < NEAR).all())
            case Rel.PARALLEL | Rel.PERPENDICULAR:
                u, v = map(self.direction, one.of)
                product = (u.conj() * v) / (np.abs(u) * np.abs(v))
                part = product.imag if one.rel is Rel.PARALLEL else product.real
                return bool((np.abs(part) < NEAR).all())
            case Rel.COLLINEAR:
                return all(self._zero(self.cross(*three), self.size) for three in combinations(map(str, one.of), 3))
            case Rel.MIDPOINT:
                middle, end, other = (points[str(name)] for name in one.of)
                return self._zero(np.abs(2 * middle - end - other))
            case Rel.RATIO if one.ratio is not None:
                (p, q), (r, s) = map(two, one.of)
                n, d = one.ratio
                return self._zero(np.abs(points[p] - points[q]) * d - np.abs(points[r] - points[s]) * n)
            case Rel.CONGRUENT:
                corners, counterparts = map(three, one.of)
                return all(
                    self.holds(Fact(Rel.EQUAL_LENGTH, ((corners[a], corners[b]), (counterparts[a], counterparts[b]))))
                    for a, b in combinations(range(3), 2)
                )
            case Rel.ON:
                place, curve = points[str(one.of[0])], one.of[1]
                if isinstance(curve, str) and curve in self.circles:
                    centre, radius = self.circles[curve]
                    return self._zero(np.abs(place - centre) - radius)
                start, way = self.lines[curve] if isinstance(curve, str) else (points[curve[0]], self.direction(curve))
                return self._zero((way.conj() * (place - start)).imag / np.abs(way))
            case Rel.EQUAL_AREA:
                first, *others = (np.abs(self.cross(*three(term))) for term in one.of)
                return all(self._zero(first - other, self.size) for other in others)
            case Rel.CONCURRENT:
                return any(all(self._holds(Fact(Rel.ON, (point, line))) for line in one.of) for point in self.points)
            case Rel.EQUIDISTANT:
                first, *others = (self._distance(str(one.of[0]), line) for line in one.of[1:])
                return all(self._zero(first - other) for other in others)
            case Rel.TANGENT if self.circles.keys() >= set(one.of):
                (first, its_radius), (second, other_radius) = (self.circles[str(circle)] for circle in one.of)
                apart, difference = np.abs(first - second), np.abs(its_radius - other_radius)
                return self._zero((apart - its_radius - other_radius) * (apart - difference) / self.size)
            case Rel.TANGENT:
                circle, line = one.of if one.of[0] in self.circles else one.of[::-1]
                centre, radius = self.circles[str(circle)]
                start, way = self.lines[line] if isinstance(line, str) else (points[line[0]], self.direction(line))
                return self._zero(np.abs((way.conj() * (centre - start)).imag) / np.abs(way) - radius)
        return True  # what is not looked at here is proved of parts that are

    def twins(self, name: str) -> list[str]:
        """Points that lie where one of the sample solution does, in every position."""
        at = self.model_points.get(name)
        if at is None:
            return []
        return [one for one, place in self.points.items() if bool((abs(place - at) < NEAR * self.size).all())]

    def _distance(self, point: str, line: Term) -> NDArray[np.float64]:
        start, way = self.lines[line] if isinstance(line, str) else (self.points[line[0]], self.direction(line))
        return np.abs((way.conj() * (self.points[point] - start)).imag) / np.abs(way)

    def angle(self, p: str, v: str, q: str) -> NDArray[np.float64]:
        """An undirected angle, in radians."""
        a, b = self.points[p] - self.points[v], self.points[q] - self.points[v]
        return np.abs(np.angle(a.conj() * b))


def lie_in_a_row(drawn: Drawn, one: Fact) -> None:
    """Points that are found to lie in a row lie on one line."""
    names = [str(name) for name in one.of]
    p, q = next((pair for pair in combinations(names, 2) if drawn.line_through(*pair)), (names[0], names[1]))
    line = drawn.line_through(p, q) or drawn.join(p, q)
    anchored = [reason for end in (p, q) for reason in drawn.found[line].get(end, ())]
    for name in names:
        drawn.put_on(line, name, (one, *anchored))
