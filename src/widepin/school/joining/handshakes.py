"""Questions to other systems that are answered by way of a browser: each is asked once, and answered once."""

from __future__ import annotations

import secrets
from datetime import timedelta

from sqlalchemy import Select, delete, select
from sqlalchemy.orm import Session

from ...documents.reading import JsonObject
from ..database import Sessions
from ..models import Handshake, now
from ..people.accounts import digest
from ..states import Question

HOLDS = {
    Question.LAUNCH: timedelta(minutes=10),
    Question.FIRST_VISIT: timedelta(minutes=30),
    Question.CHOOSING: timedelta(hours=4),
    Question.REGISTERING: timedelta(hours=1),
    Question.SIGN_IN: timedelta(minutes=20),
}
"""For how long an answer is waited for."""


def ask(session: Session, question: Question, kept: JsonObject) -> str:
    """The secret of a new question; ``kept``: what is to be known when it is answered."""
    secret = secrets.token_urlsafe(24)
    session.execute(delete(Handshake).where(Handshake.expires < now()))
    expires = now() + HOLDS[question]
    session.add(Handshake(digest=digest(secret), question=question, kept=kept, expires=expires))
    session.flush()
    return secret


def look(session: Session, question: Question, secret: str) -> JsonObject | None:
    """What is kept of a question that is open; None for one that was answered, ran out or was never asked."""
    found = session.scalar(_open(question, secret))
    return found.kept if found is not None else None


def answer(session: Session, question: Question, secret: str) -> JsonObject | None:
    """As ``look``; the question is answered by that, so that of several answers one alone gets what is kept."""
    found = session.scalar(_open(question, secret))
    if found is None:
        return None
    kept = found.kept
    gone = session.execute(delete(Handshake).where(Handshake.id == found.id))
    return kept if gone.rowcount == 1 else None  # type: ignore[attr-defined]


def answer_for_good(sessions: Sessions, question: Question, secret: str) -> JsonObject | None:
    """As ``answer``, whatever becomes of the request."""
    with sessions() as session:
        kept = answer(session, question, secret)
        session.commit()
    return kept


def _open(question: Question, secret: str) -> Select[Handshake]:
    return select(Handshake).where(
        Handshake.digest == digest(secret), Handshake.question == question, Handshake.expires > now()
    )
