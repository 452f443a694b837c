"""Making this program known to a platform that registers tools by itself. Source: Dynamic Registration 1.0."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from urllib.parse import urlsplit

from ...documents.language import gettext as _
from ..http_client import NotReached, ask
from . import words

TOOL = "https://purl.imsglobal.org/spec/lti-tool-configuration"
PLATFORM = "https://purl.imsglobal.org/spec/lti-platform-configuration"


@dataclass(frozen=True)
class Addresses:
    """Where a platform finds this program."""

    home: str
    login: str
    launch: str
    keys: str


@dataclass(frozen=True)
class Registered:
    """A platform as it has described itself, and what it has made of this program."""

    name: str
    issuer: str
    client_id: str
    login_address: str
    token_address: str
    keys_address: str
    audience: str
    deployment: str


def register(configuration: str, token: str, here: Addresses, name: str) -> Registered:
    """Register with the platform whose configuration is at an address, by the token that it gave. Raises NotReached."""
    said = ask("GET", configuration, token=token).json
    if not isinstance(said, dict):
        raise NotReached(_("the platform does not describe itself there"))
    issuer = _field(said, "issuer")
    if urlsplit(issuer).hostname != urlsplit(configuration).hostname:
        raise NotReached(_("the description is of another platform than the one that has it"))
    answer = ask(
        "POST",
        _field(said, "registration_endpoint"),
        token=token,
        body=json.dumps(request_of(here, name)),
    ).json
    if not isinstance(answer, dict):
        raise NotReached(_("the platform did not say what it has registered"))
    platform = said.get(PLATFORM)
    family = platform.get("product_family_code") if isinstance(platform, dict) else None
    tool = answer.get(TOOL)
    return Registered(
        name=str(family or urlsplit(issuer).hostname or issuer)[:120],
        issuer=issuer,
        client_id=_field(answer, "client_id"),
        login_address=_field(said, "authorization_endpoint"),
        token_address=_field(said, "token_endpoint"),
        keys_address=_field(said, "jwks_uri"),
        audience=str(said.get("authorization_server") or "")[:500],
        deployment=str(tool.get("deployment_id") or "") if isinstance(tool, dict) else "",
    )


def request_of(here: Addresses, name: str) -> dict[str, Any]:
    """What a platform is told of this program."""
    return {
        "application_type": "web",
        "response_types": ["id_token"],
        "grant_types": ["implicit", "client_credentials"],
        "initiate_login_uri": here.login,
        "redirect_uris": [here.launch],
        "client_name": name,
        "jwks_uri": here.keys,
        "token_endpoint_auth_method": "private_key_jwt",
        "scope": " ".join(words.SCOPES),
        TOOL: {
            "domain": urlsplit(here.home).netloc,
            "target_link_uri": here.launch,
            "claims": ["iss", "sub", "name", "given_name", "family_name"],
            "messages": [{"type": words.LAUNCH}, {"type": words.CHOOSING, "target_link_uri": here.launch}],
        },
    }


def _field(said: Mapping[str, Any], name: str) -> str:
    found = said.get(name)
    if not isinstance(found, str) or not found or len(found) > 500:
        raise NotReached(_("the platform does not say its %(what)s", what=name.replace("_", " ")))
    return found
