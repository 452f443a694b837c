"""Hints that students take: one for the board as it stands, told in three levels, as many as the teacher allows."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from ...documents.construction import read_steps, write_step
from ...documents.hint_words import Hint, hint_for
from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...documents.uses import read_uses
from ...judge.task import Work as Submission
from ...judge.verdict import Outcome
from ..models import Assignment, HandIn, HintTaken, Work
from ..refused import Refused
from .autosave import state_of

LEVELS = 3

MOST_METHODS = 4
"""Sound works of the class along which a way on is looked for, besides the sample solution."""

FOR_PRACTICE = 99
"""Hints that may be taken at a task for practice, which counts nowhere."""


@dataclass(frozen=True)
class Shown:
    """What a student is told. ``left``: hints that may be taken yet. ``step``: the next one, at the last level."""

    level: int
    words: str
    lit: tuple[str, ...]
    step: JsonObject | None
    left: int
    moves_left: int | None


def allowed(assignment: Assignment) -> int:
    """How many hints a student may take at a task."""
    return FOR_PRACTICE if assignment.practice_key else assignment.hints


def left(work: Work | None, assignment: Assignment) -> int:
    """How many hints a student may take yet."""
    return max(0, allowed(assignment) - (len(work.hints) if work else 0))


def take(session: Session, work: Work, asking: Callable[..., Hint] = hint_for) -> Shown:
    """The next level of the hint for the board as it stands, or the first of a new one. Raises Refused.

    ``asking``: does what ``hint_for`` does, elsewhere.
    """
    number = len(work.operations)
    known = session.get(HintTaken, (work.id, number))
    if known is None:
        if left(work, work.assignment) == 0:
            raise Refused(_("All hints of this task are taken."))
        state = state_of(work)
        methods = [Submission(state.task.model), *methods_of_class(session, work)]
        found = asking(state.as_it_stands, Submission(tuple(state.steps), None, state.uses), methods)
        if found.step is None:  # there is nothing to be told that would be worth one
            return Shown(1, found.levels[0], (), None, left(work, work.assignment), found.moves_left)
        known = session.get(HintTaken, (work.id, number))  # another window may have asked meanwhile
        if known is None:
            known = HintTaken(work_id=work.id, number=number, level=1, document=written(found))
            session.add(known)
            session.flush()
            session.refresh(work, ["hints"])
    elif known.level < LEVELS:
        known.level += 1
        session.flush()
    return shown(known, left(work, work.assignment))


def written(hint: Hint) -> JsonObject:
    """A hint as it is kept."""
    step = write_step(hint.step) if hint.step else None
    return {"levels": list(hint.levels), "step": step, "moves_left": hint.moves_left}


def shown(taken: HintTaken, left_: int) -> Shown:
    """What is told of a hint that was taken."""
    step = taken.document["step"]
    lit = tuple(step.get("from", ())) if taken.level > 1 else ()
    return Shown(
        taken.level,
        taken.document["levels"][taken.level - 1],
        lit,
        step if taken.level == LEVELS else None,
        left_,
        taken.document["moves_left"],
    )


def methods_of_class(session: Session, work: Work) -> Sequence[Submission]:
    """Sound works of others on the same version of the task, those with the fewest moves first."""
    wanted = (
        select(HandIn)
        .join(Work, HandIn.work_id == Work.id)
        .where(
            Work.assignment_id == work.assignment_id,
            Work.id != work.id,
            HandIn.outcome == Outcome.SOUND,
            HandIn.sheet_id == work.assignment.sheet_id,
        )
        .order_by(HandIn.moves, HandIn.id)
        .limit(MOST_METHODS)
    )
    found = []
    for attempt in session.scalars(wanted):
        steps = read_steps(attempt.document["steps"])
        if not attempt.document.get("uses"):  # a class tool may not be allowed to this student
            found.append(Submission(steps, attempt.document.get("answer"), read_uses([], steps)))
    return found
