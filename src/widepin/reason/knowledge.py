"""What is known of a figure: facts that hold in all positions, with the rules and premises by which they came."""

from __future__ import annotations

from collections.abc import Hashable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from fractions import Fraction
from functools import cached_property
from itertools import combinations

import numpy as np

from ..judge.positions.alike import alike
from .drawn import NEAR, Drawn, lie_in_a_row
from .equalities import Equalities
from .facts import Fact, Rel, Term, ends, fact, lengths_of, three, two
from .rules import Bindings, Rule, RuleName, bound, concluded

MOST_POINTS = 20
NO_LENGTH = -1_000_000
FINEST_ANGLE, NEAR_DEGREES = 8, 5e-6
"""Angles are told to an eighth of a degree, if they are just that to so many degrees."""

SPLITTING = ("between", "opposite", "same_side", "same_way", "inside")
"""What may be so in some positions and otherwise in others, without any of them being degenerate."""


@dataclass(frozen=True)
class Derivation:
    """How a fact came: by a rule, from premises, by steps; ``stamp`` numbers facts in their order."""

    rule: RuleName
    premises: tuple[Fact, ...]
    steps: frozenset[str]
    stamp: int
    bindings: Mapping[str, Term] = field(default_factory=dict)


@dataclass(frozen=True)
class Conclusion:
    """What an instance of a rule says, and the premises from which it does."""

    said: Fact
    rule: RuleName
    premises: tuple[Fact, ...]
    bindings: Bindings


