"""Spoken words of demonstrations: short recordings in open formats, kept once each, known by a digest."""

from __future__ import annotations

from datetime import timedelta
from hashlib import sha256

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from ...documents.formats.demonstration import voices
from ...documents.language import gettext as _
from ..database import WITH_REMOVED
from ..models import Person, Recording, Removal, TaskSheet, now
from ..refused import Refused
from ..states import Removed

LARGEST, MOST = 700_000, 60_000_000
"""Bytes of one recording, some two minutes, and of all that a teacher has."""

BEGINNINGS = {b"\x1aE\xdf\xa3": "audio/webm", b"OggS": "audio/ogg"}
"""How files of the formats that are taken begin."""


def keep(session: Session, owner: Person, sound: bytes) -> Recording:
    """Keep what somebody has said; what is kept already stays as it is. Raises Refused."""
    kind = next((kind for beginning, kind in BEGINNINGS.items() if sound.startswith(beginning)), None)
    if kind is None:
        raise Refused(_("This is no recording in an open format (WebM or Ogg)."))
    if len(sound) > LARGEST:
        raise Refused(_("The recording is too long; say it in less than two minutes, or in two frames."))
    digest = sha256(sound).hexdigest()
    there = session.get(Recording, (owner.id, digest))
    if there is not None:
        return there
    total = session.scalar(select(func.sum(func.length(Recording.sound))).where(Recording.owner_id == owner.id)) or 0
    if total + len(sound) > MOST:
        raise Refused(_("Your demonstrations hold %(most)s MB of recordings, which is all there is room for.", most=60))
    made = Recording(owner_id=owner.id, digest=digest, kind=kind, sound=sound)
    session.add(made)
    session.flush()
    return made


def kept(session: Session, owner: Person, digest: str) -> Recording | None:
    """A recording of somebody's own, whether or not a demonstration names it yet."""
    return session.get(Recording, (owner.id, digest))


def spoken_in(session: Session, sheet: TaskSheet, digest: str) -> Recording | None:
    """What is said in a frame of a task's demonstration; None for what it does not name."""
    if sheet.demonstration is None or digest not in voices(sheet.demonstration):
        return None
    return session.get(Recording, (sheet.owner_id, digest))


def all_spoken_in(session: Session, sheet: TaskSheet) -> dict[str, Recording]:
    """The recordings that a task's demonstration names, by digest."""
    named = voices(sheet.demonstration) if sheet.demonstration is not None else set()
    found = select(Recording).where(Recording.owner_id == sheet.owner_id, Recording.digest.in_(named))
    return {one.digest: one for one in session.scalars(found)}


def take_along(session: Session, sheet: TaskSheet, owner: Person) -> None:
    """Let somebody who copies a task have what is said in its demonstration."""
    for one in all_spoken_in(session, sheet).values():
        if session.get(Recording, (owner.id, one.digest)) is None:
            session.add(Recording(owner_id=owner.id, digest=one.digest, kind=one.kind, sound=one.sound))


IDLE = timedelta(days=30)
"""For which a recording is kept that nothing names any more: so long, what was removed can be had back."""


def sweep(session: Session) -> int:
    """Do without recordings that no demonstration of their owner names any more. Returns how many."""
    found = list(session.scalars(select(Recording).where(Recording.made < now() - IDLE)))
    named: dict[int, set[str]] = {}
    for one in found:
        if one.owner_id not in named:
            named[one.owner_id] = _named_by(session, one.owner_id)
    idle = [one for one in found if one.digest not in named[one.owner_id]]
    for one in idle:
        session.delete(one)
    return len(idle)


def _named_by(session: Session, owner_id: int) -> set[str]:
    """The digests in all demonstrations of a teacher, those in the bin among them."""
    every = select(TaskSheet.demonstration).where(TaskSheet.owner_id == owner_id)
    found = session.scalars(every.execution_options(**WITH_REMOVED))
    kept = select(Removal.kept).where(Removal.actor_id == owner_id, Removal.kind == Removed.DEMONSTRATION)
    removed = (one.get("demonstration") for one in session.scalars(kept))
    return set[str]().union(*(voices(one) for one in (*found, *removed) if one))
