"""Who sends much that is refused is put off for a while: to read it costs time that others wait for."""

from __future__ import annotations

from flask import Flask, Response, abort, request
from flask_login import current_user
from limits import parse
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

from ...documents.language import gettext as _

LARGE = 100_000
"""Bytes from which on a request costs more to read than to look at."""

MOST = parse("30 per minute")
"""How many large requests of one person, or from one address, may be refused; each process counts for itself."""

REFUSED = range(400, 500)
"""Answers to what cannot be taken."""

PUT_OFF = 429

LARGER = {"administration.bring_lists": 15_500_000, "roster.bring_in": 30_000_000}
"""Bytes that a request may have where more is brought than elsewhere; forms are read before views."""


def use_bound_of_refused_requests(app: Flask) -> None:
    """Count large requests that are refused, and take no more of who has sent too many."""
    storage = MemoryStorage()
    limiter = MovingWindowRateLimiter(storage)
    app.extensions["refused requests"] = storage

    @app.before_request
    def allow_more() -> None:
        if request.endpoint in LARGER and current_user.is_authenticated and current_user.is_teacher:
            request.max_content_length = LARGER[request.endpoint]

    @app.before_request
    def put_off() -> None:
        if _is_large() and not limiter.test(MOST, _sender()):
            abort(PUT_OFF, _("Too much was sent that could not be taken. Wait a minute, then try again."))

    @app.after_request
    def count(response: Response) -> Response:
        if _is_large() and response.status_code in REFUSED and response.status_code != PUT_OFF:
            limiter.hit(MOST, _sender())
        return response


def _is_large() -> bool:
    return (request.content_length or 0) >= LARGE


def _sender() -> str:
    return f"person {current_user.person.id}" if current_user.is_authenticated else f"address {request.remote_addr}"
