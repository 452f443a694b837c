"""The application factory."""

from __future__ import annotations

import atexit
import json
import os
from pathlib import Path
from shutil import rmtree
from tempfile import mkdtemp
from typing import Any
from urllib.parse import urlsplit

from flask import Flask, current_app, redirect, render_template, request, url_for
from flask import Response as FlaskResponse
from flask import session as browser_session
from flask_compress import Compress
from flask_login import current_user
from flask_talisman import Talisman
from flask_wtf import CSRFProtect
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
from werkzeug.wrappers import Response

from ..documents.reading import Unreadable
from ..documents.words import TOOL_WORDS, seals, tool_in_words
from ..school.people import Passwords
from . import classes, drawing, handins, instruments, roster, sheets, signin, tasks
from .access import login_manager
from .apart import Bench, Busy, TooHeavy
from .database import use_database
from .reading import NumberConverter

DEFAULTS: dict[str, Any] = {
    "DEMO": False,
    "MAX_CONTENT_LENGTH": 1_000_000,
    "SESSION_COOKIE_SAMESITE": "Lax",
    "HTTPS": False,
    "ADDRESS": None,
    "SCRATCH": None,
    "PASSWORDS": None,
    # A page may stay open for a whole lesson; the token then lives as long as the session.
    "WTF_CSRF_TIME_LIMIT": None,
    # Not the pages: they hold tokens, whose length in compressed form would tell about them.
    "COMPRESS_MIMETYPES": ["text/css", "text/javascript", "application/json", "image/svg+xml"],
}

JUDGING = {"seconds": 20, "megabytes": 500, "waiting": 12, "waiting_each": 3}
"""What judging may take, and how many may wait for it in a process of the server: in all, and for one person."""

ALSO_HERE = ("localhost", "127.0.0.1")
"""Hosts by which the machine itself may ask."""

CONTENT_SECURITY_POLICY = {
    "default-src": "'self'",
    "img-src": "'self' data:",  # Bootstrap keeps some of its signs as data images
    "frame-ancestors": "'none'",
    "base-uri": "'self'",
    "form-action": "'self'",
}


def create_app(settings: dict[str, Any]) -> Flask:
    """The application. ``settings`` needs DATABASE_URL and SECRET_KEY; ``DEFAULTS`` has the others.

    SCRATCH: a folder for what can be made anew, of this server's own; a temporary one if None.
    ADDRESS: where browsers find it, as ``https://construct.example/``; requests to other hosts are refused. Without one
    every host is taken, which is for tests alone.
    """
    app = Flask(__name__)
    app.config.update(DEFAULTS | settings)
    if app.config["ADDRESS"]:
        app.config["TRUSTED_HOSTS"] = [urlsplit(app.config["ADDRESS"]).hostname, *ALSO_HERE]
    if app.config["HTTPS"]:
        app.config["SESSION_COOKIE_NAME"] = "__Host-session"  # browsers take it from this host alone, over HTTPS
    app.extensions["passwords"] = app.config["PASSWORDS"] or Passwords()
    use_database(app)
    scratch = app.extensions["scratch"] = Path(app.config["SCRATCH"] or scratch_folder())
    app.extensions["bench"] = Bench(scratch, **JUDGING)
    login_manager.init_app(app)
    CSRFProtect(app)
    Compress(app)
    Talisman(
        app,
        force_https=app.config["HTTPS"],
        session_cookie_secure=app.config["HTTPS"],
        strict_transport_security=app.config["HTTPS"],
        content_security_policy=CONTENT_SECURITY_POLICY,
    )
    app.url_map.converters["int"] = NumberConverter
    for feature in (signin, classes, roster, instruments, sheets, tasks, handins, drawing):
        app.register_blueprint(feature.blueprint)
    app.add_url_rule("/", "home", home)
    app.after_request(keep_private)
    app.register_error_handler(HTTPException, show_error)
    app.register_error_handler(Unreadable, show_unreadable)
    for trouble in (OperationalError, InterfaceError, InternalError, PoolTimeout):
        app.register_error_handler(trouble, show_database_trouble)
    app.register_error_handler(Busy, lambda busy: show_error(TooManyRequests(str(busy))))
    app.register_error_handler(TooHeavy, lambda heavy: show_error(UnprocessableEntity(str(heavy))))
    app.register_error_handler(NoResultFound, lambda gone: show_error(NotFound()))  # removed in the meantime
    app.register_error_handler(IntegrityError, show_conflict)
    app.register_error_handler(DataError, show_too_large)
    app.jinja_env.globals.update(seals=seals, tool_in_words=tool_in_words, tool_words=TOOL_WORDS)
    app.json.sort_keys = False  # type: ignore[attr-defined]
    app.jinja_env.policies["json.dumps_kwargs"] = {"sort_keys": False}
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True
    return app


