"""The school's identity provider, and whose account here somebody's account there is."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, joinedload

from ...documents.formats.roster import LONGEST_NAME
from ...documents.language import gettext as _
from ...joining import openid
from ...joining.openid import Client
from ..models import BrowserSession, Identity, IdentityProvider, Person, now
from ..people import audit
from ..people.accounts import LONGEST_LOGIN, digest
from ..people.passwords import as_login
from ..people.roster import free_logins
from ..refused import Refused
from ..states import Action, Role


def source_of(issuer: str) -> str:
    """What identities from a provider are told by; those of another provider are others, whatever it calls people."""
    return f"accounts {digest(issuer)[:16]}"


LONGEST, LONGEST_NAME_OF_PROVIDER, LONGEST_CLAIM = 255, 60, 60


def present(session: Session) -> IdentityProvider | None:
    """The provider, if one is set."""
    return session.get(IdentityProvider, 1)


def as_typed(provider: IdentityProvider | None) -> dict[str, str]:
    """The provider as it stands in the form; its secret is not shown again."""
    if provider is None:
        return {"claim": "preferred_username", "groups_claim": "groups"}
    return {
        "name": provider.name,
        "issuer": provider.issuer,
        "client_id": provider.client_id,
        "claim": provider.claim,
        "matches": "yes" if provider.matches else "",
        "groups_claim": provider.groups_claim,
        "teacher_groups": "\n".join(provider.teacher_groups),
        "student_groups": "\n".join(provider.student_groups),
    }


def store(
    session: Session, by: Person | None, fields: Mapping[str, str], described: dict[str, Any], unsafe: bool = False
) -> IdentityProvider:
    """Set the provider, or change it. ``described``: what it says of itself. Raises Refused.

    An empty secret leaves the one that is known.
    """
    said = {name: value.strip() for name, value in fields.items()}
    found = present(session) or IdentityProvider(only=1, client_secret="")
    check(said, unsafe)
    if not said.get("client_secret") and not found.client_secret:
        raise Refused(_("Write the client secret, as the provider shows it."))
    for name in ("name", "issuer", "client_id", "claim", "groups_claim"):
        setattr(found, name, said.get(name, ""))
    found.client_secret = said.get("client_secret") or found.client_secret
    found.matches = bool(said.get("matches"))
    found.teacher_groups, found.student_groups = (
        [line.strip() for line in said.get(name, "").splitlines() if line.strip()]
        for name in ("teacher_groups", "student_groups")
    )
    found.described = described
    session.add(found)
    audit.record(session, by, Action.PROVIDER_SET)
    session.flush()
    return found


def check(said: Mapping[str, str], unsafe: bool = False) -> None:
    """That what was filled in can be a provider. Raises Refused."""
    if not said.get("name") or len(said["name"]) > LONGEST_NAME_OF_PROVIDER:
        raise Refused(_("Write a name, of %(most)s characters at most: it stands on the button.", most=60))
    schemes = ("https://", "http://") if unsafe else ("https://",)
    if not said.get("issuer", "").startswith(schemes) or len(said["issuer"]) > LONGEST:
        raise Refused(_("Write the issuer: it begins with https://."))
    if not said.get("client_id") or len(said["client_id"]) > LONGEST or len(said.get("client_secret", "")) > LONGEST:
        raise Refused(_("Write the client ID and the client secret, as the provider shows them."))
    if not said.get("claim") or max(len(said["claim"]), len(said.get("groups_claim", ""))) > LONGEST_CLAIM:
        raise Refused(_("Write the claim that is the login here, as in preferred_username or email."))


def remove(session: Session, by: Person) -> None:
    """Let people sign in with the school's accounts no more; accounts here stay, and who is in stays in."""
    session.execute(delete(IdentityProvider))
    audit.record(session, by, Action.PROVIDER_SET)


def client_of(provider: IdentityProvider, redirect_address: str) -> Client:
    """What the provider knows this program as."""
    return Client(provider.issuer, provider.client_id, provider.client_secret, redirect_address)


