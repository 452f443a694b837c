"""What went wrong with a work, in a few words that works of the same fate share."""

from __future__ import annotations

from collections import Counter
from typing import assert_never

from ..judge.verdict import Outcome
from ..plane.makes import MakeName
from .make_words import MAKE_WORDS
from .reading import JsonObject
from .words import listed


def method_in_words(makes: Counter[MakeName], class_tools: Counter[str]) -> str:
    """What a construction was made with, the most frequent first.

    >>> method_in_words(Counter({MakeName.CIRCLE: 2, MakeName.LINE: 1}), Counter())
    '2 circles and a line'
    """
    parts = [name if count == 1 else f"{count} × {name}" for name, count in class_tools.most_common()]
    for make, count in makes.most_common():
        tool = MAKE_WORDS[make].tool
        parts.append(f"{count} {plural(tool)}" if count > 1 else f"{'an' if tool[0] in 'aeiou' else 'a'} {tool}")
    return listed(parts) or "no moves"


def plural(tool: str) -> str:
    """The plural of a tool's name: of its first noun where more words follow.

    >>> plural("perpendicular bisector"), plural("circle through 3 points")
    ('perpendicular bisectors', 'circles through 3 points')
    """
    for follows in (" by ", " through ", " of "):
        first, word, rest = tool.partition(follows)
        if word:
            return f"{first}s{word}{rest}"
    return f"{tool}s"


def what_went_wrong(verdict: JsonObject, moves: int, budget: int | None) -> str:
    """The fate of a work, from its verdict document."""
    report = verdict.get("report") or {}
    breaks = verdict.get("breaks") or {}
    match outcome := Outcome(verdict["outcome"]):
        case Outcome.SOUND if budget is not None and moves > budget:
            return "Correct, over the move limit"
        case Outcome.SOUND:
            return "Correct and holds when dragged"
        case Outcome.FRAGILE:
            return f"Undefined when {_dragged(breaks)} dragged"
        case Outcome.SWITCHING:
            return "The other intersection is taken when dragged"
        case Outcome.APPROXIMATE:
            return "Close everywhere, exact nowhere"
        case Outcome.EYEBALLED:
            guilty = report.get("by_eye") or []
            return f"{listed(guilty)} placed by eye" if guilty else "Correct only to the eye"
        case Outcome.REFUSED:
            return "Not checked: a tool that is not allowed"
        case Outcome.WRONG:
            return "Not correct as drawn"
        case _:
            assert_never(outcome)


def _dragged(breaks: JsonObject) -> str:
    points = [point["id"] for point in breaks.get("points") or []]
    return f"{listed(points)} {'are' if len(points) > 1 else 'is'}" if points else "it is"
