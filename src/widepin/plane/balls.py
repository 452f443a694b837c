"""Balls: real numbers with a proven error bound (python-flint's ``arb``).

A ball either proves a sign or contains zero. If it contains zero and is tiny, the number counts as zero; if it
is wide, nobody knows, ``Undecided`` is raised, and ``at_rising_precision`` tries again with more digits.

Source: F. Johansson, Arb: efficient arbitrary-precision midpoint-radius interval arithmetic (2017).
"""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import TypeVar

from flint import arb, ctx

from .errors import CoreError
from .tolerances import ZERO_DIGITS

PRECISIONS = (448, 1024, 2560)
"""Bits tried in turn. 448 bits carry 134 digits, twice what a verdict asks for, so one round mostly does."""

ZERO = arb(10) ** -ZERO_DIGITS

Ball = arb
"""The numbers of this system."""

UNDEFINED = arb("nan")

_precision_lock = (
    threading.RLock()
)  # flint keeps its precision in one global context; one computation may ask for another

T = TypeVar("T")


class Undecided(CoreError):
    """At this precision the sign of a number is not known."""


def sign(x: arb, size: arb | float = 1) -> int | None:
    """The proven sign of a ball: 1, 0 or -1; None where it is undefined.

    Raises Undecided where the ball contains zero and is too wide to count as zero.

    >>> sign(arb(2).sqrt() - arb("1.4"))
    1
    """
    if size is not x and isinstance(size, arb) and size.is_nan():
        return None
    if x > 0:
        return 1
    if x < 0:
        return -1
    if x.is_nan():
        return None
    if x.is_zero() or x.abs_upper() <= ZERO * size:
        return 0
    raise Undecided


class Balls:
    """The number system of balls: one position at a time, signs proven."""

    def over(self, n: arb, d: arb, size: arb) -> arb:
        return n / d if sign(d, size) else UNDEFINED

    def root(self, x: arb, size: arb) -> arb:
        s = sign(x, size)
        if s == 0:
            return arb(0)
        return x.sqrt() if s == 1 else UNDEFINED

    def absolute(self, x: arb) -> arb:
        return abs(x)

    def where_positive(self, test: arb, size: arb, value: arb) -> arb:
        return value if sign(test, size) == 1 else UNDEFINED

    def where_not_negative(self, test: arb, value: arb) -> arb:
        s = sign(test)
        return UNDEFINED if s is None or s < 0 else value

    def choose(self, test: arb, size: arb, positive: arb, negative: arb) -> arb:
        s = sign(test, size)
        return (positive if s > 0 else negative) if s else UNDEFINED

    def sin(self, x: arb) -> arb:
        return x.sin()

    def cos(self, x: arb) -> arb:
        return x.cos()


BALLS = Balls()


def at_precision(bits: int, compute: Callable[[], T]) -> T:
    """``compute()`` with so many bits. Raises Undecided where they do not suffice."""
    with _precision_lock, ctx.workprec(bits):
        return compute()


class RisingPrecision:
    """Computes with as many bits as sufficed the last time, and with more where these do not."""

    def __init__(self) -> None:
        self._first = 0

    def __call__(self, compute: Callable[[], T]) -> T:
        """``compute()`` at the first of ``PRECISIONS`` where it can decide; Undecided where none suffices."""
        for index in range(self._first, len(PRECISIONS)):
            try:
                result = at_precision(PRECISIONS[index], compute)
            except Undecided:
                continue
            self._first = index
            return result
        raise Undecided


def at_rising_precision(compute: Callable[[], T]) -> T:
    """``compute()`` at the first of ``PRECISIONS`` where it can decide; Undecided where none suffices."""
    return RisingPrecision()(compute)


def ball(value: float) -> arb:
    """The ball of radius zero about a float."""
    return arb(value)


def middle(x: arb) -> float:
    """The float nearest to a ball's midpoint."""
    return float(x.mid())
