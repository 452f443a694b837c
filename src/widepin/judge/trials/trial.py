"""One answer tried: is it right as drawn, when dragged, exactly?

Floats look at a batch of positions and propose what is right, wrong or undefined in each; balls decide, at some of
the positions where floats see the answer and at those where they see a failure. An answer that has not failed is
looked at in several thousand more positions, a search goes where it might fail, and balls probe every branch that
floats can see. Where floats and balls disagree, rounding has blown up or a miss is too small for floats to see; then
balls look at a share of the batch and floats are not heard at all. What balls cannot decide is never taken for right.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ...plane.arrays import Floats
from ...plane.figure import Evaluation
from ...plane.shapes import Shape
from ..positions.branches import across_branches
from ..positions.drags import Batch
from ..positions.limits import beyond_limits
from ..verdict import Outcome
from .examination import Examination, spread
from .findings import Look, Ruling

EVERYWHERE = 0.97
"""Share of positions that counts as practically everywhere."""

FIRST_PROBES = 8
"""Positions of the first batch at which floats are compared with balls."""

PROBES = 40
"""Positions at which balls must agree before an answer is accepted, some on every branch."""

SHARE_FOR_BALLS = 72
"""Positions of the batch that balls look at where floats are no help."""

CLAIMS = 32
"""Failures seen by floats, of one kind, that are put to balls before the kind is dropped."""


@dataclass(frozen=True)
class Trial:
    """The outcome for one answer, with what it rests on.

    ``batch``: the positions that were looked at; ``look``: what is known of each; ``failing``: the columns of those
    that fail, as far as is known; ``certified``: in how many positions balls proved the answer right; ``probed``: how
    many they were asked about; ``by_floats``: whether floats were reliable; ``gap``: the largest gap as drawn,
    relative to the figure's size.
    """

    outcome: Outcome
    answer: dict[str, int]
    batch: Batch
    look: Look
    failing: tuple[int, ...] = ()
    certified: int = 0
    probed: int = 0
    by_floats: bool = True
    gap: float = 0.0

    @property
    def rank(self) -> tuple[int, float]:
        """What makes one answer better than another: the outcome, then how close it is as drawn."""
        return self.outcome.rank, self.gap

    @property
    def only_given_dragged(self) -> NDArray[np.bool_]:
        """In which columns every point of the student's own stands as drawn."""
        in_group = self.batch.in_group
        return in_group("small given") | in_group("large given") | in_group("shape")


def try_answer(examined: Examination, answer: dict[str, int]) -> Trial:
    """The outcome for an answer that is right to the eye as drawn."""
    trying = _Trying(examined, answer)
    if not trying.floats_agree(trying.first_probes()):
        return trying.by_balls()
    outcome, failing = trying.outcome(confirmed := trying.confirmed())
    if outcome in (Outcome.SOUND, Outcome.FRAGILE):
        trying.look_further()
        trying.search_limits(outcome)
        if not trying.floats_agree(trying.probes()):
            return trying.by_balls()
        outcome, failing = trying.outcome(confirmed := trying.confirmed())
    return trying.trial(outcome, confirmed, failing)


