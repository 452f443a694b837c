"""Angles put together from equal ones, and bisectors of several angles."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from itertools import combinations, permutations

from ..facts import Fact, Rel, three
from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance, Named

N = RuleName

MOST_EQUAL = 300
"""Equal angles that are put together with each other."""


def angles(known: Knowledge) -> Iterator[Instance]:
    """Sums and differences of equal angles, and what bisectors say together."""
    yield from _with_a_common_angle(known)
    yield from _quarter_turns(known)
    yield from _sums(known)
    yield from _bisectors(known)


def _equal(known: Knowledge) -> list[tuple[tuple[str, str, str], tuple[str, str, str]]]:
    """Pairs of angles that are known to be equal, but those of which one would say nothing."""
    pairs = [(three(first), three(second)) for first, second in (one.of for one in known.all_with(Rel.EQUAL_ANGLE))]
    return pairs[:MOST_EQUAL]


def _with_a_common_angle(known: Knowledge) -> Iterator[Instance]:
    """Two equal angles, or right angles, at one vertex, with what lies between them."""
    at: defaultdict[str, list[tuple[str, str]]] = defaultdict(list)
    for p, v, q in known.right:
        if known.knows(Fact(Rel.RIGHT_ANGLE, ((p, v, q),))):
            at[v].append((p, q))
    pairs = [(first, second) for first, second in _equal(known) if first[1] == second[1]]
    pairs += [((p, v, q), (r, v, s)) for v, legs in at.items() for (p, q), (r, s) in combinations(legs, 2)]
    for (p, v, q), (r, _v, s) in pairs:
        for a, b in ((p, q), (q, p)):
            for e, f in ((r, s), (s, r)):
                is_new = len({a, e}) == len({b, f}) == 2 and {a, e} != {b, f}
                if is_new and known.drawn.seen("turned_alike", (a, v, b, e, v, f)):
                    yield RULES[N.COMMON_ANGLE], {"A": a, "B": b, "E": e, "F": f, "V": v}


def _quarter_turns(known: Knowledge) -> Iterator[Instance]:
    """Two right angles with equal legs at one vertex."""
    at: defaultdict[str, list[tuple[str, str]]] = defaultdict(list)
    for p, v, q in known.right:
        if known.far(v, p) == known.far(v, q):
            at[v] += [(p, q), (q, p)]
    for v, turns in at.items():
        for (d, b), (c, e) in combinations(turns, 2):
            if len({d, c}) == len({b, e}) == 2 and (d, b) != (e, c):
                yield RULES[N.QUARTER_TURN], {"A": v, "B": b, "C": c, "D": d, "E": e}


def _sums(known: Knowledge) -> Iterator[Instance]:
    """Two pairs of equal angles that have a leg in common on either side."""
    by_leg: defaultdict[tuple[str, str, str, str], list[tuple[str, str]]] = defaultdict(list)
    turned = [
        ((a, v, b), (d, w, e))
        for one, other in _equal(known)
        for first, second in ((one, other), (other, one))
        for a, v, b in (first, first[::-1])
        for d, w, e in (second, second[::-1])
        if v != w
    ]
    for (b, v, c), (e, w, f) in turned:
        by_leg[v, b, w, e].append((c, f))
    for (a, v, b), (d, w, e) in turned:
        for c, f in by_leg[v, b, w, e]:
            if a < c and d != f and known.drawn.holds(Fact(Rel.EQUAL_ANGLE, ((a, v, c), (d, w, f)))):
                yield RULES[N.ADDED_ANGLES], dict(zip("AVBCDWEF", (a, v, b, c, d, w, e, f), strict=True))


def _bisectors(known: Knowledge) -> Iterator[Instance]:
    """Bisectors of two angles of a triangle, of supplementary angles, and of those at parallels."""
    drawn = known.drawn
    inner = {(v, frozenset((p, q)), i) for v, p, q, i in known.bisected}
    for b, p, q, i in known.bisected:
        for a, c in ((p, q), (q, p)):
            if (c, frozenset((a, b)), i) in inner:
                yield RULES[N.INCENTRE], {"A": a, "B": b, "C": c, "I": i}
    by_vertex = defaultdict(list)
    for v, p, q, i in known.bisected:
        by_vertex[v].append((p, q, i))
    for v, found in by_vertex.items():
        for (p, q, x), (r, s, y) in permutations(found, 2):
            for a, b in ((p, q), (q, p)):
                for one, c in ((r, s), (s, r)):
                    if one == b and x < y and drawn.in_a_row((a, v, c)) and drawn.seen("between", (v, a, c)):
                        yield RULES[N.SUPPLEMENTARY_BISECTORS], {"A": a, "B": b, "C": c, "V": v, "X": x, "Y": y}
    for a, p, q, x in known.bisected:
        for one, b in ((p, q), (q, p)):
            for r, s, y in by_vertex[b] if a < b else ():
                if y == x and a in (r, s):
                    other = s if r == a else r
                    if drawn.holds(Fact(Rel.PARALLEL, ((a, one), (b, other)))):
                        named: Named = {"A": a, "B": b, "P": one, "Q": other, "X": x}
                        yield RULES[N.CO_INTERIOR_BISECTORS], named
