"""Autosave: operations stored once, in order, none lost."""

from __future__ import annotations

from datetime import timedelta
from functools import lru_cache
from json import dumps, loads
from secrets import token_hex

from sqlalchemy import bindparam, select, update
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.orm import Session

from ...documents.formats.construction import read_steps, write_step
from ...documents.formats.operations import (
    AddDocument,
    LocusDocument,
    MeasureDocument,
    OperationDocument,
    RemakeDocument,
    UseDocument,
    known_dress,
    read_dress,
    read_operation,
    remake,
)
from ...documents.formats.task import read_task
from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...judge.task import Task
from ...plane.errors import CoreError
from ..models import (
    Assignment,
    Base,
    HandIn,
    Operation,
    Person,
    Work,
    now,
)
from ..tasks.class_tools import allowed_tools
from .history import History, OperationRefused, replay
from .intersections import settled
from .snapshots import SNAPSHOTS, Snapshot, current, of, opened

AWAY = timedelta(seconds=75)
"""A board says several times a minute that it is open; one that has not for so long is left."""

MAX_OPERATIONS = 10_000
"""Operations that a work keeps: a lesson makes some hundred."""

LARGEST_OPERATION = 16_384
"""Characters of an operation as JSON; a use of a class tool is bounded by its steps."""


class StaleLog(CoreError):
    """The sender does not know the latest operations; ``missed`` holds them, to be built upon."""

    def __init__(self, missed: list[Operation]):
        super().__init__(f"{len(missed)} operations missed")
        self.missed = missed


def is_open(session: Session, assignment: Assignment, student: Person) -> None:
    """Note that the board of a task is open before a student at this moment."""
    work, at = work_of(session, assignment, student), now()
    if work.seen is None or at - work.seen > AWAY:
        work.opened = at
    work.seen = at


def task_of(assignment: Assignment) -> Task:
    """The task that an assignment sets."""
    return _task_read(dumps(assignment.sheet.document))


def task_judged(attempt: HandIn) -> Task:
    """The task by which an attempt was judged, which may be an older version than the class has now."""
    return _task_read(dumps(attempt.sheet_judged.document))


@lru_cache(maxsize=256)
def _task_read(text: str) -> Task:
    """A task from its document as text; tasks do not change, and reading one costs more than all the rest of a save."""
    return read_task(loads(text))


def work_begun(session: Session, assignment: Assignment, student: Person) -> Work | None:
    """The student's work for an assignment, if begun."""
    own = select(Work).where(Work.assignment_id == assignment.id, Work.student_id == student.id)
    return session.scalars(own).one_or_none()


def work_of(session: Session, assignment: Assignment, student: Person) -> Work:
    """The student's work for an assignment, begun if there is none; two tabs that begin at once get the same."""
    found = work_begun(session, assignment, student)
    if found is None:
        session.execute(
            insert(Work)
            .values(assignment_id=assignment.id, student_id=student.id, started=now(), touched=now())
            .on_duplicate_key_update(assignment_id=assignment.id)
        )
        found = work_begun(session, assignment, student)
        assert found is not None
    return found


# Statements of every save, made once.
_LOG, _WORKS = Base.metadata.tables["operation"], Base.metadata.tables["work"]
_STORE = insert(_LOG)
_TOUCH = update(_WORKS).where(_WORKS.c.id == bindparam("work")).values(touched=bindparam("at"))


def state_of(work: Work) -> History:
    """The board of a work as it stands."""
    return replay(
        task_of(work.assignment), [operation.document for operation in work.operations], allowed_tools(work.assignment)
    )


def save(session: Session, assignment: Assignment, student: Person, key: str, after: int, value: object) -> Operation:
    """Store an operation of a student's, as by ``store``, in the work for an assignment, begun if there is none."""
    task = task_of(assignment)
    found = opened(session, assignment.id, student.id, task)
    if found is None:
        return store(session, work_of(session, assignment, student), key, after, value)
    return _stored(session, *found, key, after, value)


def store(session: Session, work: Work, key: str, after: int, value: object) -> Operation:
    """Store an operation that follows operation number ``after``; the stored one if the key is known already.

    Raises StaleLog where others were stored in between, Unreadable and OperationRefused for what cannot be stored.
    """
    lock(session, work)
    return _stored(session, work, current(session, work, task_of(work.assignment)), key, after, value)


