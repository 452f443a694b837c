"""Lines that are parallel in every position, and angles where lines cross."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from ..facts import Fact, Rel, three
from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance, Named

N = RuleName


def parallels(known: Knowledge) -> Iterator[Instance]:
    """Angles at parallels, parallelograms, and directions through one point."""
    drawn = known.drawn
    for (a, b), (c, d) in combinations(known.pairs, 2):
        if len({a, b, c, d}) == 3:
            p = ({a, b} & {c, d}).pop()
            q, r = ({a, b} | {c, d}) - {p}
            if drawn.holds(Fact(Rel.COLLINEAR, (p, q, r))) and not drawn.in_a_row((p, q, r)):
                yield RULES[N.ONE_PERPENDICULAR], {"A": p, "B": q, "C": r}
            continue
        if len({a, b, c, d}) < 4 or not drawn.holds(Fact(Rel.PARALLEL, ((a, b), (c, d)))):
            continue
        for p, q, r, s in ((a, b, c, d), (a, b, d, c), (b, a, c, d), (b, a, d, c)):
            named: Named = {"A": p, "B": q, "C": r, "D": s}
            yield RULES[N.ALTERNATE_CONVERSE], named
            yield RULES[N.ALTERNATE], named
            if known.far(p, s) == known.far(q, r):
                yield RULES[N.EQUAL_TRIANGLES], named
            if known.far(p, q) == known.far(r, s):
                for rule in (N.PARALLELOGRAM_BY_SIDES, N.PARALLELOGRAM_BY_ONE_PAIR, N.PARALLELOGRAM_SIDES):
                    yield RULES[rule], named
            for one in known.points:
                if one not in (p, q, r, s) and drawn.in_a_row((one, q, r)):
                    yield RULES[N.CORRESPONDING_CONVERSE], named | {"P": one}
                    yield RULES[N.CORRESPONDING], named | {"P": one}
                if one not in (p, q, r, s) and drawn.in_a_row((p, one, r)) and drawn.in_a_row((q, one, s)):
                    yield RULES[N.DIAGONALS], named | {"M": one}


def midlines(known: Knowledge) -> Iterator[Instance]:
    """What two midpoints say: diagonals of a parallelogram, midlines of a triangle."""
    drawn = known.drawn
    for (m, a, c), (n, b, d) in combinations(known.midpoints(), 2):
        if m == n:
            yield RULES[N.PARALLELOGRAM_BY_DIAGONALS], {"M": m, "A": a, "B": b, "C": c, "D": d}
            yield RULES[N.PARALLELOGRAM_BY_DIAGONALS], {"M": m, "A": a, "B": d, "C": c, "D": b}
        for p, q in ((a, c), (c, a)):
            for r, s in ((b, d), (d, b)):
                if p == r and q != s:
                    yield RULES[N.MIDLINE], {"A": p, "B": q, "C": s, "M": m, "N": n}
                    for k, d, e in known.midpoints():
                        if known.far(q, s) == known.far(d, e) and k not in (m, n):
                            double: Named = {"A": p, "B": q, "C": s, "M": m, "N": n, "K": k}
                            yield RULES[N.DOUBLE_OF_MIDLINE], double | {"D": d, "E": e}
    for m, a, b in known.midpoints():
        for p, q in ((a, b), (b, a)):
            for n in known.points:
                for c in known.points:
                    if len({p, q, m, n, c}) == 5 and drawn.in_a_row((p, n, c)) and known.far(n, p) == known.far(n, c):
                        yield RULES[N.MIDLINE_CONVERSE], {"A": p, "B": q, "C": c, "M": m, "N": n}


def around_points(known: Knowledge) -> Iterator[Instance]:
    """Angles about a point at which lines cross, and right angles."""
    drawn = known.drawn
    through: dict[str, list[tuple[str, str]]] = {}
    for v in known.points:
        through[v] = [
            (p, q)
            for p, q in known.pairs
            if v not in (p, q) and drawn.in_a_row((p, v, q)) and drawn.seen("between", (v, p, q))
        ]
        for (a, c), (b, d) in combinations(through[v], 2):
            if not drawn.in_a_row((a, v, b)):
                yield RULES[N.VERTICAL], {"A": a, "V": v, "C": c, "B": b, "D": d}
                yield RULES[N.VERTICAL], {"A": a, "V": v, "C": c, "B": d, "D": b}
        for a, c in through[v]:
            for b in known.points:
                if b not in (a, v, c) and drawn.holds(Fact(Rel.RIGHT_ANGLE, ((a, v, b),))):
                    yield RULES[N.RIGHT_BY_HALVES], {"A": a, "V": v, "B": b, "C": c}
    for one in known.all_with(Rel.EQUAL_ANGLE):
        (a, v, b), (c, w, d) = map(three, one.of)
        for p, q in ((a, b), (b, a)):
            for r, s in ((c, d), (d, c)):
                for e in _behind(known, p, v, through):
                    for f in _behind(known, r, w, through):
                        yield RULES[N.SUPPLEMENTS], {"A": p, "V": v, "B": q, "C": r, "W": w, "D": s, "E": e, "F": f}


def _behind(known: Knowledge, p: str, v: str, through: dict[str, list[tuple[str, str]]]) -> list[str]:
    """The first point on the other side of a vertex."""
    return [b if a == p else a for a, b in through.get(v, []) if p in (a, b)][:1]
