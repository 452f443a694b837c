"""Facts over points and lines, in a normal form: facts that say the same are equal.

A line is a pair of points, or the id of a line that was drawn. Angles are undirected, their vertex second. Triangles
of a congruence or similarity correspond corner by corner; those of equal areas do not.
"""

from __future__ import annotations

from collections.abc import Mapping
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
    EQUAL_AREA = "equal_area"

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
    return Fact(rel, normal_terms(rel, of), ratio)


def normal_terms(rel: Rel, of: tuple[Term, ...]) -> tuple[Term, ...]:
    """Of all the ways to write the terms of one fact the first, in alphabetical order."""
    match rel:
        case Rel.CONGRUENT | Rel.SIMILAR:
            first, second = of
            orders = list(permutations(range(3)))
            both = [(tuple(first[n] for n in order), tuple(second[n] for n in order)) for order in orders]
            return min(*both, *(pair[::-1] for pair in both))
        case Rel.COLLINEAR | Rel.CONCYCLIC:
            return tuple(sorted(of))  # type: ignore[type-var]
        case Rel.MIDPOINT:
            return (of[0], *sorted(of[1:]))  # type: ignore[type-var]
        case Rel.ON | Rel.RATIO:
            return tuple(map(_one_way_round, of))
        case Rel.CONCURRENT:
            return tuple(sorted(map(_one_way_round, of), key=str))
        case Rel.EQUIDISTANT:
            return (of[0], *sorted(map(_one_way_round, of[1:]), key=str))
        case Rel.EQUAL_AREA:
            return tuple(sorted({tuple(sorted(term)) for term in of}))
        case Rel.EQUAL_LENGTH if len(of) > 2:
            return tuple(sorted({_one_way_round(term) for term in of}, key=_key))
    # A line that touches a circle is touched by it, and so on: of two terms either may come first.
    terms = tuple(map(_one_way_round, of))
    return tuple(sorted(terms, key=_key)) if len(terms) == 2 else terms


def _one_way_round(term: Term) -> Term:
    """A term, the points of a pair or of an angle in alphabetical order of its ends."""
    return term if isinstance(term, str) else min(term, term[::-1])


def _key(term: Term) -> tuple[str, ...]:
    return (term,) if isinstance(term, str) else term


def lengths_of(one: Fact) -> set[tuple[str, str]]:
    """The lengths that a fact says are equal."""
    if one.rel is Rel.MIDPOINT:
        m, p, q = map(str, one.of)
        return {ends((m, p)), ends((m, q))}
    return set(map(ends, one.of)) if one.rel is Rel.EQUAL_LENGTH else set()
