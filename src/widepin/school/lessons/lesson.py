"""A task while the class works at it: who needs help now, and how many had what when."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from ...documents.language import gettext as _
from ...documents.wording.amounts import duration
from ..models import HandIn, Work
from ..results.release import is_solved
from ..states import Presence
from .overview import Place, presence_of


def needing_help(places: Sequence[Place], at: datetime) -> list[tuple[Place, str]]:
    """Who sits before the board at a time (UTC) and gets no further, with for how long: those first who have been
    inactive longest, then those who have tried in vain several times, or take back what they draw.
    """
    found = []
    for place in places:
        work, best = place.work, place.standing.best
        words = help_needed(work, best, at) or (going_back(work, at) if work and not is_solved(best) else None)
        if words is not None:
            found.append((place, words))

    def turn(one: tuple[Place, str]) -> tuple[bool, datetime]:
        is_still = one[0].presence(at)[0] is Presence.INACTIVE
        return not is_still, one[0].work.touched if is_still and one[0].work else at

    return sorted(found, key=turn)


IN_VAIN = 3
"""Attempts that are not right, after which a student may need help."""


def help_needed(work: Work | None, best: HandIn | None, at: datetime) -> str | None:
    """Why the student of a work may need help at a time (UTC), in words; None where nothing says so."""
    if work is None or is_solved(best):
        return None
    presence, words = presence_of(work, at, bool(work.hand_ins))
    if presence is Presence.INACTIVE:
        return words
    return _("%(n)s attempts in vain", n=len(work.hand_ins)) if len(work.hand_ins) >= IN_VAIN else None


LATELY, TAKEN_BACK = timedelta(minutes=6), 5
"""How many steps somebody takes back within which time who may need help, if no more were drawn."""


def going_back(work: Work, at: datetime) -> str | None:
    """That nothing stays of what a student draws, at a time (UTC), in words; None where something does."""
    done = [operation.document["op"] for operation in work.operations if at - operation.stored <= LATELY]
    back, drawn = sum(op in ("undo", "remove") for op in done), sum(op in ("add", "use", "redo") for op in done)
    if back < max(TAKEN_BACK, drawn):
        return None
    return _("%(n)s steps taken back in %(duration)s", n=back, duration=duration(LATELY))


@dataclass(frozen=True)
class Moment:
    """How many students had begun, handed in and solved a task by a time (UTC)."""

    at: datetime
    begun: int
    handed_in: int
    solved: int


LESSON, PARTS = timedelta(minutes=60), 20
"""How long before the last step a lesson is taken to have begun at most, and in how many parts it is told."""


def timeline(places: Sequence[Place]) -> list[Moment]:
    """The lesson in which the task was worked at last, in equal parts; empty where nobody has begun."""
    works = [place.work for place in places if place.work is not None and place.work.touched > place.work.started]
    if not works:
        return []
    end = max(work.touched for work in works)
    begin = max(end - LESSON, min(work.started for work in works))
    handed_in = [min(one.handed_in for one in work.hand_ins) for work in works if work.hand_ins]
    solved = [min(times) for work in works if (times := [one.handed_in for one in work.hand_ins if is_solved(one)])]
    moments = [begin + (end - begin) * part / PARTS for part in range(1, PARTS + 1)]
    return [
        Moment(
            at,
            sum(work.started <= at for work in works),
            sum(one <= at for one in handed_in),
            sum(one <= at for one in solved),
        )
        for at in moments
    ]
