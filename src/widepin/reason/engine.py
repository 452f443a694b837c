"""Everything that follows from a figure by the rules, round by round, as far as it holds in the sampled positions.

The figure proposes: only triangles that are congruent in every position are asked whether they can be proved so, only
angles and lengths that are equal whether a rule says it. What is derived knows its rule and its premises.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from itertools import combinations, permutations

import numpy as np

from ..judge.alike import alike
from .drawn import Drawn, lie_in_a_row
from .equalities import Equalities
from .facts import Fact, Rel, Term, fact, three, two
from .rules import RULES, Bindings, Rule, RuleName, bound, product_of, with_ratio

N = RuleName
MOST_POINTS, MOST_ROUNDS = 15, 8

MOST_TRIED = 5_000
"""Instances of rules that are tried for one figure: a bound that is the same on every machine."""

CONGRUENCES = (N.SSS, N.SAS, N.ASA, N.AAS, N.RHS)


@dataclass(frozen=True)
class Derivation:
    """How a fact came: by a rule, from premises, by steps; ``stamp`` numbers facts in their order."""

    rule: RuleName
    premises: tuple[Fact, ...]
    steps: frozenset[str]
    stamp: int
    bindings: Mapping[str, Term] = field(default_factory=dict)


class Engine:
    """The facts of a figure. ``derived``: fact in normal form -> how it came."""

    def __init__(
        self,
        drawn: Drawn,
        base: Iterable[tuple[Fact, RuleName, frozenset[str]]],
        without: frozenset[RuleName] = frozenset(),
    ):
        self.drawn = drawn
        self.without = without  # rules that are not used, to see what needs them
        self.derived: dict[Fact, Derivation] = {}
        self.lengths, self.angles, self.directions = Equalities(), Equalities(), Equalities()
        self.points = list(drawn.points)[:MOST_POINTS]
        self.rows: list[Fact] = []  # points that were proved to lie in a row
        self.left = MOST_TRIED
        self.stopped = False
        for one, rule, steps in base:
            if one.names <= {*drawn.points, *drawn.lines, *drawn.circles}:
                self.add(one, rule, (), steps)
        self._look()

    # -- knowing ------------------------------------------------------------------------------------

    def knows(self, one: Fact) -> bool:
        """Whether a fact is given, derived, or follows from equalities that are."""
        one = self.drawn.normal(one)
        if one in self.derived or self.is_plain(one):
            return True
        match one.rel:
            case Rel.COLLINEAR:
                return self.drawn.in_a_row([str(name) for name in one.of])
            case Rel.ON:
                point, curve = str(one.of[0]), one.of[1]
                return isinstance(curve, str) and point in self.drawn.found[curve]
            case Rel.EQUAL_LENGTH:
                first, *others = map(ends, one.of)
                return all(self.lengths.are(first, other) for other in others)
            case Rel.EQUAL_ANGLE:
                return self.angles.are(one.of[0], one.of[1]) or all(
                    self.knows(Fact(Rel.RIGHT_ANGLE, (term,))) for term in one.of
                )
            case Rel.PARALLEL:
                return self.directions.are(one.of[0], one.of[1])
            case Rel.PERPENDICULAR:
                return self.directions.are(one.of[0], one.of[1], turned=1)
            case Rel.RIGHT_ANGLE:
                p, v, q = three(one.of[0])
                return self.directions.are(self.drawn.line((v, p)), self.drawn.line((v, q)), turned=1)
        return False

    def is_plain(self, one: Fact) -> bool:
        """Whether a fact needs no line: it says that something equals itself, or is seen from what was drawn."""
        match one.rel:
            case Rel.EQUAL_LENGTH:
                return len(set(map(ends, one.of))) == 1
            case Rel.EQUAL_ANGLE | Rel.PARALLEL:
                return one.of[0] == one.of[1]
            case Rel.COLLINEAR:
                return self.drawn.in_a_row([str(name) for name in one.of], made_only=True)
            case Rel.CONCYCLIC:
                return any(
                    set(map(str, one.of)) <= set(on) for id_, on in self.drawn.on.items() if id_ in self.drawn.circles
                )
            case Rel.ON:
                point, curve = str(one.of[0]), one.of[1]
                return isinstance(curve, str) and point in self.drawn.on[curve]
        return False

    # -- adding -------------------------------------------------------------------------------------

    def add(
        self,
        one: Fact,
        rule: RuleName,
        premises: tuple[Fact, ...] = (),
        steps: frozenset[str] = frozenset(),
        bindings: Bindings | None = None,
    ) -> bool:
        """Take a fact in, if it is new and holds in every position; whether it was."""
        said = one
        one = self.drawn.normal(one)
        if one in self.derived or self.is_plain(one) or not self.drawn.holds(one):
            return False
        if premises and rule not in (N.CONGRUENT_SIDES, N.CONGRUENT_ANGLES) and self.knows(one):
            return False  # congruent triangles may say more shortly what is known
        stamp = len(self.derived)
        rests = tuple(dict.fromkeys([*map(self.drawn.normal, premises), *self._renaming(said, *premises)]))
        self.derived[one] = Derivation(rule, rests, steps, stamp, bindings or {})
        match one.rel:
            case Rel.EQUAL_LENGTH:
                first, second = map(ends, one.of)
                self.lengths.link(first, second, one, stamp)
            case Rel.EQUAL_ANGLE:
                self.angles.link(one.of[0], one.of[1], one, stamp)
            case Rel.PARALLEL:
                self.directions.link(one.of[0], one.of[1], one, stamp)
            case Rel.PERPENDICULAR:
                self.directions.link(one.of[0], one.of[1], one, stamp, turned=1)
            case Rel.RIGHT_ANGLE:
                p, v, q = three(one.of[0])
                self.directions.link(self.drawn.line((v, p)), self.drawn.line((v, q)), one, stamp, turned=1)
            case Rel.MIDPOINT:
                m, p, q = map(str, one.of)
                self.lengths.link(ends((m, p)), ends((m, q)), one, stamp)
            case Rel.COLLINEAR:
                self._lie_in_a_row(one, stamp)
        return True

    def _renaming(self, *facts: Fact) -> list[Fact]:
        """The facts about points in a row because of which the normal forms of facts are what they are."""
        if not self.rows:
            return []
        changed = any(self.drawn.normal(one) != self.drawn.normal(one, made_only=True) for one in facts)
        names = {name for one in facts for name in one.names}
        return [row for row in self.rows if changed and len(row.names & names) > 1]

    def _lie_in_a_row(self, one: Fact, stamp: int) -> None:
        """Points that are found to lie in a row lie on one line from now on; what was called otherwise is the same."""
        self.rows.append(one)
        lie_in_a_row(self.drawn, one)
        for graph, rel in ((self.directions, Rel.PARALLEL), (self.angles, Rel.EQUAL_ANGLE)):
            for term in list(graph):
                new = self.drawn.line(term) if rel is Rel.PARALLEL else _angle(self.drawn, term)
                if new != term:
                    graph.link(term, new, one, stamp)

    def apply(self, rule: Rule, bindings: Bindings) -> bool:
        """Derive what a rule says of these points, if its premises are known; whether that was new."""
        if rule.name in self.without:
            return False
        for word, names in rule.figure_patterns:
            if not self.drawn.seen(word, [str(bindings[name]) for name in names]):
                return False
        premises = tuple(bound(pattern, bindings) for pattern in rule.premise_patterns)
        if not all(self.knows(premise) for premise in premises):
            return False
        return self.add(bound(rule.conclusion_pattern, bindings), rule.name, premises, bindings=dict(bindings))

    def apply_ratio(self, rule: Rule, bindings: Bindings, *premises: Fact) -> bool:
        """Derive a ratio from others, if everything else that the rule wants is known; whether that was new."""
        if rule.name in self.without:
            return False
        others = tuple(bound(pattern, bindings) for pattern in rule.premise_patterns if pattern[0] != Rel.RATIO)
        if not all(map(self.knows, others)) or not all(
            self.drawn.seen(word, [str(bindings[name]) for name in names]) for word, names in rule.figure_patterns
        ):
            return False
        said = with_ratio(bound(rule.conclusion_pattern, bindings), product_of(rule, premises))
        return self.add(said, rule.name, (*premises, *others), bindings=dict(bindings))

    # -- looking at the figure ----------------------------------------------------------------------

    def _look(self) -> None:
        """Which lengths and angles are equal in every position, and which directions."""
        points, at = self.points, self.drawn.points
        self.pairs = list(combinations(points, 2))
        lengths = np.array([np.abs(at[p] - at[q]) for p, q in self.pairs]) / self.drawn.size
        self.length_class = _classes(self.pairs, lengths)
        self.apart = {pair for pair, row in zip(self.pairs, lengths, strict=True) if bool((row > 1e-6).all())}

    def far(self, p: str, q: str) -> int:
        """The class of a length."""
        return self.length_class[ends((p, q))]

    def triangles(self) -> Iterator[tuple[str, str, str]]:
        """Triples of points that are no row in any position."""
        for p, q, r in combinations(self.points, 3):
            if self.drawn.seen("apart", (p, q, r)):
                yield p, q, r

    def saturate(self, wanted: Iterable[Fact]) -> None:
        """Derive everything, until what is wanted is known, nothing is new, or enough is tried."""
        wanted = list(wanted)
        every = list(self.triangles())
        drawn = self._drawn_pairs()
        for rows in ([row for row in every if all(pair in drawn for pair in combinations(row, 2))], every):
            self._saturate(wanted, rows)
            if self.stopped or (wanted and all(map(self.knows, wanted))):
                return

    def _drawn_pairs(self) -> set[tuple[str, str]]:
        """Pairs of points that the eye joins: on a line that was drawn, radii, and what is told of by the making."""
        found = {pair for pair in self.pairs if self.drawn.line_through(*pair)}
        places = {name: place for place, name in enumerate(self.points)}
        for one in self.derived:
            if one.rel is Rel.EQUAL_LENGTH:
                for p, q in map(two, one.of):
                    if p in places and q in places:
                        found.add((p, q) if places[p] < places[q] else (q, p))
        return found

    def _saturate(self, wanted: list[Fact], rows: list[tuple[str, str, str]]) -> None:
        congruent = list(self._congruent(rows))
        isosceles = list(self._isosceles(rows))
        for _round in range(MOST_ROUNDS):
            if wanted and all(map(self.knows, wanted)):
                return
            before = len(self.derived)
            for instances in (
                self._halves(),
                self._hexagons(),
                self._bisectors(),
                ((RULES[rule], bindings) for rule in (N.ISOSCELES, N.ISOSCELES_CONVERSE) for bindings in isosceles),
                self._congruences(congruent),
                self._parallels(),
                self._circles(),
                self._around_points(),
                self._tangents(),
            ):
                for rule, bindings in instances:
                    self.apply(rule, bindings)
                    self.left -= 1
                    if self.left < 0:
                        self.stopped = True
                        return
            self._ratios()
            if len(self.derived) == before:
                return

    def _congruent(self, rows: list[tuple[str, str, str]]) -> Iterator[dict[str, Term]]:
        """Pairs of triangles that are congruent in every position, corner by corner."""
        by_sides = defaultdict(list)
        for p, q, r in rows:
            by_sides[tuple(sorted((self.far(p, q), self.far(q, r), self.far(r, p))))].append((p, q, r))
        for group in by_sides.values():
            for first, second in combinations(group, 2):
                yield from self._corresponding(first, second)

    def _corresponding(self, first: tuple[str, str, str], second: tuple[str, str, str]) -> Iterator[dict[str, Term]]:
        a, b, c = first
        for d, e, f in permutations(second):
            if (self.far(a, b), self.far(b, c), self.far(c, a)) == (self.far(d, e), self.far(e, f), self.far(f, d)):
                yield dict(zip("ABCDEF", (a, b, c, d, e, f), strict=True))

    def _congruences(self, congruent: list[dict[str, Term]]) -> Iterator[tuple[Rule, Bindings]]:
        for bindings in congruent:
            a, b, c, d, e, f = (str(bindings[letter]) for letter in "ABCDEF")
            one = fact(Rel.CONGRUENT, (a, b, c), (d, e, f))
            if one not in self.derived:
                for turned in _turns(a, b, c, d, e, f):
                    for rule in CONGRUENCES:
                        yield RULES[rule], turned
                        if one in self.derived:
                            break
                    if one in self.derived:
                        break
            if one in self.derived:
                for turned in _turns(a, b, c, d, e, f):
                    yield RULES[N.CONGRUENT_SIDES], turned
                    yield RULES[N.CONGRUENT_ANGLES], turned

    def _isosceles(self, rows: list[tuple[str, str, str]]) -> Iterator[dict[str, Term]]:
        for row in rows:
            for a, b, c in permutations(row):
                if b < c and self.far(a, b) == self.far(a, c):
                    yield {"A": a, "B": b, "C": c}

    def _equally_far(self) -> dict[tuple[str, str], list[str]]:
        """For each pair of points those that are known to be equally far from both."""
        found = {}
        for p, q in self.pairs:
            if (p, q) in self.apart:
                found[p, q] = [
                    one
                    for one in self.points
                    if one not in (p, q) and self.far(one, p) == self.far(one, q) and self._equal(one, p, q)
                ]
        return found

    def _equal(self, one: str, p: str, q: str) -> bool:
        return self.lengths.are(ends((one, p)), ends((one, q)))

    def _bisectors(self) -> Iterator[tuple[Rule, Bindings]]:
        for (a, b), far in self._equally_far().items():
            for p, q in combinations(far, 2):
                named: dict[str, Term] = {"A": a, "B": b, "P": p, "Q": q}
                yield RULES[N.BISECTOR_LINE], named
                for m in self.points:
                    if m in (p, q, a, b) or self.far(m, a) != self.far(m, b):
                        continue
                    if self.drawn.in_a_row((p, q, m)):
                        if self.drawn.in_a_row((a, b, m)):
                            yield RULES[N.BISECTOR_FOOT], named | {"M": m}
                        yield RULES[N.BISECTOR_THIRD], named | {"R": m}
                    elif m in far:
                        yield RULES[N.BISECTOR_THREE], named | {"R": m}
            for m in self._midpoints_of(a, b):
                for p in self.points:
                    if p not in (a, b, m) and self.far(p, a) == self.far(p, b):
                        yield RULES[N.BISECTOR_POINT], {"M": m, "A": a, "B": b, "P": p}

    def _midpoints_of(self, a: str, b: str) -> list[str]:
        return [m for m in self.points if fact(Rel.MIDPOINT, m, a, b) in self.derived]

    def _midpoints(self) -> list[tuple[str, str, str]]:
        return [tuple(map(str, one.of)) for one in self.derived if one.rel is Rel.MIDPOINT]  # type: ignore[misc]

    def _halves(self) -> Iterator[tuple[Rule, Bindings]]:
        for a, b in self.pairs:
            for m in self.points:
                if m not in (a, b) and self.drawn.in_a_row((a, m, b)) and self.far(m, a) == self.far(m, b):
                    yield RULES[N.MIDPOINT], {"A": a, "B": b, "M": m}

        for (m, a, b), (n, c, d) in combinations(self._midpoints(), 2):
            if self.far(a, b) == self.far(c, d):
                for p, q in ((a, b), (b, a)):
                    named: dict[str, Term] = {"M": m, "A": p, "B": q, "N": n, "C": c, "D": d}
                    yield RULES[N.HALVES_OF_EQUALS], named
                    yield RULES[N.DOUBLES_OF_EQUALS], named

    def _circles(self) -> Iterator[tuple[Rule, Bindings]]:
        for a, b in self.pairs:
            for o in self.points:
                if o in (a, b) or self.far(o, a) != self.far(o, b) or not self.drawn.in_a_row((a, o, b)):
                    continue
                for c in self.points:
                    if c not in (a, b, o) and self.far(o, c) == self.far(o, a):
                        yield RULES[N.THALES], {"A": a, "B": b, "C": c, "O": o}
                        yield RULES[N.THALES_CONVERSE], {"A": a, "B": b, "C": c, "O": o}
        for circle in self.drawn.circles:
            on = [point for point in self.drawn.on[circle] if point in self.points]
            for a, b in combinations(on, 2):
                for c, d in combinations([one for one in on if one not in (a, b)], 2):
                    yield RULES[N.INSCRIBED], {"A": a, "B": b, "C": c, "D": d}

    def _parallels(self) -> Iterator[tuple[Rule, Bindings]]:
        drawn = self.drawn
        for (a, b), (c, d) in combinations(self.pairs, 2):
            if len({a, b, c, d}) == 3:
                p = ({a, b} & {c, d}).pop()
                q, r = ({a, b} | {c, d}) - {p}
                if drawn.holds(Fact(Rel.COLLINEAR, (p, q, r))) and not drawn.in_a_row((p, q, r)):
                    yield RULES[N.ONE_PERPENDICULAR], {"A": p, "B": q, "C": r}
                continue
            if len({a, b, c, d}) < 4 or not drawn.holds(Fact(Rel.PARALLEL, ((a, b), (c, d)))):
                continue
            for p, q, r, s in ((a, b, c, d), (a, b, d, c), (b, a, c, d), (b, a, d, c)):
                named: dict[str, Term] = {"A": p, "B": q, "C": r, "D": s}
                yield RULES[N.ALTERNATE_CONVERSE], named
                yield RULES[N.ALTERNATE], named
                if self.far(p, s) == self.far(q, r):
                    yield RULES[N.EQUAL_TRIANGLES], named
                if self.far(p, q) == self.far(r, s):
                    for rule in (N.PARALLELOGRAM_BY_SIDES, N.PARALLELOGRAM_BY_ONE_PAIR, N.PARALLELOGRAM_SIDES):
                        yield RULES[rule], named
                for one in self.points:
                    if one not in (p, q, r, s) and drawn.in_a_row((one, q, r)):
                        yield RULES[N.CORRESPONDING_CONVERSE], named | {"P": one}
                        yield RULES[N.CORRESPONDING], named | {"P": one}
                    if one not in (p, q, r, s) and drawn.in_a_row((p, one, r)) and drawn.in_a_row((q, one, s)):
                        yield RULES[N.DIAGONALS], named | {"M": one}
        for (m, a, c), (n, b, d) in combinations(self._midpoints(), 2):
            if m == n:
                yield RULES[N.PARALLELOGRAM_BY_DIAGONALS], {"M": m, "A": a, "B": b, "C": c, "D": d}
                yield RULES[N.PARALLELOGRAM_BY_DIAGONALS], {"M": m, "A": a, "B": d, "C": c, "D": b}
            for p, q in ((a, c), (c, a)):
                for r, s in ((b, d), (d, b)):
                    if p == r and q != s:
                        yield RULES[N.MIDLINE], {"A": p, "B": q, "C": s, "M": m, "N": n}
                        for k, d, e in self._midpoints():
                            if self.far(q, s) == self.far(d, e) and k not in (m, n):
                                double: dict[str, Term] = {"A": p, "B": q, "C": s, "M": m, "N": n, "K": k}
                                yield RULES[N.DOUBLE_OF_MIDLINE], double | {"D": d, "E": e}
        for m, a, b in self._midpoints():
            for p, q in ((a, b), (b, a)):
                for n in self.points:
                    for c in self.points:
                        if len({p, q, m, n, c}) == 5 and drawn.in_a_row((p, n, c)) and self.far(n, p) == self.far(n, c):
                            yield RULES[N.MIDLINE_CONVERSE], {"A": p, "B": q, "C": c, "M": m, "N": n}

    def _similitudes(self, k: str, o: str, m: str, p: str) -> Iterator[tuple[Rule, Bindings]]:
        """Tangents of one circle through a centre of similitude with another."""
        drawn = self.drawn
        for line in drawn.lines:
            if fact(Rel.TANGENT, k, line) not in self.derived:
                continue
            for h in {*drawn.on[line], *drawn.found[line]}:
                if h in self.points and drawn.in_a_row((h, o, p)):
                    for a in drawn.on[k]:
                        for q in drawn.on[m]:
                            if a in self.points and q in self.points and drawn.in_a_row((h, a, q)):
                                named = (k, line, m, o, p, h, a, q)
                                yield RULES[N.TANGENT_BY_SIMILITUDE], dict(zip("klmOPHAQ", named, strict=True))

    def _around_points(self) -> Iterator[tuple[Rule, Bindings]]:
        """Angles about a point at which lines cross, and right angles."""
        drawn = self.drawn
        through: dict[str, list[tuple[str, str]]] = {}
        for v in self.points:
            through[v] = [
                (p, q)
                for p, q in self.pairs
                if v not in (p, q) and drawn.in_a_row((p, v, q)) and drawn.seen("between", (v, p, q))
            ]
            for (a, c), (b, d) in combinations(through[v], 2):
                if not drawn.in_a_row((a, v, b)):
                    yield RULES[N.VERTICAL], {"A": a, "V": v, "C": c, "B": b, "D": d}
                    yield RULES[N.VERTICAL], {"A": a, "V": v, "C": c, "B": d, "D": b}
            for a, c in through[v]:
                for b in self.points:
                    if b not in (a, v, c) and drawn.holds(Fact(Rel.RIGHT_ANGLE, ((a, v, b),))):
                        yield RULES[N.RIGHT_BY_HALVES], {"A": a, "V": v, "B": b, "C": c}
        for one in [one for one in self.derived if one.rel is Rel.EQUAL_ANGLE]:
            (a, v, b), (c, w, d) = map(three, one.of)
            for p, q in ((a, b), (b, a)):
                for r, s in ((c, d), (d, c)):
                    for e in self._behind(p, v, through):
                        for f in self._behind(r, w, through):
                            yield RULES[N.SUPPLEMENTS], {"A": p, "V": v, "B": q, "C": r, "W": w, "D": s, "E": e, "F": f}

    def _behind(self, p: str, v: str, through: dict[str, list[tuple[str, str]]]) -> list[str]:
        """The first point on the other side of a vertex."""
        return [b if a == p else a for a, b in through.get(v, []) if p in (a, b)][:1]

    def _ratios(self) -> None:
        """Halves and equal parts, what parallels cut off, and chains of ratios."""
        drawn = self.drawn
        for m, a, b in self._midpoints():
            for p, q in ((a, b), (b, a)):
                self.apply_ratio(RULES[N.RATIO_OF_HALVES], {"M": m, "A": p, "B": q})
        for line in list(drawn.lines):
            row = [p for p in self.points if drawn.passes(line, p)]
            for a, c, d, e in permutations(row, 4) if len(row) < 7 else ():
                if self.far(a, c) == self.far(c, d) == self.far(d, e):
                    self.apply_ratio(RULES[N.EQUAL_PARTS], {"A": a, "C": c, "D": d, "E": e})
        known = [one for one in self.derived if one.rel is Rel.RATIO]
        for one in known:
            for (a, c), (first, e) in self._from_one_end(one):
                if a != first:
                    continue
                for p, b in permutations([x for x in self.points if x not in (a, c, e)], 2):
                    if drawn.in_a_row((a, p, b)) and self.knows(fact(Rel.PARALLEL, (c, p), (e, b))):
                        self.apply_ratio(RULES[N.INTERCEPT], {"A": a, "B": b, "C": c, "E": e, "P": p}, one)
            for other in known:
                for (a, p), (first, m) in self._from_one_end(one):
                    for (second, n), (third, b) in self._from_one_end(other):
                        if a == first == second == third and m == n and p != b:
                            self.apply_ratio(RULES[N.RATIO_CHAIN], {"A": a, "B": b, "M": m, "P": p}, one, other)

    def _from_one_end(self, one: Fact) -> Iterator[tuple[tuple[str, str], tuple[str, str]]]:
        first, second = map(two, one.of)
        for x in (first, first[::-1]):
            for y in (second, second[::-1]):
                yield x, y

    def _hexagons(self) -> Iterator[tuple[Rule, Bindings]]:
        """Equilateral triangles side by side about a point."""
        for o in self.points:
            by_length = defaultdict(list)
            for one in self.points:
                if one != o:
                    by_length[self.far(o, one)].append(one)
            for length, around in by_length.items():
                if len(around) < 3 or length < 0:
                    continue
                near = {(p, q) for p, q in permutations(around, 2) if self.far(p, q) == length}
                for a, d in combinations(around, 2):
                    if not self.drawn.in_a_row((a, o, d)):
                        continue
                    for b, c in permutations(around, 2):
                        named: dict[str, Term] = {"O": o, "A": a, "B": b, "C": c, "D": d}
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

    def _tangents(self) -> Iterator[tuple[Rule, Bindings]]:
        drawn = self.drawn
        for circle, centre in drawn.centre.items():
            if centre not in self.points:
                continue
            for line in drawn.lines:
                for touching in drawn.on[circle].keys() & {*drawn.on[line], *drawn.found[line]}:
                    yield RULES[N.TANGENT], {"O": centre, "T": touching, "k": circle, "l": line}
            for other, second in drawn.centre.items():
                if other != circle and second in self.points and second != centre:
                    yield from self._similitudes(circle, centre, other, second)
            for a in self.points:
                for b, c in permutations([one for one in self.points if one not in (a, centre)], 2):
                    if drawn.holds(fact(Rel.TANGENT, circle, (a, b))) and drawn.holds(
                        fact(Rel.TANGENT, circle, (a, c))
                    ):
                        yield RULES[N.TANGENT_TO_BOTH_LEGS], {"k": circle, "O": centre, "A": a, "B": b, "C": c}


def _angle(drawn: Drawn, term: Term) -> Term:
    p, v, q = three(term)
    return fact(Rel.RIGHT_ANGLE, (drawn.ray(v, p), v, drawn.ray(v, q))).of[0]


def ends(term: Term) -> tuple[str, str]:
    p, q = two(term)
    return (p, q) if p < q else (q, p)


def _turns(a: str, b: str, c: str, d: str, e: str, f: str) -> Iterator[dict[str, Term]]:
    """A correspondence of triangles, with each of its corners first, in both orders."""
    for order in permutations(range(3)):
        first, second = [(a, b, c)[n] for n in order], [(d, e, f)[n] for n in order]
        yield dict(zip("ABCDEF", (*first, *second), strict=True))


def _classes(pairs: list[tuple[str, str]], rows: np.ndarray) -> dict[tuple[str, str], int]:
    """Numbers such that things whose rows agree have the same; pairs in alphabetical order."""
    found = {ends(pair): -1 - number for number, pair in enumerate(pairs)}
    for number, group in enumerate(alike(rows)):
        for at in group:
            found[ends(pairs[at])] = number
    return found
