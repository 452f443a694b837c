"""Tokens by which programs act for a teacher: what each may do, until when, and when it was used last."""

from __future__ import annotations

import secrets
from collections.abc import Collection
from datetime import timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from ...documents.language import gettext as _
from ..models import AccessToken, Person, now
from ..refused import Refused
from ..states import Action, Scope
from . import audit
from .accounts import digest

PREFIX = "widepin_"
"""What every token begins with, so that one that was published by mistake is found by who looks for such."""

HOLDS = (30, 90, 365)
"""Days for which a token may hold."""

MOST = 20
"""Tokens that somebody may have."""

LONGEST_NAME = 60

NOTED_EVERY = timedelta(minutes=1)
"""How exactly it is written down when a token was used."""


def make(session: Session, person: Person, name: str, scopes: Collection[str], days: int) -> str:
    """A new token, which is shown once. Raises Refused with what is wrong with what was chosen."""
    name = name.strip()
    if not name or len(name) > LONGEST_NAME:
        raise Refused(_("Say in 1 to %(most)s characters what the token is for.", most=LONGEST_NAME))
    if not scopes or not set(scopes) <= set(Scope):
        raise Refused(_("Choose what the program may do."))
    if days not in HOLDS:
        raise Refused(_("Choose for how long the token holds."))
    if len(of(session, person)) >= MOST:
        raise Refused(_("You have %(most)s tokens; end one that is not needed any more.", most=MOST))
    secret = PREFIX + secrets.token_urlsafe(32)
    session.add(
        AccessToken(
            person_id=person.id,
            digest=digest(secret),
            name=name,
            scopes=[scope.value for scope in Scope if scope in scopes],
            expires=now() + timedelta(days=days),
        )
    )
    session.flush()
    audit.record(session, person, Action.TOKEN_MADE)
    return secret


def of(session: Session, person: Person) -> list[AccessToken]:
    """The tokens of a person, the newest first, those that have run out among them."""
    wanted = select(AccessToken).where(AccessToken.person_id == person.id)
    return list(session.scalars(wanted.order_by(AccessToken.id.desc())))


def end(session: Session, person: Person, number: int) -> None:
    """End a token of a person's own by its number; nothing where there is none."""
    found = session.scalar(select(AccessToken).where(AccessToken.id == number, AccessToken.person_id == person.id))
    if found is not None:
        session.delete(found)
        audit.record(session, person, Action.TOKEN_ENDED)


def known(session: Session, secret: str) -> AccessToken | None:
    """The token that this is, with its person; None for none, and for one that has run out or whose person has left."""
    wanted = select(AccessToken).where(AccessToken.digest == digest(secret)).options(joinedload(AccessToken.person))
    found = session.scalar(wanted)
    if found is None or found.person is None or found.person.left or found.expires <= now():
        return None
    return found


def note_use(token: AccessToken) -> None:
    """Write down that a token is used."""
    if token.used is None or abs(now() - token.used) > NOTED_EVERY:
        token.used = now()