class _Trying:
    """What is known of an answer so far: the positions looked at, what floats see there, what balls have said."""

    def __init__(self, examined: Examination, answer: dict[str, int]):
        self.examined = examined
        self.answer = answer
        self.needs = examined.needs(answer)
        self.own = [number for number in sorted(self.needs) if number in range(len(examined.task.done), examined.last)]
        self.batch = examined.batch
        self.shapes: Sequence[Shape[Floats]] = examined.evaluation.shapes(self.needs)
        self.look = examined.evaluate(self.shapes, answer)
        self.further = self.look
        """What floats see in the further positions, once they have been looked at."""
        self.rulings: dict[int, tuple[Ruling, float]] = {}

    def certify(self, column: int) -> Ruling:
        """What balls say of the answer in a position of the batch."""
        if column not in self.rulings:
            self.rulings[column] = self.examined.certify(self.batch.positions[:, column].tolist(), self.answer)
        return self.rulings[column][0]

    # -- where to look -------------------------------------------------------------------------------

    def first_probes(self) -> list[int]:
        """Positions where floats see the answer, some of small movements and more of large ones."""
        found: list[int] = []
        for group, share in (("small all", 3), ("large", FIRST_PROBES - 3)):
            found += spread(np.flatnonzero(self.look.there & self.batch.in_group(group)), share)
        return found

    def look_further(self) -> None:
        """Look at several thousand more large movements."""
        examined = self.examined
        self.further = examined.evaluate(examined.further_evaluation.shapes(self.needs), self.answer)
        self.batch = self.batch.joined(examined.further)
        self.look = self.look.joined(self.further)

    def search_limits(self, outcome: Outcome) -> None:
        """Add positions where the answer fails to the batch, if a search finds some.

        Where the answer is known to be undefined in places, those are looked for in which it is wrong.
        """

        def seen(look: Look) -> NDArray[np.bool_]:
            return look.wrong if outcome is Outcome.FRAGILE else look.wrong | look.undefined

        def look_at(positions: NDArray[np.float64]) -> Look:
            return examined.evaluate(Evaluation(examined.figure, positions).shapes(self.needs), self.answer)

        examined = self.examined
        if seen(self.further).any() or not examined.handles:
            return
        shapes = examined.further_evaluation.shapes(self.needs)
        found = beyond_limits(
            examined.figure,
            self.own,
            examined.handles,
            examined.further.positions,
            shapes,
            float(examined.size),
            lambda positions: seen(look_at(positions)),
        )
        if found.shape[1]:
            self.batch = self.batch.joined(Batch.of([("beyond limits", found)]))
            self.look = self.look.joined(look_at(found))

    def probes(self) -> list[int]:
        """Positions on every branch where floats see the answer, and a few of small movements."""
        examined = self.examined
        found = spread(np.flatnonzero(self.look.there & self.batch.in_group("small all")), 4)
        first = examined.batch.positions.shape[1]
        there = self.look.there[first : first + examined.further.positions.shape[1]]
        shapes = examined.further_evaluation.shapes(self.needs)
        needed = [number for number in sorted(self.needs) if number < examined.last]
        chosen = across_branches(examined.figure, needed, shapes, np.flatnonzero(there), PROBES - len(found))
        return found + [first + column for column in chosen]

    # -- floats and balls ----------------------------------------------------------------------------

    def floats_agree(self, columns: Sequence[int]) -> bool:
        """Whether floats can be heard, by positions that are put to balls; where they can, balls have the last word
        there.
        """
        rulings = [(column, self.certify(column)) for column in columns]
        right = [column for column, ruling in rulings if ruling is Ruling.RIGHT]
        missed = any(self.look.exact[column] for column, ruling in rulings if ruling is Ruling.WRONG)
        blurred = [column for column in right if not self.look.exact[column]]
        if missed or not rulings or len(blurred) * 4 > len(rulings):
            return False
        self.look = self._with_rulings(self.look)
        return True

    def _with_rulings(self, look: Look) -> Look:
        """A look that says what balls have said wherever they were asked."""
        gap, clear, counts = look.gap.copy(), look.clear.copy(), look.counts.copy()
        for column, (ruling, worst) in self.rulings.items():
            counts[column] = ruling not in (Ruling.NO_ANSWER, Ruling.UNDECIDED)
            clear[column] = ruling is not Ruling.WRONG or np.isfinite(worst)
            gap[column] = 0.0 if ruling is Ruling.RIGHT else np.nan
            if ruling is Ruling.WRONG:
                # What balls prove to be off is off, however little.
                gap[column] = max(worst, look.exact_below)
        return Look(gap, clear, counts, look.exact_below)

    def confirmed(self) -> Look:
        """The look of floats without the kinds of failure that balls refute.

        Near degenerate positions floats may see a failure where there is none. Some cases of each kind, the clearest
        among them, are put to balls; if all are refuted, that kind is dropped. What balls cannot decide is not
        refuted.
        """
        look = self.look
        dropped = np.zeros(look.counts.shape, dtype=bool)
        small = self.batch.in_group("small")
        kinds = (
            (look.wrong & small, Ruling.WRONG),
            (look.wrong & ~small, Ruling.WRONG),
            (look.undefined & small, Ruling.UNDEFINED),
            (look.undefined & ~small, Ruling.UNDEFINED),
        )
        for mask, claimed in kinds:
            if mask.any() and all(
                self.certify(column) not in (claimed, Ruling.UNDECIDED) for column in self._claims(mask, claimed)
            ):
                dropped |= mask
        return self._with_rulings(Look(look.gap, look.clear, look.counts & ~dropped, look.exact_below))

    def _claims(self, mask: NDArray[np.bool_], claimed: Ruling) -> list[int]:
        columns = np.flatnonzero(mask)
        clearest: list[int] = []
        if claimed is Ruling.WRONG:
            by_gap = columns[np.argsort(-self.look.gap[columns], kind="stable")]
            clearest = [int(column) for column in by_gap[: CLAIMS // 2]]
        known = [column for column in self.rulings if mask[column]]
        return list(dict.fromkeys([*known, *clearest, *spread(columns, CLAIMS - len(clearest))]))

    def by_balls(self) -> Trial:
        """The trial by balls alone, at a share of the batch and where floats found nothing; the rest does not count."""
        count = self.batch.positions.shape[1]
        asked = {*range(0, count, max(1, count // SHARE_FOR_BALLS)), *self.rulings}
        for column in sorted(asked.union(spread(np.flatnonzero(self.look.undefined), CLAIMS))):
            self.certify(column)
        unknown = Look(np.full(count, np.nan), np.ones(count, dtype=bool), np.zeros(count, dtype=bool), 1e-300)
        look = self._with_rulings(unknown)
        return self.trial(*self._outcome_and(look), by_floats=False)

    # -- what it comes to ----------------------------------------------------------------------------

    def outcome(self, look: Look) -> tuple[Outcome, tuple[int, ...]]:
        """The outcome by a look, and the columns that fail."""
        small, small_all = self.batch.in_group("small"), self.batch.in_group("small all")
        chance = small | self.batch.in_group("large")
        nearby = look.exact[small_all & look.counts]
        exact_nearby = float(np.mean(nearby)) if len(nearby) else 0.0
        exact_somewhere = bool(look.exact[chance].any())
        visible = look.visual[look.there & chance]
        if not look.wrong.any():
            sure = Outcome.FRAGILE if look.undefined.any() else Outcome.SOUND
            outcome = sure if exact_somewhere else Outcome.EYEBALLED
        elif (not look.wrong[small].any() and exact_nearby > 0) or exact_nearby >= 0.5:
            outcome = Outcome.SWITCHING
        elif not exact_somewhere and len(visible) and float(np.mean(visible)) >= EVERYWHERE:
            outcome = Outcome.APPROXIMATE
        else:
            outcome = Outcome.EYEBALLED
        failing = look.wrong if outcome is Outcome.SWITCHING else (look.wrong | look.undefined)
        return outcome, tuple(np.flatnonzero(failing).tolist())

    def _outcome_and(self, look: Look) -> tuple[Outcome, Look, tuple[int, ...]]:
        outcome, failing = self.outcome(look)
        return outcome, look, failing

    def trial(self, outcome: Outcome, look: Look, failing: tuple[int, ...], by_floats: bool = True) -> Trial:
        """The trial as it ended."""
        certified = sum(ruling is Ruling.RIGHT for ruling, _ in self.rulings.values())
        gap = float(self.examined.look_as_drawn(self.answer).gap[0])
        probed = len(self.rulings)
        return Trial(outcome, self.answer, self.batch, look, failing, certified, probed, by_floats, gap)
