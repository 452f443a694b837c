"""Signing in: every try is kept, and failed ones make the next wait, longer each time.

Tries are counted on the person or class that is found, not on what was typed, and in the database, so that all
processes of the server count together. A try is recorded as failed before it is looked at, so that many at once do not
pass each other. Where somebody has signed in from an address before, tries from there are counted by themselves:
who tries from elsewhere puts off nobody who sits at the usual place.
"""

from __future__ import annotations

import hashlib
import hmac
from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta
from math import ceil

from sqlalchemy import ColumnElement, and_, delete, func, select, update
from sqlalchemy.orm import Session, joinedload, sessionmaker

from ...plane.errors import CoreError
from ..models import Person, SchoolClass, SignIn, now
from ..states import SignInOutcome
from .passwords import Passwords, as_login, normal
from .roster import student_with_code, typed


class TooSoon(CoreError):
    """Others have failed lately, so that this try was not looked at. ``seconds``: how long to wait."""

    def __init__(self, seconds: int):
        super().__init__(f"wait {seconds} s")
        self.seconds = seconds


@dataclass(frozen=True)
class Patience:
    """How failed tries put off the next: not at all at first, then 1, 2, 4 ... seconds.

    ``free``: failures that cost nothing; ``longest``: seconds of the longest wait; ``window``: for how long a failure
    counts.
    """

    free: int
    longest: int
    window: timedelta

    def wait(self, failures: int) -> int:
        """Seconds between the last of so many failures and the next try."""
        return 0 if failures < self.free else min(self.longest, 2 ** min(failures - self.free, 30))


PERSON = Patience(5, 60, timedelta(hours=1))
CLASS = Patience(60, 15, timedelta(minutes=10))  # thirty students mistype their cards within the same minute
ADDRESS = Patience(300, 30, timedelta(minutes=10))  # a whole school may come from one

KEPT = timedelta(days=90)
"""How long the record of sign-ins goes back."""

USUAL = timedelta(days=30)
"""How long an address counts as one from which somebody signs in."""


def by_password(
    sessions: sessionmaker[Session], secret: str, passwords: Passwords, login: str, password: str, address: str
) -> int | None:
    """The number of the person with this login and password, or None. Raises TooSoon."""
    with sessions() as session:
        person = session.scalar(select(Person).where(Person.login == as_login(login)))
    about = SignIn(person_id=person.id) if person else SignIn(unknown=digest(secret, as_login(login)))

    def look() -> Person | None:
        fits = passwords.fits(person, normal(password))  # also for nobody, and for somebody who has left
        return person if person and fits and not person.left else None

    return _tried(sessions, about, address, PERSON, look, _after_password)


def _after_password(person: Person) -> SignInOutcome:
    """A right password alone forgives no wrong codes, or these could be tried without end."""
    return SignInOutcome.HALFWAY if person.has_second_factor else SignInOutcome.SUCCEEDED


def by_second_factor(
    sessions: sessionmaker[Session], person: Person, address: str, fits: Callable[[], object]
) -> int | None:
    """The number of a person whose password was right, if the second factor fits too. Raises TooSoon."""
    return _tried(sessions, SignIn(person_id=person.id), address, PERSON, fits)


def by_code(sessions: sessionmaker[Session], secret: str, of_class: str, personal: str, address: str) -> int | None:
    """The number of the student of a class with these codes, or None. Raises TooSoon."""
    with sessions() as session:
        known = session.scalar(select(SchoolClass).where(SchoolClass.code == typed(of_class)))
        student = student_with_code(known, secret, personal) if known else None
    about = SignIn(class_id=known.id) if known else SignIn(unknown=digest(secret, typed(of_class)))
    return _tried(sessions, about, address, CLASS, lambda: student)


def digest(secret: str, name: str) -> str:
    """What is kept of a name that nobody has; it may be somebody's password, typed into the wrong field."""
    return hmac.digest(secret.encode(), name.encode(errors="replace"), hashlib.sha256).hex()[:16]


SHOWN = 200
"""Tries on one page."""


def record(session: Session, before: int | None = None) -> list[SignIn]:
    """The newest tries to sign in, or those older than one, the newest first, with whom they concern."""
    wanted = select(SignIn).order_by(SignIn.id.desc()).limit(SHOWN)
    if before is not None:
        wanted = wanted.where(SignIn.id < before)
    return list(session.scalars(wanted.options(joinedload(SignIn.person), joinedload(SignIn.school_class))))


def _tried(
    sessions: sessionmaker[Session],
    about: SignIn,
    address: str,
    patience: Patience,
    look: Callable[[], object],
    outcome: Callable[[Person], SignInOutcome] = lambda person: SignInOutcome.SUCCEEDED,
) -> int | None:
    """What a try comes to: recorded first, put off where it must be, looked at else."""
    with sessions() as session:
        about.address, about.at = address, now()
        session.add(about)
        session.commit()
        seconds = _to_wait(session, about, patience)
        if seconds > 0:
            about.outcome = SignInOutcome.PUT_OFF
            session.commit()
            raise TooSoon(ceil(seconds))
    found = look()
    if not isinstance(found, Person):
        return None
    with sessions() as session:
        known = update(SignIn).where(SignIn.id == about.id)
        session.execute(known.values(outcome=outcome(found), person_id=found.id))
        session.execute(delete(SignIn).where(SignIn.at < now() - KEPT))
        session.commit()
    return found.id


def _to_wait(session: Session, about: SignIn, patience: Patience) -> float:
    """Seconds that a recorded try has to wait for those that failed before it; 0 or less for none."""
    if about.person_id:
        same: ColumnElement[bool] = SignIn.person_id == about.person_id
    elif about.class_id:
        same = SignIn.class_id == about.class_id
    else:
        same = SignIn.unknown == about.unknown
    before = SignIn.id < about.id
    signed_in = select(SignIn.address).where(
        same, SignIn.outcome == SignInOutcome.SUCCEEDED, SignIn.at > about.at - USUAL
    )
    usual = set(session.scalars(signed_in.distinct()))
    from_here = SignIn.address == about.address if about.address in usual else SignIn.address.not_in(usual)
    done = and_(same, from_here, before)
    if about.person_id:  # signing in forgives what went wrong before; a class has others who do not
        last = select(func.max(SignIn.id)).where(done, SignIn.outcome == SignInOutcome.SUCCEEDED)
        done = and_(done, SignIn.id > (session.scalar(last) or 0))
    seconds = _left(session, about, done, patience)
    if about.address in usual:
        return seconds
    return max(seconds, _left(session, about, and_(SignIn.address == about.address, before), ADDRESS))


def _left(session: Session, about: SignIn, tries: ColumnElement[bool], patience: Patience) -> float:
    failed = select(func.count(), func.max(SignIn.at)).where(
        tries, SignIn.outcome == SignInOutcome.FAILED, SignIn.at > about.at - patience.window
    )
    count, last = session.execute(failed).one()
    wait = patience.wait(count)
    return wait - (about.at - last).total_seconds() if wait else 0.0
