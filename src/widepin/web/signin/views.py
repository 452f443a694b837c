"""Signing in and out."""

from __future__ import annotations

from typing import Any
from urllib.parse import urlsplit

from flask import current_app, redirect, render_template, request, url_for
from flask_login import current_user
from flask_wtf import FlaskForm
from werkzeug.wrappers import Response
from wtforms import HiddenField, PasswordField, StringField
from wtforms.validators import InputRequired, Length

from ...school.demo_accounts import DEMO_PASSWORD, SHOWN_ACCOUNTS
from ...school.people import LONGEST_PASSWORD
from ...school.roster import sign_in_by_code
from ..access import begin_session, end_session, me
from ..database import session


class SignInForm(FlaskForm):
    """Login and password, and where to go on."""

    login = StringField(validators=[InputRequired("Type your login."), Length(max=64)])
    password = PasswordField(validators=[InputRequired("Type your password."), Length(max=LONGEST_PASSWORD)])
    next = HiddenField()


def form() -> Any:
    """The sign-in page."""
    if current_user.is_authenticated:
        return redirect(url_for("home"))
    return show(SignInForm(next=request.args.get("next", "")))


def enter() -> Any:
    """Sign in."""
    filled = SignInForm()
    if not filled.validate():
        return show(filled, "Type your login and your password."), 422
    person = current_app.extensions["passwords"].sign_in(session(), filled.login.data, filled.password.data)
    if person is None:
        return show(filled, "Login and password do not fit. Check both, or ask your teacher."), 422
    begin_session(person)
    return redirect(local(filled.next.data) or url_for("home"))


def enter_by_code() -> Any:
    """Sign in with a class code and a personal code."""
    codes = [request.form.get(field, "")[:40] for field in ("class_code", "code")]
    person = sign_in_by_code(session(), current_app.config["SECRET_KEY"], *codes)
    if person is None:
        wrong = "These two codes do not fit. Check both on your card, or ask your teacher."
        return show(SignInForm(formdata=None), code_error=wrong, codes=codes), 422
    begin_session(person)
    return redirect(local(request.form.get("next")) or url_for("home"))


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
    parts = urlsplit(target or "")
    plain = not parts.scheme and not parts.netloc and parts.path.startswith("/")
    return target if plain and not (target or "").startswith(("//", "/\\")) else None
