"""Messages of a platform: that somebody comes from it, to a task or to choose some, read from a signed token."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from urllib.parse import urlencode

from ...documents.language import gettext as _
from ...documents.language import ngettext
from ..tokens import BadToken, KeySet, verified
from . import words

LEEWAY = 300
"""Seconds by which a platform's clock may differ."""

LONGEST_ID = 255
"""Characters of whatever a platform calls people, courses and links. Source: LTI Core 1.3, section 5.3."""


class BadLaunch(Exception):
    """A message that is refused; the message of the error says why, in a clause."""


@dataclass(frozen=True)
class Tool:
    """What a platform knows this program as. ``deployments``: in which it may be used there."""

    issuer: str
    client_id: str
    login_address: str
    deployments: tuple[str, ...]


@dataclass(frozen=True)
class Member:
    """Somebody as a platform knows them. ``teaches``: in the course; ``learns``: in it."""

    subject: str
    name: str
    given_name: str
    family_name: str
    teaches: bool
    learns: bool


@dataclass(frozen=True)
class Launch:
    """Somebody who comes from a platform, to the ``link`` of a course, or to choose tasks for it (``choosing``).

    ``link``: its id, or "" where tasks are chosen; ``custom``: what was stored with the link; ``line_item``: where its
    scores go, "" for nowhere; ``choosing``: the settings of the standard.
    """

    deployment: str
    member: Member
    course: str
    course_title: str
    link: str
    link_title: str
    custom: Mapping[str, str]
    members_address: str
    line_items: str
    line_item: str
    may_send_scores: bool
    choosing: Mapping[str, Any] | None


def login_address(tool: Tool, asked: Mapping[str, str], launch_address: str, state: str, nonce: str) -> str:
    """Where a browser is sent to be told who it is, after a platform ``asked`` for that.

    Source: Security Framework 1.0, section 5.1.1.
    """
    said = {
        "scope": "openid",
        "response_type": "id_token",
        "response_mode": "form_post",
        "prompt": "none",
        "client_id": tool.client_id,
        "redirect_uri": launch_address,
        "login_hint": asked.get("login_hint", ""),
        "state": state,
        "nonce": nonce,
    }
    if hint := asked.get("lti_message_hint"):
        said["lti_message_hint"] = hint
    return tool.login_address + ("&" if "?" in tool.login_address else "?") + urlencode(said)


def read_launch(token: str, tool: Tool, keys: KeySet, nonce: str, at: float) -> Launch:
    """The launch that a token is. ``at``: the present, in seconds of Unix time.

    Raises BadLaunch with what is wrong, and UnknownKey for a key that a newer set may have.
    """
    claims = verified(token, keys)
    _check_envelope(claims, tool, nonce, at)
    if claims.get(words.VERSION) != "1.3.0":
        raise BadLaunch(_("the platform speaks another version of LTI than 1.3"))
    deployment = _text(claims, words.DEPLOYMENT, _("the deployment"))
    if deployment not in tool.deployments:
        raise BadLaunch(_("the deployment “%(name)s” is not registered here", name=deployment))
    kind = claims.get(words.MESSAGE_TYPE)
    if kind not in (words.LAUNCH, words.CHOOSING):
        raise BadLaunch(_("it is a message of a kind that is not known here"))
    context, link = _part(claims, words.CONTEXT), _part(claims, words.LINK)
    grades, custom = _part(claims, words.GRADES), _part(claims, words.CUSTOM)
    course = _text(context, "id", _("the course")) if context else ""
    if kind == words.LAUNCH:
        _text(link, "id", _("the link"))
    elif words.SETTINGS not in claims:
        raise BadLaunch(_("it does not say where the chosen tasks go"))
    return Launch(
        deployment=deployment,
        member=read_member(claims, "sub", claims.get(words.ROLES)),
        course=course,
        course_title=str(context.get("title") or context.get("label") or "").strip(),
        link=str(link.get("id", "")) if kind == words.LAUNCH else "",
        link_title=str(link.get("title", "")).strip(),
        custom={str(name): str(value) for name, value in custom.items()},
        members_address=_address(_part(claims, words.MEMBERS).get("context_memberships_url")),
        line_items=_address(grades.get("lineitems")),
        line_item=_address(grades.get("lineitem")),
        may_send_scores=words.SCORES in grades.get("scope", ()),
        choosing=_part(claims, words.SETTINGS) if kind == words.CHOOSING else None,
    )


def read_member(said: Mapping[str, Any], subject: str, roles: object) -> Member:
    """Somebody as a launch or a list says it; ``subject``: the name of the field that tells people apart.

    Raises BadLaunch. Somebody without a role in the course neither teaches nor learns in it.
    """
    if not isinstance(roles, list):
        raise BadLaunch(_("it does not say who teaches and who learns"))
    found = {words.role_in_course(str(role)) for role in roles}
    given, family = (str(said.get(part) or "").strip() for part in ("given_name", "family_name"))
    name = str(said.get("name") or "").strip() or f"{given} {family}".strip()
    teaches = bool(found & set(words.TEACHES))
    return Member(
        _text(said, subject, _("the person")), name, given, family, teaches, "Learner" in found and not teaches
    )


def _check_envelope(claims: Mapping[str, Any], tool: Tool, nonce: str, at: float) -> None:
    """Whom a token is from and for, and whether it is of now. Source: Security Framework 1.0, section 5.1.3."""
    if claims.get("iss") != tool.issuer:
        raise BadLaunch(_("it comes from another platform than it was asked of"))
    audience = claims.get("aud")
    audiences = audience if isinstance(audience, list) else [audience]
    party = claims.get("azp", tool.client_id if len(audiences) == 1 else None)
    if tool.client_id not in audiences or party != tool.client_id:
        raise BadLaunch(_("it is meant for another tool"))
    if claims.get("nonce") != nonce:
        raise BadLaunch(_("it answers another question than was asked"))
    made, ends = claims.get("iat"), claims.get("exp")
    if not isinstance(made, int | float) or not isinstance(ends, int | float):
        raise BadLaunch(_("it does not say when it was made, or until when it holds"))
    if made > at + LEEWAY:
        raise BadLaunch(_("the platform’s clock is %(time)s ahead of the clock here", time=clock_off(made - at)))
    if ends < at - LEEWAY:
        raise BadLaunch(_("it ran out %(time)s ago, or the platform’s clock is behind", time=clock_off(at - ends)))


def clock_off(seconds: float) -> str:
    """A difference of clocks in words.

    >>> clock_off(541), clock_off(59)
    ('9 minutes', 'less than a minute')
    """
    if seconds < 60:
        return _("less than a minute")
    return ngettext("%(n)s minute", "%(n)s minutes", round(seconds / 60))


def _part(said: Mapping[str, Any], name: str) -> dict[str, Any]:
    """A part of a message that is a mapping itself; an empty one where it is none."""
    found = said.get(name)
    return dict(found) if isinstance(found, dict) else {}


def _text(said: Mapping[str, Any], name: str, what: str) -> str:
    found = said.get(name)
    if not isinstance(found, str) or not found or len(found) > LONGEST_ID:
        raise BadLaunch(_("it does not say which is %(what)s", what=what))
    return found


def _address(found: object) -> str:
    """An address of a service; "" for what is none."""
    return found if isinstance(found, str) and found.startswith(("https://", "http://")) and len(found) <= 500 else ""


__all__ = ["BadLaunch", "BadToken", "Launch", "Member", "Tool", "clock_off", "login_address", "read_launch"]
