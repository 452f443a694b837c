"""Doubles in numpy arrays: a whole batch of positions at once, undefined = NaN.

Every number is a float or an array with one entry per position. Fast, and only ever used to propose: what is
exact and what is not is decided by ``balls``.
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from .tolerances import PLAINLY_POSITIVE, ROUNDING, SLACK

Floats = NDArray[np.float64]
"""One number per position, or one for each of several objects and position."""

Mask = NDArray[np.bool_]
"""A bool per position."""


class Arrays:
    """The number system of float64 arrays. Wrap its use in ``quiet()``: NaN is data here, not an accident."""

    @staticmethod
    def quiet() -> Any:
        """A context in which numpy does not warn about divisions by zero and NaN."""
        return np.errstate(all="ignore")

    def over(self, n: Any, d: Any, size: Any) -> Any:
        # Not n / d: single positions come as Python's floats, and those raise where arrays give infinity.
        return np.where(np.abs(d) > ROUNDING * size, np.true_divide(n, d), np.nan)

    def root(self, x: Any, size: Any) -> Any:
        return np.sqrt(np.where(np.abs(x) <= ROUNDING * size, 0.0, x))

    def absolute(self, x: Any) -> Any:
        return np.abs(x)

    def where_positive(self, test: Any, size: Any, value: Any) -> Any:
        return np.where(test > ROUNDING * size, value, np.nan)

    def where_not_negative(self, test: Any, value: Any) -> Any:
        return np.where(test >= -SLACK, value, np.nan)

    def choose(self, test: Any, size: Any, positive: Any, negative: Any) -> Any:
        margin = ROUNDING * size
        return np.where(test > margin, positive, np.where(test < -margin, negative, np.nan))

    def is_plain(self, test: Any) -> bool:
        """Whether numbers are defined and so far above zero everywhere that their rounding need not be looked at."""
        if isinstance(test, np.ndarray):
            return bool(test.size) and bool(test.min() > PLAINLY_POSITIVE)
        return bool(test > PLAINLY_POSITIVE)

    def is_plain_where_defined(self, test: Any) -> bool:
        """The same of those that are defined, if any is."""
        return self.is_plain(test) or bool(np.size(test)) and bool(np.fmin.reduce(test, axis=None) > PLAINLY_POSITIVE)

    def sin(self, x: Any) -> Any:
        return np.sin(x)

    def cos(self, x: Any) -> Any:
        return np.cos(x)


ARRAYS = Arrays()
