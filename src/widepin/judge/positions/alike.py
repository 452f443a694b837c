"""Rows of numbers that agree: how arrays propose that two things are one, or equally long, in every position."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ...plane.tolerances import ALWAYS_EQUAL


def alike(rows: NDArray[np.float64]) -> list[list[int]]:
    """Groups of two or more rows that agree in all columns; rows: (n, m), NaN where undefined.

    Rows must be undefined in the same columns, and defined in a quarter of them. Groups and their members ascend.
    Time grows as n log n: a weighted sum brings equal rows together, and only neighbours are compared.

    >>> alike(np.array([[1.0, 2.0], [3.0, 4.0], [1.0, 2.0]]))
    [[0, 2]]
    """
    if len(rows) < 2:
        return []
    there = ~np.isnan(rows)
    values = np.where(there, rows, 0.0)
    weights = 1 / (1 + np.arange(rows.shape[1]))
    keys = values @ weights + there @ weights
    order = np.argsort(keys, kind="stable")
    width = ALWAYS_EQUAL * (1 + np.abs(values).max()) * weights.sum()
    runs = np.split(order, np.flatnonzero(np.diff(keys[order]) > width) + 1)
    groups = []
    for run in runs:
        left = np.sort(run[there[run].sum(axis=1) * 4 >= rows.shape[1]])
        while len(left) > 1:
            first = left[0]
            near = np.abs(values[left] - values[first]).max(axis=1) <= ALWAYS_EQUAL * (1 + np.abs(values[first]).max())
            same = near & (there[left] == there[first]).all(axis=1)
            if same.sum() > 1:
                groups.append([int(n) for n in left[same]])
            left = left[~same]
    return sorted(groups)
