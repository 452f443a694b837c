"""Theorems that stand for themselves: each proposes what it is about."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations, permutations

from ..facts import Rel, fact
from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance, Named

N = RuleName


def theorems(known: Knowledge) -> Iterator[Instance]:
    """All of them."""
    yield from _one_angle(known)
    yield from _outer_bisectors(known)
    yield from _beside_isosceles(known)
    yield from _at_arcs(known)
    yield from _equal_chords(known)
    yield from _mirrored_rows(known)
    yield from _medians(known)


def _one_angle(known: Knowledge) -> Iterator[Instance]:
    """Equal angles with one leg in common, whose other legs are seen to be one ray."""
    for one, other in known.parallel_pairs:
        shared = {*one} & {*other}
        if len(shared) != 1 or known.drawn.in_a_row((*one, *other)):
            continue
        (a,), (c,), (d,) = shared, {*one} - shared, {*other} - shared
        for b in known.points:
            if b not in (a, c, d) and known.knows(fact(Rel.EQUAL_ANGLE, (b, a, c), (b, a, d))):
                yield RULES[N.ONE_ANGLE], {"A": a, "B": b, "C": c, "D": d}


def _outer_bisectors(known: Knowledge) -> Iterator[Instance]:
    """Perpendiculars to a bisector at its vertex."""
    drawn = known.drawn
    for line, (p, v, q) in drawn.bisecting.items():
        for x in known.points:
            if x == v or not drawn.holds(fact(Rel.PERPENDICULAR, (v, x), line)):
                continue
            for a, b in ((p, q), (q, p)):
                for c in known.points:
                    if c not in (a, v) and drawn.in_a_row((a, v, c)):
                        yield RULES[N.OUTER_BISECTOR], {"A": a, "B": b, "C": c, "V": v, "X": x, "l": line}


def _beside_isosceles(known: Knowledge) -> Iterator[Instance]:
    """Bisectors of the angle beside the apex of an isosceles triangle."""
    for a, c, d, x in known.bisected:
        for p, q in ((c, d), (d, c)):
            for b in known.points:
                if b not in (a, p, q) and known.far(a, b) == known.far(a, p) and known.drawn.in_a_row((b, a, q)):
                    named: Named = {"A": a, "B": b, "C": p, "D": q, "X": x}
                    yield RULES[N.BISECTOR_BESIDE_ISOSCELES], named


def _at_arcs(known: Knowledge) -> Iterator[Instance]:
    """Points on the bisector of an angle and as far from both ends, the circle through all three."""
    for a, b, c, n in known.bisected:
        if known.far(n, b) == known.far(n, c):
            for circle in known.drawn.circles:
                if {a, b, c} <= known.drawn.on[circle].keys() and n not in known.drawn.on[circle]:
                    yield RULES[N.BISECTOR_AT_ARC], {"A": a, "B": b, "C": c, "N": n, "k": circle}


def _equal_chords(known: Knowledge) -> Iterator[Instance]:
    """Chords of one circle that are equally long, and the circle about its centre through the middle of one."""
    drawn = known.drawn
    for inner, centre in drawn.centre.items():
        for circle, other in drawn.centre.items():
            if circle == inner or other != centre or centre not in known.points:
                continue
            on = [p for p in known.points if p in drawn.on[circle]]
            for m, a, b in known.midpoints():
                if m in drawn.on[inner] and {a, b} <= set(on):
                    for c, d in combinations(on, 2):
                        if known.far(c, d) == known.far(a, b):
                            named = (centre, a, b, c, d, m, circle, inner)
                            yield RULES[N.EQUAL_CHORDS], dict(zip("OABCDMki", named, strict=True))


def _mirrored_rows(known: Knowledge) -> Iterator[Instance]:
    """Points of one line with their mirror images."""
    for line, pairs in known.drawn.mirrored.items():
        pairs = [pair for pair in pairs if set(pair) <= set(known.points)]
        for three_pairs in combinations([*pairs, *(pair[::-1] for pair in pairs)], 3):
            (a, d), (b, e), (c, f) = three_pairs
            if len({a, b, c}) == len({d, e, f}) == 3 and known.drawn.in_a_row((a, b, c)):
                yield RULES[N.MIRRORED_ROW], {"A": a, "B": b, "C": c, "D": d, "E": e, "F": f, "l": line}


def _medians(known: Knowledge) -> Iterator[Instance]:
    """A point a third of the way up one median, and another median."""
    for (m, *side), (n, *other) in permutations(known.midpoints(), 2):
        for b in set(side) & set(other):
            (a,), (c,) = ({*side} - {b}, {*other} - {b})
            for s in known.points:
                if s not in (m, n, a, b, c) and known.drawn.in_a_row((m, s, c)):
                    yield RULES[N.MEDIAN_THROUGH], {"A": a, "B": b, "C": c, "M": m, "N": n, "S": s}
