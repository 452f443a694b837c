"""One session per request, committed or rolled back in one place."""

from __future__ import annotations

from flask import Flask, Response, current_app, g
from sqlalchemy.orm import Session

from ..school.store import make_engine, make_sessions


def use_database(app: Flask) -> None:
    """Give the application its engine, and every request its session."""
    app.extensions["sessions"] = make_sessions(make_engine(app.config["DATABASE_URL"]))
    app.after_request(finish)
    app.teardown_request(close)


def session() -> Session:
    """The session of this request."""
    if "session" not in g:
        g.session = current_app.extensions["sessions"]()
    return g.session  # type: ignore[no-any-return]


def finish(response: Response) -> Response:
    """Commit what a successful request did; what any other did is rolled back when its session closes."""
    if "session" in g and response.status_code < 400:
        g.session.commit()
    return response


def close(error: BaseException | None) -> None:
    """Give the session's connection back; anything not committed is rolled back."""
    open_session = g.pop("session", None)
    if open_session is not None:
        open_session.close()
