"""Where somebody is signed in: seen on one's own page, and ended from there."""

from __future__ import annotations

import re
import secrets
from contextlib import suppress
from datetime import timedelta

from sqlalchemy import delete, select, update
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session, joinedload

from ..database import Sessions, in_transaction
from ..models import BrowserSession, Person, now
from ..states import Action
from . import audit
from .accounts import digest

KEPT = timedelta(days=1)
"""For how long a session that has run out is kept in the list."""


def begin(session: Session, person: Person, address: str, agent: str) -> str:
    """The key of a new session, which the cookie carries."""
    key = secrets.token_urlsafe(24)
    session.execute(delete(BrowserSession).where(BrowserSession.seen < now() - KEPT))
    made = BrowserSession(digest=digest(key), person_id=person.id, address=address[:45], browser=browser_of(agent))
    session.add(made)
    session.flush()
    return key


def still_here(sessions: Sessions, number: int) -> None:
    """Write down, by the number of a browser's session, that somebody is still there; apart, so that requests of one
    browser do not wait for each other. Where the database cannot, it is written down another time.
    """
    still = update(BrowserSession).where(BrowserSession.id == number).values(seen=now())
    with suppress(DBAPIError):
        in_transaction(sessions, lambda session: session.execute(still))


def known(session: Session, key: str) -> BrowserSession | None:
    """The session with a key, with its person."""
    wanted = select(BrowserSession).where(BrowserSession.digest == digest(key))
    return session.scalar(wanted.options(joinedload(BrowserSession.person, innerjoin=True)))


def of(session: Session, person: Person) -> list[BrowserSession]:
    """The sessions of a person, the last seen first."""
    wanted = select(BrowserSession).where(BrowserSession.person_id == person.id)
    return list(session.scalars(wanted.order_by(BrowserSession.seen.desc())))


def end(session: Session, key: str) -> None:
    """End the session with a key."""
    session.execute(delete(BrowserSession).where(BrowserSession.digest == digest(key)))


def end_one(session: Session, person: Person, number: int) -> None:
    """End a session of a person's own by its number."""
    session.execute(delete(BrowserSession).where(BrowserSession.id == number, BrowserSession.person_id == person.id))
    audit.record(session, person, Action.SESSIONS_ENDED, person.id)


def end_others(session: Session, person: Person, key: str) -> None:
    """End all sessions of a person but the one with this key."""
    others = delete(BrowserSession).where(BrowserSession.person_id == person.id, BrowserSession.digest != digest(key))
    session.execute(others)
    audit.record(session, person, Action.SESSIONS_ENDED, person.id)


def browser_of(agent: str) -> str:
    """A kind of browser and system in words, as far as the browser says; nothing that tells one person from another.

    >>> browser_of("Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/120.0 Safari/537.36")
    'Chrome on Linux'
    """
    kinds = (("Edg/", "Edge"), ("Firefox/", "Firefox"), ("Chrome/", "Chrome"), ("Safari/", "Safari"))
    systems = (
        ("Android", "Android"),
        ("iPhone|iPad", "iOS"),
        ("Windows", "Windows"),
        ("Mac OS", "macOS"),
        ("CrOS", "ChromeOS"),
        ("Linux", "Linux"),
    )
    kind = next((name for mark, name in kinds if mark in agent), "")
    system = next((name for marks, name in systems if re.search(marks, agent)), "")
    return " on ".join(part for part in (kind, system) if part)
