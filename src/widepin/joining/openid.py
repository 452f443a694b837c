"""Signing in with the accounts of an identity provider, by OpenID Connect, this program being the relying party.

Authlib builds the questions and exchanges codes (with PKCE); what a token says is checked here.
Source: OpenID Connect Core 1.0, Discovery 1.0, RP-Initiated Logout 1.0, Back-Channel Logout 1.0; RFC 7636.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from urllib.parse import urlencode

from authlib.common.errors import AuthlibBaseError  # type: ignore[import-untyped]
from authlib.integrations.requests_client import OAuth2Session  # type: ignore[import-untyped]
from requests.exceptions import RequestException

from ..documents.language import gettext as _
from .http_client import TIMEOUT, NotReached, ask
from .tokens import BadToken, KeySet, verified

LEEWAY = 300
"""Seconds by which the provider's clock may differ."""

SCOPE = "openid profile email"
NO_KEYS: KeySet = {"keys": []}

LOGOUT_EVENT = "http://schemas.openid.net/event/backchannel-logout"


@dataclass(frozen=True)
class Client:
    """What a provider knows this program as."""

    issuer: str
    client_id: str
    client_secret: str
    redirect_address: str


def describe(issuer: str) -> dict[str, Any]:
    """What a provider says of itself, with its keys. Raises NotReached."""
    said = ask("GET", issuer.rstrip("/") + "/.well-known/openid-configuration").json
    if not isinstance(said, dict) or said.get("issuer") != issuer:
        raise NotReached(_("the provider does not describe itself as %(issuer)s", issuer=issuer))
    for name in ("authorization_endpoint", "token_endpoint", "jwks_uri"):
        if not isinstance(said.get(name), str):
            raise NotReached(_("the provider does not say its %(what)s", what=name.replace("_", " ")))
    keys = ask("GET", said["jwks_uri"]).json
    if not isinstance(keys, dict):
        raise NotReached(_("the provider publishes no keys"))
    return {**said, "keys": keys}


def question(client: Client, described: Mapping[str, Any], state: str, nonce: str, verifier: str, again: bool) -> str:
    """Where a browser is sent to sign in. ``again``: with the password, even if it is signed in there."""
    more = {"prompt": "login"} if again else {}
    address, _state = _session(client).create_authorization_url(
        described["authorization_endpoint"], state=state, nonce=nonce, code_verifier=verifier, **more
    )
    return str(address)


def token_for(client: Client, described: Mapping[str, Any], code: str, verifier: str) -> str:
    """The token that says who has signed in. Raises NotReached and BadToken."""
    try:
        answer = _session(client).fetch_token(
            described["token_endpoint"],
            grant_type="authorization_code",
            code=code,
            code_verifier=verifier,
            timeout=TIMEOUT,
        )
    except AuthlibBaseError as wrong:
        raise BadToken(_("the provider refuses the code (%(why)s)", why=wrong.error or "?")) from None
    except (RequestException, ValueError):
        raise NotReached(_("the provider could not be reached")) from None
    token = answer.get("id_token")
    if not isinstance(token, str):
        raise BadToken(_("the provider did not say who it is"))
    return token


def claims_in(token: str, described: Mapping[str, Any]) -> dict[str, Any]:
    """What a token says, not checked yet but for its signature. Raises BadToken, UnknownKey among it."""
    return verified(token, described.get("keys") or NO_KEYS)


def check(claims: Mapping[str, Any], client: Client, nonce: str, at: float) -> None:
    """That claims are of this provider, for this program, of now, and the answer to this question. Raises BadToken."""
    _check_parties(claims, client)
    if claims.get("nonce") != nonce:
        raise BadToken(_("it answers another question than was asked"))
    made, ends = claims.get("iat"), claims.get("exp")
    if not isinstance(made, int | float) or not isinstance(ends, int | float):
        raise BadToken(_("it does not say when it was made, or until when it holds"))
    if made > at + LEEWAY or ends < at - LEEWAY:
        raise BadToken(_("it is not of now: compare the clocks of the provider and of this server"))
    if not isinstance(claims.get("sub"), str) or not claims["sub"]:
        raise BadToken(_("it does not say who it is"))


def _check_parties(claims: Mapping[str, Any], client: Client) -> None:
    audience = claims.get("aud")
    audiences = audience if isinstance(audience, list) else [audience]
    if claims.get("iss") != client.issuer or client.client_id not in audiences:
        raise BadToken(_("it is from another provider, or for another program"))
    if claims.get("azp", client.client_id) != client.client_id:
        raise BadToken(_("it is from another provider, or for another program"))


def signed_out(token: str, client: Client, keys: KeySet, at: float) -> tuple[str, str]:
    """Who has signed out at the provider: the session, and the person; "" for what it does not say. Raises BadToken.

    Source: Back-Channel Logout 1.0, section 2.6.
    """
    claims = verified(token, keys)
    _check_parties(claims, client)
    made = claims.get("iat")
    events = claims.get("events")
    is_logout = isinstance(events, dict) and LOGOUT_EVENT in events and "nonce" not in claims
    if not is_logout or not isinstance(made, int | float) or abs(made - at) > LEEWAY:
        raise BadToken(_("it is no logout of now"))
    session, subject = (claims.get(name) if isinstance(claims.get(name), str) else "" for name in ("sid", "sub"))
    if not session and not subject:
        raise BadToken(_("it does not say who has signed out"))
    return str(session), str(subject)


def sign_out_address(described: Mapping[str, Any], client: Client, id_token: str, back: str) -> str | None:
    """Where a browser is sent to sign out at the provider too; None where it has no such place."""
    place = described.get("end_session_endpoint")
    if not isinstance(place, str):
        return None
    said = {"id_token_hint": id_token, "client_id": client.client_id, "post_logout_redirect_uri": back}
    return place + ("&" if "?" in place else "?") + urlencode(said)


def _session(client: Client) -> OAuth2Session:
    return OAuth2Session(
        client.client_id,
        client.client_secret,
        scope=SCOPE,
        redirect_uri=client.redirect_address,
        code_challenge_method="S256",
    )
