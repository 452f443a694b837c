"""What a number system must supply.

All systems share ``+ - *`` and unary minus, also with plain floats. Whatever may fail, or depends on a sign,
goes through the methods below, since each system answers it in its own way: arrays and tapes compare with
the rounding of doubles, balls prove the sign or say that they cannot.

``size`` is the magnitude of the terms that a tested number was computed from. Doubles count a number as zero
when it is below ``tolerances.ROUNDING`` times that magnitude; balls need no such allowance.
"""

from __future__ import annotations

from typing import Any, Protocol


class NumberSystem(Protocol):
    """Arithmetic that can fail, over numbers whose type the system chooses."""

    def over(self, n: Any, d: Any, size: Any) -> Any:
        """n / d, undefined where d is zero."""

    def root(self, x: Any, size: Any) -> Any:
        """The square root of x; 0 where x is zero; undefined where x is negative."""

    def absolute(self, x: Any) -> Any:
        """The absolute value of x."""

    def where_positive(self, test: Any, size: Any, value: Any) -> Any:
        """value where test > 0, undefined elsewhere."""

    def where_not_negative(self, test: Any, value: Any) -> Any:
        """value where the parameter ``test`` >= 0 (doubles: >= -tolerances.SLACK), undefined elsewhere."""

    def choose(self, test: Any, size: Any, positive: Any, negative: Any) -> Any:
        """positive where test > 0, negative where test < 0, undefined where test is zero."""

    def sin(self, x: Any) -> Any:
        """The sine of x radians."""

    def cos(self, x: Any) -> Any:
        """The cosine of x radians."""
