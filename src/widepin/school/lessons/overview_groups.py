"""Which works of the class overview belong together, in which order, and what is shown once for all of them."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta
from enum import StrEnum
from math import inf
from typing import assert_never

from ...documents.formats.construction import read_steps
from ...documents.formats.verdict import read_verdict
from ...documents.reading import JsonObject
from ...documents.wording.explaining import explained
from ...documents.wording.verdict_words import RESULTS
from ...judge.costs.structure import needed_by
from ..works.autosave import task_judged
from ..works.handins import figure_of
from .overview import GroupedBy, Place


class SortedBy(StrEnum):
    """The order of works within a group."""

    NAME = "name"
    TIME = "time"
    MOVES = "moves"
    STATE = "state"


@dataclass(frozen=True)
class Group:
    """Places that belong together, with one picture for all.

    ``state``: "good", "half", "bad", "plain", or "open" for what is not handed in. ``shown``: for a method, the figure
    of what the answer is made from; for a mistake, the figure of one who made it, with the drags to where it breaks;
    else None. ``words``: what went wrong, in a sentence.
    """

    heading: str
    places: list[Place]
    state: str
    shown: JsonObject | None = None
    words: str = ""


def state_of_group(members: Sequence[Place]) -> str:
    """How the works of a group stand: by the last part of their result, which says whether they hold."""
    best = members[0].standing.best
    return "open" if best is None else RESULTS[best.outcome][-1][1]


def grouped(places: Sequence[Place], by: GroupedBy, order: SortedBy = SortedBy.NAME) -> list[Group]:
    """Places in groups, the largest first, those not handed in last; within them in an order."""
    groups: dict[tuple[str, str], list[Place]] = defaultdict(list)
    for place in ordered(places, order):
        groups[place.group[by], place.method if by is GroupedBy.METHOD else ""].append(place)
    found = [group_of(heading, members, by) for (heading, _method), members in groups.items()]
    return sorted(found, key=lambda group: (group.state == "open", -len(group.places), group.heading))


def group_of(heading: str, members: list[Place], by: GroupedBy) -> Group:
    """A group, with what is shown once for all of it."""
    state = "plain" if by is GroupedBy.NOTHING else state_of_group(members)
    first = members[0]
    if by is GroupedBy.METHOD and first.method:
        return Group(heading, members, state, essence_of(first))
    best = first.standing.best
    if by is GroupedBy.TROUBLE and best is not None and state != "good":
        told = explained(read_verdict(best.verdict), task_judged(best))
        return Group(heading, members, state, figure_of(best) | {"notes": []}, told[0] if told else "")
    return Group(heading, members, state)


def ordered(places: Sequence[Place], order: SortedBy) -> list[Place]:
    """Places in an order; what has no time, no moves or no state comes last, then as they were, which is by name."""
    longest = timedelta.max

    def key(place: Place) -> float:
        best = place.standing.best
        match order:
            case SortedBy.NAME:
                return 0
            case SortedBy.TIME:
                return (place.took or longest).total_seconds()
            case SortedBy.MOVES:
                return best.moves if best is not None else inf
            case SortedBy.STATE:
                return best.outcome.rank if best is not None else inf
            case _ as never:
                assert_never(never)

    return sorted(places, key=key)


def essence_of(place: Place) -> JsonObject:
    """The figure of a student's best attempt without the steps that its answer is not made from."""
    assert place.standing.best is not None
    figure = figure_of(place.standing.best)
    needed = needed_by(read_steps(figure["steps"]), figure["answer"])
    shown = [{**step, "hidden": False} for step in figure["steps"] if step["id"] in needed]
    return {**figure, "steps": shown, "breaks": None, "notes": []}
