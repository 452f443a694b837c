"""Scores: what a verdict is worth, in percent, by a table that the teacher sets for a task, and in part for a class."""

from __future__ import annotations

from ...documents.forms import Fields
from ...documents.language import gettext as _
from ...documents.language import marked
from ...documents.reading import JsonObject
from ...documents.wording.verdict_words import OUTCOME_WORDS, Only, only_by
from ...judge.verdict import Verdict
from ..models import Assignment, SchoolClass
from ..refused import Refused

OWN_HELPER, METHOD_HOLDS = "own helper", "switching, method holds"

SCORING = {
    "sound": 100,
    OWN_HELPER: 100,
    "fragile": 75,
    METHOD_HOLDS: 75,
    "switching": 50,
    "approximate": 25,
    "eyeballed": 25,
    "each move over": 0,
}
"""What each outcome is worth unless the teacher says otherwise, and what is taken off for each move over the limit.

``OWN_HELPER`` is a work that is fragile only by where points of the student's own were put; ``METHOD_HOLDS`` one that
fails only by which intersections were chosen."""

OF_CLASS = {
    OWN_HELPER: marked("the method is right, and a helper of the student's own must be placed well"),
    METHOD_HOLDS: marked("the method is right, but another intersection is taken in some positions"),
}
"""Rows that a teacher may set once for a class, in words."""

SCORING_WORDS = {
    **{name: OUTCOME_WORDS[name] for name in SCORING if name in OUTCOME_WORDS},
    **OF_CLASS,
    "each move over": marked("taken off for each move over the limit"),
}

HEAVIEST = 20
"""The largest weight of a score in the mean."""


def score_for(verdict: Verdict, budget: int | None, table: JsonObject, off: int = 0) -> int:
    """The score for a verdict, 0 to 100. ``table``: what differs from SCORING; ``off``: for hints that were taken."""
    worth = SCORING | table
    points = int(worth.get(row_of(verdict), 0))
    return max(0, min(100, points - taken_off(verdict.counts.moves, budget, table) - off))


def off_for_hints(assignment: Assignment, hints: int) -> int:
    """The points that so many hints take off."""
    return hints * assignment.hint_cost


def taken_off(moves: int, budget: int | None, table: JsonObject) -> int:
    """The points that are taken off for moves over the limit, if there is one."""
    over = max(0, moves - budget) if budget else 0
    return over * int((SCORING | table)["each move over"])


def table_of(assignment: Assignment) -> JsonObject:
    """What scores differ by from SCORING: as the class has it, and where the task says so itself, as that does."""
    return assignment.school_class.scoring | assignment.scoring


def row_of(verdict: Verdict) -> str:
    """The row of the table that a verdict is in; wrong and refused works have none and are worth nothing."""
    match only_by(verdict):
        case Only.HELPER:
            return OWN_HELPER
        case Only.CHOICE:
            return METHOD_HOLDS
        case _:
            return verdict.outcome.value


def class_table_as_typed(school_class: SchoolClass) -> dict[str, str]:
    """What the rows of a class are worth, as it stands in the form."""
    return {f"row-{number}": str(school_class.scoring.get(row, "")) for number, row in enumerate(OF_CLASS)}


def set_for_class(school_class: SchoolClass, sent: Fields) -> None:
    """Set what the rows of a class are worth from now on; an empty field is as usual. Raises Refused."""
    table = {}
    for number, row in enumerate(OF_CLASS):
        typed = (sent.get(f"row-{number}") or "").strip()
        if not typed:
            continue
        if not typed.isdecimal() or int(typed) > 100:
            raise Refused(_("A score is a whole number from 0 to 100; an empty field is as usual."))
        table[row] = int(typed)
    school_class.scoring = table
