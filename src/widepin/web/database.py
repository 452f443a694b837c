"""One session per request, committed or rolled back in one place."""

from __future__ import annotations

from collections.abc import Callable
from time import monotonic
from typing import Any, TypeVar

from flask import Flask, Response, current_app, g
from flask import session as browser_session
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session, sessionmaker

from ..school.database import make_engine, make_sessions, may_be_tried_again
from ..school.models import Base

Row = TypeVar("Row", bound=Base)

LONGEST_FIRST_TRY = 4.0
"""Seconds after which nothing is tried again: whoever waits is told rather than kept."""


def use_database(app: Flask) -> None:
    """Give the application its engine, and every request its session."""
    app.extensions["sessions"] = make_sessions(make_engine(app.config["DATABASE_URL"]))
    app.dispatch_request = in_a_transaction(app, app.dispatch_request)  # type: ignore[method-assign]
    app.teardown_request(close)


def in_a_transaction(app: Flask, dispatch: Callable[[], Any]) -> Callable[[], Response]:
    """A view's answer with what it did committed; done once more where the database gave the transaction up."""

    def once() -> Response:
        response = app.make_response(dispatch())
        finish(response)
        return response

    def twice_at_most() -> Response:
        cookie, begun = dict(browser_session), monotonic()
        try:
            return once()
        except DBAPIError as error:
            if not may_be_tried_again(error) or monotonic() - begun > LONGEST_FIRST_TRY:
                raise
            app.logger.warning("the database gave a transaction up (%s); it is tried again", type(error.orig).__name__)
            close(error)
            g.pop("_login_user", None)  # the person was read in the transaction that is gone
            browser_session.clear()
            browser_session.update(cookie)  # what was to be said to the browser is said by the second try
            return once()

    return twice_at_most


def sessions() -> sessionmaker[Session]:
    """What makes sessions, for what is to be kept even where a request comes to nothing."""
    return current_app.extensions["sessions"]  # type: ignore[no-any-return]


def session() -> Session:
    """The session of this request."""
    if "session" not in g:
        g.session = sessions()()
    return g.session  # type: ignore[no-any-return]


def locked(found: Row) -> Row:
    """Something as it is stored now; whoever else is about to change it waits until this request is done."""
    session().refresh(found, with_for_update=True)
    return found


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
