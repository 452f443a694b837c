"""A pretend identity provider (OpenID Connect): codes with PKCE, sessions, and logout by front and back channel."""

from __future__ import annotations

import base64
import hashlib
import secrets
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any
from urllib.parse import urlencode

from flask import Flask, redirect, render_template, request, session
from flask.typing import ResponseReturnValue

from ..http_client import ask
from ..openid import LOGOUT_EVENT
from ..tokens import new_key, public_keys, signed, verified
from .world import PEOPLE

CLIENT_ID, CLIENT_SECRET = "wide-pin", "known to both"


@dataclass
class Provider:
    """What the provider knows. ``others``: claims that are said otherwise, to try what goes wrong."""

    address: str
    clock: Callable[[], float] = time.time
    key: tuple[str, str] = field(default_factory=new_key)
    codes: dict[str, dict[str, str]] = field(default_factory=dict)
    others: dict[str, Any] = field(default_factory=dict)
    logout: str = ""

    def claims(self, who: str, nonce: str, sid: str) -> dict[str, Any]:
        """What is said of somebody."""
        person, at = PEOPLE[who], int(self.clock())
        login = f"{person.given}.{person.family}".lower()
        said: dict[str, Any] = {
            "iss": self.address,
            "sub": f"sub-{who}",
            "aud": CLIENT_ID,
            "iat": at,
            "exp": at + 300,
            "nonce": nonce,
            "sid": sid,
            "name": person.name,
            "given_name": person.given,
            "family_name": person.family,
            "preferred_username": login,
            "email": f"{login}@carvers.example",
            "email_verified": True,
            "groups": ["staff"] if who.startswith("t") else ["pupils"],
        }
        return said | self.others

    def sign_out(self, who: str, sid: str) -> None:
        """Tell the program that somebody has signed out."""
        claims = {
            "iss": self.address,
            "aud": CLIENT_ID,
            "iat": int(self.clock()),
            "jti": secrets.token_hex(8),
            "sub": f"sub-{who}",
            "sid": sid,
            "events": {LOGOUT_EVENT: {}},
        }
        ask("POST", self.logout, form={"logout_token": signed(claims, *self.key)})


def described(address: str) -> dict[str, Any]:
    """What the provider says of itself; its keys are read besides."""
    return {
        "issuer": address,
        "authorization_endpoint": f"{address}/authorize",
        "token_endpoint": f"{address}/token",
        "jwks_uri": f"{address}/keys",
        "end_session_endpoint": f"{address}/sign-out",
        "code_challenge_methods_supported": ["S256"],
        "backchannel_logout_supported": True,
        "backchannel_logout_session_supported": True,
    }


def create_provider(address: str, clock: Callable[[], float] = time.time) -> Flask:
    """The pretend provider at an address."""
    app = Flask(__name__)
    app.secret_key = secrets.token_hex(16)
    app.config["SESSION_COOKIE_NAME"] = "provider"
    state = Provider(address.rstrip("/"), clock)
    app.extensions["provider"] = state

    @app.get("/.well-known/openid-configuration")
    def configuration() -> dict[str, Any]:
        return described(state.address)

    @app.get("/keys")
    def keys() -> dict[str, Any]:
        return public_keys([state.key])

    @app.get("/authorize")
    def authorize() -> ResponseReturnValue:
        said = request.args
        wanted = {"client_id": CLIENT_ID, "response_type": "code", "code_challenge_method": "S256"}
        wrong = [name for name, value in wanted.items() if said.get(name) != value]
        wrong += [name for name in ("state", "nonce", "code_challenge", "redirect_uri") if not said.get(name)]
        if wrong or "openid" not in said.get("scope", "").split():
            return ", ".join(wrong) or "scope", 400
        if "who" not in session or said.get("prompt") == "login":
            return render_template("provider.html", people=PEOPLE, question=request.query_string.decode())
        return _answer(state, dict(said))

    @app.post("/authorize")
    def choose() -> ResponseReturnValue:
        session["who"], session["sid"] = request.form["person"], secrets.token_hex(8)
        return _answer(state, dict(request.args))

    @app.post("/token")
    def token() -> ResponseReturnValue:
        given = request.authorization
        if given is None or (given.username, given.password) != (CLIENT_ID, CLIENT_SECRET):
            return {"error": "invalid_client"}, 401
        kept = state.codes.pop(request.form.get("code", ""), None)
        verifier = request.form.get("code_verifier", "")
        challenge = base64.urlsafe_b64encode(hashlib.sha256(verifier.encode()).digest()).rstrip(b"=").decode()
        if kept is None or kept["challenge"] != challenge or kept["redirect"] != request.form.get("redirect_uri"):
            return {"error": "invalid_grant"}, 400
        claims = state.claims(kept["who"], kept["nonce"], kept["sid"])
        return {"access_token": "a", "token_type": "Bearer", "id_token": signed(claims, *state.key)}

    @app.get("/sign-out")
    def sign_out() -> ResponseReturnValue:
        claims = verified(request.args["id_token_hint"], public_keys([state.key]))
        if claims["sid"] == session.get("sid"):
            session.clear()
        return redirect(request.args["post_logout_redirect_uri"])

    @app.get("/")
    def home() -> str:
        return render_template("provider.html", people=PEOPLE, question="", who=PEOPLE.get(session.get("who", "")))

    @app.post("/leave")
    def leave() -> ResponseReturnValue:
        """Sign out here, and tell the program so."""
        if state.logout and "who" in session:
            state.sign_out(session["who"], session["sid"])
        session.clear()
        return redirect("/")

    return app


def _answer(state: Provider, said: dict[str, str]) -> ResponseReturnValue:
    code = secrets.token_urlsafe(16)
    state.codes[code] = {
        "who": session["who"],
        "sid": session["sid"],
        "nonce": said["nonce"],
        "challenge": said["code_challenge"],
        "redirect": said["redirect_uri"],
    }
    return redirect(f"{said['redirect_uri']}?{urlencode({'code': code, 'state': said['state']})}")
