"""Everything that follows from a figure by the rules, round by round.

The figure proposes: only triangles that are congruent in every position are asked whether they can be proved so, only
angles and lengths that are equal whether a rule says it.
"""

from __future__ import annotations

from collections.abc import Iterable

from .facts import Fact
from .instances import Proposals, Rows
from .knowledge import Knowledge

MOST_ROUNDS = 8

MOST_TRIED = 5_000
"""Instances of rules that are tried for one figure: a bound that is the same on every machine."""


def saturate(known: Knowledge, wanted: Iterable[Fact]) -> None:
    """Derive everything, until what is wanted is known, nothing is new, or enough is tried.

    Triangles whose sides the eye joins come first, all others only where that is not enough.
    """
    wanted = list(wanted)
    left = MOST_TRIED
    every = list(known.triangles())
    drawn = known.drawn_pairs()
    seen = [(p, q, r) for p, q, r in every if {(p, q), (p, r), (q, r)} <= drawn]
    for rows in (seen, every):
        left = _saturate(known, wanted, rows, left)
        if left <= 0 or (wanted and all(map(known.knows, wanted))):
            return


def _saturate(known: Knowledge, wanted: list[Fact], rows: Rows, left: int) -> int:
    """How many instances may still be tried."""
    proposals = Proposals(known, rows)
    for _round in range(MOST_ROUNDS):
        if wanted and all(map(known.knows, wanted)):
            break
        before = len(known.derived)
        for rule, bindings in proposals:
            known.apply(rule, bindings)
            left -= 1
            if left <= 0:
                return left
        if len(known.derived) == before:
            break
    return left
