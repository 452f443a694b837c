"""Hints that students take: one for the board as it stands, told in three levels, as many as the teacher allows."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from ...documents.formats.construction import read_steps, write_step
from ...documents.formats.uses import read_uses
from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...documents.wording.hint_words import Hint, hint_for
from ...judge.task import Work as Submission
from ...judge.verdict import Outcome
from ..models import Assignment, HandIn, HintTaken, Person, Work
from ..refused import Refused
from ..states import HowFar
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


def tells_how_far(assignment: Assignment) -> bool:
    """Whether students may ask how many moves are left."""
    return assignment.how_far is HowFar.YES or assignment.practice_key is not None


def left(work: Work | None, assignment: Assignment) -> int:
    """How many hints a student may take yet."""
    return max(0, allowed(assignment) - (sum(not one.sent for one in work.hints) if work else 0))


def look(session: Session, work: Work, asking: Callable[..., Hint] = hint_for) -> Hint:
    """The hint for the board as it stands; nothing is kept of it.

    ``asking``: does what ``hint_for`` does, elsewhere.
    """
    state = state_of(work)
    methods = [Submission(state.task.model), *methods_of_class(session, work)]
    return asking(state.as_it_stands, Submission(tuple(state.steps), None, state.uses), methods)


def send(session: Session, work: Work, asking: Callable[..., Hint] = hint_for) -> Shown:
    """Let a student have the hint for the board as it stands, one level more than there was, which costs nothing.

    Raises Refused where nothing is known that would help.
    """
    number = len(work.operations)
    known = session.get(HintTaken, (work.id, number))
    if known is None:
        found = look(session, work, asking)
        if found.step is None:
            raise Refused(found.levels[0])
        known = session.get(HintTaken, (work.id, number))  # the student may have asked meanwhile
        if known is None:
            known = HintTaken(work_id=work.id, number=number, level=0, document=written(found), sent=True)
            session.add(known)
    known.level = min(LEVELS, known.level + 1)
    session.flush()
    session.refresh(work, ["hints"])
    return shown(known, left(work, work.assignment))


def sent_to(session: Session, assignment: Assignment, student: Person, number: int) -> Shown | None:
    """The hint that a student was sent for the board as it stands, after operation ``number``; None for none."""
    wanted = select(HintTaken).join(Work, Work.id == HintTaken.work_id)
    wanted = wanted.where(Work.assignment_id == assignment.id, Work.student_id == student.id)
    found = session.scalar(wanted.where(HintTaken.number == number, HintTaken.sent))
    return shown(found, left(found.work, assignment)) if found is not None else None


def take(session: Session, work: Work, asking: Callable[..., Hint] = hint_for) -> Shown:
    """The next level of the hint for the board as it stands, or the first of a new one. Raises Refused.

    ``asking``: does what ``hint_for`` does, elsewhere.
    """
    number = len(work.operations)
    known = session.get(HintTaken, (work.id, number))
    if known is None:
        if left(work, work.assignment) == 0:
            raise Refused(_("All hints of this task are taken."))
        found = look(session, work, asking)
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
