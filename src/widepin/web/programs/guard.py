"""Who may use the interface for programs: whoever shows a token that may do what is asked, so often a minute.

Cookies do not count here, so that no page can make a browser ask in somebody's name.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import wraps
from typing import Any, TypeVar

from flask import abort, g, request
from limits import parse
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

from ...documents.language import gettext as _
from ...school.people import tokens
from ..access import SignedIn
from ..database import session
from .endpoints import BY_NAME

View = TypeVar("View", bound=Callable[..., Any])

MOST = parse("120 per minute")
"""Requests of one token; each process counts for itself."""

limiter = MovingWindowRateLimiter(MemoryStorage())


def by_token(view: View) -> View:
    """Let a view be used with a token that has the scope of its endpoint, as the token's person."""
    scope = BY_NAME[view.__name__].scope

    @wraps(view)
    def guarded(*args: Any, **kwargs: Any) -> Any:
        kind, _space, secret = request.headers.get("Authorization", "").partition(" ")
        token = tokens.known(session(), secret.strip()) if kind.lower() == "bearer" else None
        if token is None or not token.person.is_teacher:
            abort(
                401,
                _("Send a token that holds: Authorization: Bearer TOKEN. Teachers make them on their account's page."),
            )
        if scope not in token.scopes:
            abort(403, _("This token may not do that; make one that has the scope %(scope)s.", scope=scope.value))
        if not limiter.hit(MOST, f"token {token.id}"):
            abort(429, _("Too many requests in a minute. Wait, then try again."))
        tokens.note_use(token)
        g._login_user = SignedIn(token.person)  # whoever asks, as access.py knows them
        return view(*args, **kwargs)

    return guarded  # type: ignore[return-value]
