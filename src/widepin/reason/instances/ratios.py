"""Halves and equal parts, what parallels cut off, and chains of ratios."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import permutations

from ..facts import Fact, Rel, fact, two
from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance

N = RuleName
MOST_IN_A_ROW = 6
"""Points of a line among which equal parts are looked for."""


def ratios(known: Knowledge) -> Iterator[Instance]:
    """All that is said of ratios of lengths."""
    drawn = known.drawn
    for m, a, b in known.midpoints():
        for p, q in ((a, b), (b, a)):
            yield RULES[N.RATIO_OF_HALVES], {"M": m, "A": p, "B": q}
    for line in list(drawn.lines):
        row = [p for p in known.points if drawn.passes(line, p)]
        for a, c, d, e in permutations(row, 4) if len(row) <= MOST_IN_A_ROW else ():
            if known.far(a, c) == known.far(c, d) == known.far(d, e):
                yield RULES[N.EQUAL_PARTS], {"A": a, "C": c, "D": d, "E": e}
    every = list(known.ratios.values())
    for one in every:
        for (a, c), (first, e) in _from_one_end(one):
            if a == first:
                for p, b in permutations([x for x in known.points if x not in (a, c, e)], 2):
                    if drawn.in_a_row((a, p, b)) and known.knows(fact(Rel.PARALLEL, (c, p), (e, b))):
                        yield RULES[N.INTERCEPT], {"A": a, "B": b, "C": c, "E": e, "P": p}
        for other in every:
            for (a, p), (first, m) in _from_one_end(one):
                for (second, n), (third, b) in _from_one_end(other):
                    if a == first == second == third and m == n and p != b:
                        yield RULES[N.RATIO_CHAIN], {"A": a, "B": b, "M": m, "P": p}


def _from_one_end(one: Fact) -> Iterator[tuple[tuple[str, str], tuple[str, str]]]:
    """The two lengths of a ratio, each from either end."""
    first, second = map(two, one.of)
    for x in (first, first[::-1]):
        for y in (second, second[::-1]):
            yield x, y
