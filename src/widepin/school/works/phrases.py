"""Phrases: comments that a teacher keeps, to be used again."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from ...documents.language import gettext as _
from ..models import Person, Phrase
from ..refused import Refused

MOST_PHRASES = 100


def of(session: Session, teacher: Person) -> list[Phrase]:
    """The phrases of a teacher, in the order of their words."""
    found = session.scalars(select(Phrase).where(Phrase.owner_id == teacher.id))
    return sorted(found, key=lambda phrase: phrase.text.casefold())


def keep(session: Session, teacher: Person, text: str) -> None:
    """Keep a phrase; one that is kept already stays once. Raises Refused."""
    text = text.strip()
    known = of(session, teacher)
    if not text or any(phrase.text == text for phrase in known):
        return
    if len(known) >= MOST_PHRASES:
        raise Refused(
            _("You keep %(most)s phrases already; remove one first, on your account’s page.", most=MOST_PHRASES)
        )
    session.add(Phrase(owner_id=teacher.id, text=text))
    session.flush()


def remove(session: Session, teacher: Person, number: int) -> None:
    """Forget a phrase of a teacher's; nothing for one that is not there."""
    found = session.get(Phrase, number)
    if found is not None and found.owner_id == teacher.id:
        session.delete(found)
