"""What went wrong, in words and with its status: the one place where errors become answers."""

from __future__ import annotations

from typing import Any

from flask import Flask, current_app, render_template, request, url_for
from flask_login import current_user
from flask_wtf.csrf import CSRFError
from sqlalchemy.exc import (
    DataError,
    IntegrityError,
    InterfaceError,
    InternalError,
    NoResultFound,
    OperationalError,
    SQLAlchemyError,
)
from sqlalchemy.exc import TimeoutError as PoolTimeout
from werkzeug.exceptions import (
    Conflict,
    HTTPException,
    NotFound,
    SecurityError,
    ServiceUnavailable,
    TooManyRequests,
    UnprocessableEntity,
)

from ..documents.language import gettext as _
from ..documents.language import marked
from ..documents.reading import Unreadable
from ..plane.errors import CoreError
from .jobs.apart import Busy
from .reading import for_script
from .serving import logs
from .serving.logs import request_number


def handle_errors(app: Flask) -> None:
    """Let the application answer every error in words."""
    app.register_error_handler(HTTPException, show_error)
    app.register_error_handler(CoreError, show_core_error)
    app.register_error_handler(Unreadable, show_unreadable)
    for trouble in (OperationalError, InterfaceError, InternalError, PoolTimeout):
        app.register_error_handler(trouble, show_database_trouble)
    app.register_error_handler(Busy, lambda busy: show_error(TooManyRequests(str(busy))))
    app.register_error_handler(NoResultFound, lambda gone: show_error(NotFound()))  # removed in the meantime
    app.register_error_handler(IntegrityError, show_conflict)
    app.register_error_handler(DataError, show_too_large)


REFUSED = (400, 403, 404, 429)
"""Answers that are worth a line in the log, at the level that says what is refused to whom."""

WORDS = {
    404: marked("This page is not here, or not yours to see."),
    413: marked("That was too much at once."),
    500: marked("Something broke on our side. What you built is kept; try again."),
    503: marked("Nothing can be stored at the moment. What is on your page stays there; try again in a minute."),
}
"""What is said of an error that says nothing of its own."""


def show_core_error(error: CoreError) -> tuple[Any, int]:
    """What the core refuses, where the view has no place of its own to say so."""
    return show_error(UnprocessableEntity(str(error)))


def show_unreadable(error: Unreadable) -> tuple[Any, int]:
    """A stored document that a page cannot do without, and that cannot be read."""
    return show_error(
        UnprocessableEntity(_("This task cannot be used as it is: %(error)s. Its teacher can correct it.", error=error))
    )


def show_database_trouble(error: SQLAlchemyError) -> tuple[Any, int]:
    """A database that does not answer, or does not write."""
    current_app.logger.error("the database: %s", logs.without_values(str(error)))
    return show_error(ServiceUnavailable())


def show_conflict(error: IntegrityError) -> tuple[Any, int]:
    """What the tables do not allow, since somebody else did something at the same moment."""
    current_app.logger.warning("the database refused: %s", logs.without_values(str(error)))
    return show_error(
        Conflict(_("Something else was changed at the same moment. Load the page again, then try again."))
    )


def show_too_large(error: DataError) -> tuple[Any, int]:
    """What does not fit into its field."""
    current_app.logger.warning("the database refused: %s", logs.without_values(str(error)))
    return show_error(UnprocessableEntity(_("Something of this is too long or too large to be kept; shorten it.")))


def said_to_a_script(error: HTTPException, words: str, code: int) -> tuple[Any, int]:
    """An error as JSON. A token that does not fit is told apart: nobody is signed in any more, or somebody is again."""
    if not isinstance(error, CSRFError):
        return {"error": words}, code
    if current_user.is_authenticated:
        return {"error": words, "expired": True}, code
    return {"error": words, "sign_in": url_for("signin.form")}, 401


def show_error(error: HTTPException) -> tuple[Any, int]:
    """An error in words: JSON for the board, a page for everybody else."""
    code = error.code or 500
    if code in REFUSED:
        logs.security("refused", status=code, rule=request.url_rule.rule if request.url_rule else None)
    own = error.description if error.description != type(error).description else None
    words = own or (_(WORDS[code]) if code in WORDS else "") or error.description or _("That did not work.")
    if isinstance(error, SecurityError):  # whoever asks another host has no pages here that could be led to
        return _(
            "This site is not served under the address that you used. Ask whoever runs it for the right one."
        ), code
    if isinstance(error, CSRFError):
        words = _("This page has been open for too long. Load it again; what you built is kept.")
    if for_script() or request.is_json:
        return said_to_a_script(error, words, code)
    if code >= 500 or code == 409:
        # Where something broke there may be no database to ask who is here: this page is made without asking.
        return current_app.jinja_env.get_template("broken.html").render(words=words, number=request_number()), code
    return render_template("error.html", words=words, code=code, number=request_number()), code
