"""Secret addresses of calendars: who knows one reads the due dates of its person, and nothing else."""

from __future__ import annotations

import hashlib
import hmac

from sqlalchemy.orm import Session

from ..models import Person


def renew(person: Person) -> None:
    """Give a person an address, or another one; the one before is void."""
    person.calendar_number = abs(person.calendar_number) + 1


def end(person: Person) -> None:
    """Void a person's address. The number is kept, turned round, so that none ever comes again."""
    person.calendar_number = -abs(person.calendar_number)


def secret_of(key: str, person: Person) -> str | None:
    """The secret part of a person's address, None where there is none. It follows from the server's secret ``key``, so
    that it can be shown again at any time and yet is not in the database.
    """
    if person.calendar_number <= 0:
        return None
    what = f"calendar {person.id} {person.calendar_number}".encode()
    return hmac.digest(key.encode(), what, hashlib.sha256).hex()[:40]


def person_at(session: Session, key: str, number: int, secret: str) -> Person | None:
    """Whose address this is; None for one that does not hold."""
    person = session.get(Person, number)
    right = secret_of(key, person) if person is not None and not person.left else None
    return person if right is not None and hmac.compare_digest(right.encode(), secret.encode()) else None