def _stored(session: Session, work: Work, board: Snapshot, key: str, after: int, value: object) -> Operation:
    if not session.in_nested_transaction():  # there, what was read may be taken back
        SNAPSHOTS.keep(of(work), board)
    if key in board.keys:
        return session.get_one(Operation, (work.id, board.keys[key]))
    if after != board.number:
        raise StaleLog(log_after(session, work, after))
    return _append(session, work, board.state, after + 1, key, value)


def import_steps(session: Session, work: Work, after: int, value: object) -> list[Operation]:
    """Store the steps of a work document, all or none; they follow operation number ``after``.

    Raises Unreadable with the place in the document, StaleLog and OperationRefused.
    """
    steps = value.get("steps") if isinstance(value, dict) else None
    read = read_steps(steps)
    lock(session, work)
    board = current(session, work, task_of(work.assignment))
    if after != board.number:
        raise StaleLog(log_after(session, work, after))
    stored: list[Operation] = []
    with session.begin_nested():
        for number, (step, document) in enumerate(zip(read, steps or [], strict=True)):
            try:
                shown = known_dress(presentation(document))
                operation = {"op": "add", "step": {**write_step(step), **shown}, "joined": number > 0}
                stored.append(_append(session, work, board.state, after + number + 1, token_hex(16), operation))
            except OperationRefused as wrong:
                raise OperationRefused(f"steps[{number}], {step.id}: {wrong}") from None
            board.state.apply(read_operation(stored[-1].document))
    return stored


def log_after(session: Session, work: Work, number: int) -> list[Operation]:
    """The operations of a work that follow one with a number."""
    log = select(Operation).where(Operation.work_id == work.id, Operation.number > number)
    return list(session.scalars(log.order_by(Operation.number)))


def lock(session: Session, work: Work) -> None:
    """Lets one request at a time write to a work; the lock goes with the end of the request.

    It puts writers from several tabs in line; what they stored can be read once it is had.
    """
    own = select(Work).where(Work.id == work.id).with_for_update().execution_options(populate_existing=True)
    session.scalars(own).one()


def _append(session: Session, work: Work, state: History, number: int, key: str, value: object) -> Operation:
    """Store one operation that fits the board as it stands. Raises Unreadable and OperationRefused."""
    wanted = read_operation(value)
    if isinstance(wanted, MeasureDocument) and not work.assignment.measuring:
        raise OperationRefused(_("Nothing is to be measured in this task."))
    if isinstance(wanted, LocusDocument) and not work.assignment.loci:
        raise OperationRefused(_("No loci are to be drawn in this task."))
    if number > MAX_OPERATIONS:
        raise OperationRefused(
            _(
                "A board keeps %(most)s operations at most, and this one is full.",
                most=MAX_OPERATIONS,
            )
        )
    if isinstance(wanted, UseDocument):
        state.class_tools = allowed_tools(work.assignment)
    state.check(wanted)
    assert isinstance(value, dict)  # else it could not be read
    document = kept(wanted, value, state)
    if len(dumps(document)) > LARGEST_OPERATION and not isinstance(wanted, UseDocument):
        raise OperationRefused(_("That was too much in one operation; do it in smaller parts."))
    at = now()
    row = {"work_id": work.id, "number": number, "key": key, "document": document, "stored": at}
    session.execute(_STORE, row)
    # Later than it was begun, even within the second: a board that was only opened is not begun.
    session.execute(_TOUCH, {"work": work.id, "at": max(at, work.started + timedelta(seconds=1))})
    return Operation(**row)


def kept(wanted: OperationDocument, value: JsonObject, state: History) -> JsonObject:
    """An operation as it is stored: with nothing in it that was not read. Raises Unreadable."""
    if isinstance(wanted, AddDocument):
        shown = read_dress(presentation(value["step"]))
        return {**value, "step": {**shown, **write_step(settled(state, wanted.step.step()))}}
    if isinstance(wanted, RemakeDocument):
        return {**value, **remake(wanted.step.step())}
    if isinstance(wanted, UseDocument):
        return {**value, "steps": [write_step(step) for step in wanted.made()]}
    return dict(value)  # these allow no other fields than their own


RULED = ("id", "make", "from", "at", "pick", "other_than", "nearest_to", "farthest_from")


def presentation(step: JsonObject) -> JsonObject:
    """The fields of a step that only concern how it is shown."""
    return {name: value for name, value in step.items() if name not in RULED}
