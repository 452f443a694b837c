"""Accounts of teachers and administrators: made by invitation, with links that work once, and left or erased again.

Nobody but the person ever knows a password, and no mail server is needed: whoever invites hands a link over.
"""

from __future__ import annotations

import hashlib
import secrets
from datetime import timedelta

from sqlalchemy import delete, func, select, update
from sqlalchemy.orm import Session
from zxcvbn.frequency_lists import FREQUENCY_LISTS  # type: ignore[import-untyped]

from ...documents.formats.demonstration import voices, without_voices
from ...documents.formats.roster import LONGEST_NAME
from ...documents.language import gettext as _
from ..database import WITH_REMOVED
from ..models import (
    AccessToken,
    BrowserSession,
    OneTimeLink,
    Person,
    RecoveryCode,
    Removal,
    SchoolClass,
    TaskSheet,
    now,
)
from ..refused import Refused
from ..states import Action, LinkPurpose, Role
from . import audit
from .passwords import LONGEST_PASSWORD, Passwords, as_login, normal
from .roster import named

LINK_HOLDS = timedelta(days=7)
"""For how long a link can be used."""

LONGEST_LOGIN = 64

SHORTEST_PASSWORD, SHORTEST_WITH_SECOND_FACTOR = 15, 8
"""Characters that a password has at least. Source: NIST SP 800-63B-4, section 3.1.1.2."""

COMMON_PASSWORDS = frozenset(FREQUENCY_LISTS["passwords"])
"""Passwords that many people have, as zxcvbn counts them, in small letters."""


# -- passwords --------------------------------------------------------------------------------------------


def check_password(password: str, login: str, has_second_factor: bool = False, school: str = "") -> None:
    """That somebody may choose a password. There are no rules of composition. Raises Refused.

    Source: NIST SP 800-63B-4: a least length, any characters, and nothing common, repeated or known of the account.

    >>> check_password("four stones in a row", "ada")
    """
    shortest = SHORTEST_WITH_SECOND_FACTOR if has_second_factor else SHORTEST_PASSWORD
    password = normal(password)
    if len(password) < shortest:
        raise Refused(
            _(
                "A password has at least %(least)s characters; three or four words in a row are a good one.",
                least=shortest,
            )
        )
    if len(password) > LONGEST_PASSWORD:
        raise Refused(_("A password has %(most)s characters at most.", most=LONGEST_PASSWORD))
    plain = password.lower()
    for known in (login.lower(), school.lower(), "widepin", "wide pin"):
        if known:
            plain = plain.replace(known, "")
    letters = "".join(plain.split())
    if len(letters) < shortest // 2 or is_repeated(letters):
        raise Refused(_("This password is easily guessed: it is your login, the school's name, or one thing repeated."))
    if letters in COMMON_PASSWORDS or letters.rstrip("0123456789!?.") in COMMON_PASSWORDS:
        raise Refused(_("Many people have this password, so it is tried first. Choose another one."))


