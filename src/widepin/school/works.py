"""Autosave: operations stored once, in order, none lost."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import timedelta
from json import dumps
from secrets import token_hex
from typing import Any

from sqlalchemy import select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.orm import Session

from ..documents.construction import read_steps, write_step
from ..documents.task import read_task
from ..judge.task import Task
from .class_instruments import lent
from .crossings import settled
from .models import Assignment, Operation, Person, Work, now
from .operations import (
    AddDocument,
    MeasureDocument,
    OperationDocument,
    RemakeDocument,
    UseDocument,
    known_dress,
    read_dress,
    read_operation,
    remake,
)
from .state import OperationRefused, State, fold

MOST_OPERATIONS = 10_000
"""Operations that a work keeps: a lesson makes some hundred."""

LARGEST_OPERATION = 16_384
"""Characters of an operation as JSON; a use of an instrument is bounded by its steps."""


class Behind(Exception):
    """The sender does not know the latest operations; ``missed`` holds them, to be built upon."""

    def __init__(self, missed: list[Operation]):
        super().__init__(f"{len(missed)} operations missed")
        self.missed = missed


def task_of(assignment: Assignment) -> Task:
    """The task that an assignment sets."""
    return read_task(assignment.sheet.document)


def work_of(session: Session, assignment: Assignment, student: Person) -> Work:
    """The student's work for an assignment, begun if there is none; two tabs that begin at once get the same."""
    own = select(Work).where(Work.assignment_id == assignment.id, Work.student_id == student.id)
    found = session.scalars(own).one_or_none()
    if found is None:
        session.execute(
            insert(Work)
            .values(assignment_id=assignment.id, student_id=student.id, started=now(), touched=now())
            .on_duplicate_key_update(assignment_id=assignment.id)
        )
        found = session.scalars(own).one()
    return found


def state_of(work: Work) -> State:
    """The board of a work as it stands."""
    return folded(work, work.operations)


def folded(work: Work, log: Iterable[Operation]) -> State:
    """The board of a work after these of its operations."""
    return fold(task_of(work.assignment), [one.document for one in log], lent(work.assignment))


def store(session: Session, work: Work, key: str, after: int, value: Any) -> Operation:
    """Store an operation that follows operation number ``after``; the stored one if the key is known already.

    Raises Behind where others were stored in between, Unreadable and OperationRefused for what cannot be stored.
    """
    log = locked_log(session, work)
    for operation in log:
        if operation.key == key:
            return operation
    if after != len(log):
        raise Behind(log[max(0, after) :])
    state = folded(work, log)
    return _append(session, work, state, after + 1, key, value)


def bring_in(session: Session, work: Work, after: int, value: Any) -> list[Operation]:
    """Store the steps of a work document, all or none; they follow operation number ``after``.

    Raises Unreadable with the place in the document, Behind and OperationRefused.
    """
    steps = value.get("steps") if isinstance(value, dict) else None
    read = read_steps(steps)
    log = locked_log(session, work)
    if after != len(log):
        raise Behind(log[max(0, after) :])
    state = folded(work, log)
    stored: list[Operation] = []
    with session.begin_nested():
        for number, (step, document) in enumerate(zip(read, steps or [], strict=True)):
            try:
                operation = {"op": "add", "step": {**write_step(step), **known_dress(presentation(document))}}
                stored.append(_append(session, work, state, after + number + 1, token_hex(16), operation))
            except OperationRefused as wrong:
                raise OperationRefused(f"steps[{number}], {step.id}: {wrong}") from None
            state.apply(read_operation(stored[-1].document))
    return stored


def locked_log(session: Session, work: Work) -> list[Operation]:
    """All operations of a work, none of which another writer can add to before this request ends."""
    # The lock on the work puts writers from several tabs in line; what they stored can be read once it is had.
    lock(session, work)
    return list(session.scalars(select(Operation).where(Operation.work_id == work.id).order_by(Operation.number)))


def lock(session: Session, work: Work) -> None:
    """Lets one request at a time write to a work; the lock goes with the end of the request."""
    own = select(Work).where(Work.id == work.id).with_for_update().execution_options(populate_existing=True)
    session.scalars(own).one()


def _append(session: Session, work: Work, state: State, number: int, key: str, value: Any) -> Operation:
    """Store one operation that fits the board as it stands. Raises Unreadable and OperationRefused."""
    wanted = read_operation(value)
    if isinstance(wanted, MeasureDocument) and not work.assignment.measuring:
        raise OperationRefused("Nothing is to be measured in this task.")
    if number > MOST_OPERATIONS:
        raise OperationRefused(f"A board keeps {MOST_OPERATIONS} operations at most, and this one is full.")
    state.check(wanted)
    document = kept(wanted, value, state)
    if len(dumps(document)) > LARGEST_OPERATION and not isinstance(wanted, UseDocument):
        raise OperationRefused("That was too much in one operation; do it in smaller parts.")
    operation = Operation(work_id=work.id, number=number, key=key, document=document, stored=now())
    session.add(operation)
    # Later than it was begun, even within the second: a board that was only opened is not begun.
    work.touched = max(now(), work.started + timedelta(seconds=1))
    session.flush()
    return operation


def kept(wanted: OperationDocument, value: Any, state: State) -> dict[str, Any]:
    """An operation as it is stored: with nothing in it that was not read. Raises Unreadable."""
    if isinstance(wanted, AddDocument):
        shown = read_dress(presentation(value["step"]))
        return {"op": "add", "step": {**shown, **write_step(settled(state, wanted.step.step()))}}
    if isinstance(wanted, RemakeDocument):
        return remake(wanted.step.step())
    if isinstance(wanted, UseDocument):
        return {**value, "steps": [write_step(step) for step in wanted.made()]}
    return dict(value)  # these allow no other fields than their own


RULED = ("id", "make", "from", "at", "pick", "other_than", "nearest_to", "farthest_from")


def presentation(step: dict[str, Any]) -> dict[str, Any]:
    """The fields of a step that only concern how it is shown."""
    return {name: value for name, value in step.items() if name not in RULED}
