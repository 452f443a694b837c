"""Triangles of equal areas, as far as such are asked for."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations, permutations

from ..facts import Rel, three
from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance

N = RuleName


def areas(known: Knowledge) -> Iterator[Instance]:
    """All that is said of areas; nothing where none are asked for, since nothing else follows from them."""
    if not any(one.rel is Rel.EQUAL_AREA for one in known.wanted):
        return
    yield from _between_parallels(known)
    yield from _beside_medians(known)
    yield from _over_equal_bases(known)
    for one in known.all_with(Rel.CONGRUENT):
        corners, counterparts = map(three, one.of)
        yield RULES[N.AREA_OF_CONGRUENT], dict(zip("ABCDEF", (*corners, *counterparts), strict=True))


def _between_parallels(known: Knowledge) -> Iterator[Instance]:
    """Triangles on one base, their third corners on a parallel of it."""
    for one, other in known.parallel_pairs:
        if len({*one, *other}) == 4 and not known.drawn.in_a_row((*one, *other)):
            for (a, b), (c, d) in ((one, other), (other, one)):
                yield RULES[N.AREA_BETWEEN_PARALLELS], {"A": a, "B": b, "C": c, "D": d}


def _beside_medians(known: Knowledge) -> Iterator[Instance]:
    """A median, and the points that lie on it."""
    for m, b, c in known.midpoints():
        for a in known.points:
            if a in (m, b, c):
                continue
            yield RULES[N.AREA_BY_MEDIAN], {"A": a, "B": b, "C": c, "M": m}
            for s in known.points:
                if s not in (a, b, c, m) and known.drawn.in_a_row((a, s, m)):
                    yield RULES[N.AREA_ON_MEDIAN], {"A": a, "B": b, "C": c, "M": m, "S": s}


def _over_equal_bases(known: Knowledge) -> Iterator[Instance]:
    """Triangles with one corner in common, their bases equal and on one line."""
    for line in known.drawn.lines:
        row = [p for p in known.points if known.drawn.passes(line, p)]
        for (a, b), (c, d) in permutations(combinations(row, 2), 2):
            if (a, b) < (c, d) and known.far(a, b) == known.far(c, d):
                for p in known.points:
                    if p not in row:
                        yield RULES[N.AREA_OF_EQUAL_BASES], {"A": a, "B": b, "C": c, "D": d, "P": p}
