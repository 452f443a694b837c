"""Points that are equally far from two others, and midpoints."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from itertools import combinations

from ..facts import Rel, ends, fact
from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance, Named

N = RuleName


def bisectors(known: Knowledge) -> Iterator[Instance]:
    """What two points that are equally far from two others say of the line through them, and of a third point."""
    midpoints = defaultdict(list)
    for m, a, b in known.midpoints():
        midpoints[ends((a, b))].append(m)
    for (a, b), far in _equally_far(known).items():
        for p, q in combinations(far, 2):
            named: Named = {"A": a, "B": b, "P": p, "Q": q}
            yield RULES[N.BISECTOR_LINE], named
            yield RULES[N.KITE], {"A": p, "C": q, "B": a, "D": b}
            yield RULES[N.KITE], {"A": q, "C": p, "B": a, "D": b}
            for m in known.points:
                if m in (p, q, a, b) or known.far(m, a) != known.far(m, b):
                    continue
                if known.drawn.in_a_row((p, q, m)):
                    if known.drawn.in_a_row((a, b, m)):
                        yield RULES[N.BISECTOR_FOOT], named | {"M": m}
                    yield RULES[N.BISECTOR_THIRD], named | {"R": m}
                elif m in far:
                    yield RULES[N.BISECTOR_THREE], named | {"R": m}
        for m in midpoints[ends((a, b))]:
            for p in known.points:
                if p not in (a, b, m) and known.far(p, a) == known.far(p, b):
                    yield RULES[N.BISECTOR_POINT], {"M": m, "A": a, "B": b, "P": p}
                    yield RULES[N.MEDIAN_OF_ISOSCELES], {"M": m, "B": a, "C": b, "A": p}


def drawn_bisectors(known: Knowledge) -> Iterator[Instance]:
    """Points on perpendicular bisectors and mirrors that a tool made or used, and lengths in a mirror."""
    for line, pairs in known.drawn.mirrored.items():
        pairs = [pair for pair in pairs if set(pair) <= set(known.points)]
        for a, b in pairs:
            for p in known.points:
                if p not in (a, b) and known.far(p, a) == known.far(p, b):
                    rule = N.OF_BISECTOR if known.drawn.passes(line, p) else N.ON_BISECTOR
                    yield RULES[rule], {"P": p, "A": a, "B": b, "l": line}
            yield from _beside_axis(known, line, a, b)
        for (a, b), (c, d) in combinations(pairs, 2):
            for p, q in ((c, d), (d, c)):
                yield RULES[N.MIRRORED], {"A": a, "B": b, "C": p, "D": q, "l": line}


def _beside_axis(known: Knowledge, line: str, a: str, b: str) -> Iterator[Instance]:
    """Two points that are mirror images in a line as well as A and B, since a point of the line is as far from both."""
    for c, d in known.pairs:
        if {c, d} & {a, b} or not known.drawn.holds(fact(Rel.PERPENDICULAR, (c, d), line)):
            continue
        for n in known.points:
            if known.drawn.passes(line, n) and known.far(n, c) == known.far(n, d):
                for p, q in ((c, d), (d, c)):
                    named: Named = {"A": a, "B": b, "C": p, "D": q, "N": n, "l": line}
                    yield RULES[N.MIRRORED_BY_AXIS], named


def at_right_angles(known: Knowledge) -> Iterator[Instance]:
    """Perpendiculars from the apex of isosceles triangles, and those to the bisector of an angle."""
    drawn = known.drawn
    for (a, b), far in _equally_far(known).items():
        for p in far:
            for q in known.points:
                if q not in (p, a, b) and known.far(q, a) == known.far(q, b):
                    yield RULES[N.PERPENDICULAR_FROM_APEX], {"P": p, "Q": q, "A": a, "B": b}
    for line, (a, v, b) in drawn.bisecting.items():
        on_first, on_second = ([p for p in known.points if p != v and drawn.in_a_row((v, end, p))] for end in (a, b))
        for x in on_first:
            for y in on_second:
                if known.far(v, x) == known.far(v, y) and drawn.holds(fact(Rel.PERPENDICULAR, (x, y), line)):
                    named: Named = {"A": a, "V": v, "B": b, "X": x, "Y": y, "l": line}
                    yield RULES[N.PERPENDICULAR_TO_BISECTOR], named


def _equally_far(known: Knowledge) -> dict[tuple[str, str], list[str]]:
    """For each pair of points those that are known to be equally far from both."""
    found = {}
    for p, q in known.pairs:
        if (p, q) in known.apart:
            found[p, q] = [
                one
                for one in known.points
                if one not in (p, q)
                and known.far(one, p) == known.far(one, q)
                and known.lengths.are(ends((one, p)), ends((one, q)))
            ]
    return found


def halves(known: Knowledge) -> Iterator[Instance]:
    """Midpoints, and halves and doubles of equal lengths."""
    for a, b in known.pairs:
        for m in known.points:
            if m not in (a, b) and known.drawn.in_a_row((a, m, b)) and known.far(m, a) == known.far(m, b):
                yield RULES[N.MIDPOINT], {"A": a, "B": b, "M": m}
    for (m, a, b), (n, c, d) in combinations(known.midpoints(), 2):
        if known.far(a, b) == known.far(c, d):
            for p, q in ((a, b), (b, a)):
                named: Named = {"M": m, "A": p, "B": q, "N": n, "C": c, "D": d}
                yield RULES[N.HALVES_OF_EQUALS], named
                yield RULES[N.DOUBLES_OF_EQUALS], named
