"""The keys by which this program signs what it says to other systems."""

from __future__ import annotations

from datetime import timedelta

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from ...joining import tokens
from ..models import Person, SigningKey, now
from ..people import audit
from ..states import Action

STAYS = timedelta(days=2)
"""For how long a key that signs no more is still published: others keep what they have read for a while."""


def current(session: Session) -> SigningKey:
    """The key that signs at present, made where there is none."""
    wanted = select(SigningKey).where(SigningKey.retired.is_(None)).order_by(SigningKey.id.desc()).limit(1)
    return session.scalar(wanted) or _make(session)


def published(session: Session) -> dict[str, list[dict[str, object]]]:
    """The public parts of the present key and of those that signed lately, as others read them (JWKS)."""
    current(session)
    wanted = select(SigningKey).where(SigningKey.retired.is_(None) | (SigningKey.retired > now() - STAYS))
    return tokens.public_keys((key.kid, key.pem) for key in session.scalars(wanted.order_by(SigningKey.id.desc())))


def renew(session: Session, by: Person) -> None:
    """Sign with a new key from now on; the one before is published for a while yet, older ones are thrown away."""
    session.execute(delete(SigningKey).where(SigningKey.retired < now() - STAYS))
    for key in session.scalars(select(SigningKey).where(SigningKey.retired.is_(None))):
        key.retired = now()
    _make(session)
    audit.record(session, by, Action.KEY_RENEWED)


def _make(session: Session) -> SigningKey:
    kid, pem = tokens.new_key()
    made = SigningKey(kid=kid, pem=pem)
    session.add(made)
    session.flush()
    return made
