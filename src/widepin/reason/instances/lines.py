"""Lines that are parallel in every position, and angles where lines cross."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations, product

from ..facts import Fact, Rel, Term, three
from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance, Named

N = RuleName


def parallels(known: Knowledge) -> Iterator[Instance]:
    """Angles at parallels, parallelograms, and directions through one point."""
    drawn = known.drawn
    for (a, b), (c, d) in known.parallel_pairs:
        if len({a, b, c, d}) == 3:
            p = ({a, b} & {c, d}).pop()
            q, r = sorted(({a, b} | {c, d}) - {p})
            if not drawn.in_a_row((p, q, r)):
                yield RULES[N.ONE_PERPENDICULAR], {"A": p, "B": q, "C": r}
            continue
        if drawn.in_a_row((a, b, c)):
            continue
        for p, q, r, s in ((a, b, c, d), (a, b, d, c), (b, a, c, d), (b, a, d, c)):
            named: Named = {"A": p, "B": q, "C": r, "D": s}
            yield RULES[N.ALTERNATE_CONVERSE], named
            yield RULES[N.ALTERNATE], named
            if known.far(p, s) == known.far(q, r):
                yield RULES[N.EQUAL_TRIANGLES], named
            if known.far(p, q) == known.far(r, s):
                if known.far(q, r) == known.far(p, q) == known.far(s, p):
                    yield RULES[N.RHOMBUS], named
                if drawn.holds(Fact(Rel.RIGHT_ANGLE, ((p, q, r),))):
                    yield RULES[N.RECTANGLE_SIDES], named
                    yield RULES[N.RECTANGLE_DIAGONALS], named
                for rule in (N.PARALLELOGRAM_BY_SIDES, N.PARALLELOGRAM_BY_ONE_PAIR, N.PARALLELOGRAM_SIDES):
                    yield RULES[rule], named
            for one in known.points:
                if one not in (p, q, r, s) and drawn.in_a_row((one, q, r)):
                    yield RULES[N.CORRESPONDING_CONVERSE], named | {"P": one}
                    yield RULES[N.CORRESPONDING], named | {"P": one}
                if one not in (p, q, r, s) and drawn.in_a_row((p, one, r)) and drawn.in_a_row((q, one, s)):
                    yield RULES[N.DIAGONALS], named | {"M": one}


def altitudes(known: Knowledge) -> Iterator[Instance]:
    """Points on two altitudes of a triangle.

    Of four such points each is where the altitudes of the other three meet; it is told of the one that was made last.
    """

    def points_on(term: Term) -> set[str]:
        return {p for p in known.points if p in term or (isinstance(term, str) and known.drawn.passes(term, p))}

    crossed = [tuple(map(points_on, one.of)) for one in known.all_with(Rel.PERPENDICULAR)]
    turned = [pair for one in crossed for pair in (one, one[::-1])]
    made = {name: place for place, name in enumerate(known.points)}
    for (first, base), (second, other) in combinations(turned, 2):
        for h, b in product(sorted(first & second), sorted(base & other)):
            for a, c in product(sorted(first & other), sorted(second & base)):
                if len({h, a, b, c}) == 4 and made[h] > max(made[a], made[b], made[c]):
                    yield RULES[N.ALTITUDES], {"H": h, "A": a, "B": b, "C": c}


def on_lines(known: Knowledge) -> Iterator[Instance]:
    """Points that lie on a drawn line in every position, besides one that is known to."""
    drawn = known.drawn
    for line in [line for line in drawn.lines if line not in drawn.bounded]:
        on = [p for p in known.points if drawn.passes(line, p)]
        for b in known.points if on else ():
            if b not in on and drawn.holds(Fact(Rel.ON, (b, line))):
                for a in on:
                    yield RULES[N.ONE_PARALLEL], {"A": a, "B": b, "l": line}


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
                    yield RULES[N.HALF_OF_SIDE], {"A": p, "B": q, "C": s, "M": m, "N": n}
                    yield from _medians(known, m, n, p, q, s)
    for m, a, b in known.midpoints():
        for p, q in ((a, b), (b, a)):
            for n in known.points:
                for c in known.points:
                    if len({p, q, m, n, c}) == 5 and drawn.in_a_row((p, n, c)) and known.far(n, p) == known.far(n, c):
                        yield RULES[N.MIDLINE_CONVERSE], {"A": p, "B": q, "C": c, "M": m, "N": n}


def _medians(known: Knowledge, m: str, n: str, c: str, b: str, a: str) -> Iterator[Instance]:
    """The crossing of the medians from A and B; M and N halve BC and AC."""
    for s in known.points:
        if s not in (a, b, c, m, n) and known.drawn.in_a_row((a, s, m)) and known.drawn.in_a_row((b, s, n)):
            for rule in (N.MEDIANS, N.MEDIANS_THIRD, N.MEDIANS_PARTS):
                yield RULES[rule], {"A": a, "B": b, "C": c, "M": m, "N": n, "S": s}
                yield RULES[rule], {"A": b, "B": a, "C": c, "M": n, "N": m, "S": s}


def trapezium_midlines(known: Knowledge) -> Iterator[Instance]:
    """The midpoints of two sides that join parallels."""
    for (m, a, d), (n, *ends) in combinations(known.midpoints(), 2):
        for b, c in (ends, ends[::-1]):
            if len({a, b, c, d}) == 4 and known.knows(Fact(Rel.PARALLEL, ((a, b), (d, c)))):
                yield RULES[N.TRAPEZIUM_MIDLINE], {"A": a, "B": b, "C": c, "D": d, "M": m, "N": n}


def equal_strips(known: Knowledge) -> Iterator[Instance]:
    """Parallels through the ends and the middle of one segment that another line meets."""
    for o, r, t in known.midpoints():
        for a, b in known.pairs:
            for m in known.points:
                if len({o, r, t, a, b, m}) < 6 or known.far(m, a) != known.far(m, b):
                    continue
                if known.drawn.in_a_row((a, m, b)):
                    for p, q in ((a, b), (b, a)):
                        yield RULES[N.EQUAL_STRIPS], {"O": o, "R": r, "T": t, "A": p, "B": q, "M": m}


def trapeziums(known: Knowledge) -> Iterator[Instance]:
    """Two lines from a point that a pair of lines crosses, whose crossing is joined with that point."""
    drawn, points = known.drawn, known.points
    for a, b in known.pairs:
        for m in points:
            if known.far(m, a) != known.far(m, b) or not drawn.in_a_row((a, m, b)):
                continue
            for s in points:
                if s in (a, b, m) or drawn.in_a_row((a, b, s)):
                    continue
                for x in points:
                    if x not in (s, m, a, b) and drawn.in_a_row((s, m, x)):
                        yield from _crossing(known, {"M": m, "A": a, "B": b, "S": s, "X": x})


def _crossing(known: Knowledge, named: Named) -> Iterator[Instance]:
    a, b, s, x = (str(named[letter]) for letter in "ABSX")
    in_a_row = known.drawn.in_a_row
    for c in known.points:
        if c not in (s, a, b, x) and in_a_row((s, a, c)) and in_a_row((b, x, c)):
            for d in known.points:
                if d not in (s, a, b, x) and in_a_row((s, b, d)) and in_a_row((a, x, d)):
                    yield RULES[N.CEVA_PARALLEL], named | {"C": c, "D": d}
                    yield RULES[N.CEVA_MIDPOINT], named | {"C": c, "D": d}


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
        if drawn.holds(Fact(Rel.RIGHT_ANGLE, (one.of[0],))):
            yield RULES[N.RIGHT_BY_EQUAL], dict(zip("ABCDEF", (a, v, b, c, w, d), strict=True))
            yield RULES[N.RIGHT_BY_EQUAL], dict(zip("ABCDEF", (c, w, d, a, v, b), strict=True))
        for p, q in ((a, b), (b, a)):
            for r, s in ((c, d), (d, c)):
                for e in _behind(known, p, v, through):
                    for f in _behind(known, r, w, through):
                        yield RULES[N.SUPPLEMENTS], {"A": p, "V": v, "B": q, "C": r, "W": w, "D": s, "E": e, "F": f}


def _behind(known: Knowledge, p: str, v: str, through: dict[str, list[tuple[str, str]]]) -> list[str]:
    """The first point on the other side of a vertex."""
    return [b if a == p else a for a, b in through.get(v, []) if p in (a, b)][:1]
