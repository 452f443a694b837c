"""Signing in: every try is kept, and whoever guesses is put off, longer each time, and nobody else.

Tries are counted on the person or class that is found, not on what was typed, and in the database, so that all
processes of the server count together. A try is recorded as failed before it is looked at, so that many at once do not
pass each other.

They are counted apart for each browser (*device*), which is known by a cookie that says nothing else. Where somebody
has signed in with a browser before, nothing but tries from there puts off the next one from there. Browsers from which
nobody has come yet, and programs that keep no cookie, are counted together besides: on the person or class, and, as the
last, on their address. Personal codes are far too many to be guessed (39 bits), so a right one is let in where others
have failed; only a flood of wrong ones from strange browsers stops that.
"""

from __future__ import annotations

import hashlib
import hmac
from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta
from math import ceil

from sqlalchemy import ColumnElement, and_, delete, func, or_, select, update
from sqlalchemy.orm import Session, joinedload

from ...documents.language import gettext as _
from ...plane.errors import CoreError
from ..database import Sessions, in_transaction
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


@dataclass(frozen=True)
class Limits:
    """How tries to sign in as a person, or into a class, are put off.

    ``device``: those from one browser. ``strange``: those from all browsers from which nobody has come yet.
    ``right_is_let_in``: whether what is put off by these two is looked at all the same, since nobody guesses it right.
    """

    device: Patience
    strange: Patience
    right_is_let_in: bool = False


PERSON = Limits(Patience(5, 60, timedelta(hours=1)), Patience(100, 60, timedelta(hours=1)))
CLASS = Limits(  # thirty students may mistype their cards on one device
    Patience(30, 15, timedelta(minutes=10)), Patience(60, 15, timedelta(minutes=10)), right_is_let_in=True
)
ADDRESS = Patience(300, 30, timedelta(minutes=10))  # a whole school may come from one
FLOOD = Patience(5000, 60, timedelta(hours=1))
"""Wrong codes from strange browsers after which right ones are not looked for any more: at this pace it takes some
250 years until one code of a class of thirty is guessed by an even chance."""

SKEW = timedelta(minutes=1)
"""How much later than now a try may stand in the record. Beyond, the clock was set back since; it does not count."""

KEPT = timedelta(days=90)
"""How long the record of sign-ins goes back, and a browser is known to somebody."""


@dataclass(frozen=True)
class Origin:
    """Where a try comes from: an ``address`` of the network, and a ``device``, the key in a browser's cookie, or ""."""

    address: str
    device: str = ""


class HasLeft(CoreError):
    """The password is right, and the account is not in use any more. The message is for whose account it was."""


class ClassClosed(CoreError):
    """The codes are right, and the class lets nobody in any more. The message is for the student."""


def by_password(
    sessions: Sessions, secret: str, passwords: Passwords, login: str, password: str, origin: Origin
) -> int | None:
    """The number of the person with this login and password, or None.

    Raises TooSoon, and HasLeft for the right password of somebody who has left, which counts as a failed try.
    """
    with sessions() as session:
        person = session.scalar(select(Person).where(Person.login == as_login(login)))
    about = SignIn(person_id=person.id) if person else SignIn(unknown=digest(secret, as_login(login)))

    fits = False

    def look() -> Person | None:
        nonlocal fits
        fits = passwords.fits(person, normal(password))  # also for nobody, and for somebody who has left
        return person if person and fits and not person.left else None

    found = _tried(sessions, about, origin, PERSON, look, _after_password)
    if fits and found is None:
        raise HasLeft(_("This account is not in use any more. Ask whoever looks after the school."))
    return found


def _after_password(person: Person) -> SignInOutcome:
    """A right password alone forgives no wrong codes, or these could be tried without end."""
    return SignInOutcome.HALFWAY if person.has_second_factor else SignInOutcome.SUCCEEDED


def by_second_factor(sessions: Sessions, person: Person, origin: Origin, fits: Callable[[], object]) -> int | None:
    """The number of a person whose password was right, if the second factor fits too. Raises TooSoon."""
    return _tried(sessions, SignIn(person_id=person.id), origin, PERSON, fits)


def confirm_password(sessions: Sessions, passwords: Passwords, person: Person, password: str, origin: Origin) -> bool:
    """Whether somebody who is signed in types the own password right; limited as signing in is. Raises TooSoon."""

    def look() -> Person | None:
        return person if passwords.fits(person, normal(password)) else None

    about = SignIn(person_id=person.id)
    return _tried(sessions, about, origin, PERSON, look, lambda _person: SignInOutcome.CONFIRMED) is not None


