"""How many works and figures a test looks at: few that are chosen well, or thoroughly many.

``bin/widepin tool thorough_trial`` runs the tests that ask here with all that there is.
"""

from __future__ import annotations

import os
from collections.abc import Iterable
from typing import TypeVar

One = TypeVar("One")

THOROUGH = os.environ.get("WIDEPIN_THOROUGH") == "1"


def many(usual: int, thorough: int) -> int:
    """So many as usual, or thoroughly."""
    return thorough if THOROUGH else usual


def chosen(every: Iterable[One], usual: int) -> list[One]:
    """Usually so many of them, spread evenly over all; thoroughly every one."""
    rows = list(every)
    count = len(rows) if THOROUGH else min(usual, len(rows))
    return [rows[number * len(rows) // count] for number in range(count)]
