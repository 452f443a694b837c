"""Long work that somebody waits for: begun once, whoever asks on whichever server; how far it is, and what came of it.

What comes of it is kept for a while, in small parts, so that it is fetched from any server.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import partial
from time import monotonic

from sqlalchemy import delete, select, update
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.orm import Session

from ..documents.reading import JsonObject
from .database import Sessions, in_transaction
from .models import Job, JobPart, now
from .parts import parts_of
from .states import JobState

SILENCE = timedelta(seconds=20)
"""After which work that has not said how far it is has been left, and is begun again."""

MAX_TRIES = 3
"""How often work is begun that is left each time."""

KEPT = timedelta(hours=1)
"""For how long what came of it is kept."""

OFTEN = 0.5
"""Seconds between two notes of how far it is."""

Tell = Callable[[str, int, int], None]
"""Takes what is going on, how much of it is done, and how much there is."""


class Stopped(Exception):
    """Nobody waits for the work any more: it was stopped."""


@dataclass(frozen=True)
class Standing:
    """How work stands. ``told``: what it said last, None where it has not begun; ``at``: when.

    ``is_mine_to_start``: whether it is for whoever asked to have it started.
    """

    state: JobState
    told: JsonObject | None = None
    at: datetime = datetime.min
    is_mine_to_start: bool = False


def ask(session: Session, key: str, whose: int) -> Standing:
    """How the work with a key stands; noted as begun where it is not, and the person has no other under way.

    Work that was left is begun again, so often; then it has failed.
    """
    at = now()
    found = session.get(Job, key, with_for_update=True, populate_existing=True)
    if found is not None and found.state in (JobState.DONE, JobState.FAILED):
        return Standing(found.state, found.told, found.alive)
    if found is not None and at - found.alive < SILENCE:
        return Standing(found.state, found.told, found.alive)
    if found is not None and found.tries >= MAX_TRIES:
        found.state = JobState.FAILED
        return Standing(found.state, found.told, found.alive)
    if _others(session, key, whose):
        return Standing(JobState.WAITING)
    if found is None:
        made = insert(Job).values(
            key=key, person_id=whose, state=JobState.WAITING, alive=at - 2 * SILENCE, tries=0, told=None
        )
        session.execute(made.on_duplicate_key_update(key=key))
        found = session.get_one(Job, key, with_for_update=True, populate_existing=True)
        if at - found.alive < SILENCE:  # somebody else was first
            return Standing(found.state, found.told, found.alive)
    found.alive, found.tries, found.state = at, found.tries + 1, JobState.WAITING
    return Standing(JobState.WAITING, None, is_mine_to_start=True)


def _others(session: Session, key: str, whose: int) -> bool:
    """Whether other work of a person's is under way."""
    under_way = (JobState.WAITING, JobState.RUNNING)
    wanted = select(Job.key).where(
        Job.person_id == whose, Job.key != key, Job.state.in_(under_way), Job.alive > now() - SILENCE
    )
    return session.scalar(wanted.limit(1)) is not None


def standing(session: Session, key: str) -> Standing | None:
    """How work stands, without beginning it; None where it is not known."""
    found = session.get(Job, key, populate_existing=True)
    return None if found is None else Standing(found.state, found.told, found.alive)


def stop(session: Session, key: str, whose: int) -> None:
    """Stop work that a person has begun."""
    session.execute(delete(Job).where(Job.key == key, Job.person_id == whose, Job.state != JobState.DONE))


def forget(session: Session, key: str) -> None:
    """Stop work that is under way, and forget what came of it."""
    session.execute(delete(Job).where(Job.key == key))


def result(session: Session, key: str) -> bytes:
    """What came of work that is done."""
    wanted = select(JobPart.content).where(JobPart.job_key == key).order_by(JobPart.number)
    return b"".join(session.scalars(wanted))


def clear_away(session: Session) -> None:
    """Forget what was made long ago, work for work."""
    for key in session.scalars(select(Job.key).where(Job.alive < now() - KEPT).limit(50)).all():
        forget(session, key)
        session.commit()


def do(sessions: Sessions, key: str, work: Callable[[Tell], bytes]) -> None:
    """Do the work with a key, and keep what came of it. Nothing comes of it where it is stopped meanwhile."""
    last = 0.0

    def tell(what: str, done: int, of: int) -> None:
        nonlocal last
        if monotonic() - last > OFTEN:
            _note(sessions, key, {"what": what, "done": done, "of": of})
            last = monotonic()

    try:
        content = work(tell)
        for number, part in enumerate(parts_of(content)):
            in_transaction(sessions, partial(_keep, key, number, part))
    except Stopped:
        return
    in_transaction(sessions, lambda session: _end(session, key, JobState.DONE))


def fail(sessions: Sessions, key: str) -> None:
    """Note that nothing comes of work that is not done: it took too much, or something in it was wrong."""
    in_transaction(sessions, lambda session: _end(session, key, JobState.FAILED))


def _note(sessions: Sessions, key: str, told: JsonObject) -> None:
    def note(session: Session) -> int:
        still = update(Job).where(Job.key == key).values(state=JobState.RUNNING, told=told, alive=now())
        return int(session.execute(still).rowcount)  # type: ignore[attr-defined]

    if not in_transaction(sessions, note):
        raise Stopped


def _keep(key: str, number: int, part: bytes, session: Session) -> None:
    if session.get(Job, key) is None:
        raise Stopped
    session.merge(JobPart(job_key=key, number=number, content=part))


def _end(session: Session, key: str, state: JobState) -> None:
    ended = update(Job).where(Job.key == key, Job.state != JobState.DONE).values(state=state, alive=now())
    session.execute(ended)
