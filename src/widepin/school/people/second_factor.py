"""A second factor: one-time codes that follow from a shared secret and the time, and recovery codes.

Source: RFC 6238 (TOTP), by pyotp. A code is taken once, and a half minute early or late.
"""

from __future__ import annotations

import secrets
import time

import pyotp
from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from .. import turns
from ..models import LETTERS, Person, RecoveryCode
from ..states import Action
from . import audit
from .accounts import digest

RECOVERY_CODES = 10
STEP = 30
"""Seconds for which a code holds."""


def new_secret() -> str:
    """A secret for an app that makes codes."""
    return pyotp.random_base32()


def address_of(secret: str, person: Person, school: str) -> str:
    """What the QR picture for such an app says."""
    return pyotp.TOTP(secret).provisioning_uri(name=person.login, issuer_name=school)


def step_of(secret: str, code: str, at: float | None = None) -> int | None:
    """The number of the half minute whose code this is, the last one, this or the next; None where it is none.

    >>> secret = "JBSWY3DPEHPK3PXP" * 2
    >>> step_of(secret, pyotp.TOTP(secret).at(3000), 3010), step_of(secret, "000000", 3010)
    (100, None)
    """
    current, typed = int(time.time() if at is None else at) // STEP, "".join(code.split())
    made = pyotp.TOTP(secret)
    return next(
        (
            step
            for step in (current, current - 1, current + 1)
            if secrets.compare_digest(made.at(step * STEP), typed.encode("ascii", "replace").decode())
        ),
        None,
    )


def begin(session: Session, person: Person, secret: str, code: str) -> list[str] | None:
    """Set a second factor, once its first code is right; the recovery codes, or None where it is not."""
    step = step_of(secret, code)
    if step is None:
        return None
    person.otp_secret, person.otp_step = secret, step
    audit.record(session, person, Action.SECOND_FACTOR_SET, person.id)
    return new_recovery_codes(session, person)


def end(session: Session, person: Person) -> None:
    """Do without a second factor."""
    person.otp_secret = ""
    session.execute(delete(RecoveryCode).where(RecoveryCode.person_id == person.id))
    audit.record(session, person, Action.SECOND_FACTOR_REMOVED, person.id)


def new_recovery_codes(session: Session, person: Person) -> list[str]:
    """New recovery codes in the place of the old ones. They are shown once, and only their digests are kept."""
    session.execute(delete(RecoveryCode).where(RecoveryCode.person_id == person.id))
    codes = ["".join(secrets.choice(LETTERS) for _letter in range(10)) for _code in range(RECOVERY_CODES)]
    session.add_all(RecoveryCode(person_id=person.id, digest=digest(code)) for code in codes)
    return [f"{code[:5]}-{code[5:]}" for code in codes]


def codes_left(session: Session, person: Person) -> int:
    """How many recovery codes a person has."""
    return (
        session.scalar(select(func.count()).select_from(RecoveryCode).where(RecoveryCode.person_id == person.id)) or 0
    )


def fits(session: Session, person: Person, code: str) -> bool:
    """Whether this is a code of the person's that was not used before; it is used now."""
    step = step_of(person.otp_secret, code)
    if step is not None:
        locked = turns.locked(session, person)
        if step <= locked.otp_step:
            return False
        locked.otp_step = step
        return True
    typed = "".join(letter for letter in code.upper() if letter in LETTERS)
    used = delete(RecoveryCode).where(RecoveryCode.person_id == person.id, RecoveryCode.digest == digest(typed))
    return bool(session.execute(used).rowcount)  # type: ignore[attr-defined]
