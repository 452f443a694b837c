"""Angles of so many degrees, and angles that are equal since what is left of a triangle is."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Hashable, Iterator
from itertools import combinations, permutations

from ..facts import Fact, Rel, fact
from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance, Named

N = RuleName
Angle = tuple[str, str, str]

MOST_ALIKE = 400
"""Pairs of triangles with two equal angles that are looked at."""


def sizes(known: Knowledge) -> Iterator[Instance]:
    """What gives the degrees of an angle that is the same in every position, and what follows from degrees."""
    yield from _Sizes(known).all()


class _Sizes:
    """The angles of a figure between the first points on their legs, as far as lines are known by now."""

    def __init__(self, known: Knowledge):
        self.known, self.drawn = known, known.drawn
        apart = known.apart | {pair[::-1] for pair in known.apart}
        self.first = {v: {p: self.drawn.ray(v, p) for p in known.points if (v, p) in apart} for v in known.points}
        self.known_size: dict[Angle, tuple[int, int] | None] = {}

    def named(self, p: str, v: str, q: str) -> Angle:
        """An angle by the first points on its legs, these in alphabetical order."""
        p, q = sorted((self.first[v].get(p, p), self.first[v].get(q, q)))
        return p, v, q

    def size(self, p: str, v: str, q: str) -> tuple[int, int] | None:
        """Its degrees, where they are known."""
        angle = self.named(p, v, q)
        if angle not in self.known_size:
            found = self.known.with_number(Fact(Rel.ANGLE, (angle,))) if self._is_constant(angle) else None
            self.known_size[angle] = (found.ratio or (90, 1)) if found is not None else None
        return self.known_size[angle]

    def is_open(self, p: str, v: str, q: str) -> bool:
        """Whether it is the same in every position, and not known."""
        return self._is_constant(self.named(p, v, q)) and self.size(p, v, q) is None

    def _is_constant(self, angle: Angle) -> bool:
        p, v, q = angle
        return len({p, v, q}) == 3 and self.known.constant_size(p, v, q) is not None

    def all(self) -> Iterator[Instance]:
        """All instances whose premises are known by now."""
        rows = list(self.known.triangles())
        for row in rows:
            yield from self._in_triangle(row)
        yield from self._in_circles()
        yield from self._at_vertices()
        yield from self._at_parallels()
        yield from self._third_angles(rows)

    def _in_triangle(self, row: Angle) -> Iterator[Instance]:
        far = self.known.far
        for a, b, c in permutations(row):
            if far(a, b) == far(b, c) == far(c, a) and self.is_open(a, b, c):
                yield RULES[N.EQUILATERAL], {"A": a, "B": b, "C": c}
            if a < b and self.is_open(b, c, a) and self.size(c, a, b) and self.size(a, b, c):
                yield RULES[N.ANGLE_SUM], {"A": a, "B": b, "C": c}
            if far(a, b) == far(a, c):
                if self.size(b, a, c) and self.is_open(a, b, c):
                    yield RULES[N.BASE_ANGLE], {"A": a, "B": b, "C": c}
                if self.size(a, b, c) and self.is_open(b, a, c):
                    yield RULES[N.APEX_ANGLE], {"A": a, "B": b, "C": c}
            if self.size(c, a, b) and self.size(a, b, c):
                for d in self.known.points:
                    if d not in row and self.drawn.in_a_row((b, c, d)) and self.is_open(a, c, d):
                        yield RULES[N.EXTERIOR_ANGLE], {"A": a, "B": b, "C": c, "D": d}
            if self.size(a, c, b) == (90, 1):
                for m, *ends in self.known.midpoints() if self.is_open(a, b, c) else ():
                    if {a, b} == set(ends) and far(a, m) == far(a, c):
                        yield RULES[N.THIRTY], {"A": a, "B": b, "C": c, "M": m}
                half = fact(Rel.RATIO, (a, c), (a, b), ratio=(1, 2))
                if self.size(a, b, c) == (30, 1) and half not in self.known.derived:
                    yield RULES[N.OPPOSITE_THIRTY], {"A": a, "B": b, "C": c}

    def _in_circles(self) -> Iterator[Instance]:
        """Angles at the centre, and inscribed ones over the same chord."""
        for o in self.known.points:
            by_radius = defaultdict(list)
            for p in self.known.points:
                if p != o:
                    by_radius[self.known.far(o, p)].append(p)
            for around in by_radius.values():
                for a, b in combinations(around, 2):
                    centre = self.size(a, o, b)
                    for c in around:
                        if c in (a, b):
                            continue
                        named: Named = {"O": o, "A": a, "B": b, "C": c}
                        if centre and self.is_open(a, c, b):
                            yield RULES[N.HALF_OF_CENTRAL], named
                            yield RULES[N.HALF_OF_CENTRAL_FAR], named
                        if not centre and self.is_open(a, o, b) and self.size(a, c, b):
                            yield RULES[N.CENTRAL], named
                            yield RULES[N.CENTRAL_FAR], named

    def _at_vertices(self) -> Iterator[Instance]:
        """Sums, differences and halves of angles at one point, angles on a line, and right ones."""
        knows = self.known.knows
        for v, legs in self.first.items():
            rays = sorted(set(legs.values()))
            sized = [(a, b) for a, b in permutations(rays, 2) if self.size(a, v, b)]
            for a, b in sized:
                if a < b and self.size(a, v, b) == (90, 1) and not knows(Fact(Rel.RIGHT_ANGLE, ((a, v, b),))):
                    yield RULES[N.RIGHT_BY_SIZE], {"A": a, "B": b, "V": v}
                for c in rays:
                    if c in (a, b):
                        continue
                    named: Named = {"A": a, "B": b, "C": c, "V": v}
                    if self.is_open(b, v, c) and self.drawn.in_a_row((a, v, c)):
                        yield RULES[N.ANGLES_ON_A_LINE], named
                    if a < c and self.is_open(a, v, c) and self.size(b, v, c):
                        yield RULES[N.ANGLE_OF_PARTS], named
                    if self.is_open(b, v, c) and self.size(a, v, c):
                        yield RULES[N.REST_OF_ANGLE], named
                    if a < c and self.size(b, v, c) and self._is_straight(a, v, c):
                        yield RULES[N.STRAIGHT_ANGLE], named
        for v, p, q, i in self.known.bisected:
            if self.size(p, v, q) and self.is_open(p, v, i):
                yield RULES[N.HALF_ANGLE], {"A": p, "B": i, "C": q, "V": v}

    def _is_straight(self, a: str, v: str, c: str) -> bool:
        """Whether three points lie in a row in every position, and nobody knows it."""
        return not self.drawn.in_a_row((a, v, c)) and self.drawn.holds(Fact(Rel.COLLINEAR, (a, v, c)))

    def _at_parallels(self) -> Iterator[Instance]:
        """Angles between parallels, on one side of what crosses them."""
        for pair, other in self.known.parallel_pairs:
            is_known = self.known.knows(Fact(Rel.PARALLEL, (pair, other)))
            for (a, b), (c, d) in ((pair, other), (pair[::-1], other), (pair, other[::-1]), (pair[::-1], other[::-1])):
                if len({a, b, c, d}) < 4 or not self.size(a, b, c):
                    continue
                named: Named = {"A": a, "B": b, "C": c, "D": d}
                if is_known and self.is_open(b, c, d):
                    yield RULES[N.CO_INTERIOR], named
                if not is_known and self.size(b, c, d):
                    yield RULES[N.CO_INTERIOR_CONVERSE], named

    def _third_angles(self, rows: list[Angle]) -> Iterator[Instance]:
        """Triangles with two pairs of angles that are known to be equal."""
        kinds: dict[Angle, Hashable] = {}

        def kind(p: str, v: str, q: str) -> Hashable:
            angle = self.named(p, v, q)
            if angle not in kinds:
                is_right = self.known.knows(Fact(Rel.RIGHT_ANGLE, (angle,)))
                kinds[angle] = "right" if is_right else self.known.angles.class_of(angle)
            return kinds[angle]

        alike = defaultdict(list)
        for row in rows:
            for a, b, c in permutations(row):
                first, second = kind(c, a, b), kind(a, b, c)
                if str(first) <= str(second):
                    alike[first, second].append((a, b, c))
        wants_ratio = any(one.rel is Rel.RATIO for one in self.known.wanted)
        left = MOST_ALIKE
        for group in alike.values():
            for (a, b, c), (d, e, f) in combinations(group, 2):
                left -= 1
                if left < 0:
                    return
                named: Named = {"A": a, "B": b, "C": c, "D": d, "E": e, "F": f}
                if kind(b, c, a) != kind(e, f, d):
                    yield RULES[N.THIRD_ANGLE], named
                if wants_ratio and fact(Rel.SIMILAR, (a, b, c), (d, e, f)) not in self.known.derived:
                    yield RULES[N.SIMILAR_ANGLES], named