def person_for(session: Session, provider: IdentityProvider, claims: Mapping[str, Any]) -> Person:
    """The account of who has signed in at the provider: known, found by its login, or made by its groups.

    Raises Refused with why there is none.
    """
    subject, source = str(claims["sub"])[:LONGEST], source_of(provider.issuer)
    wanted = select(Identity).join(Identity.person).where(Identity.source == source, Identity.subject == subject)
    known = session.scalar(wanted.options(joinedload(Identity.person)))
    if known is None:
        try:
            with session.begin_nested():
                known = _first_time(session, provider, claims, subject)
        except IntegrityError:  # in another window, at the same moment; or the account lies in the bin
            known = session.scalar(wanted)
    if known is None:
        raise Refused(_("Your account was removed. Ask your teacher."))
    if known.person.left is not None:
        raise Refused(_("This account is not in use any more. Ask whoever looks after the school."))
    known.seen = now()
    return known.person


def _first_time(session: Session, provider: IdentityProvider, claims: Mapping[str, Any], subject: str) -> Identity:
    login, role = login_of(provider, claims), role_of(provider, claims)
    here = session.scalar(select(Person).where(Person.login == login)) if login and provider.matches else None
    if here is None:
        if role is None:
            raise Refused(
                _("There is no account here for %(name)s. Ask whoever looks after the school.", name=login or subject)
            )
        here = _make(session, claims, login, role)
    made = Identity(person=here, source=source_of(provider.issuer), subject=subject, role=here.role)
    session.add(made)
    session.flush()
    return made


def _make(session: Session, claims: Mapping[str, Any], login: str, role: Role) -> Person:
    given, family = (" ".join(str(claims.get(part) or "").split()) for part in ("given_name", "family_name"))
    name = (" ".join(str(claims.get("name") or "").split()) or f"{given} {family}".strip() or login)[:LONGEST_NAME]
    is_free = login and session.scalar(select(Person.id).where(Person.login == login)) is None
    made = Person(login=login if is_free else free_logins(session, [name])[0], name=name, role=role, password_hash="")
    if family and family in name:
        made.family_name = family
    session.add(made)
    session.flush()
    audit.record(session, None, Action.ACCOUNT_MADE, made.id)
    return made


def login_of(provider: IdentityProvider, claims: Mapping[str, Any]) -> str:
    """The login that somebody's claims say; "" for none, and for an address that the provider has not verified."""
    if provider.claim == "email" and claims.get("email_verified") is not True:
        return ""
    said = claims.get(provider.claim)
    login = as_login(said) if isinstance(said, str) else ""
    return login if login.isprintable() and len(login) <= LONGEST_LOGIN and len(login.split()) == 1 else ""


def role_of(provider: IdentityProvider, claims: Mapping[str, Any]) -> Role | None:
    """Which kind of account somebody's groups give; None for none."""
    said = claims.get(provider.groups_claim) if provider.groups_claim else None
    groups = {str(one) for one in said} if isinstance(said, list) else {said} if isinstance(said, str) else set()
    if groups & set(provider.teacher_groups):
        return Role.TEACHER
    return Role.STUDENT if groups & set(provider.student_groups) else None


def remember(session: Session, key_digest: str, provider_session: str, id_token: str) -> None:
    """Keep with a browser's session what is needed to sign out at the provider too."""
    found = session.scalars(select(BrowserSession).where(BrowserSession.digest == key_digest)).one()
    found.provider_session, found.id_token = provider_session[:LONGEST], id_token
    session.flush()


def sign_out_address(session: Session, key: str, back: str) -> str | None:
    """Where the browser with a session's key signs out at the provider too; None for who did not come from there."""
    found = session.scalar(select(BrowserSession).where(BrowserSession.digest == digest(key)))
    there = present(session) if found is not None and found.id_token else None
    if there is None or found is None or not found.id_token or there.described is None:
        return None
    return openid.sign_out_address(there.described, client_of(there, ""), found.id_token, back)


def end_sessions(session: Session, provider_session: str, subject: str) -> int:
    """End what began with a session at the provider, or else all of a person's that came from there; how many."""
    ended = delete(BrowserSession).where(BrowserSession.id_token.is_not(None))
    if provider_session:
        ended = ended.where(BrowserSession.provider_session == provider_session)
    else:
        there = present(session)
        source = source_of(there.issuer if there is not None else "")
        people = select(Identity.person_id).where(Identity.source == source, Identity.subject == subject)
        ended = ended.where(BrowserSession.person_id.in_(people))
    return session.execute(ended).rowcount  # type: ignore[attr-defined,no-any-return]
