"""Facts over points and lines, in a normal form: facts that say the same are equal.

A line is a pair of points, or the id of a line that was drawn. Angles are undirected, their vertex second. Triangles
of a congruence or similarity correspond corner by corner.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from itertools import permutations

Term = str | tuple[str, ...]


class Rel(StrEnum):
    """What facts say: relations of task conditions, and those that only proofs need."""

    EQUAL_LENGTH = "equal_length"
    EQUAL_ANGLE = "equal_angle"
    ANGLE = "angle"
    RIGHT_ANGLE = "right_angle"
    PARALLEL = "parallel"
    PERPENDICULAR = "perpendicular"
    COLLINEAR = "collinear"
    CONCYCLIC = "concyclic"
    MIDPOINT = "midpoint"
    ON = "on"
    TANGENT = "tangent"
    CONGRUENT = "congruent"
    SIMILAR = "similar"
    RATIO = "ratio"
    SAME = "same"
    CONCURRENT = "concurrent"
    EQUIDISTANT = "equidistant"

    __hash__ = str.__hash__


def two(term: Term) -> tuple[str, str]:
    """The points of a pair."""
    p, q = tuple(term)
    return p, q


def three(term: Term) -> tuple[str, str, str]:
    """The points of an angle or a triangle."""
    p, v, q = tuple(term)
    return p, v, q


def ends(term: Term) -> tuple[str, str]:
    """The ends of a length, in alphabetical order."""
    p, q = two(term)
    return (p, q) if p < q else (q, p)


@dataclass(frozen=True)
class Fact:
    """A relation and its terms. ``ratio``: (n, d) of a ratio; n / d degrees of an angle."""

    rel: Rel
    of: tuple[Term, ...]
    ratio: tuple[int, int] | None = None

    @property
    def names(self) -> set[str]:
        """Everything that is named."""
        return {name for term in self.of for name in ((term,) if isinstance(term, str) else term)}

    def renamed(self, names: Mapping[str, str]) -> Fact:
        """The fact with other names."""
        return fact(
            self.rel,
            *(
                names.get(term, term) if isinstance(term, str) else tuple(names.get(one, one) for one in term)
                for term in self.of
            ),
            ratio=self.ratio,
        )

    def __str__(self) -> str:
        terms = " ".join(term if isinstance(term, str) else "".join(term) for term in self.of)
        return f"{self.rel} {terms}"


def fact(rel: Rel, *of: Term, ratio: tuple[int, int] | None = None) -> Fact:
    """A fact in its normal form.

    >>> fact(Rel.EQUAL_LENGTH, ("C", "B"), ("A", "C")) == fact(Rel.EQUAL_LENGTH, ("A", "C"), ("B", "C"))
    True
    >>> fact(Rel.CONGRUENT, ("A", "B", "C"), ("D", "E", "F")) == fact(Rel.CONGRUENT, ("E", "D", "F"), ("B", "A", "C"))
    True
    """
    if rel is Rel.RATIO and ratio is not None and ratio[0] > ratio[1]:
        of, ratio = of[::-1], ratio[::-1]
    at_once = _first_form(rel, of)
    if at_once is not None:
        return Fact(rel, at_once, ratio)
    return min((Fact(rel, terms, ratio) for terms in forms(rel, of)), key=_key)


def _first_form(rel: Rel, of: tuple[Term, ...]) -> tuple[Term, ...] | None:
    """The first of the forms in their order, where each term has its own; None where forms have to be compared."""
    match rel:
        case Rel.EQUAL_ANGLE | Rel.PARALLEL | Rel.PERPENDICULAR:
            return tuple(sorted(map(_first_way, of), key=_key_of)) if len(of) == 2 else None
        case Rel.EQUAL_LENGTH:
            first = map(_first_way, of)
            return tuple(sorted(first)) if len(of) == 2 else tuple(sorted(set(first)))  # type: ignore[type-var]
        case Rel.ANGLE | Rel.RIGHT_ANGLE | Rel.RATIO | Rel.ON:
            return tuple(map(_first_way, of))
        case Rel.MIDPOINT:
            return (of[0], *sorted(of[1:]))  # type: ignore[type-var]
        case Rel.COLLINEAR | Rel.CONCYCLIC:
            return tuple(sorted(of))  # type: ignore[type-var]
    return None


def _first_way(term: Term) -> Term:
    return term if isinstance(term, str) else min(term, term[::-1])


def _key_of(term: Term) -> tuple[str, ...]:
    return (term,) if isinstance(term, str) else term


def _key(one: Fact) -> tuple[tuple[str, ...], ...]:
    return tuple(map(_key_of, one.of))


def forms(rel: Rel, of: tuple[Term, ...]) -> Iterator[tuple[Term, ...]]:
    """All the ways to write the terms of one fact."""
    match rel:
        case Rel.CONGRUENT | Rel.SIMILAR:
            first, second = of
            for order in permutations(range(3)):
                one, other = tuple(first[n] for n in order), tuple(second[n] for n in order)
                yield one, other
                yield other, one
        case Rel.COLLINEAR | Rel.CONCYCLIC:
            yield from permutations(of) if len(of) <= 4 else iter([tuple(sorted(of))])
        case Rel.MIDPOINT:
            middle, p, q = of
            yield middle, p, q
            yield middle, q, p
        case Rel.ON | Rel.RATIO:
            yield from _turned(of)
        case Rel.TANGENT:  # to say of a line that it touches a circle is to say it of the circle
            for turned in _turned(of):
                yield turned
                yield turned[::-1]
        case Rel.CONCURRENT:
            yield tuple(sorted(map(_one_way_round, of), key=str))
        case Rel.EQUIDISTANT:
            yield (of[0], *sorted(map(_one_way_round, of[1:]), key=str))
        case Rel.EQUAL_LENGTH if len(of) > 2:
            yield tuple(sorted({min(tuple(term), tuple(term)[::-1]) for term in of}))
        case _:
            for turned in _turned(of):
                yield turned
                if len(turned) == 2:
                    yield turned[1], turned[0]


def _one_way_round(term: Term) -> Term:
    """A line, its two points in alphabetical order where it is named by them."""
    return term if isinstance(term, str) else ends(term)


def _turned(of: tuple[Term, ...]) -> Iterator[tuple[Term, ...]]:
    """Terms with pairs and angles written from either end."""
    if not of:
        yield ()
        return
    head, *rest = of
    heads = [head] if isinstance(head, str) else [head, head[::-1]]
    for tail in _turned(tuple(rest)):
        for one in heads:
            yield (one, *tail)


def lengths_of(one: Fact) -> set[tuple[str, str]]:
    """The lengths that a fact says are equal."""
    if one.rel is Rel.MIDPOINT:
        m, p, q = map(str, one.of)
        return {ends((m, p)), ends((m, q))}
    return set(map(ends, one.of)) if one.rel is Rel.EQUAL_LENGTH else set()