def scratch_folder() -> str:
    """A temporary folder that goes with this process, but not with those forked from it."""
    folder, owner = mkdtemp(prefix="widepin-"), os.getpid()

    def clear_away() -> None:
        if os.getpid() == owner:
            rmtree(folder, ignore_errors=True)

    atexit.register(clear_away)
    return folder


def from_environment() -> Flask:
    """The application with the settings in the JSON file that WIDEPIN_SETTINGS names."""
    return create_app(json.loads(Path(os.environ["WIDEPIN_SETTINGS"]).read_text()))


def home() -> Response:
    """The first page of whoever comes."""
    if not current_user.is_authenticated:
        return redirect(url_for("signin.form"))
    return redirect(url_for("classes.index" if current_user.is_teacher else "tasks.index"))


def keep_private(response: FlaskResponse) -> FlaskResponse:
    """Pages are about people: neither browsers nor what is between keep them, unless a view says otherwise."""
    if not response.cache_control:
        response.cache_control.no_store = True
    return response


REFUSED = (400, 403, 404, 429)
"""Answers that are worth a line in the log, at the level that says what is refused to whom."""

WORDS = {
    404: "This page is not here, or not yours to see.",
    413: "That was too much at once.",
    500: "Something broke on our side. What you built is kept; try again.",
    503: "Nothing can be stored at the moment. What is on your page stays there; try again in a minute.",
}
"""What is said of an error that says nothing of its own."""


def show_unreadable(error: Unreadable) -> tuple[Any, int]:
    """A stored document that a page cannot do without, and that cannot be read."""
    return show_error(UnprocessableEntity(f"This task cannot be used as it is: {error}. Its teacher can mend it."))


def show_database_trouble(error: SQLAlchemyError) -> tuple[Any, int]:
    """A database that does not answer, or does not write."""
    current_app.logger.error("the database: %s", error)
    return show_error(ServiceUnavailable())


def show_conflict(error: IntegrityError) -> tuple[Any, int]:
    """What the tables do not allow, since somebody else did something at the same moment."""
    current_app.logger.warning("the database refused: %s", error)
    return show_error(Conflict("Something else was changed at the same moment. Load the page again, then try again."))


def show_too_large(error: DataError) -> tuple[Any, int]:
    """What does not fit into its field."""
    current_app.logger.warning("the database refused: %s", error)
    return show_error(UnprocessableEntity("Something of this is too long or too large to be kept; shorten it."))


def show_error(error: HTTPException) -> tuple[Any, int]:
    """An error in words: JSON for the board, a page for everybody else."""
    code = error.code or 500
    if code in REFUSED:
        who = browser_session.get("_user_id", "nobody").partition(".")[0]
        current_app.logger.info("refused with %s: %s %r to %r", code, request.method, request.path, who)
    own = error.description if error.description != type(error).description else None
    words = own or WORDS.get(code) or error.description or "That did not work."
    if isinstance(error, SecurityError):  # whoever asks another host has no pages here that could be led to
        return "This site is not served under the address that you used. Ask whoever runs it for the right one.", code
    if isinstance(error, CSRFError):
        words = "This page has been open for too long. Load it again; what you built is kept."
    if request.accept_mimetypes.best == "application/json" or request.is_json:
        return {"error": words}, code
    if code >= 500 or code == 409:
        # Where something broke there may be no database to ask who is here: this page is made without asking.
        return current_app.jinja_env.get_template("broken.html").render(words=words), code
    return render_template("error.html", words=words, code=code), code
