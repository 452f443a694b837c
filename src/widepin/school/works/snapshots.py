"""Boards kept in memory, so that one more operation costs no reading and checking of all those before it.

The log in the database is what counts, and only grows: a snapshot reads what came since. It knows the key of its last
operation; where the log has another one in its place (a backup was restored, say), the snapshot is of another log and
is thrown away. Each process of the server keeps its own, and can lose them at any time.
"""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import and_, bindparam, select
from sqlalchemy.orm import Session

from ...documents.formats.operations import read_operation
from ...documents.reading import JsonObject
from ...judge.task import Task
from ..models import Base, Work
from .history import History
from .packing import unpack

MAX_OPERATIONS_KEPT = 30_000
"""Operations of all snapshots of a process together, about a kilobyte each: some hundred boards in mid-lesson."""


@dataclass
class Snapshot:
    """A board after operation ``number`` of its log. ``keys``: the numbers of its operations, by their keys."""

    state: History
    number: int = 0
    keys: dict[str, int] = field(default_factory=dict)

    @property
    def last_key(self) -> str:
        """The key of its last operation, empty where there is none."""
        return next(reversed(self.keys), "")

    def apply(self, number: int, key: str, document: JsonObject) -> None:
        """Do the next operation of the log."""
        self.state.apply(read_operation(document))
        self.number = self.keys[key] = number


Whose = tuple[int, int]
"""The numbers of an assignment and of a student."""


class Snapshots:
    """The snapshots of a process, by assignment and student; those used longest ago go first."""

    def __init__(self, most: int = MAX_OPERATIONS_KEPT):
        self.most, self.count = most, 0
        self.kept: OrderedDict[Whose, Snapshot] = OrderedDict()
        self.lock = threading.Lock()

    def take(self, whose: Whose) -> Snapshot | None:
        """The snapshot of a work, which is then nobody else's; None where there is none."""
        with self.lock:
            found = self.kept.pop(whose, None)
            if found is not None:
                self.count -= found.number
            return found

    def keep(self, whose: Whose, snapshot: Snapshot) -> None:
        """Keep a snapshot for the next time."""
        with self.lock:
            if (before := self.kept.pop(whose, None)) is not None:
                self.count -= before.number
            self.kept[whose] = snapshot
            self.count += snapshot.number
            while self.count > self.most:
                self.count -= self.kept.popitem(last=False)[1].number


SNAPSHOTS = Snapshots()


def of(work: Work) -> Whose:
    """Whose board a work is."""
    return work.assignment_id, work.student_id


def current(session: Session, work: Work, task: Task) -> Snapshot:
    """The board of a work whose lock is held, from a snapshot and the operations since.

    It is the caller's alone, and to be given to ``SNAPSHOTS.keep`` only as it was read: what a transaction has not
    committed is not kept.
    """
    found = SNAPSHOTS.take(of(work)) or Snapshot(History(task))
    return caught_up(session, work, task, found, _since(session, work, found.number))


def opened(session: Session, assignment_id: int, student_id: int, task: Task) -> tuple[Work, Snapshot] | None:
    """A work, locked, and its board, as by ``current``, in one query; None where no work is begun."""
    found = SNAPSHOTS.take((assignment_id, student_id)) or Snapshot(History(task))
    rows = session.execute(_OPENED, {"assignment": assignment_id, "student": student_id, "number": found.number}).all()
    if not rows:
        return None
    work = rows[0][0]
    return work, caught_up(session, work, task, found, [row[1:] for row in rows if row[1] is not None])


def caught_up(session: Session, work: Work, task: Task, found: Snapshot, rows: Sequence[Any]) -> Snapshot:
    """A snapshot with the operations since; ``rows``: their numbers, keys and documents, from its own last one on.

    A log that is packed is unpacked: something is to be added to it.
    """
    if work.packed_operations:
        unpack(session, work)
        found, rows = Snapshot(History(task)), _since(session, work, 0)
    elif found.number:
        if not rows or tuple(rows[0][:2]) != (found.number, found.last_key):
            found, rows = Snapshot(History(task)), _since(session, work, 0)
        else:
            rows = rows[1:]
    found.state.task = task  # a class may have gone over to another version
    for number, key, document in rows:
        found.apply(number, key, document)
    return found


LOG = Base.metadata.tables["operation"].c
_SINCE = (  # statements of every save, made once
    select(LOG.number, LOG.key, LOG.document)
    .where(LOG.work_id == bindparam("work"), LOG.number >= bindparam("number"))
    .order_by(LOG.number)
)
_OPENED = (
    select(Work, LOG.number, LOG.key, LOG.document)
    .outerjoin(Base.metadata.tables["operation"], and_(LOG.work_id == Work.id, LOG.number >= bindparam("number")))
    .where(Work.assignment_id == bindparam("assignment"), Work.student_id == bindparam("student"))
    .order_by(LOG.number)
    .with_for_update()
    .execution_options(populate_existing=True)
)


def _since(session: Session, work: Work, number: int) -> list[Any]:
    """The operations of a work from a number on, that one included."""
    return list(session.execute(_SINCE, {"work": work.id, "number": number}))
