"""One answer tried: is it right as drawn, when dragged, exactly?

Floats look at a whole batch of positions and propose what is right, wrong or undefined in each; balls decide, at
random positions and at those where floats see a failure. Where floats and balls disagree, rounding has blown up
or a miss is too small for floats to see; then balls look at a share of the batch and floats are not heard at all.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from .board import Board, Look, Ruling, spread
from .verdict import Outcome

EVERYWHERE = 0.97
"""Share of positions that counts as practically everywhere."""

CERTIFIED = 8
"""Random positions at which balls must agree before an answer is accepted."""

SHARE_FOR_BALLS = 72
"""Positions of the batch that balls look at where floats are no help."""

CLAIMS = 32
"""Failures seen by floats, of one kind, that are put to balls before the kind is dropped."""


@dataclass(frozen=True)
class Trial:
    """The outcome for one answer, with what it rests on.

    ``look``: what is known of every position of the batch; ``failing``: numbers of those that fail, as far as is known;
    ``certified``: how many positions balls proved right; ``by_floats``: whether floats were reliable; ``gap``: the
    largest gap as drawn, relative to the figure's size.
    """

    outcome: Outcome
    answer: dict[str, int]
    look: Look
    failing: tuple[int, ...] = ()
    certified: int = 0
    by_floats: bool = True
    gap: float = 0.0

    @property
    def rank(self) -> tuple[int, float]:
        """What makes one answer better than another: the outcome, then how close it is as drawn."""
        return self.outcome.rank, self.gap


def try_answer(board: Board, answer: dict[str, int]) -> Trial:
    """The outcome for an answer that is right to the eye as drawn."""
    look = board.look(board.batch_shapes, answer)
    rulings = {number: board.rule_at(number, answer)[0] for number in _probes(board, look)}
    right = [n for n, ruling in rulings.items() if ruling is Ruling.RIGHT]
    missed = any(look.exact[n] for n, ruling in rulings.items() if ruling is Ruling.WRONG)
    blurred = [n for n in right if not look.exact[n]]
    if missed or not rulings or len(blurred) * 4 > len(rulings):
        return _outcome(board, answer, _look_by_balls(board, look, answer), by_floats=False)
    return _outcome(board, answer, _confirmed(board, look, answer), len(right))


def _probes(board: Board, look: Look) -> list[int]:
    """Positions where floats see the answer, some of small movements and more of large ones."""
    there = look.counts & ~np.isnan(look.gap)
    chosen: list[int] = []
    for group, share in (("small all", 3), ("large", CERTIFIED - 3)):
        numbers = np.flatnonzero(there & board.batch.in_group(group))
        chosen += spread(numbers, share)
    return chosen


def _look_by_balls(board: Board, seen: Look, answer: Mapping[str, int]) -> Look:
    """The look of balls at a share of the batch, and where floats found nothing; the rest does not count."""
    n = board.batch.positions.shape[1]
    gap, clear = np.full(n, np.nan), np.ones(n, dtype=bool)
    counts = np.zeros(n, dtype=bool)
    for number in {*range(0, n, max(1, n // SHARE_FOR_BALLS)), *spread(np.flatnonzero(seen.undefined), CLAIMS)}:
        ruling, worst = board.rule_at(number, answer)
        counts[number] = ruling not in (Ruling.NO_ANSWER, Ruling.UNDECIDED)
        gap[number] = 0.0 if ruling is Ruling.RIGHT else worst
        clear[number] = ruling is not Ruling.WRONG or np.isfinite(worst)
        if ruling is Ruling.WRONG:
            gap[number] = max(worst, 1e-300)
    return Look(gap, clear, counts, exact_below=1e-300)


def _confirmed(board: Board, look: Look, answer: Mapping[str, int]) -> Look:
    """The look of floats without the kinds of failure that balls refute.

    Near degenerate positions floats may see a failure where there is none. The clearest cases of each kind are
    put to balls; if none of them stands, that kind is dropped.
    """
    dropped = np.zeros(look.counts.shape, dtype=bool)
    small = board.batch.in_group("small")
    kinds = (
        (look.wrong & small, Ruling.WRONG),
        (look.wrong & ~small, Ruling.WRONG),
        (look.undefined & small, Ruling.UNDEFINED),
        (look.undefined & ~small, Ruling.UNDEFINED),
    )
    for mask, claimed in kinds:
        numbers = np.flatnonzero(mask)
        if claimed is Ruling.WRONG:
            tried = [int(n) for n in numbers[np.argsort(-look.gap[numbers], kind="stable")][:CLAIMS]]
        else:
            tried = spread(numbers, CLAIMS)
        if not any(board.rule_at(n, answer)[0] is claimed for n in tried):
            dropped |= mask
    return Look(look.gap, look.clear, look.counts & ~dropped)


def _outcome(board: Board, answer: dict[str, int], look: Look, certified: int = 0, by_floats: bool = True) -> Trial:
    small, small_all = board.batch.in_group("small"), board.batch.in_group("small all")
    chance = small | board.batch.in_group("large")
    there = look.counts & ~np.isnan(look.gap) & chance
    exact_nearby = np.mean(look.exact[small_all & look.counts]) if (small_all & look.counts).any() else 0.0
    if not by_floats:
        certified = int(look.exact.sum())
    wrong = look.wrong
    exact_somewhere = bool(look.exact[chance].any())
    if not wrong.any():
        if not exact_somewhere:
            outcome = Outcome.EYEBALLED
        else:
            outcome = Outcome.FRAGILE if look.undefined.any() else Outcome.SOUND
    elif (not wrong[small].any() and exact_nearby > 0) or exact_nearby >= 0.5:
        outcome = Outcome.SWITCHING
    elif not exact_somewhere and there.any() and np.mean(look.visual[there]) >= EVERYWHERE:
        outcome = Outcome.APPROXIMATE
    else:
        outcome = Outcome.EYEBALLED
    gap = float(board.look_as_drawn(answer).gap[0])
    failing = wrong if outcome is Outcome.SWITCHING else (wrong | look.undefined)
    return Trial(outcome, answer, look, tuple(int(n) for n in np.flatnonzero(failing)), certified, by_floats, gap)
