"""Angles on circles, and lines that touch them."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations, permutations, product

from ..facts import Rel, fact
from ..knowledge import Knowledge
from ..rules import RULES, RuleName
from .instance import Instance, Named

N = RuleName


def circles(known: Knowledge) -> Iterator[Instance]:
    """Angles over a diameter, and over one chord."""
    for a, b in known.pairs:
        for o in known.points:
            if o in (a, b) or known.far(o, a) != known.far(o, b) or not known.drawn.in_a_row((a, o, b)):
                continue
            for c in known.points:
                if c not in (a, b, o) and known.far(o, c) == known.far(o, a):
                    yield RULES[N.THALES], {"A": a, "B": b, "C": c, "O": o}
                    yield RULES[N.THALES_CONVERSE], {"A": a, "B": b, "C": c, "O": o}
    for circle in known.drawn.circles:
        on = [point for point in known.drawn.on[circle] if point in known.points]
        yield from _centre(known, circle, on)
        for a, b in combinations(on, 2):
            for c, d in combinations([one for one in on if one not in (a, b)], 2):
                yield RULES[N.INSCRIBED], {"A": a, "B": b, "C": c, "D": d}
            yield from _over_chord(known, circle, on, a, b)


def _over_chord(known: Knowledge, circle: str, on: list[str], a: str, b: str) -> Iterator[Instance]:
    """Points that see a chord at a known angle, and opposite corners of quadrilaterals."""
    drawn = known.drawn
    others = [one for one in on if one not in (a, b)]
    for c in others[:1]:
        for d in known.points:
            if d not in on and drawn.holds(fact(Rel.ON, d, circle)):
                yield RULES[N.ONE_CIRCLE], {"A": a, "B": b, "C": c, "D": d, "k": circle}
    for c, d in permutations(others, 2):
        if known.with_number(fact(Rel.ANGLE, (a, c, b))) and not known.with_number(fact(Rel.ANGLE, (a, d, b))):
            yield RULES[N.OPPOSITE_ANGLES], {"A": a, "B": c, "C": b, "D": d, "k": circle}


def _centre(known: Knowledge, circle: str, on: list[str]) -> Iterator[Instance]:
    """A point that is known to be equally far from three points of a circle, and a fourth; the middle of a diameter."""
    if known.drawn.centre.get(circle) in known.points:
        return  # radii say it
    for o in known.points:
        near = [p for p in on if o != p and known.far(o, p) == known.far(o, on[0])]
        for a, b, c in combinations(near, 3):
            for d in near:
                if d not in (a, b, c):
                    yield RULES[N.CENTRE], {"O": o, "A": a, "B": b, "C": c, "D": d, "k": circle}
    for o, p, q in known.midpoints():
        if p in on and q in on and all(known.far(o, one) == known.far(o, p) for one in on):
            for a, b in combinations([one for one in on if one not in (p, q)], 2):
                if known.far(p, a) == known.far(p, b) and known.far(q, a) == known.far(q, b):
                    for c in on:
                        named: Named = {"O": o, "P": p, "Q": q, "A": a, "B": b, "C": c, "k": circle}
                        yield RULES[N.CENTRE_OF_DIAMETER], named


def tangents(known: Knowledge) -> Iterator[Instance]:
    """Lines at right angles to a radius, both legs of an angle, and lines that touch two circles."""
    drawn = known.drawn
    yield from _known_tangents(known)
    for circle in drawn.circles:
        on = [point for point in drawn.on[circle] if point in known.points]
        for p, (q, r) in product(on, combinations(on, 2)):
            if p not in (q, r) and known.far(p, q) == known.far(p, r):
                for line in sorted(drawn.lines_through(p)):
                    if drawn.holds(fact(Rel.TANGENT, circle, line)):
                        yield RULES[N.TANGENT_AT_APEX], {"P": p, "Q": q, "R": r, "k": circle, "l": line}
    for circle, centre in drawn.centre.items():
        if centre not in known.points:
            continue
        yield from _as_far_as_a_radius(known, circle, centre)
        for line in drawn.lines:
            for touching in sorted(drawn.on[circle].keys() & {*drawn.on[line], *drawn.found[line]}):
                yield RULES[N.TANGENT], {"O": centre, "T": touching, "k": circle, "l": line}
            for touching in sorted({*drawn.on[line], *drawn.found[line]} - drawn.on[circle].keys()):
                for other in drawn.on[circle]:
                    is_seen = touching in known.points and other in known.points
                    if is_seen and known.far(centre, touching) == known.far(centre, other):
                        named: Named = {"O": centre, "T": touching, "R": other, "k": circle, "l": line}
                        yield RULES[N.TANGENT_BY_LENGTH], named
        for other, second in drawn.centre.items():
            if other > circle and second in known.points and second != centre:
                for touching in known.points:
                    on_both = all(known.knows(fact(Rel.ON, touching, one)) for one in (circle, other))
                    if on_both and drawn.in_a_row((centre, second, touching)):
                        named = {"O": centre, "P": second, "T": touching, "k": circle, "m": other}
                        yield RULES[N.TOUCHING_CIRCLES], named
            if other != circle and second in known.points and second != centre:
                yield from _similitudes(known, circle, centre, other, second)
        yield from _both_legs(known, circle, centre)


def _as_far_as_a_radius(known: Knowledge, circle: str, centre: str) -> Iterator[Instance]:
    """Points that lie on a circle in every position, as far from its centre as its radius is long."""
    drawn = known.drawn
    radius = drawn.radius.get(circle, ())
    if radius and set(radius) <= set(known.points):
        a, b = radius
        for p in known.points:
            if p not in drawn.on[circle] and p != centre and known.far(centre, p) == known.far(a, b):
                yield RULES[N.AS_FAR_AS_A_RADIUS], {"O": centre, "P": p, "A": a, "B": b, "k": circle}


def _known_tangents(known: Knowledge) -> Iterator[Instance]:
    """What is known to touch a circle stands upright on a radius, makes equal angles with chords, and is as long as the
    other tangent from its point.
    """
    drawn = known.drawn
    touching = [one for one in known.all_with(Rel.TANGENT) if len(drawn.circles.keys() & set(one.of)) == 1]
    ends: list[tuple[str, str, str]] = []
    for one in touching:
        circle, line = one.of if one.of[0] in drawn.circles else one.of[::-1]
        on_line = [p for p in known.points if p in line or (isinstance(line, str) and drawn.passes(line, p))]
        on = [p for p in known.points if p in drawn.on[str(circle)]]
        for a in (p for p in on_line if p in on):
            centre = drawn.centre.get(str(circle))
            if centre in known.points and isinstance(line, str):
                yield RULES[N.TANGENT_RADIUS], {"k": circle, "l": line, "T": a, "O": str(centre)}
            for t in (p for p in on_line if p != a):
                ends.append((str(circle), a, t))
                for b, c in permutations([p for p in on if p != a], 2):
                    yield RULES[N.TANGENT_CHORD], {"k": circle, "A": a, "B": b, "C": c, "T": t}
    for (circle, a, p), (other, b, q) in combinations(ends, 2):
        if circle == other and p == q and a != b:
            yield RULES[N.EQUAL_TANGENTS], {"k": circle, "A": a, "B": b, "P": p}


def _both_legs(known: Knowledge, circle: str, centre: str) -> Iterator[Instance]:
    """Angles with their vertex on a line that is known to touch a circle, whose other leg touches it too."""
    drawn = known.drawn
    for touching in known.all_with(Rel.TANGENT):
        if circle not in touching.of:
            continue
        line = next(term for term in touching.of if term != circle)
        on = [p for p in known.points if p in line or (isinstance(line, str) and drawn.passes(line, p))]
        for a, b in permutations(on, 2):
            for c in known.points:
                if c not in (a, b, centre) and c not in on and drawn.holds(fact(Rel.TANGENT, circle, (a, c))):
                    yield RULES[N.TANGENT_TO_BOTH_LEGS], {"k": circle, "O": centre, "A": a, "B": b, "C": c}


def _similitudes(known: Knowledge, k: str, o: str, m: str, p: str) -> Iterator[Instance]:
    """Tangents of one circle through a centre of similitude with another."""
    drawn = known.drawn
    for line in drawn.lines:
        if fact(Rel.TANGENT, k, line) not in known.derived:
            continue
        for h in sorted({*drawn.on[line], *drawn.found[line]}):
            if h in known.points and drawn.in_a_row((h, o, p)):
                for a in drawn.on[k]:
                    for q in drawn.on[m]:
                        if a in known.points and q in known.points and drawn.in_a_row((h, a, q)):
                            named = (k, line, m, o, p, h, a, q)
                            yield RULES[N.TANGENT_BY_SIMILITUDE], dict(zip("klmOPHAQ", named, strict=True))
