"""Whom other systems know: the account of somebody who comes from there, or who is on a list."""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, joinedload

from ...documents.formats.roster import LONGEST_NAME
from ...documents.language import gettext as _
from ...joining.lti.launches import Member
from ..models import Identity, Person, Work, now
from ..people import audit
from ..people.roster import free_logins
from ..refused import Refused
from ..states import Action, Role


def role_of(member: Member) -> Role | None:
    """Which kind of account somebody needs in a course; None for who neither teaches nor learns there."""
    if member.teaches:
        return Role.TEACHER
    return Role.STUDENT if member.learns else None


def known(session: Session, source: str, subjects: Iterable[str], role: Role) -> dict[str, Identity]:
    """Who is known already of those whom a system calls so, by what it calls them; removed people are not."""
    wanted = (
        select(Identity)
        .join(Identity.person)
        .where(Identity.source == source, Identity.subject.in_(list(subjects)), Identity.role == role)
        .options(joinedload(Identity.person))
    )
    return {one.subject: one for one in session.scalars(wanted)}


def account(session: Session, source: str, member: Member, role: Role) -> Identity:
    """The account of somebody whom a system knows, made where there is none; its name is kept in step."""
    found = known(session, source, [member.subject], role).get(member.subject)
    if found is None:
        try:
            with session.begin_nested():
                found = _make(session, source, member, role)
        except IntegrityError:  # the same person came by another window at the same moment
            found = known(session, source, [member.subject], role).get(member.subject)
            if found is None:  # the account was removed, and lies in the bin
                raise Refused(_("Your account was removed. Ask your teacher.")) from None
    keep_name(found.person, member)
    return found


def _make(session: Session, source: str, member: Member, role: Role) -> Identity:
    name = name_of(member)
    (login,) = free_logins(session, [name])
    person = Person(login=login, name=name, role=role, password_hash="")
    session.add(person)
    session.flush()
    made = Identity(person=person, source=source, subject=member.subject, role=role)
    session.add(made)
    session.flush()
    keep_name(person, member)
    audit.record(session, None, Action.ACCOUNT_MADE, person.id)
    return made


def name_of(member: Member) -> str:
    """What somebody is called here; a platform that tells no names is told by a word."""
    return " ".join(member.name.split())[:LONGEST_NAME] or _("Somebody without a name")


def keep_name(person: Person, member: Member) -> None:
    """Take over the name that a platform says, where the account came from there and has no password of its own."""
    name, family = name_of(member), " ".join(member.family_name.split())
    if not member.name or person.password_hash:
        return
    if person.name != name:
        person.name = name
    if family and family in name and person.family_name != family:
        person.family_name = family


def join(session: Session, identity: Identity, person: Person) -> None:
    """Let somebody whom another system knows be a person who is here already, as that person has said.

    The account that was made for the list alone goes, its classes are the person's now. Raises Refused where
    something was done with it, or where it is another kind of account.
    """
    made = identity.person
    if made.id == person.id:
        return
    if made.role is not person.role:
        raise Refused(_("This account is of another kind: one teaches, one learns."))
    if made.password_hash or session.scalar(select(Work.id).where(Work.student_id == made.id).limit(1)) is not None:
        raise Refused(_("Something was done with the new account already, so that both cannot be joined any more."))
    for school_class in list(made.classes):
        made.classes.remove(school_class)
        if school_class not in person.classes:
            person.classes.append(school_class)
    identity.person = person
    session.flush()
    session.delete(made)
    audit.record(session, person, Action.ACCOUNTS_JOINED, person.id)
    session.flush()


def came(identity: Identity) -> None:
    """Write down that somebody came from the other system."""
    identity.seen = now()


def of_source(session: Session, source: str, numbers: Iterable[int]) -> list[Identity]:
    """As whom a system knows some students, by their numbers; those alone whom it knows."""
    wanted = select(Identity).where(
        Identity.source == source, Identity.person_id.in_(list(numbers)), Identity.role == Role.STUDENT
    )
    return list(session.scalars(wanted.options(joinedload(Identity.person))))
