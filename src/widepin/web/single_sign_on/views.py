"""To the school's identity provider and back."""

from __future__ import annotations

import hmac
import secrets
from time import time
from typing import Any

from flask import abort, current_app, redirect, render_template, request, url_for
from flask import session as browser_session
from flask.typing import ResponseReturnValue

from ...documents.language import gettext as _
from ...joining import openid
from ...joining.http_client import NotReached
from ...joining.tokens import BadToken, UnknownKey
from ...school.joining import handshakes, provider
from ...school.models import IdentityProvider
from ...school.people.accounts import digest
from ...school.refused import Refused
from ...school.states import Question
from ..access import begin_session
from ..addresses import address_of
from ..database import session, sessions
from ..serving import logs
from ..serving.metrics import SIGN_INS
from ..signin.views import local

BROWSER = "signing_in"
"""The cookie by which a browser is known between the question and its answer."""


def the_provider() -> IdentityProvider:
    """The provider; 404 where none is set."""
    found = provider.present(session())
    if found is None or found.described is None:
        abort(404)
    return found


def begin() -> ResponseReturnValue:
    """Ask the provider who somebody is."""
    there = the_provider()
    browser = request.cookies.get(BROWSER) or secrets.token_urlsafe(24)
    kept = {
        "nonce": secrets.token_urlsafe(24),
        "verifier": secrets.token_urlsafe(48),
        "browser": digest(browser),
        "next": request.args.get("next", ""),
    }
    state = handshakes.ask(session(), Question.SIGN_IN, kept)
    client = provider.client_of(there, address_of("single_sign_on.back"))
    again = bool(request.args.get("again"))
    response = redirect(openid.question(client, there.described or {}, state, kept["nonce"], kept["verifier"], again))
    response.set_cookie(
        BROWSER, browser, max_age=3600, httponly=True, samesite="Lax", secure=current_app.config["HTTPS"]
    )
    return response


def back() -> ResponseReturnValue:
    """The provider's answer."""
    kept = handshakes.answer_for_good(sessions(), Question.SIGN_IN, request.args.get("state", ""))
    if kept is None:
        return refuse(_("This way in was used already, or took too long. Begin again."))
    if not hmac.compare_digest(str(kept["browser"]), digest(request.cookies.get(BROWSER, ""))):
        return refuse(_("This did not begin in this browser, or it keeps no cookies. Begin again."))
    if error := request.args.get("error"):
        said = request.args.get("error_description") or error
        return refuse(_("The school’s accounts did not let you through: %(words)s", words=said[:200]))
    try:
        claims, token = who_it_is(request.args.get("code", ""), kept["verifier"], kept["nonce"])
        person = provider.person_for(session(), the_provider(), claims)
    except (BadToken, Refused) as wrong:
        return refuse(str(wrong))
    except NotReached as wrong:
        return refuse(str(wrong), 503)
    SIGN_INS.labels("succeeded").inc()
    begin_session(person)
    provider.remember(session(), digest(browser_session["key"]), str(claims.get("sid") or ""), token)
    return redirect(local(kept["next"]) or url_for("home"))


def who_it_is(code: str, verifier: str, nonce: str) -> tuple[dict[str, Any], str]:
    """The checked claims of who has signed in, and their token; where the provider has a new key, it is read anew.

    Raises BadToken and NotReached.
    """
    there = the_provider()
    client, described = provider.client_of(there, address_of("single_sign_on.back")), there.described or {}
    session().rollback()  # nothing is held while the provider is waited for
    token = openid.token_for(client, described, code, verifier)
    try:
        claims = openid.claims_in(token, described)
    except UnknownKey:
        fresh = openid.describe(client.issuer)
        claims = openid.claims_in(token, fresh)
        the_provider().described = fresh
    openid.check(claims, client, nonce, time())
    return claims, token


def signed_out() -> ResponseReturnValue:
    """The provider says that somebody has signed out there."""
    there = the_provider()
    client, keys = provider.client_of(there, ""), (there.described or {}).get("keys", {})
    try:
        provider_session, subject = openid.signed_out(request.form.get("logout_token", ""), client, keys, time())
    except BadToken as wrong:
        logs.security("logout", outcome="refused", words=str(wrong))
        return {"error": "invalid_request", "error_description": str(wrong)}, 400
    provider.end_sessions(session(), provider_session, subject)
    return "", 204


def refuse(words: str, status: int = 403) -> ResponseReturnValue:
    """A page that says why nobody came in."""
    SIGN_INS.labels("failed").inc()
    logs.security("sign-in", outcome="failed", words=words)
    return render_template("single_sign_on/refused.html", words=words), status
