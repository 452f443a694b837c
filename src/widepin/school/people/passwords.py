"""Accounts and passwords."""

from __future__ import annotations

import unicodedata
from functools import cache

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from ..models import Person

LONGEST_PASSWORD = 200


def as_login(name: str) -> str:
    """A login as it is looked up, from what was typed."""
    return name.strip().lower()


def normal(password: str) -> str:
    """A password as it is hashed: the same text, however a keyboard makes its characters."""
    return unicodedata.normalize("NFC", password)


class Passwords:
    """Hashes and checks passwords with argon2id."""

    def __init__(self, time_cost: int = 2, memory_kib: int = 19_456):
        self.hasher = PasswordHasher(time_cost=time_cost, memory_cost=memory_kib, parallelism=1)
        self._nobody = cache(lambda: self.hasher.hash("nobody has this password"))

    def hash(self, password: str) -> str:
        """The hash to keep."""
        return self.hasher.hash(password)

    def fits(self, person: Person | None, password: str) -> bool:
        """Whether this is the person's password. Takes as long for nobody as for somebody."""
        kept = person.password_hash if person and person.password_hash else self._nobody()
        try:
            self.hasher.verify(kept, password[:LONGEST_PASSWORD])
        except (VerificationError, InvalidHashError):
            return False
        return True
