"""Halves and equal parts, what parallels cut off, and chains of ratios."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import combinations, permutations

from ..facts import Fact, Rel, fact, three, two
from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance, Named

N = RuleName
MOST_IN_A_ROW, LONGEST_ROW = 6, 8
"""Points of a line among which equal parts are looked for, and multiples of one length."""


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
    yield from _multiples(known)
    every = list(known.ratios.values())
    yield from _of_equals(known, every)
    yield from _halves(known, every)
    yield from _similar(known, every)
    for one in every:
        for (a, c), (first, e) in _from_one_end(one):
            if a == first:
                for p, b in permutations([x for x in known.points if x not in (a, c, e)], 2):
                    if drawn.in_a_row((a, p, b)) and known.knows(fact(Rel.PARALLEL, (c, p), (e, b))):
                        yield RULES[N.INTERCEPT], {"A": a, "B": b, "C": c, "E": e, "P": p}
                        yield RULES[N.INTERCEPT_PARALLELS], {"A": a, "B": b, "C": c, "E": e, "P": p}
                    if drawn.in_a_row((e, p, b)) and known.knows(fact(Rel.PARALLEL, (c, p), (a, b))):
                        yield RULES[N.INTERCEPT_REST], {"A": e, "B": b, "C": c, "E": a, "P": p}
        for other in every:
            for (a, p), (first, m) in _from_one_end(one):
                for (second, n), (third, b) in _from_one_end(other):
                    if a == first == second == third and m == n and p != b:
                        yield RULES[N.RATIO_CHAIN], {"A": a, "B": b, "M": m, "P": p}


def _multiples(known: Knowledge) -> Iterator[Instance]:
    """Lengths along a line that are multiples of one of them, and their ratios."""
    for line in list(known.drawn.lines):
        row = [p for p in known.points if known.drawn.passes(line, p)]
        if not 2 < len(row) <= LONGEST_ROW:
            continue
        parts = [pair for pair in combinations(row, 2) if pair in known.apart]
        for u, v in parts:
            multiples = [pair for pair in parts if _is_multiple(known, (u, v), pair)]
            if len(multiples) < 2:
                continue
            of_unit = {frozenset(pair) for pair in multiples}
            for a, b, c in permutations(row, 3):
                first, second, whole = ({a, b}, {b, c}, {a, c})
                named: Named = {"U": u, "V": v, "A": a, "B": b, "C": c}
                if a < c and first in of_unit and second in of_unit and whole not in of_unit:
                    yield RULES[N.RATIO_OF_PARTS], named
                if first in of_unit and whole in of_unit and second not in of_unit:
                    yield RULES[N.RATIO_OF_REST], named
            for (a, b), (c, d) in permutations(multiples, 2):
                if {a, b} & {c, d} and (u, v) not in ((a, b), (c, d)):
                    yield RULES[N.RATIO_BY_UNIT], {"U": u, "V": v, "A": a, "B": b, "C": c, "D": d}


def _is_multiple(known: Knowledge, unit: tuple[str, str], pair: tuple[str, str]) -> bool:
    """Whether a length is known to be a multiple of another, or as long."""
    return known.with_number(fact(Rel.RATIO, unit, pair)) is not None


def _of_equals(known: Knowledge, every: Sequence[Fact]) -> Iterator[Instance]:
    """A ratio that is wanted, and is known of equal lengths."""
    for wanted in known.wanted:
        if wanted.rel is Rel.RATIO:
            (e, f), (g, h) = map(two, wanted.of)
            for one in every:
                (a, b), (c, d) = map(two, one.of)
                if (
                    one.ratio == wanted.ratio
                    and known.far(a, b) == known.far(e, f)
                    and known.far(c, d) == known.far(g, h)
                ):
                    yield RULES[N.RATIO_OF_EQUALS], dict(zip("ABCDEFGH", (a, b, c, d, e, f, g, h), strict=True))


def _halves(known: Knowledge, every: Sequence[Fact]) -> Iterator[Instance]:
    """Lengths that are twice or half of equal ones, and midpoints by length."""
    far, halves = known.far, [one for one in every if one.ratio == (1, 2)]
    for one in halves:
        (a, b), (c, d) = map(two, one.of)
        for other in halves:
            (e, f), (g, h) = map(two, other.of)
            if one != other and far(a, b) == far(e, f):
                for rule in (N.DOUBLES, N.HALVES):
                    yield RULES[rule], dict(zip("ABCDEFGH", (a, b, c, d, e, f, g, h), strict=True))
        for p, m in ((a, b), (b, a)):
            for end in known.points:
                if end not in (p, m) and far(p, end) == far(c, d) and known.drawn.in_a_row((p, m, end)):
                    yield RULES[N.MIDPOINT_BY_HALF], {"A": p, "M": m, "B": end, "P": c, "Q": d}


def _similar(known: Knowledge, every: Sequence[Fact]) -> Iterator[Instance]:
    """Isosceles triangles with one base angle in common, and sides of similar triangles."""
    far = known.far
    for a, c in permutations(known.points, 2):
        for f in known.points:
            if f in (a, c) or far(c, a) != far(c, f):
                continue
            for m in known.points:
                if m not in (a, c, f) and far(f, a) == far(f, m) and known.drawn.in_a_row((a, m, c)):
                    yield RULES[N.SIMILAR_ISOSCELES], {"A": a, "C": c, "F": f, "M": m}
    for similar in known.all_with(Rel.SIMILAR):
        first, second = map(three, similar.of)
        for turn in permutations(range(3)):
            for one, other in ((first, second), (second, first)):
                (a, b, c), (d, e, f) = (tuple(corners[n] for n in turn) for corners in (one, other))
                for ratio in every:
                    (p, q), (g, h) = map(two, ratio.of)
                    if far(p, q) == far(a, b) and {g, h} == {d, e}:
                        yield RULES[N.SIMILAR_SIDES], dict(zip("ABCDEFPQ", (a, b, c, d, e, f, p, q), strict=True))


def _from_one_end(one: Fact) -> Iterator[tuple[tuple[str, str], tuple[str, str]]]:
    """The two lengths of a ratio, each from either end."""
    first, second = map(two, one.of)
    for x in (first, first[::-1]):
        for y in (second, second[::-1]):
            yield x, y
