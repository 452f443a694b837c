"""What programs ask that watch over this one: whether it lives, whether it can work, and how it does.

They are answered to whoever asks from this machine without a proxy in between; others get 404.
"""

from __future__ import annotations

from flask import Response, abort, current_app, request
from flask.typing import ResponseReturnValue
from prometheus_client import CONTENT_TYPE_LATEST

from ...school.database import NoDatabase, newest_seen
from ..database import sessions
from ..serving.metrics import collected

HERE = ("127.0.0.1", "::1")


def alive() -> ResponseReturnValue:
    """The process answers. Nothing else is looked at, and nothing is told."""
    return Response("ok\n", mimetype="text/plain")


def ready() -> ResponseReturnValue:
    """Whether the database answers and has the tables that this program expects."""
    state = {"database": False, "migrations": False}
    try:
        with sessions()() as session:
            seen = newest_seen(session)
            state = {"database": True, "migrations": current_app.config["REVISION"] in (None, seen)}
    except NoDatabase:
        pass
    return state, 200 if all(state.values()) else 503


def metrics() -> ResponseReturnValue:
    """Counts and times for Prometheus; only from this machine itself."""
    if request.remote_addr not in HERE or "X-Forwarded-For" in request.headers:
        abort(404)
    return Response(collected(), content_type=CONTENT_TYPE_LATEST)