def by_code(sessions: Sessions, secret: str, of_class: str, personal: str, origin: Origin) -> int | None:
    """The number of the student of a class with these codes, or None.

    Raises TooSoon, and ClassClosed for right codes of a class that is put away; these count as a failed try.
    """
    with sessions() as session:
        known = session.scalar(select(SchoolClass).where(SchoolClass.code == typed(of_class)))
        student = student_with_code(known, secret, personal) if known else None
        is_closed = known is not None and known.archived is not None
    about = SignIn(class_id=known.id) if known else SignIn(unknown=digest(secret, typed(of_class)))
    found = _tried(sessions, about, origin, CLASS, lambda: None if is_closed else student)
    if is_closed and student is not None:
        raise ClassClosed(_("This class is closed. Ask your teacher for the codes of your new class."))
    return found


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
    sessions: Sessions,
    about: SignIn,
    origin: Origin,
    limits: Limits,
    look: Callable[[], object],
    outcome: Callable[[Person], SignInOutcome] = lambda person: SignInOutcome.SUCCEEDED,
) -> int | None:
    """What a try comes to: recorded first, put off where it must be, looked at else."""
    address, device, at = origin.address, device_digest(origin.device), now()

    def note(session: Session) -> int:
        tried = SignIn(
            person_id=about.person_id,
            class_id=about.class_id,
            unknown=about.unknown or "",
            address=address,
            device=device,
            at=at,
        )
        session.add(tried)
        session.flush()
        return tried.id

    number = in_transaction(sessions, note)
    with sessions() as session:
        seconds, is_flood = _to_wait(session, session.get_one(SignIn, number), limits)
    found = None if seconds > 0 and (is_flood or not limits.right_is_let_in) else look()

    def note_outcome(session: Session) -> None:
        known = update(SignIn).where(SignIn.id == number)
        if isinstance(found, Person):
            session.execute(known.values(outcome=outcome(found), person_id=found.id))
            session.execute(delete(SignIn).where(SignIn.at < now() - KEPT))
        elif seconds > 0:
            session.execute(known.values(outcome=SignInOutcome.PUT_OFF))

    in_transaction(sessions, note_outcome)
    if isinstance(found, Person):
        return found.id
    if seconds > 0:
        raise TooSoon(ceil(seconds))
    return None


def device_digest(key: str) -> str:
    """What is kept of the key of a browser; "" for none.

    >>> device_digest(""), len(device_digest("some key"))
    ('', 16)
    """
    return hashlib.sha256(key.encode(errors="replace")).hexdigest()[:16] if key else ""


def _to_wait(session: Session, about: SignIn, limits: Limits) -> tuple[float, bool]:
    """Seconds that a recorded try has to wait for those that failed before it, 0 or less for none; and whether there
    were so many that even what is right is not looked at.
    """
    if about.person_id:
        same: ColumnElement[bool] = SignIn.person_id == about.person_id
    elif about.class_id:
        same = SignIn.class_id == about.class_id
    else:
        same = SignIn.unknown == about.unknown
    # Of two at once on two servers each may come before the other: then both count.
    before = and_(or_(SignIn.id < about.id, SignIn.at < about.at), SignIn.id != about.id)
    came_with = select(SignIn.device).where(
        same, SignIn.device != "", SignIn.outcome == SignInOutcome.SUCCEEDED, before
    )
    known = set(session.scalars(came_with.distinct()))
    from_here = and_(same, before, SignIn.device == about.device)
    if not about.device:
        from_here = and_(from_here, SignIn.address == about.address)
    if about.person_id:  # signing in forgives what went wrong before; a class has others who do not
        last = select(func.max(SignIn.id)).where(from_here, SignIn.outcome == SignInOutcome.SUCCEEDED)
        from_here = and_(from_here, SignIn.id > (session.scalar(last) or 0))
    seconds = _left(session, about, from_here, limits.device)
    if about.device in known:
        return seconds, False
    strange = and_(same, before, SignIn.device.not_in(known))
    at_address = and_(SignIn.address == about.address, before)
    waits = (
        seconds,
        _left(session, about, strange, limits.strange),
        _left(session, about, at_address, ADDRESS),
    )
    flood = _left(session, about, strange, FLOOD, (SignInOutcome.FAILED, SignInOutcome.PUT_OFF))
    return max(*waits, flood), flood > 0


def _left(
    session: Session,
    about: SignIn,
    tries: ColumnElement[bool],
    patience: Patience,
    wrong: tuple[SignInOutcome, ...] = (SignInOutcome.FAILED,),
) -> float:
    """Seconds that are left of the wait for wrong tries."""
    lately = SignIn.at.between(about.at - patience.window, about.at + SKEW)
    failed = select(func.count(), func.max(SignIn.at)).where(tries, SignIn.outcome.in_(wrong), lately)
    count, last = session.execute(failed).one()
    wait = patience.wait(count)
    return wait - max((about.at - last).total_seconds(), 0.0) if wait else 0.0
