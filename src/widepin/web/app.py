"""The application factory."""

from __future__ import annotations

import atexit
import json
import os
from functools import partial
from pathlib import Path
from secrets import token_hex
from shutil import rmtree
from tempfile import mkdtemp
from typing import Any
from urllib.parse import urlsplit

from flask import Flask, redirect, url_for
from flask import Response as FlaskResponse
from flask_babel import Babel, get_translations
from flask_compress import Compress
from flask_login import current_user
from flask_talisman import Talisman
from flask_wtf import CSRFProtect
from werkzeug.middleware.proxy_fix import ProxyFix
from werkzeug.wrappers import Response

from ..documents import clock
from ..documents.language import catalogue
from ..documents.wording import amounts
from ..documents.wording.verdict_words import OUTCOME_WORDS, only_in, results_of
from ..documents.wording.words import TOOL_WORDS, tool_in_words
from ..school.joining import scores
from ..school.people.passwords import Passwords
from . import (
    account,
    administration,
    calendar,
    class_tools,
    classes,
    demonstrations,
    drawing,
    guide,
    handins,
    health,
    marks,
    platforms,
    practice,
    programs,
    removed,
    roster,
    sheets,
    signin,
    single_sign_on,
    tasks,
    terms,
    today,
    waiting,
    welcome,
)
from .access import login_manager, note_who_is_here
from .database import use_database
from .errors import handle_errors
from .guide.sections import WORDS
from .jobs.queue import job_queue
from .made_from import made_from
from .names import in_list
from .navigation import Navigation
from .reading import NumberConverter, sentence
from .serving.content_policy import use_content_policy
from .serving.logs import use_logs
from .serving.metrics import measure
from .serving.refused_requests import use_bound_of_refused_requests
from .serving.session_cookies import Cookies
from .serving.static_files import digest, use_static_files

FEATURES = (
    signin,
    welcome,
    account,
    today,
    classes,
    roster,
    class_tools,
    sheets,
    tasks,
    handins,
    administration,
    demonstrations,
    marks,
    practice,
    terms,
    drawing,
    guide,
    removed,
    calendar,
    programs,
    platforms,
    single_sign_on,
    waiting,
    health,
)
"""Every feature: a folder with ``blueprint.py``, its table of URLs, and ``views.py``."""

DEFAULTS: dict[str, Any] = {
    "DEMO": False,
    "MAX_CONTENT_LENGTH": 1_000_000,
    "SESSION_COOKIE_SAMESITE": "Lax",
    "HTTPS": False,
    "ADDRESS": None,
    "PROXIES": 0,
    "CODES_KEY": None,
    "SCHOOL_NAME": "",
    "TIME_ZONE": "UTC",
    "DATA": None,
    "REVISION": None,
    "QUEUE_URL": "",
    "REPORTS_URL": "",
    "JSON_LOGS": False,
    "SCRATCH": None,
    "PASSWORDS": None,
    # A page may stay open for a whole lesson; the token then lives as long as the session.
    "WTF_CSRF_TIME_LIMIT": None,
    # Not the pages: they hold tokens, whose length in compressed form would tell about them.
    "COMPRESS_MIMETYPES": ["text/css", "text/javascript", "application/json", "image/svg+xml"],
}

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
    every host is taken, which is for tests alone. PROXIES: how many stand in front and say who asks. CODES_KEY: what
    personal codes follow from; SECRET_KEY if None. SCHOOL_NAME, TIME_ZONE: of the school. DATA: the folder whose disk
    is watched for room. REVISION: the migration that the database should have seen, if that is asked. QUEUE_URL: of a
    Redis through which other machines do long work. REPORTS_URL: of a replica of the database for large pages.
    """
    app = Flask(__name__, static_url_path=f"/static/{digest()}")
    app.config.update(DEFAULTS | settings)
    app.config["CODES_KEY"] = app.config["CODES_KEY"] or app.config["SECRET_KEY"]
    use_logs(app)
    measure(app)
    if app.config["PROXIES"]:
        count = app.config["PROXIES"]
        app.wsgi_app = ProxyFix(app.wsgi_app, x_for=count, x_proto=count, x_host=0)  # type: ignore[method-assign]
    if app.config["ADDRESS"]:
        app.config["TRUSTED_HOSTS"] = [urlsplit(app.config["ADDRESS"]).hostname, *ALSO_HERE]
    if app.config["HTTPS"]:
        app.config["SESSION_COOKIE_NAME"] = "__Host-session"  # browsers take it from this host alone, over HTTPS
    app.extensions["passwords"] = app.config["PASSWORDS"] or Passwords()
    clock.set_zone(app.config["TIME_ZONE"])
    use_database(app)
    scores.watch(app.extensions["sessions"])
    scratch = Path(app.config["SCRATCH"] or scratch_folder())
    app.extensions["leaving"] = scratch / "leaving"
    app.extensions["jobs"] = job_queue(app, scratch)
    app.session_interface = Cookies()
    login_manager.init_app(app)
    app.teardown_request(note_who_is_here)
    Babel(app, locale_selector=lambda: "en")
    app.before_request(speak)
    use_bound_of_refused_requests(app)
    forgery = CSRFProtect(app)
    forgery.exempt(programs.blueprint)  # there a token counts, and no cookie
    for view in (*platforms.FROM_ELSEWHERE, *single_sign_on.FROM_ELSEWHERE):
        forgery.exempt(view)
    Compress(app)
    use_content_policy(app)
    Talisman(
        app,
        force_https=app.config["HTTPS"],
        session_cookie_secure=app.config["HTTPS"],
        strict_transport_security=app.config["HTTPS"],
        content_security_policy=CONTENT_SECURITY_POLICY,
    )
    app.url_map.converters["int"] = NumberConverter
    for feature in FEATURES:
        app.register_blueprint(feature.blueprint)
    app.add_url_rule("/", "home", home)
    use_static_files(app, scratch)
    app.after_request(keep_private)
    handle_errors(app)
    app.jinja_env.globals.update(
        amounts=amounts,
        clock=clock,
        explained_words=WORDS,
        in_list=in_list,
        outcome_words=OUTCOME_WORDS,
        navigation=Navigation(FEATURES),
        made_from=made_from,
        new_key=partial(token_hex, 16),
        results_of=results_of,
        only_in=only_in,
        tool_in_words=tool_in_words,
        tool_words=TOOL_WORDS,
    )
    app.jinja_env.filters["sentence"] = sentence
    app.json.sort_keys = False  # type: ignore[attr-defined]
    app.jinja_env.policies["json.dumps_kwargs"] = {"sort_keys": False}
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True
    return app


def speak() -> None:
    """Let the core say words in the language of the request, so far English alone, and times on the school's clock."""
    catalogue.set(get_translations())
    clock.use(None)


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
    return redirect(url_for("today.index" if current_user.is_teacher else "tasks.index"))


def keep_private(response: FlaskResponse) -> FlaskResponse:
    """Pages are about people: neither browsers nor what is between keep them, unless a view says otherwise."""
    if not response.cache_control:
        response.cache_control.no_store = True
    return response
