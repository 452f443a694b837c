"""Logs of works that nobody has touched for long, packed: one compressed row in place of one for each operation.

A log is packed wholly or not at all. It is read the same way (``Work.operations``); before anything is added to a
packed one it is unpacked (``snapshots.py``).
"""

from __future__ import annotations

import json
import zlib
from collections.abc import Sequence
from datetime import timedelta
from functools import partial

from sqlalchemy import delete, insert, select
from sqlalchemy.orm import Session

from ..database import Sessions, in_transaction
from ..models import WITH_LOG, Base, Choice, PackedLog, Work, now

UNTOUCHED = timedelta(days=180)
"""After which a log is packed."""

MOST, AT_A_TIME = 2000, 50
"""Works that are looked at in one go, and packed in one transaction."""

PLACE = "packed up to"
"""The name of what is kept of this: {"work": the number of the last work that was looked at}."""

_LOG = Base.metadata.tables["operation"]


def pack_old(sessions: Sessions, most: int = MOST) -> int:
    """Pack what is old among the next works, and begin anew after the last one; how many were looked at."""
    before = now() - UNTOUCHED
    with sessions() as session:
        place = session.get(Choice, PLACE)
        following = select(Work.id, Work.touched, Work.packed_operations).order_by(Work.id).limit(most)
        rows = session.execute(following.where(Work.id > (place.value["work"] if place is not None else 0))).all()
    old = [row.id for row in rows if row.touched < before and not row.packed_operations]
    for first in range(0, len(old), AT_A_TIME):
        in_transaction(sessions, partial(_pack, old[first : first + AT_A_TIME]))
    last = rows[-1].id if len(rows) == most else 0
    in_transaction(sessions, lambda session: session.merge(Choice(name=PLACE, value={"work": last})))
    return len(rows)


def _pack(numbers: list[int], session: Session) -> None:
    still = Work.id.in_(numbers), Work.touched < now() - UNTOUCHED, Work.packed_operations == 0
    pack(session, session.scalars(select(Work).where(*still).options(*WITH_LOG).with_for_update(of=Work)).all())


def pack(session: Session, works: Sequence[Work]) -> None:
    """Pack the logs of works whose locks are held; those that are packed, or empty, stay as they are."""
    chosen = [work for work in works if work.operation_rows and not work.packed_operations]
    if not chosen:
        return
    session.execute(insert(PackedLog), [{"work_id": work.id, "content": _packed(work)} for work in chosen])
    session.execute(delete(_LOG).where(_LOG.c.work_id.in_([work.id for work in chosen])))
    for work in chosen:
        # Its row changes, as it does by a save, which touches what was not touched for long: where both come at once on
        # two servers of a cluster, one of them is given up.
        work.packed_operations = len(work.operation_rows)
    _stored(session, *chosen)


def _packed(work: Work) -> bytes:
    log = [[one.key, one.document, one.stored.isoformat()] for one in work.operation_rows]
    return zlib.compress(json.dumps(log, separators=(",", ":")).encode(), 9)


def unpack(session: Session, work: Work) -> None:
    """Put the operations of a packed log, of a work whose lock is held, into rows of their own again."""
    log = work.operations
    columns = ("work_id", "number", "key", "document", "stored")
    session.execute(insert(_LOG), [{name: getattr(one, name) for name in columns} for one in log])
    session.execute(delete(PackedLog).where(PackedLog.work_id == work.id))
    work.packed_operations = 0
    _stored(session, work)


def _stored(session: Session, *works: Work) -> None:
    session.flush()
    for work in works:
        session.expire(work, ["operation_rows", "packed"])
