"""What went wrong with a work, in a few words that works of the same fate share."""

from __future__ import annotations

from collections import Counter
from typing import assert_never

from ...judge.verdict import Outcome
from ...plane.makes import MakeName
from ..language import gettext as _
from ..language import ngettext
from ..reading import JsonObject
from .make_words import MAKE_WORDS
from .words import listed


def method_in_words(makes: Counter[MakeName], class_tools: Counter[str]) -> str:
    """What a construction was made with, the most frequent first.

    >>> method_in_words(Counter({MakeName.CIRCLE: 2, MakeName.LINE: 1}), Counter())
    '2 circles and a line'
    """
    parts = [name if count == 1 else f"{count} × {name}" for name, count in class_tools.most_common()]
    for make, count in makes.most_common():
        one, several = MAKE_WORDS[make].counted
        parts.append(ngettext(one, several, count, n=count))
    return listed(parts) or _("no moves")


def what_went_wrong(verdict: JsonObject, moves: int, budget: int | None) -> str:
    """The fate of a work, from its verdict document."""
    report = verdict.get("report") or {}
    breaks = verdict.get("breaks") or {}
    match outcome := Outcome(verdict["outcome"]):
        case Outcome.SOUND if budget is not None and moves > budget:
            return _("Correct, over the move limit")
        case Outcome.SOUND:
            return _("Correct and holds when dragged")
        case Outcome.FRAGILE:
            return _dragged(breaks)
        case Outcome.SWITCHING:
            return _("The other intersection is taken when dragged")
        case Outcome.APPROXIMATE:
            return _("Close everywhere, exact nowhere")
        case Outcome.EYEBALLED:
            guilty = report.get("by_eye") or []
            return _("%(guilty)s placed by eye", guilty=listed(guilty)) if guilty else _("Correct only to the eye")
        case Outcome.REFUSED:
            return _("Not checked: a tool that is not allowed")
        case Outcome.WRONG:
            return _("Not correct as drawn")
        case _:
            assert_never(outcome)


def _dragged(breaks: JsonObject) -> str:
    points = [point["id"] for point in breaks.get("points") or []]
    if not points:
        return _("Undefined when it is dragged")
    return ngettext(
        "Undefined when %(points)s is dragged",
        "Undefined when %(points)s are dragged",
        len(points),
        points=listed(points),
    )
