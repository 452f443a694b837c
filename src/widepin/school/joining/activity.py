"""Which activity is told to a store that the school has named, and how far that has come. Off unless it is set."""

from __future__ import annotations

from datetime import datetime, timedelta

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...joining.xapi import AT_ONCE, HandedIn
from ...judge.verdict import Outcome
from ..models import Assignment, Choice, HandIn, Person, TaskSheet, Work, now
from ..people import audit
from ..refused import Refused
from ..states import Action
from ..turns import locked_by_key
from .scores import pause

CHOICE = "activity"
"""The choice of the store: its address, by what it is asked, and the last hand-in that it was told."""

SETTLED = timedelta(seconds=30)
"""How old a hand-in is before it is told, so that none of a lower number is still being stored."""

LONGEST = 500


def store(session: Session) -> JsonObject | None:
    """The store that is set, and how far it was told; None for none."""
    found = session.get(Choice, CHOICE)
    return found.value if found is not None else None


def set_store(session: Session, by: Person | None, address: str, key: str, secret: str, unsafe: bool = False) -> None:
    """Tell a store from now on, or none. An empty secret leaves the one that is known. Raises Refused."""
    address, before = address.strip().rstrip("/"), store(session) or {}
    audit.record(session, by, Action.ACTIVITY_SET)
    if not address:
        session.execute(delete(Choice).where(Choice.name == CHOICE))
        return
    check(address, key, secret or before.get("secret", ""), unsafe)
    after = before.get("after", session.scalar(select(func.max(HandIn.id))) or 0)  # what was before is not told
    value = {"address": address, "key": key.strip(), "secret": secret or before["secret"], "after": after}
    session.merge(Choice(name=CHOICE, value=value))
    session.flush()


def check(address: str, key: str, secret: str, unsafe: bool) -> None:
    """That what was filled in can be a store. Raises Refused."""
    if not address.startswith(("https://", "http://") if unsafe else ("https://",)) or len(address) > LONGEST:
        raise Refused(_("Write the address of the store: it begins with https://."))
    if not key.strip() or not secret:
        raise Refused(_("Write the key and the secret, as the store shows them."))


def to_tell(session: Session) -> list[HandedIn]:
    """The next hand-ins that the store has not been told, the oldest first; none while it is left alone."""
    there = store(session)
    if there is None or ("next_try" in there and now() < datetime.fromisoformat(there["next_try"])):
        return []
    wanted = (
        select(HandIn, Work.student_id, Assignment.id, TaskSheet.title)
        .join(Work, Work.id == HandIn.work_id)
        .join(Assignment, Assignment.id == Work.assignment_id)
        .join(TaskSheet, TaskSheet.id == Assignment.sheet_id)
        .where(HandIn.id > there["after"], HandIn.handed_in < now() - SETTLED)
        .order_by(HandIn.id)
        .limit(AT_ONCE)
    )
    return [
        HandedIn(
            attempt.id,
            student,
            task,
            title,
            attempt.score,
            attempt.outcome is Outcome.SOUND,
            attempt.moves,
            attempt.handed_in,
        )
        for attempt, student, task, title in session.execute(wanted)
    ]


def told(session: Session, last: int) -> None:
    """The store knows all up to a hand-in."""
    _change(session, {"after": last, "at": now().isoformat()}, ("next_try", "tries", "trouble"))


def failed(session: Session, trouble: str) -> None:
    """The store could not be told; it is tried again, later each time."""
    tries = (store(session) or {}).get("tries", 0)
    next_try = now() + pause(tries)
    _change(session, {"tries": tries + 1, "trouble": trouble[:300], "next_try": next_try.isoformat()}, ())


def _change(session: Session, values: JsonObject, gone: tuple[str, ...]) -> None:
    found = locked_by_key(session, Choice, CHOICE)
    if found is not None:
        found.value = {name: value for name, value in (found.value | values).items() if name not in gone}
        session.flush()
