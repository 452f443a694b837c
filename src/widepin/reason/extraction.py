"""From everything that was derived, the few lines that lead to what is wanted, in the order that a reader needs."""

from __future__ import annotations

from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from functools import partial
from itertools import combinations

from .drawn import Drawn
from .facts import Fact, Rel, Term, ends, fact, lengths_of, three
from .knowledge import Derivation, Knowledge, is_size
from .proof import Line
from .rules import Bindings, RuleName

CHAINED = (Rel.EQUAL_LENGTH, Rel.EQUAL_ANGLE, Rel.ANGLE, Rel.EQUAL_AREA)
"""What is derived in one way may follow more shortly from a chain."""

MOST_CITED = 3
"""Lines that one line rests on at most; what rests on more is put together before."""


@dataclass(frozen=True)
class Support:
    """Why a fact is known: by derived facts, and by ``premises`` that are known in turn.

    ``rule``: what puts them together; None where they say it as it is.
    """

    facts: tuple[Fact, ...] = ()
    rule: RuleName | None = None
    premises: tuple[Fact, ...] = ()
    bindings: Bindings | None = None


class Extraction:
    """Lines of a proof, put together fact by fact.

    ``ways``: number of the line of a condition -> the facts from which it follows.
    """

    def __init__(self, known: Knowledge):
        self.known = known
        self.drawn: Drawn = known.drawn
        self.lines: list[Line] = []
        self.ways: dict[int, tuple[Fact, ...]] = {}
        self._number: dict[Fact, int] = {}
        self._best: dict[Fact, Derivation] = {}
        self._needed: dict[Fact, frozenset[Fact]] = {}

    def numbers_for(self, one: Fact, before: int | None = None) -> list[int]:
        """The numbers of the lines that say a fact, made if there are none yet; none for what needs no line.

        ``before``: the stamp of what rests on it, whose normal form is that of its time; None for what is wanted.
        Raises LookupError for what is not known.
        """
        if before is None:
            one = self.drawn.normal(one)
        said = self._said(one)
        if said is not None:
            return [said]
        support = self._support(one, len(self.known.derived) if before is None else before)
        numbers = list(dict.fromkeys(self._line_of(each) for each in support.facts))
        numbers += [number for each in support.premises for number in self.numbers_for(each, before)]
        if support.rule is None:
            return numbers if len(numbers) < 2 else [self._put(one, RuleName.SAME_LINE, numbers)]
        if one.rel is Rel.EQUAL_LENGTH:
            return [self._equal_lengths(one, numbers, before is None)]
        if support.facts and support.rule in (RuleName.TRANSITIVE, RuleName.DIRECTIONS):
            numbers = self._in_parts(support.facts, numbers, support.rule)
        return [self._put(one, support.rule, numbers, bindings=support.bindings)]

    def said(self, one: Fact) -> int | None:
        """The number of the line that says a fact; None where there is none yet."""
        return self._said(self.drawn.normal(one))

    # -- why a fact is known ------------------------------------------------------------------------

    def _support(self, one: Fact, before: int) -> Support:
        """The cheapest facts that say this one."""
        known, drawn = self.known, self.drawn
        how = known.derived.get(one)
        if how is not None and how.stamp < before and (one.rel not in CHAINED or not how.premises):
            return Support((one,))
        if known.is_plain(one):
            return Support()
        match one.rel:
            case Rel.EQUAL_LENGTH:
                pairs = list(dict.fromkeys(map(ends, one.of)))
                facts: dict[Fact, None] = {}
                there: frozenset[Fact] = frozenset()
                for first, second in zip(pairs, pairs[1:], strict=False):
                    links = known.lengths.chain(first, second, before, partial(self._cost_beside, there))
                    if links is None:
                        raise LookupError(f"{one} does not follow")
                    facts |= dict.fromkeys(links)
                    there = there.union(*map(self._needs, links))
                return Support(tuple(facts), None if len(facts) == 1 else RuleName.TRANSITIVE)
            case Rel.EQUAL_ANGLE:
                angles = known.angles.chain(one.of[0], one.of[1], before, self.cost)
                if angles is None:
                    (a, b, c), (d, e, f) = map(three, one.of)
                    named = dict(zip("ABCDEF", (a, b, c, d, e, f), strict=True))
                    right = tuple(Fact(Rel.RIGHT_ANGLE, (term,)) for term in one.of)
                    return Support((), RuleName.RIGHT_ANGLES, right, named)
                return Support(tuple(angles), None if angles == [one] else RuleName.TRANSITIVE)
            case Rel.ANGLE:
                sizes = known.angles.chain(one.of[0], one.ratio, before, self.cost)
                if sizes is None:
                    raise LookupError(f"{one} does not follow")
                return Support(tuple(sizes), None if sizes == [one] else RuleName.TRANSITIVE)
            case Rel.EQUAL_AREA:
                areas = known.areas.chain(one.of[0], one.of[1], before, self.cost)
                if areas is None:
                    raise LookupError(f"{one} does not follow")
                return Support(tuple(areas), None if areas == [one] else RuleName.TRANSITIVE)
            case Rel.PARALLEL | Rel.PERPENDICULAR | Rel.RIGHT_ANGLE:
                turned = int(one.rel is not Rel.PARALLEL)
                lines, rows = known.legs_before(one, before) if one.rel is Rel.RIGHT_ANGLE else (one.of, ())
                ways = known.directions.chain(lines[0], lines[1], before, self.cost, turned)
                if ways is None:
                    raise LookupError(f"{one} does not follow")
                # One right angle, said of lines or of an angle, needs no line of its own.
                same = not rows and len(ways) == 1 and ways[0].rel in (Rel.PERPENDICULAR, Rel.RIGHT_ANGLE)
                return Support(tuple(ways), None if same else RuleName.DIRECTIONS, rows)
            case Rel.ON:
                point, curve = map(str, one.of)
                return Support(drawn.found[curve][point])
            case Rel.COLLINEAR:
                return Support(tuple(drawn.why_in_a_row([str(name) for name in one.of])))
        raise LookupError(f"{one} does not follow")

    # -- which derivation is shortest ---------------------------------------------------------------

    def cost(self, one: Fact) -> int:
        """About how many lines a fact takes; nothing for one that has its line."""
        return 0 if self._said(one) is not None else len(self._needs(one))

    def _cost_beside(self, there: frozenset[Fact], one: Fact) -> int:
        """About how many lines a fact takes where these have theirs."""
        return 0 if self._said(one) is not None else len(self._needs(one) - there)

    def _needs(self, one: Fact) -> frozenset[Fact]:
        """The derived facts that a fact rests on in the shortest of its derivations, itself included."""
        if one not in self._needed:
            first = self.known.derived[one]
            best = None
            for way in (first, *self.known.others.get(one, ())):
                try:
                    needs = frozenset([one]).union(*(self._needs_of(part, first.stamp) for part in way.premises))
                except LookupError:
                    continue  # it was found later, from what rests on this
                if best is None or len(needs) < len(best):
                    best, self._best[one] = needs, way
            if best is None:
                raise LookupError(f"{one} does not follow")
            self._needed[one] = best
        return self._needed[one]

    def _needs_of(self, premise: Fact, before: int) -> frozenset[Fact]:
        support = self._support(premise, before)
        if any(self.known.derived[part].stamp >= before for part in support.facts):
            raise LookupError(f"{premise} came later")
        needs = frozenset[Fact]().union(
            *map(self._needs, support.facts), *(self._needs_of(part, before) for part in support.premises)
        )
        return needs if support.rule is None else needs | {premise}

    # -- lines --------------------------------------------------------------------------------------

    def _said(self, one: Fact) -> int | None:
        """The line that says a fact, by itself or among equal lengths."""
        if one in self._number:
            return self._number[one]
        if one.rel is Rel.EQUAL_LENGTH:
            wanted = lengths_of(one)
            for number, line in enumerate(self.lines, 1):
                if line.fact.rel is Rel.EQUAL_LENGTH and wanted <= lengths_of(line.fact):
                    return number
        return None

    def _line_of(self, one: Fact) -> int:
        """The line of a derived fact."""
        said = self._said(one)
        if said is not None:
            return said
        self._needs(one)
        stamp, how = self.known.derived[one].stamp, self._best[one]
        because = [number for premise in how.premises for number in self.numbers_for(premise, stamp)]
        return self._put(one, how.rule, because, sorted(how.steps), how.bindings)

    def _equal_lengths(self, one: Fact, numbers: list[int], is_wanted: bool) -> int:
        """A line that puts equal lengths together: what it cites says at once, or what is wanted alone."""
        numbers = self._with_joints(numbers)
        while len(numbers) > MOST_CITED:
            part = next(
                (part for part in combinations(numbers, MOST_CITED) if self._are_joined(part)),
                tuple(numbers[:MOST_CITED]),
            )
            joint = self._put(self._all_said(part), RuleName.TRANSITIVE, part)
            numbers = [joint, *(number for number in numbers if number not in part)]
        return self._put(one if is_wanted else self._all_said(numbers), RuleName.TRANSITIVE, numbers)

    def _with_joints(self, numbers: list[int]) -> list[int]:
        """Lines of equal lengths, those in one that were put together before replaced by that one."""
        for number in range(len(self.lines), 0, -1):
            line = self.lines[number - 1]
            if line.rule is RuleName.TRANSITIVE and line.fact.rel is Rel.EQUAL_LENGTH:
                inside = [other for other in numbers if other in self._sources(number)]
                if len(inside) > 1 and lengths_of(self._all_said(inside)) <= lengths_of(line.fact):
                    numbers = [number, *(other for other in numbers if other not in inside)]
        return numbers

    def _sources(self, number: int) -> set[int]:
        """A line of equal lengths, and those that it was put together from."""
        line = self.lines[number - 1]
        if line.rule is not RuleName.TRANSITIVE:
            return {number}
        return {number}.union(*map(self._sources, line.because))

    def _are_joined(self, numbers: Sequence[int]) -> bool:
        first, *others = (lengths_of(self.lines[number - 1].fact) for number in numbers)
        while others:
            near = next((one for one in others if one & first), None)
            if near is None:
                return False
            first |= near
            others.remove(near)
        return True

    def _all_said(self, numbers: Sequence[int]) -> Fact:
        every = set[tuple[str, str]]().union(*(lengths_of(self.lines[number - 1].fact) for number in numbers))
        return fact(Rel.EQUAL_LENGTH, *sorted(every))

    def _in_parts(self, links: Sequence[Fact], numbers: list[int], rule: RuleName) -> list[int]:
        """The numbers of a chain of equal angles or of directions; where it is long, its first links as one."""
        while len(numbers) > MOST_CITED:
            said = self._together(links[:MOST_CITED])
            if said is None:
                break
            numbers = [self._put(said, rule, numbers[:MOST_CITED]), *numbers[MOST_CITED:]]
            links = [said, *links[MOST_CITED:]]
        return numbers

    def _together(self, links: Sequence[Fact]) -> Fact | None:
        """What a chain of equal angles or directions says of its two ends; None where it is none."""
        if links[0].rel in (Rel.EQUAL_ANGLE, Rel.ANGLE):
            return _angles_together(links)
        if links[0].rel is Rel.EQUAL_AREA:
            ends_of_chain = set[Term]()
            for link in links:
                ends_of_chain ^= set(link.of)
            return fact(Rel.EQUAL_AREA, *ends_of_chain) if len(ends_of_chain) == 2 else None
        left, turned = set[Term](), 0
        for link in links:
            left ^= set(self.drawn.legs(link) if link.rel is Rel.RIGHT_ANGLE else link.of)
            turned ^= link.rel in (Rel.PERPENDICULAR, Rel.RIGHT_ANGLE)
        if len(left) != 2:
            return None
        return fact(Rel.PERPENDICULAR if turned else Rel.PARALLEL, *sorted(left, key=str))

    def _put(
        self,
        one: Fact,
        rule: RuleName,
        because: Sequence[int],
        steps: Sequence[str] = (),
        bindings: Bindings | None = None,
    ) -> int:
        if one in self._number:
            return self._number[one]
        self.lines.append(Line(one, rule, tuple(sorted(set(because))), tuple(steps), bindings=bindings or {}))
        self._number[one] = len(self.lines)
        return len(self.lines)


def _angles_together(links: Sequence[Fact]) -> Fact | None:
    """What a chain of equal angles, and of sizes, says of its two ends."""
    left = set[Hashable]()
    for link in links:
        left ^= {*link.of, *([link.ratio] if link.ratio else [])}
    sizes = [term for term in left if is_size(term)]
    angles = [term for term in left if not is_size(term)]
    if len(angles) == 2 and not sizes:
        return fact(Rel.EQUAL_ANGLE, *sorted(angles))  # type: ignore[type-var, arg-type]
    if len(angles) == len(sizes) == 1:
        return fact(Rel.ANGLE, angles[0], ratio=sizes[0])  # type: ignore[arg-type]
    return None