class Knowledge:
    """The facts of a figure. ``derived``: fact in normal form -> how it came first; ``others``: other ways to it."""

    def __init__(
        self,
        drawn: Drawn,
        base: Iterable[tuple[Fact, RuleName, frozenset[str]]],
        without: frozenset[RuleName] = frozenset(),
    ):
        self.drawn = drawn
        self.without = without  # rules that are not used, to see what needs them
        self.derived: dict[Fact, Derivation] = {}
        self.others: dict[Fact, list[Derivation]] = {}
        self.ratios: dict[Fact, Fact] = {}  # without its numbers -> with them
        self.lengths, self.angles, self.directions, self.areas = (Equalities() for _graph in range(4))
        self.points = list(drawn.points)[:MOST_POINTS]
        self.settled: set[Hashable] = set()  # instances that need not be looked at again
        self.wanted: tuple[Fact, ...] = ()
        self.rows: list[Fact] = []  # points that were proved to lie in a row
        self._sizes: dict[tuple[str, str, str], tuple[int, int] | None] = {}
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
            case Rel.ANGLE:
                right = one.ratio == (90, 1) and self.knows(Fact(Rel.RIGHT_ANGLE, one.of))
                return right or self.angles.are(one.of[0], one.ratio)
            case Rel.EQUAL_AREA:
                return all(self.areas.are(one.of[0], other) for other in one.of[1:])
            case Rel.PARALLEL:
                return self.directions.are(one.of[0], one.of[1])
            case Rel.PERPENDICULAR:
                return self.directions.are(one.of[0], one.of[1], turned=1)
            case Rel.RIGHT_ANGLE:
                return self.directions.are(*self.drawn.legs(one), turned=1)
        return False

    def is_plain(self, one: Fact) -> bool:
        """Whether a fact needs no line: it says that something equals itself, or is seen from what was drawn."""
        match one.rel:
            case Rel.EQUAL_LENGTH:
                return len(lengths_of(one)) == 1
            case Rel.EQUAL_AREA:
                return len(one.of) == 1
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

    def all_with(self, rel: Rel) -> list[Fact]:
        """All derived facts of a relation."""
        return [one for one in self.derived if one.rel is rel]

    def midpoints(self) -> list[tuple[str, str, str]]:
        """Midpoints that are known, each with the two ends."""
        return [three(tuple(map(str, one.of))) for one in self.all_with(Rel.MIDPOINT)]

    # -- adding -------------------------------------------------------------------------------------

    def conclusion(self, rule: Rule, bindings: Bindings) -> Conclusion | None:
        """What a rule says of these points, if its premises are known, and that is new or another way to a fact."""
        if rule.name in self.without or not all(
            self.drawn.seen(word, [str(bindings[name]) for name in names]) for word, names in rule.figure_patterns
        ):
            self.settled.add(key_of(rule, bindings))
            return None
        premises = self._premises(rule, bindings)
        if premises is None:
            return None
        said = concluded(rule, bindings, premises)
        if said is None:
            return None
        one = self.drawn.normal(said)
        if one not in self.derived and self.knows(one) and not self._says_more_shortly(rule.name, premises):
            return None
        self.settled.add(key_of(rule, bindings))
        return Conclusion(said, rule.name, tuple(premises), dict(bindings))

    def distinctions(self, rule: Rule, bindings: Bindings) -> list[tuple[str, tuple[str, ...]]]:
        """What would have to be distinguished for a rule to be used, whose premises are known; else nothing.

        It is so in some positions and otherwise in others: ``same_side`` and its four points.
        """
        found = []
        for word, names in rule.figure_patterns:
            points = tuple(str(bindings[name]) for name in names)
            where = self.drawn.where(word, points)
            if not where.any() or (word not in SPLITTING and not where.all()):
                return []
            if not where.all():
                found.append(("same_side" if word == "opposite" else word, points))
        return found if found and self._premises(rule, bindings) is not None else []

    def _premises(self, rule: Rule, bindings: Bindings) -> list[Fact] | None:
        """The premises of an instance, ratios with their numbers; None where one is not known."""
        premises = [bound(pattern, bindings) for pattern in rule.premise_patterns]
        for place, premise in enumerate(premises):
            if premise.rel in (Rel.RATIO, Rel.ANGLE) and premise.ratio is None:
                found = self.with_number(premise)
                if found is None:
                    return None
                premises[place] = found
            elif not self.knows(premise):
                return None
        return premises

    def with_number(self, one: Fact) -> Fact | None:
        """A ratio or an angle with its number; equal lengths, or a right angle, where it is so; None if not known."""
        if one.rel is Rel.RATIO:
            equal = fact(Rel.EQUAL_LENGTH, *one.of)
            return self.ratios.get(one) or (equal if self.knows(equal) else None)
        (triple,) = self.drawn.normal(one).of
        size = self.constant_size(*three(triple))
        if size is None:
            return None
        right = Fact(Rel.RIGHT_ANGLE, (triple,))
        if size == (90, 1) and self.knows(right):
            return right
        return Fact(Rel.ANGLE, (triple,), size) if self.angles.are(triple, size) else None

    def constant_size(self, p: str, v: str, q: str) -> tuple[int, int] | None:
        """The degrees of an angle that is the same in every position, a fraction; None for any other."""
        if (p, v, q) not in self._sizes:
            degrees = np.degrees(self.drawn.angle(p, v, q))
            size = Fraction(float(degrees[0])).limit_denominator(FINEST_ANGLE)
            is_constant = bool((np.abs(degrees - float(size)) < NEAR_DEGREES).all()) and 0 < size < 180
            self._sizes[p, v, q] = size.as_integer_ratio() if is_constant else None
        return self._sizes[p, v, q]

    def _says_more_shortly(self, rule: RuleName, premises: Iterable[Fact]) -> bool:
        """Whether a rule may say in fewer lines what is known."""
        return rule in (RuleName.CONGRUENT_SIDES, RuleName.CONGRUENT_ANGLES) or all(map(self._is_made, premises))

    def add(
        self,
        said: Fact,
        rule: RuleName,
        premises: tuple[Fact, ...] = (),
        steps: frozenset[str] = frozenset(),
        bindings: Bindings | None = None,
    ) -> None:
        """Take a fact in, or another way to it, if it holds in every position."""
        one = self.drawn.normal(said)
        if self.is_plain(one) or not self.drawn.holds(one):
            return
        rests = tuple(dict.fromkeys([*map(self.drawn.normal, premises), *self.renaming(said, *premises)]))
        how = Derivation(rule, rests, steps, len(self.derived), bindings or {})
        if one in self.derived:
            if premises and all((way.rule, way.premises) != (rule, rests) for way in self._ways(one)):
                self.others.setdefault(one, []).append(how)
            return
        self.derived[one] = how
        self._link(one, how.stamp)

    def _is_made(self, one: Fact) -> bool:
        """Whether the making of the figure says a fact by itself."""
        one = self.drawn.normal(one)
        if one.rel is Rel.EQUAL_LENGTH:
            lengths = lengths_of(one)
            return len(lengths) == 1 or any(lengths <= radii.keys() for radii in self.drawn.radii)
        return (one in self.derived and not self.derived[one].premises) or self.is_plain(one)

    def _ways(self, one: Fact) -> Iterator[Derivation]:
        yield self.derived[one]
        yield from self.others.get(one, ())

    def _link(self, one: Fact, stamp: int) -> None:
        """What a new fact says of lengths, angles, directions and rows."""
        drawn = self.drawn
        match one.rel:
            case Rel.EQUAL_LENGTH:
                pairs = list(map(ends, one.of))
                for first, second in zip(pairs, pairs[1:], strict=False):
                    self.lengths.link(first, second, one, stamp)
            case Rel.EQUAL_ANGLE:
                self.angles.link(one.of[0], one.of[1], one, stamp)
            case Rel.EQUAL_AREA:
                self.areas.link(one.of[0], one.of[1], one, stamp)
            case Rel.ANGLE:  # all angles of so many degrees are equal
                self.angles.link(one.of[0], one.ratio, one, stamp)
            case Rel.PARALLEL:
                self.directions.link(one.of[0], one.of[1], one, stamp)
            case Rel.PERPENDICULAR:
                self.directions.link(one.of[0], one.of[1], one, stamp, turned=1)
            case Rel.RIGHT_ANGLE:
                self.directions.link(*drawn.legs(one), one, stamp, turned=1)
            case Rel.MIDPOINT:
                m, p, q = map(str, one.of)
                self.lengths.link(ends((m, p)), ends((m, q)), one, stamp)
            case Rel.RATIO:
                self.ratios[fact(one.rel, *one.of)] = one
            case Rel.COLLINEAR:
                self.rows.append(one)
                lie_in_a_row(drawn, one)
                self._rename(one, stamp)
            case Rel.ON if one.of[1] in drawn.lines:
                self.rows.append(one)
                drawn.put_on(str(one.of[1]), str(one.of[0]), (one,))
                self._rename(one, stamp)

    def _rename(self, row: Fact, stamp: int) -> None:
        """What was called otherwise before points were found to lie in a row is the same."""
        for graph, rel in ((self.directions, Rel.PARALLEL), (self.angles, Rel.EQUAL_ANGLE)):
            for term in list(graph):
                if is_size(term):
                    continue
                new = self.drawn.line(term) if rel is Rel.PARALLEL else _angle(self.drawn, term)
                if new != term:
                    graph.link(term, new, row, stamp)

    def legs_before(self, one: Fact, before: int) -> tuple[tuple[Term, Term], tuple[Fact, ...]]:
        """The lines of a right angle as they were called before a stamp, and the points in a row by which they are."""
        p, v, q = three(one.of[0])
        now, then = self.drawn.legs(one), self.drawn.legs(one, made_only=True)
        rows = [
            row
            for line, as_made, end in zip(now, then, (p, q), strict=True)
            if isinstance(line, str) and line != as_made
            for name in (v, end)
            for row in self.drawn.found[line].get(name, ())
        ]
        if any(row not in self.derived or self.derived[row].stamp >= before for row in rows):
            return then, ()
        return now, tuple(dict.fromkeys(rows))

    def renaming(self, *facts: Fact) -> list[Fact]:
        """The facts about points in a row because of which the normal forms of facts are what they are."""
        if not self.rows:
            return []
        changed = any(self.drawn.normal(one) != self.drawn.normal(one, made_only=True) for one in facts)
        names = {name for one in facts for name in one.names}
        return [row for row in self.rows if changed and len(row.names & names) > 1]

    # -- looking at the figure ----------------------------------------------------------------------

    def _look(self) -> None:
        """Which lengths are equal in every position, and which directions; pairs of one row are parallel too."""
        points, at = self.points, self.drawn.points
        self.pairs = list(combinations(points, 2))
        lengths = np.array([np.abs(at[p] - at[q]) for p, q in self.pairs]) / self.drawn.size
        self._length_class = _classes(self.pairs, lengths)
        self.apart = {pair for pair, row in zip(self.pairs, lengths, strict=True) if bool((row > 1e-6).all())}
        joined = [pair for pair in self.pairs if pair in self.apart]
        way = np.array([(at[q] - at[p]) / np.abs(at[q] - at[p]) for p, q in joined]) ** 2
        groups = alike(np.hstack([way.real, way.imag])) if joined else ()
        self.parallel_pairs = [(joined[n], joined[m]) for group in groups for n, m in combinations(sorted(group), 2)]

    def far(self, p: str, q: str) -> int:
        """The class of a length: equal where lengths are, in every position; that of no length from a point to
        itself, and for points that are not looked at.
        """
        return NO_LENGTH if p == q else self._length_class.get(ends((p, q)), NO_LENGTH)

    @cached_property
    def right(self) -> list[tuple[str, str, str]]:
        """Angles that are right in every position."""
        return [
            (p, v, q)
            for v in self.points
            for p, q in self.pairs
            if v not in (p, q) and self.drawn.holds(Fact(Rel.RIGHT_ANGLE, ((p, v, q),)))
        ]

    @cached_property
    def bisected(self) -> list[tuple[str, str, str, str]]:
        """Angles with a point on their bisector, in every position: vertex, the ends of both legs, that point."""
        found = []
        names = self.apart | {pair[::-1] for pair in self.apart}
        for v in self.points:
            others = [p for p in self.points if (v, p) in names]
            if len(others) < 3:
                continue
            way = np.array([self.drawn.points[p] - self.drawn.points[v] for p in others])
            way /= np.abs(way)
            for n, i in enumerate(others):
                turned = way * way[n].conj()
                fits = np.abs(turned[:, None] * turned[None] - 1).max(axis=-1) < NEAR
                ahead = turned.real.min(axis=-1) > 0
                apart = np.abs(turned.imag).min(axis=-1) > NEAR
                found += [
                    (v, others[a], others[b], i)
                    for a, b in combinations(np.flatnonzero(ahead & apart), 2)
                    if fits[a, b]
                ]
        return found

    def triangles(self) -> Iterator[tuple[str, str, str]]:
        """Triples of points that are no row in any position."""
        for p, q, r in combinations(self.points, 3):
            if self.drawn.seen("apart", (p, q, r)):
                yield p, q, r

    def drawn_pairs(self) -> set[tuple[str, str]]:
        """Pairs of points that the eye joins: on a line that was drawn, radii, and what is told of by the making."""
        found = {pair for pair in self.pairs if self.drawn.line_through(*pair)}
        places = {name: place for place, name in enumerate(self.points)}
        for one in self.all_with(Rel.EQUAL_LENGTH):
            for p, q in map(two, one.of):
                if p in places and q in places:
                    found.add((p, q) if places[p] < places[q] else (q, p))
        return found


def key_of(rule: Rule, bindings: Bindings) -> Hashable:
    """What tells an instance of a rule from others."""
    return rule.name, *(bindings[letter] for letter in sorted(bindings))


def is_size(term: Hashable) -> bool:
    """Whether what an angle is equal to is so many degrees."""
    return isinstance(term, tuple) and isinstance(term[0], int)


def _angle(drawn: Drawn, term: Term) -> Term:
    p, v, q = three(term)
    return fact(Rel.RIGHT_ANGLE, (drawn.ray(v, p), v, drawn.ray(v, q))).of[0]


def _classes(pairs: list[tuple[str, str]], rows: np.ndarray) -> dict[tuple[str, str], int]:
    """Numbers such that things whose rows agree have the same; pairs in alphabetical order."""
    found = {ends(pair): -1 - number for number, pair in enumerate(pairs)}
    for number, group in enumerate(alike(rows)):
        for at in group:
            found[ends(pairs[at])] = number
    return found
