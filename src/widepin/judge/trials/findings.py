"""What conditions find in a figure, and what it comes to: seen by floats in many positions, ruled by balls in one."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property, lru_cache
from typing import Any

import numpy as np

from ...plane.arrays import Floats, Mask
from ...plane.balls import Ball, Undecided, ball, middle
from ...plane.balls import sign as proven_sign
from ...plane.makes import line
from ...plane.numbers import N
from ...plane.shapes import Kind, Shape
from ...plane.tolerances import DIGITS, DISTINCT, EXACT_IN_FLOATS, VISUAL
from ..conditions import RELATIONS, Finding, Measure, Relation, Term
from ..task import Condition

_GAP_BOUND = ball(10) ** -DIGITS


class Ruling(StrEnum):
    """What balls say of an answer in one position."""

    RIGHT = "right"
    WRONG = "wrong"
    UNDEFINED = "undefined"
    NO_ANSWER = "no answer"  # the task itself has none here
    UNDECIDED = "undecided"  # too close to a degenerate position to tell


@dataclass(frozen=True)
class Look:
    """What was found at positions (all arrays of length n).

    ``gap``: the largest gap as a multiple of the figure's size, NaN where undefined. ``clear``: whether all margins
    are positive. ``counts``: whether the task has an answer there and something is known.
    """

    gap: Floats
    clear: Mask
    counts: Mask
    exact_below: float = EXACT_IN_FLOATS

    def joined(self, other: Look) -> Look:
        """This look and another, at the positions of both."""
        parts = zip((self.gap, self.clear, self.counts), (other.gap, other.clear, other.counts), strict=True)
        gap, clear, counts = (np.concatenate(pair) for pair in parts)
        return Look(gap, clear, counts, self.exact_below)

    @cached_property
    def there(self) -> Mask:
        """Where the answer exists and the task has one."""
        return self.counts & ~np.isnan(self.gap)

    @cached_property
    def undefined(self) -> Mask:
        """Where part of the answer does not exist although the task has one."""
        return self.counts & np.isnan(self.gap)

    @cached_property
    def exact(self) -> Mask:
        """Where the answer is right without tolerance."""
        return self.counts & self.clear & (self.gap < self.exact_below)

    @cached_property
    def wrong(self) -> Mask:
        """Where the answer exists and is not exactly right."""
        return self.there & ~self.exact

    @cached_property
    def visual(self) -> Mask:
        """Where the answer is right to the eye."""
        return self.counts & self.clear & (self.gap <= VISUAL)


def finding(
    measure: Measure[N],
    condition: Condition,
    look_up: Callable[[str], Term[N]],
    relations: Mapping[str, Relation] = RELATIONS,
) -> Finding[N]:
    """What a condition finds where ``look_up`` says what its names stand for."""
    terms: list[Any] = []
    relation = relations[condition.rel]
    roles = relation.roles(len(condition.of))
    for term, role in zip(condition.of, roles, strict=True):
        if isinstance(term, str):
            terms.append(look_up(term))
        elif role.is_list:
            terms.append([look_up(name).shape for name in term])
        else:
            p, q = (look_up(name).shape for name in term)
            terms.append(Term(line(measure.system, p, q), Kind.LINE))  # type: ignore[arg-type]
    if condition.ratio is not None:
        terms += condition.ratio
    return relation.check(measure, *terms)


def seen_by_floats(findings: Iterable[Finding[Floats]], size: Floats, shape: tuple[int, ...]) -> tuple[Floats, Mask]:
    """What findings in arrays come to, each of the given shape.

    The largest gap as a multiple of the figure's size, NaN where anything is undefined; and whether all margins are
    positive as far as floats can tell.
    """
    gap, clear = np.zeros(shape), np.ones(shape, dtype=bool)
    for found in findings:
        for one in found.gaps:
            gap = np.maximum(gap, np.abs(one / size))
        for margin in found.margins:
            clear = clear & (margin > DISTINCT * size)
            gap = np.where(np.isnan(margin), np.nan, gap)
    return gap, clear


def ruled_by_balls(findings: Iterable[Finding[Ball]], size: Ball, scale: float) -> tuple[Ruling, float]:
    """What findings in balls come to: the ruling, and the largest gap as a multiple of ``scale``, NaN where undefined.

    ``size``: of the figure, in balls. Raises Undecided where more digits are needed.
    """
    ruling, worst = Ruling.RIGHT, 0.0
    bound = _GAP_BOUND * size
    for found in findings:
        for gap in found.gaps:
            if gap.is_nan():
                return Ruling.UNDEFINED, np.nan
            if abs(gap) > bound:
                ruling = Ruling.WRONG
            elif not gap.abs_upper() < bound:
                raise Undecided
            worst = max(worst, abs(middle(gap)) / scale)
        for margin in found.margins:
            s = proven_sign(margin, size)
            if s is None:
                return Ruling.UNDEFINED, np.nan
            if s <= 0:
                ruling, worst = Ruling.WRONG, np.inf
    return ruling, worst


@lru_cache(maxsize=64)
def _bound(size: float) -> Ball:
    return _GAP_BOUND * ball(size)


def vanishes(gap: Ball, size: float) -> bool:
    """Whether a length in balls is zero to ``DIGITS`` digits, on the scale of a figure."""
    return bool(gap.abs_upper() < _bound(size))


def finite(shape: Shape[Ball]) -> bool:
    """Whether a shape of balls is defined; it is so as a whole."""
    return bool(shape[0].is_finite())
