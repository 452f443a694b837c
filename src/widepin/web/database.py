"""One session per request, committed or rolled back in one place."""

from __future__ import annotations

from collections.abc import Callable
from time import time
from typing import Any, TypeVar

from flask import Flask, Response, current_app, g, request
from flask import session as browser_session
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

from ..school import turns
from ..school.database import Sessions, make_engine, make_sessions, tried
from ..school.models import Base
from ..school.replica import Replica

Row = TypeVar("Row", bound=Base)


def use_database(app: Flask) -> None:
    """Give the application its engines, and every request its session."""
    app.extensions["sessions"] = make_sessions(make_engine(app.config["DATABASE_URL"]))
    if app.config["REPORTS_URL"]:
        app.extensions["reports"] = Replica(app.config["REPORTS_URL"])
    app.dispatch_request = in_a_transaction(app, app.dispatch_request)  # type: ignore[method-assign]
    app.teardown_request(close)


def in_a_transaction(app: Flask, dispatch: Callable[[], Any]) -> Callable[[], Response]:
    """A view's answer with what it did committed; done again where the database gave the transaction up."""

    def once() -> Response:
        response = app.make_response(dispatch())
        finish(response)
        note_change(response)
        return response

    def until_it_is_stored() -> Response:
        cookie = dict(browser_session)

        def begin_anew(error: DBAPIError) -> None:
            app.logger.warning("the database gave a transaction up (%s); it is tried again", type(error.orig).__name__)
            close(error)
            g.pop("_login_user", None)  # the person was read in the transaction that is gone
            browser_session.clear()
            browser_session.update(cookie)  # what was to be said to the browser is said by the next try
            for file in request.files.values():
                file.seek(0)
            g.from_replica = False  # it may be what did not answer, and it takes nothing

        return tried(sessions(), once, begin_anew)

    return until_it_is_stored


def sessions() -> Sessions:
    """What makes sessions, for what is to be kept even where a request comes to nothing."""
    return current_app.extensions["sessions"]  # type: ignore[no-any-return]


REPORTS = frozenset(
    {
        *("classes.school_class", "classes.as_csv", "classes.groups", "practice.of_class", "marks.results"),
        *("administration.people", "administration.classes", "administration.log", "administration.sign_ins"),
        "administration.status",
    }
)
"""Pages that show much, change nothing, and may be a moment behind; a replica answers them where there is one."""

OWN = 60
"""Seconds for which somebody who has changed something reads what is written, and nothing that may be behind it."""


def session() -> Session:
    """The session of this request."""
    if "session" not in g:
        g.session = replica().sessions() if _may_be_behind() else sessions()()
    return g.session  # type: ignore[no-any-return]


def replica() -> Replica:
    """The replica that reports are read from."""
    return current_app.extensions["reports"]  # type: ignore[no-any-return]


def _may_be_behind() -> bool:
    if "reports" not in current_app.extensions or request.method != "GET" or request.endpoint not in REPORTS:
        return False
    if not g.get("from_replica", True) or 0 <= time() - browser_session.get("changed", 0) < OWN:
        return False
    return replica().is_near()


def note_change(response: Response) -> None:
    """Remember in the cookie of who has changed something that the next pages must not be behind that."""
    if "reports" in current_app.extensions and request.method != "GET" and response.status_code < 400:
        at = int(time())
        if at - browser_session.get("changed", 0) > OWN / 4:
            browser_session["changed"] = at


def locked(found: Row) -> Row:
    """Something as it is stored now; whoever else is about to change it waits until this request is done."""
    return turns.locked(session(), found)


def finish(response: Response) -> None:
    """Commit what a successful request did; what any other did is rolled back when its session closes."""
    if "session" in g and response.status_code < 400:
        g.session.commit()


def close(error: BaseException | None) -> None:
    """Give the session's connection back; anything not committed is rolled back."""
    open_session = g.pop("session", None)
    if open_session is None:
        return
    try:
        open_session.close()
    except DBAPIError:  # the connection was lost meanwhile, and with it what was not committed
        open_session.invalidate()
