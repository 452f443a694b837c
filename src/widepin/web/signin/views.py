"""Signing in and out."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any
from urllib.parse import urlsplit

from flask import current_app, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from flask_login import current_user
from flask_wtf import FlaskForm
from werkzeug.wrappers import Response
from wtforms import HiddenField, PasswordField, StringField
from wtforms.validators import InputRequired, Length

from ...documents.language import gettext as _
from ...documents.language import marked, ngettext
from ...school import signing_in
from ...school.demo_accounts import DEMO_PASSWORD, SHOWN_ACCOUNTS
from ...school.models import Person
from ...school.people import LONGEST_PASSWORD
from ..access import begin_session, end_session, me
from ..database import session, sessions


class SignInForm(FlaskForm):
    """Login and password, and where to go on."""

    login = StringField(validators=[InputRequired(marked("Type your login.")), Length(max=64)])
    password = PasswordField(validators=[InputRequired(marked("Type your password.")), Length(max=LONGEST_PASSWORD)])
    next = HiddenField()


def form() -> ResponseReturnValue:
    """The sign-in page."""
    if current_user.is_authenticated:
        return redirect(url_for("home"))
    return show(SignInForm(next=request.args.get("next", "")))


def enter() -> ResponseReturnValue:
    """Sign in."""
    filled = SignInForm()
    if not filled.validate():
        return show(filled, _("Type your login and your password.")), 422
    secret, passwords = current_app.config["SECRET_KEY"], current_app.extensions["passwords"]
    typed, address = (filled.login.data, filled.password.data), request.remote_addr or ""
    try:
        found = signing_in.by_password(sessions(), secret, passwords, *typed, address)
    except signing_in.TooSoon as wait:
        return put_off(wait, lambda words: show(filled, words))
    if found is None:
        return show(filled, _("Login and password do not fit. Check both, or ask your teacher.")), 422
    return entered(found, filled.next.data)


def enter_by_code() -> ResponseReturnValue:
    """Sign in with a class code and a personal code."""
    codes = request.form.get("class_code", "")[:40], request.form.get("code", "")[:40]

    def again(words: str) -> str:
        return show(SignInForm(formdata=None), code_error=words, codes=codes)

    try:
        found = signing_in.by_code(sessions(), current_app.config["SECRET_KEY"], *codes, request.remote_addr or "")
    except signing_in.TooSoon as wait:
        return put_off(wait, again)
    if found is None:
        return again(_("These two codes do not fit. Check both on your card, or ask your teacher.")), 422
    return entered(found, request.form.get("next"))


def put_off(wait: signing_in.TooSoon, page: Callable[[str], str]) -> ResponseReturnValue:
    """The page again, with how long to wait."""
    seconds = ngettext("a second", "%(n)s seconds", wait.seconds, n=wait.seconds)
    return (
        page(_("Too many tries have failed. Wait %(seconds)s, then try again.", seconds=seconds)),
        429,
        {"Retry-After": str(wait.seconds)},
    )


def entered(person_id: int, target: str | None) -> Response:
    """On to where somebody who is known now wanted to go."""
    begin_session(session().get_one(Person, person_id))
    return redirect(local(target) or url_for("home"))


def leave() -> Response:
    """Sign out, here and wherever else the same person is signed in."""
    if current_user.is_authenticated:
        me().end_sessions()
    end_session()
    return redirect(url_for("signin.form"))


def show(filled: SignInForm, error: str | None = None, **context: Any) -> str:
    """The sign-in page; in the demo with a button per demo account."""
    accounts = SHOWN_ACCOUNTS if current_app.config["DEMO"] else ()
    return render_template(
        "signin/form.html", form=filled, error=error, accounts=accounts, demo_password=DEMO_PASSWORD, **context
    )


def local(target: str | None) -> str | None:
    """A path on this site, or None: nobody is sent elsewhere after signing in."""
    target = target or ""
    if not target.isprintable() or "\\" in target or not target.startswith("/") or target.startswith("//"):
        return None
    parts = urlsplit(target)
    return None if parts.scheme or parts.netloc else target
