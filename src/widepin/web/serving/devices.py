"""What a browser is known by when somebody signs in: a random key in a cookie, so that who guesses is put off alone."""

from __future__ import annotations

import secrets

from flask import Response, current_app, request

from ...school.people.signing_in import KEPT, Origin


def origin() -> Origin:
    """Where this request comes from."""
    return Origin(request.remote_addr or "", key())


def key() -> str:
    """The key that this browser has; "" where it keeps none."""
    return request.cookies.get(cookie(), "")[:64]


def cookie() -> str:
    """The name of the cookie; over HTTPS one that browsers take from this host alone."""
    return "__Host-device" if current_app.config["HTTPS"] else "device"


def remember(response: Response) -> Response:
    """Give a browser that shows the page of signing in what it is known by, and make that last."""
    response.set_cookie(
        cookie(),
        key() or secrets.token_urlsafe(18),
        max_age=KEPT,
        secure=current_app.config["HTTPS"],
        httponly=True,
        samesite="Lax",
    )
    return response
