"""What stands on a board while ruler and compass are searched, as arrays, and how functions on it are compiled.

The search draws a curve, finds its crossings and goes on, millions of times: arithmetic on arrays alone, which numba
compiles; as plain Python it takes some thirty times as long. ``s`` is a Sheet, ``g`` are Goals. A curve is a row
(kind, x, y, u, v): the first point and direction of a line, ray or segment; centre and radius of a circle. A point is
known by number and carries a bit for every curve that it lies on.

Source: iterative deepening as in R. E. Korf, "Depth-first iterative-deepening" (1985); numba: S. K. Lam et al. (2015).
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, NamedTuple, TypeVar

import numba
import numpy as np
from numpy.typing import NDArray

LINE, RAY, SEGMENT, CIRCLE, CIRCLE_RADIUS = range(5)
"""Moves, and kinds of curve but for the last, which draws a circle too."""

FREE_POINT, POINT_ON = 5, 6
"""Arbitrary points, as entries of a path; they are no moves."""

POINT = 7
"""A wanted object that is a point: a term (POINT, x, y, ...)."""

MOST_POINTS, MOST_CURVES, MOST_MOVES, MOST_FOUND = 2000, 60, 12, 5000
"""What a sheet has room for."""

TABLE = 1 << 16
"""Places in the table of curves that were tried; what finds no place is tried again."""

POINTS, CURVES, TRIED, STATES, FOUND, FULL, STOP = range(7)
"""Entries of ``counts``: how many of each; whether there was too little room; whether to stop, set from outside."""

SIZE, OPENING, FREE_X, FREE_Y, IS_FREE, ON_SEGMENT, ON_OTHERS = range(7)
"""Entries of ``means``."""

MISSING, NEEDED = 1, 2
"""Bits of what a board lacks of a wanted object: the curve itself, the point (or the centre of a circle)."""

EVERYTHING, TOWARDS, PREPARING = range(3)
"""Which moves are worth it: all, those towards an answer, and besides those that make the last one possible."""

F = TypeVar("F", bound=Callable[..., Any])


def compiled(function: F) -> F:
    """A function compiled for the others here: Python cannot call it."""
    return _compiled(function, no_cpython_wrapper=True, no_cfunc_wrapper=True)


def compiled_entry(function: F) -> F:
    """A function compiled that Python calls. It lets other threads run, one of which may stop it."""
    return _compiled(function, nogil=True, no_cfunc_wrapper=True)


def _compiled(function: F, **how: Any) -> F:
    try:
        return numba.njit(cache=True, error_model="numpy", **how)(function)  # type: ignore[no-any-return]
    except RuntimeError:  # nowhere to keep it between runs
        return numba.njit(error_model="numpy", **how)(function)  # type: ignore[no-any-return]


class Sheet(NamedTuple):
    """What stands on a board, with room for what is drawn on it, and how it was drawn.

    ``at`` (points, 2); ``on`` (points,) bits; ``curves`` (curves, 5); ``counts``: see its entries; ``may`` (2, moves):
    how often each move was made, and may be; ``means`` (7,): the size of the figure, the opening of a compass with one
    radius or 0, where a free arbitrary point is put (x, y, whether), and the parameters of those on a segment and on
    other curves, or infinity; ``tried``: marks of curves that need not be tried again, with ``places`` to clear;
    ``path`` (moves, 8): make, the places of up to three points, the number of a curve; ``found`` (paths, moves, 8),
    ended by a make of -1.
    """

    at: NDArray[np.float64]
    on: NDArray[np.uint64]
    curves: NDArray[np.float64]
    counts: NDArray[np.int64]
    may: NDArray[np.int64]
    means: NDArray[np.float64]
    tried: NDArray[np.int64]
    places: NDArray[np.int64]
    path: NDArray[np.float64]
    found: NDArray[np.float64]


class Goals(NamedTuple):
    """Right answers, a row per wanted object: ``terms`` (objects, 5) as curves or points, with ``kinds``: bits of the
    curves that will do; those of answer n are the rows from ``firsts[n]`` to ``firsts[n + 1]``.
    """

    terms: NDArray[np.float64]
    kinds: NDArray[np.int64]
    firsts: NDArray[np.int64]
