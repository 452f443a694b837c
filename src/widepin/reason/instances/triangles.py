"""Triangles that are congruent in every position, and those with two equal sides."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from itertools import combinations, permutations

from ..facts import Rel, fact
from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance, Named, Rows

N = RuleName
CONGRUENCES = (N.SSS, N.SAS, N.ASA, N.AAS, N.RHS)


class Triangles:
    """What the triangles of a figure propose; which of them are congruent is looked at once."""

    def __init__(self, known: Knowledge, rows: Rows):
        self.known, self.rows = known, rows
        self._pairs = list(self._congruent())

    def isosceles(self) -> Iterator[Instance]:
        """Base angles and their converse."""
        far = self.known.far
        for rule in (N.ISOSCELES, N.ISOSCELES_CONVERSE):
            for row in self.rows:
                for a, b, c in permutations(row):
                    if b < c and far(a, b) == far(a, c):
                        yield RULES[rule], {"A": a, "B": b, "C": c}

    def congruences(self) -> Iterator[Instance]:
        """The congruence theorems, and what corresponds in triangles that are known to be congruent."""
        derived = self.known.derived
        for named in self._pairs:
            a, b, c, d, e, f = (str(named[letter]) for letter in "ABCDEF")
            one = fact(Rel.CONGRUENT, (a, b, c), (d, e, f))
            for turned in _turns(a, b, c, d, e, f):
                for rule in CONGRUENCES:
                    if one not in derived:
                        yield RULES[rule], turned
            if one in derived:
                for turned in _turns(a, b, c, d, e, f):
                    yield RULES[N.CONGRUENT_SIDES], turned
                    yield RULES[N.CONGRUENT_ANGLES], turned

    def _congruent(self) -> Iterator[Named]:
        """Pairs of triangles that are congruent in every position, corner by corner."""
        far = self.known.far
        by_sides = defaultdict(list)
        for p, q, r in self.rows:
            by_sides[tuple(sorted((far(p, q), far(q, r), far(r, p))))].append((p, q, r))
        for group in by_sides.values():
            for (a, b, c), second in combinations(group, 2):
                for d, e, f in permutations(second):
                    if (far(a, b), far(b, c), far(c, a)) == (far(d, e), far(e, f), far(f, d)):
                        yield dict(zip("ABCDEF", (a, b, c, d, e, f), strict=True))


def _turns(a: str, b: str, c: str, d: str, e: str, f: str) -> Iterator[Named]:
    """A correspondence of triangles, with each of its corners first, in both orders."""
    for order in permutations(range(3)):
        first, second = [(a, b, c)[n] for n in order], [(d, e, f)[n] for n in order]
        yield dict(zip("ABCDEF", (*first, *second), strict=True))
