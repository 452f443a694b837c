"""Accounts and passwords."""

from __future__ import annotations

from functools import cache

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError
from sqlalchemy import select
from sqlalchemy.orm import Session

from .models import Person

LONGEST_PASSWORD = 200


def as_login(name: str) -> str:
    """A login as it is looked up, from what was typed."""
    return name.strip().lower()


class Passwords:
    """Hashes and checks passwords with argon2id."""

    def __init__(self, time_cost: int = 2, memory_kib: int = 19_456):
        self.hasher = PasswordHasher(time_cost=time_cost, memory_cost=memory_kib, parallelism=1)
        self._nobody = cache(lambda: self.hasher.hash("nobody has this password"))

    def hash(self, password: str) -> str:
        """The hash to keep."""
        return self.hasher.hash(password)

    def sign_in(self, session: Session, login: str, password: str) -> Person | None:
        """The person with this login and password, or None. Takes as long for an unknown login as for a known one."""
        person = session.scalar(select(Person).where(Person.login == as_login(login)))
        kept = person.password_hash if person and person.password_hash else self._nobody()
        try:
            self.hasher.verify(kept, password[:LONGEST_PASSWORD])
        except (VerificationError, InvalidHashError):
            return None
        return person
