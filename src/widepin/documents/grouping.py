"""What went wrong with a work, in a few words that works of the same fate share."""

from __future__ import annotations

from typing import Any

from .words import listed


def what_went_wrong(verdict: dict[str, Any], moves: int, budget: int | None) -> str:
    """The fate of a work, from its verdict document."""
    report = verdict.get("report") or {}
    breaks = verdict.get("breaks") or {}
    match verdict["outcome"]:
        case "sound" if budget is not None and moves > budget:
            return "Correct, over the move limit"
        case "sound":
            return "Correct and holds when dragged"
        case "fragile":
            return f"Undefined when {_dragged(breaks)} dragged"
        case "switching":
            return "The other intersection is taken when dragged"
        case "approximate":
            return "Close everywhere, exact nowhere"
        case "eyeballed":
            guilty = report.get("by_eye") or []
            return f"{listed(guilty)} placed by eye" if guilty else "Correct only to the eye"
        case "refused":
            return "Not checked: a tool that is not allowed"
        case _:
            return "Not correct as drawn"


def _dragged(breaks: dict[str, Any]) -> str:
    points = [point["id"] for point in breaks.get("points") or []]
    return f"{listed(points)} {'are' if len(points) > 1 else 'is'}" if points else "it is"
