"""The compiled search with ruler and compass: plain functions over arrays, which numba compiles and keeps."""

from __future__ import annotations

from pathlib import Path

import numpy as np

from ..kept_kernel import is_compiled, mark_as_compiled
from .drawing import add_point, push
from .growing import grow
from .sheet import (
    CIRCLE,
    CIRCLE_RADIUS,
    CURVES,
    FOUND,
    FREE_POINT,
    FULL,
    LINE,
    MOST_CURVES,
    MOST_FOUND,
    MOST_MOVES,
    MOST_POINTS,
    POINT,
    POINT_ON,
    POINTS,
    RAY,
    SEGMENT,
    STATES,
    STOP,
    TABLE,
    Goals,
    Sheet,
)

__all__ = [
    "CIRCLE",
    "CIRCLE_RADIUS",
    "CURVES",
    "FOUND",
    "FREE_POINT",
    "FULL",
    "Goals",
    "LINE",
    "MOST_CURVES",
    "MOST_FOUND",
    "MOST_MOVES",
    "MOST_POINTS",
    "POINT",
    "POINTS",
    "POINT_ON",
    "RAY",
    "SEGMENT",
    "STATES",
    "STOP",
    "Sheet",
    "TABLE",
    "add_point",
    "compile_all",
    "grow",
    "push",
]


def compile_all() -> None:
    """Load what is compiled; where it is not yet, compile it, which takes about a minute, and keep it for others."""
    folder = _kept_in()
    if folder is not None and not is_compiled():
        # numba sees that a file has changed, but not what it calls in others.
        for stale in folder.glob("*.nb[ci]"):
            stale.unlink(missing_ok=True)
    sheet = Sheet(
        np.zeros((2, 2)), np.zeros(2, np.uint64), np.zeros((2, 5)), np.zeros(7, np.int64), np.zeros((2, 5), np.int64),
        np.ones(7), np.zeros(TABLE, np.int64), np.zeros(4, np.int64), np.zeros((4, 8)), np.zeros((2, 4, 8)),
    )  # fmt: skip
    goals = Goals(np.array([[POINT, 9.0, 9.0, 0.0, 0.0]]), np.zeros(1, np.int64), np.array([0, 1]))
    add_point(sheet, 0.0, 0.0, np.uint64(0))
    push(sheet, np.array([CIRCLE, 0.0, 0.0, 1.0, 0.0]))
    grow(sheet, goals, 0, 0, 0, -1, -1)
    if folder is not None:
        mark_as_compiled()


def _kept_in() -> Path | None:
    """Where numba keeps what it compiles; None where it keeps nothing."""
    folder = getattr(getattr(grow, "stats", None), "cache_path", None)
    return Path(folder) if folder is not None else None
