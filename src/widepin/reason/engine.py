"""Everything that follows from a figure by the rules, round by round.

The figure proposes: only triangles that are congruent in every position are asked whether they can be proved so, only
angles and lengths that are equal whether a rule says it.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from itertools import islice

from .facts import Fact
from .instances import Proposals, Rows
from .knowledge import Knowledge, key_of

MOST_ROUNDS = 8

MOST_TRIED = 20_000
"""Instances of rules that are tried for one figure: a bound that is the same on every machine."""


def saturate(known: Knowledge, wanted: Iterable[Fact], left: int = MOST_TRIED) -> int:
    """Derive everything, until what is wanted is known, nothing is new, or enough is tried; how many are left to try.

    Triangles whose sides the eye joins come first, all others only where that is not enough.
    """
    wanted = list(wanted)
    known.wanted = tuple(wanted)
    every = list(known.triangles())
    drawn = known.drawn_pairs()
    seen = [(p, q, r) for p, q, r in every if {(p, q), (p, r), (q, r)} <= drawn]
    for rows in (seen, every):
        left = _saturate(known, wanted, rows, left)
        if left <= 0 or (wanted and all(map(known.knows, wanted))):
            break
    return left


def distinctions(known: Knowledge) -> list[tuple[str, tuple[str, ...]]]:
    """What would have to be distinguished for more rules to be used, the most helpful first."""
    rows = list(known.triangles())
    found = Counter(one for rule, bindings in Proposals(known, rows) for one in known.distinctions(rule, bindings))
    return [one for one, _count in found.most_common()]


def _saturate(known: Knowledge, wanted: list[Fact], rows: Rows, left: int) -> int:
    """How many instances may still be tried."""
    proposals = Proposals(known, rows)
    for _round in range(MOST_ROUNDS):
        if wanted and all(map(known.knows, wanted)):
            break
        before = len(known.derived)
        # What is derived in one round rests on what was known before it, so that what takes fewer steps comes first.
        fresh = ((rule, bindings) for rule, bindings in proposals if key_of(rule, bindings) not in known.settled)
        tried = list(islice(fresh, left))
        for found in [known.conclusion(rule, bindings) for rule, bindings in tried]:
            if found is not None:
                known.add(found.said, found.rule, found.premises, bindings=found.bindings)
        left -= len(tried)
        if left <= 0 or len(known.derived) == before:
            break
    return left
