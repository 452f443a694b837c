"""Equilateral triangles side by side about a point."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from itertools import combinations, permutations

from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance, Named

N = RuleName


def hexagons(known: Knowledge) -> Iterator[Instance]:
    """Where points about another are as far from it as from each other."""
    for o in known.points:
        by_length = defaultdict(list)
        for one in known.points:
            if one != o:
                by_length[known.far(o, one)].append(one)
        for length, around in by_length.items():
            if len(around) < 3 or length < 0:
                continue
            near = {(p, q) for p, q in permutations(around, 2) if known.far(p, q) == length}
            for a, d in combinations(around, 2):
                if not known.drawn.in_a_row((a, o, d)):
                    continue
                for b, c in permutations(around, 2):
                    named: Named = {"O": o, "A": a, "B": b, "C": c, "D": d}
                    if (a, b) in near and (c, d) in near and b != c:
                        yield RULES[N.HEXAGON_SIDE], named
                    if (b, d) in near and (c, d) in near:
                        yield RULES[N.HEXAGON_TRIANGLE], named
                    if (b, a) in near and (c, a) in near:
                        yield RULES[N.HEXAGON_TRIANGLE], named | {"A": d, "D": a}
            for a, b in near:
                for c in around:
                    for d in around:
                        if (b, c) in near and (c, d) in near and len({a, b, c, d}) == 4:
                            named = {"O": o, "A": a, "B": b, "C": c, "D": d}
                            yield RULES[N.HEXAGON_LINE], named