def is_repeated(text: str) -> bool:
    """Whether a text is a short piece again and again, or runs through the alphabet or the digits.

    >>> is_repeated("abcabcabcabcab"), is_repeated("123456789012345"), is_repeated("stones in a row")
    (True, True, False)
    """
    pieces = (text[:size] for size in range(1, len(text) // 3 + 1))
    if any((piece * (len(text) // len(piece) + 1)).startswith(text) for piece in pieces):
        return True
    runs = "abcdefghijklmnopqrstuvwxyz" * 2, "0123456789" * 4, "9876543210" * 4, "qwertyuiopasdfghjklzxcvbnm" * 2
    return any(text in run for run in runs)


def change_password(session: Session, person: Person, passwords: Passwords, password: str, school: str = "") -> None:
    """A new password, after which all of the person's browsers have to sign in again. Raises Refused."""
    check_password(password, person.login, person.has_second_factor, school)
    person.password_hash = passwords.hash(normal(password))
    person.end_sessions()
    session.execute(delete(BrowserSession).where(BrowserSession.person_id == person.id))
    audit.record(session, person, Action.PASSWORD_CHANGED, person.id)


# -- links that work once ----------------------------------------------------------------------------------


def digest(token: str) -> str:
    """What is kept of a secret that is long and random."""
    return hashlib.sha256(token.encode(errors="replace")).hexdigest()


def _link(session: Session, purpose: LinkPurpose, **fields: object) -> str:
    token = secrets.token_urlsafe(24)
    session.execute(delete(OneTimeLink).where(OneTimeLink.expires < now()))
    session.add(OneTimeLink(digest=digest(token), purpose=purpose, expires=now() + LINK_HOLDS, **fields))
    session.flush()
    return token


def invite(session: Session, by: Person | None, name: str, administrator: bool = False) -> str:
    """The secret part of a link by which a teacher makes an account. Raises Refused."""
    name = named(name, _("the teacher"))
    audit.record(session, by, Action.INVITED, administrator=administrator)
    return _link(session, LinkPurpose.INVITATION, name=name, administrator=administrator)


def reset(session: Session, by: Person | None, person: Person) -> str:
    """The secret part of a link by which a teacher chooses a new password, and sets a lost second factor aside."""
    session.execute(delete(OneTimeLink).where(OneTimeLink.person_id == person.id))
    audit.record(session, by, Action.RESET_LINK_MADE, person.id)
    return _link(session, LinkPurpose.RESET, person_id=person.id)


def withdraw(session: Session, by: Person, number: int) -> None:
    """Let an invitation work no more. Raises Refused where it was used or withdrawn already."""
    found = session.get(OneTimeLink, number)
    if found is None or found.purpose is not LinkPurpose.INVITATION:
        raise Refused(_("This link was used or withdrawn already."))
    session.delete(found)
    session.flush()
    audit.record(session, by, Action.INVITATION_WITHDRAWN, administrator=found.administrator)


def first_administrator_link(session: Session) -> str | None:
    """The secret part of a link for the first administrator; None where there is an administrator already."""
    if session.scalar(select(func.count()).select_from(Person).where(Person.administrator, Person.left.is_(None))):
        return None
    session.execute(delete(OneTimeLink).where(OneTimeLink.administrator, OneTimeLink.name == ""))
    return _link(session, LinkPurpose.INVITATION, administrator=True)


def open_link(session: Session, token: str) -> OneTimeLink | None:
    """A link that still works, or None."""
    wanted = select(OneTimeLink).where(OneTimeLink.digest == digest(token), OneTimeLink.expires > now())
    return session.scalar(wanted.with_for_update())


def waiting_links(session: Session) -> list[OneTimeLink]:
    """Invitations that nobody has used yet."""
    wanted = select(OneTimeLink).where(OneTimeLink.purpose == LinkPurpose.INVITATION, OneTimeLink.expires > now())
    return list(session.scalars(wanted.order_by(OneTimeLink.made)))


def join(
    session: Session, link: OneTimeLink, passwords: Passwords, name: str, login: str, password: str, school: str = ""
) -> Person:
    """The account that an invitation makes; the link works no more. Raises Refused."""
    name, login = named(name, _("yourself")), as_login(login)
    if not login or len(login) > LONGEST_LOGIN or not login.isprintable() or any(letter.isspace() for letter in login):
        raise Refused(_("A login is one word of at most %(most)s characters, as ada.thorne.", most=LONGEST_LOGIN))
    if session.scalar(select(Person.id).where(Person.login == login)):
        raise Refused(_("Somebody has this login already; choose another one."))
    check_password(password, login, school=school)
    person = Person(
        login=login,
        name=name,
        role=Role.TEACHER,
        administrator=link.administrator,
        password_hash=passwords.hash(normal(password)),
    )
    session.add(person)
    session.delete(link)
    session.flush()
    audit.record(session, person, Action.JOINED, person.id)
    return person


def choose_anew(session: Session, link: OneTimeLink, passwords: Passwords, password: str, school: str = "") -> Person:
    """A new password by a link; a second factor, which may be lost too, is set aside; tokens end. Raises Refused."""
    person = link.person
    if person is None or person.left is not None:
        raise Refused(_("This account is not in use any more."))
    check_password(password, person.login, school=school)
    person.otp_secret = ""
    for kind in (RecoveryCode, AccessToken):
        session.execute(delete(kind).where(kind.person_id == person.id))
    change_password(session, person, passwords, password, school)
    session.delete(link)
    session.flush()
    return person


# -- people ------------------------------------------------------------------------------------------------


def teacher_named(session: Session, login: str) -> Person:
    """The teacher with a login. Raises Refused."""
    found = session.scalar(select(Person).where(Person.login == as_login(login), Person.role == Role.TEACHER))
    if found is None:
        raise Refused(_("Nobody who teaches has the login %(login)s.", login=login[:LONGEST_LOGIN]))
    return found


def make_administrator(session: Session, by: Person, person: Person, administrator: bool) -> None:
    """Let somebody look after the school, or no longer. Raises Refused where nobody would be left to do it."""
    if not administrator:
        _check_other_administrator(session, person)
    person.administrator = administrator
    action = Action.ADMINISTRATOR_MADE if administrator else Action.ADMINISTRATOR_UNMADE
    audit.record(session, by, action, person.id)


def leave(session: Session, by: Person, person: Person) -> None:
    """Somebody has left: no sign-in any more, no tokens, and nothing else is lost. Raises Refused."""
    _check_other_administrator(session, person)
    person.left = now()
    person.end_sessions()
    for kind in (BrowserSession, AccessToken):
        session.execute(delete(kind).where(kind.person_id == person.id))
    audit.record(session, by, Action.LEFT, person.id)


def come_back(session: Session, by: Person, person: Person) -> None:
    """Somebody who had left may sign in again."""
    person.left = None
    audit.record(session, by, Action.CAME_BACK, person.id)


def _check_other_administrator(session: Session, person: Person) -> None:
    others = select(Person.id).where(Person.administrator, Person.left.is_(None), Person.id != person.id)
    if person.administrator and session.scalar(others.limit(1)) is None:
        raise Refused(_("Nobody else looks after the school. Make somebody else an administrator first."))


def erase_teacher(session: Session, by: Person, person: Person, heir: Person) -> None:
    """Erase a teacher with all comments and recordings; classes and tasks go to another one, who keeps what students
    have built.

    Raises Refused.
    """
    if person is heir or heir.left is not None:
        raise Refused(_("Choose somebody else, who still teaches, to take over the classes and tasks."))
    _check_other_administrator(session, person)
    taken = {name for (name,) in session.execute(select(SchoolClass.name).where(SchoolClass.teacher_id == heir.id))}
    every = select(SchoolClass).where(SchoolClass.teacher_id == person.id).execution_options(**WITH_REMOVED)
    for school_class in session.scalars(every):  # those in the bin too, from which they may come back
        school_class.name = free_name(school_class.name, taken)
        taken.add(school_class.name)
        school_class.teacher = heir
        school_class.colleagues = [one for one in school_class.colleagues if one is not heir]
    own = select(TaskSheet).where(TaskSheet.owner_id == person.id).execution_options(**WITH_REMOVED)
    for sheet in session.scalars(own):
        if sheet.demonstration is not None and voices(sheet.demonstration):
            sheet.demonstration = without_voices(sheet.demonstration)
        sheet.owner_id = heir.id
    session.execute(update(Removal).where(Removal.actor_id == person.id).values(actor_id=heir.id))
    session.flush()
    audit.record(session, by, Action.ERASED, person.id, heir=heir.id)
    session.delete(person)
    session.flush()


def free_name(name: str, taken: set[str]) -> str:
    """A name that nobody of these has, with a number where it must be.

    >>> free_name("First year", {"First year", "First year (2)"})
    'First year (3)'
    """
    number, free = 1, name
    while free in taken:
        number += 1
        free = f"{name[: LONGEST_NAME - 6]} ({number})"
    return free
