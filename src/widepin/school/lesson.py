"""A task while the class works at it: who needs help now, and how many had what when."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from ..documents.language import gettext as _
from .overview import Place
from .progress import is_solved
from .states import Presence


def needing_help(places: Sequence[Place], at: datetime) -> list[tuple[Place, str]]:
    """Who sits before the board at a time (UTC) and gets no further, with for how long: those first who have been
    inactive longest, and those who have tried in vain several times.
    """
    stuck = [
        (place, place.presence(at)[1])
        for place in places
        if place.presence(at)[0] is Presence.INACTIVE and not is_solved(place.standing.best)
    ]
    stuck.sort(key=lambda one: one[0].work.touched if one[0].work else at)
    known = {place.student.id for place, _words in stuck}
    trying = [
        (place, _("%(n)s attempts in vain", n=len(place.work.hand_ins)))
        for place in places
        if place.work is not None
        and len(place.work.hand_ins) >= IN_VAIN
        and not is_solved(place.standing.best)
        and place.student.id not in known
    ]
    return [*stuck, *trying]


IN_VAIN = 3
"""Attempts that are not right, after which a student may need help."""


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
