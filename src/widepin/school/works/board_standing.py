"""What an open board is told meanwhile, the version of its task, when it is due, attempts left, comments; and which
claims about it can be put to the proof.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import bindparam, func, select
from sqlalchemy.orm import Session, joinedload, selectinload

from ...documents.language import gettext as _
from ...judge.reports.claims import Claimed, condition
from ...judge.task import Condition, Task
from ...plane.shapes import Kind
from ...plane.steps import Step
from ..models import Assignment, Comment, HandIn, Operation, Person, Work
from .autosave import state_of
from .handins import is_closed, is_late, why_not_taken
from .hinting import Shown, sent_to
from .history import OperationRefused

MAX_CLAIMS = 60

_OPERATIONS = (
    select(func.greatest(func.coalesce(func.max(Operation.number), 0), func.max(Work.packed_operations)))
    .select_from(Work)
    .outerjoin(Operation)
    .where(Work.assignment_id == bindparam("assignment"), Work.student_id == bindparam("student"))
)


@dataclass(frozen=True)
class BoardStanding:
    """``version``: of the task and of what its board offers; a board that was opened under another one is to be loaded
    again. ``due``: UTC. ``attempts_left``: None where any number is taken. ``comments``: on the latest attempt.
    ``not_taken``: why no further attempt is taken, None where one is. ``operations``: how many the log of the work has.
    ``is_closed``: whether it was due and late works are refused; ``is_late``: whether the latest attempt was handed in
    after it was due. ``class_tools``: the names of those that may be used. ``hint``: one that the
    teacher has sent for the board as it stands.
    """

    version: str
    due: datetime | None
    attempts_left: int | None
    attempt_id: int | None = None
    comments: Sequence[Comment] = ()
    not_taken: str | None = None
    operations: int = 0
    is_closed: bool = False
    is_late: bool = False
    class_tools: Sequence[str] = ()
    hint: Shown | None = None


def board_standing(session: Session, assignment: Assignment, student: Person) -> BoardStanding:
    """How a task and a student's work on it stand, in a fixed number of queries."""
    latest = session.scalar(
        select(HandIn)
        .join(Work, Work.id == HandIn.work_id)
        .where(Work.assignment_id == assignment.id, Work.student_id == student.id)
        .order_by(HandIn.attempt.desc())
        .limit(1)
        .options(selectinload(HandIn.comments).joinedload(Comment.author), joinedload(HandIn.work))
    )
    used = latest.attempt if latest is not None else 0
    left = None if assignment.attempts is None else max(0, assignment.attempts - used)
    is_returned = latest is not None and latest.work.returned is not None
    if left == 0 and is_returned:
        left = 1  # a work that was returned is taken once more
    operations = session.scalar(_OPERATIONS, {"assignment": assignment.id, "student": student.id}) or 0
    return BoardStanding(
        version_of(assignment),
        assignment.due,
        left,
        latest.id if latest is not None else None,
        latest.comments if latest is not None else (),
        why_not_taken(assignment, used, is_returned),
        operations,
        is_closed(assignment),
        latest is not None and is_late(latest),
        [one.name for one in assignment.class_tools],
        sent_to(session, assignment, student, operations),
    )


def version_of(assignment: Assignment) -> str:
    """What a board depends on that its teacher may change while it is open."""
    may = "".join(str(int(one)) for one in (assignment.measuring, assignment.finding, assignment.loci))
    return "-".join([str(assignment.sheet_id), may, *(str(one.id) for one in assignment.class_tools)])


def claimed(
    work: Work | None, claims: Sequence[tuple[Claimed, Sequence[Sequence[str]]]]
) -> tuple[Task, tuple[Step, ...], tuple[Condition, ...]]:
    """The board of a work and claims about it, for ``judge.claims``. Raises OperationRefused for what is not there."""
    if work is None:
        raise OperationRefused(_("There is nothing on the board yet."))
    state = state_of(work)
    kinds = state.kinds()
    found = []
    for rel, of in claims:
        sizes = {"equal_length": [2, 2], "equal_angle": [3, 3], "right_angle": [3]}[rel]
        if [len(term) for term in of] != sizes or any(kinds.get(id_) is not Kind.POINT for term in of for id_ in term):
            raise OperationRefused(_("Two lengths or two angles can be marked as equal."))
        found.append(condition(rel, of))
    return state.as_it_stands, tuple(state.steps), tuple(found)
