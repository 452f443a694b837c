"""The learning platforms that are registered here."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from sqlalchemy import delete, func, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, selectinload

from ...documents.language import gettext as _
from ...documents.language import marked
from ...joining.lti.launches import LONGEST_ID, Tool
from ...joining.lti.services import Credentials
from ..models import Identity, Person, Platform, PlatformCourse, PlatformLink, SentScore, SigningKey
from ..people import audit
from ..refused import Refused
from ..states import Action

ADDRESSES = {
    "login_address": marked("the login address"),
    "token_address": marked("the token address"),
    "keys_address": marked("the address of its keys"),
}
"""Addresses of a platform that have to be known, and what they are called."""

LTI = "lti "
"""What the source of an identity from a platform begins with; its number follows."""

LONGEST_ADDRESS, LONGEST_NAME, MOST_DEPLOYMENTS = 500, 120, 50


@dataclass(frozen=True)
class Described:
    """What is filled in for a platform, read and checked."""

    name: str
    issuer: str
    client_id: str
    login_address: str
    token_address: str
    keys_address: str
    audience: str
    deployments: tuple[str, ...]


def read(fields: Mapping[str, str], unsafe: bool = False) -> Described:
    """What was filled in for a platform. ``unsafe``: addresses without HTTPS are taken, as in the demo. Raises Refused.

    ``fields``: by the names of ``Described``; deployments a line each.
    """
    said = {name: fields.get(name, "").strip() for name in Described.__dataclass_fields__}
    if not said["name"] or len(said["name"]) > LONGEST_NAME:
        raise Refused(_("Write a name for the platform, of %(most)s characters at most.", most=LONGEST_NAME))
    for name, words in (("issuer", _("the issuer")), ("client_id", _("the client ID"))):
        if not said[name] or len(said[name]) > LONGEST_ID:
            raise Refused(_("Write %(what)s, as the platform shows it.", what=words))
    schemes = ("https://", "http://") if unsafe else ("https://",)
    for name, words in ADDRESSES.items():
        if not said[name].startswith(schemes) or len(said[name]) > LONGEST_ADDRESS or " " in said[name]:
            raise Refused(_("Write %(what)s: it begins with https://.", what=_(words)))
    deployments = tuple(dict.fromkeys(line.strip() for line in said["deployments"].splitlines() if line.strip()))
    if len(deployments) > MOST_DEPLOYMENTS or any(len(one) > LONGEST_ID for one in deployments):
        raise Refused(_("Write the deployment IDs, one on each line; %(most)s at most.", most=MOST_DEPLOYMENTS))
    return Described(
        said["name"],
        said["issuer"],
        said["client_id"],
        said["login_address"],
        said["token_address"],
        said["keys_address"],
        said["audience"][:LONGEST_ADDRESS],
        deployments,
    )


def as_typed(platform: Platform) -> dict[str, str]:
    """A platform as it stands in the form."""
    fields = {name: getattr(platform, name) for name in Described.__dataclass_fields__ if name != "deployments"}
    return fields | {"deployments": "\n".join(platform.deployments)}


def store(session: Session, by: Person | None, described: Described, platform: Platform | None = None) -> Platform:
    """Register a platform, or change one. Raises Refused where the same is registered already."""
    made = platform or Platform()
    if platform is not None and platform.issuer != described.issuer:  # what it calls people means others now
        session.execute(delete(Identity).where(Identity.source == source_of(platform)))
    for name in Described.__dataclass_fields__:
        setattr(made, name, list(described.deployments) if name == "deployments" else getattr(described, name))
    made.keys = None
    try:
        with session.begin_nested():
            session.add(made)
            session.flush()
    except IntegrityError:
        raise Refused(_("A platform with this issuer and client ID is registered already.")) from None
    audit.record(session, by, Action.PLATFORM_SET, made.id)
    return made


def remove(session: Session, by: Person, platform: Platform) -> None:
    """Forget a platform: nobody comes from there any more, and no scores go there. Classes and works stay."""
    session.execute(delete(Identity).where(Identity.source == source_of(platform)))
    audit.record(session, by, Action.PLATFORM_REMOVED, platform.id)
    session.delete(platform)
    session.flush()


def every(session: Session) -> list[Platform]:
    """All of them, by name, with their courses and the classes that these are."""
    courses = selectinload(Platform.courses)
    wanted = select(Platform).options(
        courses.joinedload(PlatformCourse.school_class), courses.selectinload(PlatformCourse.links)
    )
    return list(session.scalars(wanted.order_by(Platform.name, Platform.id)))


def named(session: Session, issuer: str, client_id: str) -> Platform | None:
    """The platform that an issuer is; by the client ID where several are from one. None where it cannot be told."""
    wanted = select(Platform).where(Platform.issuer == issuer)
    if client_id:
        wanted = wanted.where(Platform.client_id == client_id)
    found = list(session.scalars(wanted.limit(2)))
    return found[0] if len(found) == 1 else None


def source_of(platform: Platform) -> str:
    """What identities from a platform are told by."""
    return f"{LTI}{platform.id}"


def tool_of(platform: Platform) -> Tool:
    """What a platform knows this program as."""
    return Tool(platform.issuer, platform.client_id, platform.login_address, tuple(platform.deployments))


def credentials_of(platform: Platform, key: SigningKey) -> Credentials:
    """By which this program asks a platform."""
    return Credentials(platform.client_id, platform.token_address, platform.audience, key.kid, key.pem)


def scores_of(session: Session) -> dict[int, tuple[int, int]]:
    """For each platform how many scores were sent, and how many wait, by its number."""
    wanted = (
        select(PlatformCourse.platform_id, func.count(SentScore.sent), func.count(SentScore.waiting))
        .join(PlatformLink, PlatformLink.course_id == PlatformCourse.id)
        .join(SentScore, SentScore.link_id == PlatformLink.id)
        .group_by(PlatformCourse.platform_id)
    )
    return {number: (sent, waiting) for number, sent, waiting in session.execute(wanted)}


def troubles_of(session: Session, platform: Platform) -> Sequence[SentScore]:
    """Scores for a platform whose last try has failed, the latest few."""
    wanted = (
        select(SentScore)
        .join(SentScore.link)
        .join(PlatformLink.course)
        .where(PlatformCourse.platform_id == platform.id, SentScore.trouble != "", SentScore.waiting.is_not(None))
        .order_by(SentScore.next_try)
        .limit(10)
    )
    return list(session.scalars(wanted))
