"""Scores: what a verdict is worth, in percent, by a table that the teacher sets."""

from __future__ import annotations

from ...documents.reading import JsonObject
from ...judge.verdict import Outcome, Verdict, Whose

SCORING = {
    "sound": 100,
    "own helper": 100,
    "fragile": 75,
    "switching, method holds": 75,
    "switching": 50,
    "approximate": 25,
    "eyeballed": 25,
    "each move over": 0,
}
"""What each outcome is worth unless the teacher says otherwise, and what is taken off for each move over the limit.

"own helper" is a work that is fragile only by where points of the student's own were put; "switching, method holds" one
that fails only by which intersections were chosen."""


HEAVIEST = 20
"""The largest weight of a score in the mean."""


def score_for(verdict: Verdict, budget: int | None, table: JsonObject) -> int:
    """The score for a verdict, 0 to 100. ``table``: what differs from SCORING."""
    worth = SCORING | table
    points = int(worth.get(row_of(verdict), 0))
    over = max(0, verdict.counts.moves - budget) if budget else 0
    return max(0, min(100, points - over * int(worth["each move over"])))


def row_of(verdict: Verdict) -> str:
    """The row of the table that a verdict is in; wrong and refused works have none and are worth nothing."""
    if verdict.outcome is Outcome.FRAGILE and _only_by_own_helper(verdict):
        return "own helper"
    if verdict.outcome in (Outcome.SWITCHING, Outcome.FRAGILE) and verdict.method_holds:
        return "switching, method holds"
    return verdict.outcome.value


def _only_by_own_helper(verdict: Verdict) -> bool:
    if verdict.report is not None and verdict.report.provisos:
        return True
    return verdict.breaks is not None and verdict.breaks.by is Whose.OWN
