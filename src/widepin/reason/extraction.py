"""From everything that was derived, the few lines that lead to what is wanted, in the order that a reader needs."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations

from .drawn import Drawn
from .engine import Derivation, Engine, ends
from .facts import Fact, Rel, fact, three
from .proof import Line
from .rules import Bindings, RuleName

CHAINED = (Rel.EQUAL_LENGTH, Rel.EQUAL_ANGLE)
"""What is derived in one way may follow more shortly from a chain."""

MOST_CITED = 3
"""Lines that one line rests on at most; longer chains are cut."""


class Extraction:
    """Lines of a proof, put together fact by fact."""

    def __init__(self, engine: Engine):
        self.engine = engine
        self.drawn: Drawn = engine.drawn
        self.lines: list[Line] = []
        self._number: dict[Fact, int] = {}
        self._costs: dict[Fact, int] = {}

    def line_for(self, one: Fact, before: int | None = None) -> int | None:
        """The number of the line that says a fact, made if there is none yet; None for what needs no line.

        ``before``: the stamp of what rests on it, whose normal form is that of its time; None for what is wanted.
        """
        if before is None:
            one = self.drawn.normal(one)
        if one in self._number:
            return self._number[one]
        stamp = len(self.engine.derived) if before is None else before
        said = self._said_within(one)
        if said is not None:
            return said
        known = self.engine.derived.get(one)
        if known is not None and known.stamp < stamp and (one.rel not in CHAINED or not known.premises):
            return self._derived(one, known)
        if self.engine.is_plain(one):
            return None
        return self._combined(one, stamp)

    def _said_within(self, one: Fact) -> int | None:
        """The line that says that these and other lengths are equal, if there is one."""
        if one.rel is not Rel.EQUAL_LENGTH:
            return None
        wanted = set(map(ends, one.of))
        for number, line in enumerate(self.lines, 1):
            if line.fact.rel is Rel.EQUAL_LENGTH and wanted <= set(map(ends, line.fact.of)):
                return number
        return None

    def _line_of(self, known: Fact) -> int:
        if known in self._number:
            return self._number[known]
        said = self._said_within(known)
        return said if said is not None else self._derived(known, self.engine.derived[known])

    def _derived(self, one: Fact, how: Derivation) -> int:
        because = [self.line_for(premise, how.stamp) for premise in how.premises]
        return self._put(one, how.rule, because, sorted(how.steps), how)

    def _combined(self, one: Fact, before: int) -> int | None:
        """A line that follows from equalities, or from directions."""
        engine = self.engine
        match one.rel:
            case Rel.EQUAL_LENGTH if len(one.of) > 2:
                return self._all_equal(one, before)
            case Rel.EQUAL_LENGTH:
                chain = engine.lengths.chain(ends(one.of[0]), ends(one.of[1]), before, self.cost)
                return self._chained(one, chain, RuleName.TRANSITIVE)
            case Rel.EQUAL_ANGLE:
                chain = engine.angles.chain(one.of[0], one.of[1], before, self.cost)
                if chain is None:
                    right = [self.line_for(Fact(Rel.RIGHT_ANGLE, (term,)), before) for term in one.of]
                    (a, b, c), (d, e, f) = map(three, one.of)
                    bindings = dict(zip("ABCDEF", (a, b, c, d, e, f), strict=True))
                    return self._put(one, RuleName.RIGHT_ANGLES, right, bindings=bindings)
                return self._chained(one, chain, RuleName.TRANSITIVE)
            case Rel.PARALLEL | Rel.PERPENDICULAR:
                turned = int(one.rel is Rel.PERPENDICULAR)
                chain = engine.directions.chain(one.of[0], one.of[1], before, self.cost, turned)
                return self._chained(one, chain, RuleName.DIRECTIONS)
            case Rel.RIGHT_ANGLE:
                p, v, q = three(one.of[0])
                lines = self.drawn.line((v, p)), self.drawn.line((v, q))
                chain = engine.directions.chain(lines[0], lines[1], before, self.cost, 1)
                perpendicular = fact(Rel.PERPENDICULAR, *lines)
                if chain is not None and chain == [perpendicular]:
                    return self.line_for(perpendicular, before)  # the same, said of the lines
                return self._chained(one, chain, RuleName.DIRECTIONS)
            case Rel.ON:
                point, curve = map(str, one.of)
                return self._line_of(self.drawn.found[curve][point])
            case Rel.COLLINEAR:
                why = self.drawn.why_in_a_row([str(name) for name in one.of])
                return self._put(one, RuleName.SAME_LINE, [self._line_of(row) for row in why])
        raise LookupError(f"{one} does not follow")

    def _all_equal(self, one: Fact, before: int) -> int:
        """A line that says that several lengths are equal: those that are radii together, and what joins them."""
        left = [ends(term) for term in one.of]
        groups: list[list[tuple[str, str]]] = []
        for radii in sorted(self.drawn.radii, key=lambda group: -sum(pair in group for pair in left)):
            together = [pair for pair in left if pair in radii]
            if len(together) > 1:
                groups.append(together)
                left = [pair for pair in left if pair not in together]
        groups += [[pair] for pair in left]
        numbers: list[int | None] = []
        for group in groups:
            if len(group) > 1:
                said = fact(Rel.EQUAL_LENGTH, *group)
                steps = next(radii for radii in self.drawn.radii if all(pair in radii for pair in group))
                numbers.append(
                    self._put(said, RuleName.RADII, (), sorted(frozenset().union(*(steps[pair] for pair in group))))
                )
        if len(groups) == 1:
            return int(numbers[0] or 0)
        first = groups[0][0]
        numbers += [self.line_for(fact(Rel.EQUAL_LENGTH, first, group[0]), before) for group in groups[1:]]
        parts = list(dict.fromkeys(number for number in numbers if number is not None))
        while len(parts) > MOST_CITED:
            joined = self._joined_lengths(parts)
            if joined is None:
                break
            parts = joined
        return self._put(one, RuleName.TRANSITIVE, parts)

    def _joined_lengths(self, parts: list[int]) -> list[int] | None:
        """Three lines whose lengths are equal to each other said in one, before the others; None where no three are."""
        for chosen in combinations(parts, MOST_CITED):
            said = [set(map(ends, self.lines[number - 1].fact.of)) for number in chosen]
            if said[0] & said[1] and (said[0] | said[1]) & said[2]:
                whole = fact(Rel.EQUAL_LENGTH, *sorted(said[0] | said[1] | said[2]))
                return [self._put(whole, RuleName.TRANSITIVE, chosen), *(n for n in parts if n not in chosen)]
        return None

    def _chained(self, one: Fact, chain: list[Fact] | None, rule: RuleName) -> int | None:
        if chain is None:
            raise LookupError(f"{one} does not follow")
        numbers = [self._line_of(link) for link in chain]
        if len(chain) == 1 and self._says(chain[0], one):
            return numbers[0]
        while len(chain) > MOST_CITED:
            # What the first links say together gets a line of its own.
            part, rest = chain[:MOST_CITED], chain[MOST_CITED:]
            said = self._joined(part, one)
            if said is None:
                break
            number = self._put(said, rule, [self._line_of(link) for link in part])
            chain, numbers = [said, *rest], [number, *(self._line_of(link) for link in rest)]
        return self._put(one, rule, numbers)

    def _says(self, link: Fact, one: Fact) -> bool:
        """Whether a fact is what is wanted, said in another way."""
        return link == one or link.rel is Rel.MIDPOINT

    def _joined(self, links: Sequence[Fact], one: Fact) -> Fact | None:
        """What links that follow each other say of their two ends; None where they are not all of one kind."""
        if any(link.rel is not one.rel for link in links) or one.rel not in (Rel.EQUAL_LENGTH, Rel.EQUAL_ANGLE):
            return None
        ends = set(links[0].of)
        for link in links[1:]:
            ends ^= set(link.of)
        return fact(one.rel, *sorted(ends)) if len(ends) == 2 else None

    def _put(
        self,
        one: Fact,
        rule: RuleName,
        because: Sequence[int | None],
        steps: Sequence[str] = (),
        how: Derivation | None = None,
        bindings: Bindings | None = None,
    ) -> int:
        if one in self._number:
            return self._number[one]
        cited = tuple(sorted({number for number in because if number is not None}))
        self.lines.append(Line(one, rule, cited, tuple(steps), bindings=how.bindings if how else bindings or {}))
        self._number[one] = len(self.lines)
        return len(self.lines)

    def cost(self, one: Fact) -> int:
        """About how many lines a fact takes: one, and those of its premises; nothing for one that has its line."""
        if one in self._number:
            return 0
        if one not in self._costs:
            self._costs[one] = 1  # while it is worked out, so that nothing goes in circles
            how = self.engine.derived.get(one)
            if how is not None:
                self._costs[one] = 1 + sum(
                    0 if self.engine.is_plain(premise) else self.cost(premise) for premise in how.premises
                )
        return self._costs[one]


def without_unused(lines: Sequence[Line]) -> tuple[Line, ...]:
    """The lines that lead to a condition, numbered anew."""
    used: set[int] = set()
    waiting = [number for number, line in enumerate(lines, 1) if line.condition is not None]
    while waiting:
        number = waiting.pop()
        if number not in used:
            used.add(number)
            waiting += lines[number - 1].because
    place = {number: index for index, number in enumerate(sorted(used), 1)}
    return tuple(
        Line(
            line.fact,
            line.rule,
            tuple(place[cited] for cited in line.because),
            line.steps,
            line.condition,
            line.bindings,
        )
        for number, line in enumerate(lines, 1)
        if number in used
    )
