"""What is said of what does not fit together in a task: a sentence, and a few words at the step of making it."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from ...judge.misfits import Misfit, MisfitKind
from ...judge.task import Task
from ...plane.rows import complete
from ..language import gettext as _
from ..language import marked
from .rule_words import worded
from .words import Words


class Row(NamedTuple):
    """``step``: of making a task, at which a misfit stands; ``short``: in a few words; ``sentence``: in full."""

    step: str
    short: str
    sentence: Callable[[Task, Misfit], str]


def _clause(task: Task, misfit: Misfit) -> str:
    assert misfit.place is not None
    return Words(task).condition(task.conditions[misfit.place])


ROWS: dict[str, Row] = complete(
    "misfit_words.ROWS",
    MisfitKind,
    {
        MisfitKind.TOOLS: Row(
            "tools",
            marked("do not suffice"),
            lambda _task, misfit: _(
                "The tools of the task cannot make the sample solution: %(rule)s.",
                rule=worded(misfit.broken) if misfit.broken else "",
            ),
        ),
        MisfitKind.LIMIT: Row(
            "limits",
            marked("limit too low"),
            lambda task, misfit: _(
                "The move limit is %(budget)s moves; with the tools of the task the sample solution takes %(moves)s.",
                budget=task.budget,
                moves=misfit.moves,
            ),
        ),
        MisfitKind.NEVER_TRUE: Row(
            "wanted",
            marked("a condition is not true"),
            lambda task, misfit: _(
                "Not true of the sample solution as drawn: %(clause)s.", clause=_clause(task, misfit)
            ),
        ),
        MisfitKind.ALWAYS_TRUE: Row(
            "wanted",
            marked("a condition asks for nothing"),
            lambda task, misfit: _(
                "Whatever is drawn fulfils this condition, so that it asks for nothing: %(clause)s.",
                clause=_clause(task, misfit),
            ),
        ),
        MisfitKind.ANSWER_GIVEN: Row(
            "wanted",
            marked("the answer is given"),
            lambda _task, misfit: _(
                "%(name)s is the given %(given)s: there is nothing to construct.",
                name=misfit.names[0],
                given=misfit.names[1],
            ),
        ),
        MisfitKind.NOTHING_TO_DO: Row(
            "wanted",
            marked("nothing to construct"),
            lambda _task, _misfit: _(
                "Nothing has to be constructed: the given figure alone is correct. Add a condition."
            ),
        ),
        MisfitKind.WRONG_PASSES: Row(
            "check",
            marked("a wrong solution passes"),
            lambda _task, misfit: _(
                "Wrong solution %(number)s would pass as correct. Add a condition that it does not fulfil.",
                number=(misfit.place or 0) + 1,
            ),
        ),
    },
)


def misfit_in_words(task: Task, misfit: Misfit) -> str:
    """What does not fit, in a sentence that says what to do where that is not plain."""
    return ROWS[misfit.kind].sentence(task, misfit)


def at_steps(misfits: tuple[Misfit, ...]) -> dict[str, str]:
    """What stands at which step of making a task: the gravest misfit there, in a few words."""
    found: dict[str, str] = {}
    for misfit in misfits:
        row = ROWS[misfit.kind]
        found.setdefault(row.step, _(row.short))
    return found
