"""What a number system must supply.

All systems share ``+ - *`` and unary minus, also with plain floats. Whatever may fail, or depends on a sign,
goes through the methods below, since each system answers it in its own way: arrays and tapes compare with
the rounding of doubles, balls prove the sign or say that they cannot.

``size`` is the magnitude of the terms that a tested number was computed from. Doubles count a number as zero
when it is below ``tolerances.ROUNDING`` times that magnitude; balls need no such allowance.
"""

from __future__ import annotations

from typing import Protocol, Self, TypeVar


class Number(Protocol):
    """What every number of every system can do: a float, an array of floats, a ball, a register of a tape."""

    def __add__(self, other: Self | float, /) -> Self: ...
    def __radd__(self, other: float, /) -> Self: ...
    def __sub__(self, other: Self | float, /) -> Self: ...
    def __rsub__(self, other: float, /) -> Self: ...
    def __mul__(self, other: Self | float, /) -> Self: ...
    def __rmul__(self, other: float, /) -> Self: ...
    def __neg__(self) -> Self: ...


N = TypeVar("N", bound=Number)
"""The numbers of the system at work."""


class NumberSystem(Protocol[N]):
    """Arithmetic that can fail, over numbers whose type the system chooses."""

    def over(self, n: N, d: N, size: N) -> N:
        """n / d, undefined where d is zero."""

    def root(self, x: N, size: N) -> N:
        """The square root of x; 0 where x is zero; undefined where x is negative."""

    def absolute(self, x: N) -> N:
        """The absolute value of x."""

    def where_positive(self, test: N, size: N, value: N) -> N:
        """value where test > 0, undefined elsewhere."""

    def where_not_negative(self, test: N, value: N) -> N:
        """value where the parameter ``test`` >= 0 (doubles: >= -tolerances.SLACK), undefined elsewhere."""

    def choose(self, test: N, size: N, positive: N, negative: N) -> N:
        """positive where test > 0, negative where test < 0, undefined where test is zero."""

    def sin(self, x: N) -> N:
        """The sine of x radians."""

    def cos(self, x: N) -> N:
        """The cosine of x radians."""
