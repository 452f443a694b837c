"""What programs ask that watch over this one: whether it lives, whether it can work, and how it does.

They are answered to whoever asks from this machine without a proxy in between; others get 404.
"""

from __future__ import annotations

from flask import Response, abort, current_app, request
from flask.typing import ResponseReturnValue
from prometheus_client import CONTENT_TYPE_LATEST

from ...school.tables import NoDatabase, work_with
from ..database import sessions
from ..serving.metrics import collected

HERE = ("127.0.0.1", "::1")


def alive() -> ResponseReturnValue:
    """The process answers, and nobody is about to stop it: else a proxy in front sends it nobody any more, while it
    answers what it is asked all the same. Nothing else is looked at: where the database does not answer for a moment,
    no server would be left.
    """
    return Response("ok\n", mimetype="text/plain") if is_staying() else Response("leaving\n", 503)


def is_staying() -> bool:
    """Whether nobody is about to stop the server."""
    return not current_app.extensions["leaving"].exists()


def ready() -> ResponseReturnValue:
    """Whether the database answers and has tables that this program works with, and the server stays."""
    state = {"database": False, "migrations": False, "staying": is_staying()}
    try:
        with sessions()() as session:
            state["migrations"] = work_with(session, current_app.config["REVISION"])
            state["database"] = True
    except NoDatabase:
        pass
    return state, 200 if all(state.values()) else 503


def metrics() -> ResponseReturnValue:
    """Counts and times for Prometheus; only from this machine itself."""
    if request.remote_addr not in HERE or "X-Forwarded-For" in request.headers:
        abort(404)
    return Response(collected(), content_type=CONTENT_TYPE_LATEST)
