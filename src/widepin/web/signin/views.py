"""Signing in and out."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from time import time
from typing import Any
from urllib.parse import urlsplit

from flask import current_app, redirect, render_template, request, url_for
from flask import session as browser_session
from flask.typing import ResponseReturnValue
from flask_login import current_user
from flask_wtf import FlaskForm
from markupsafe import Markup
from werkzeug.wrappers import Response
from wtforms import HiddenField, PasswordField, StringField
from wtforms.validators import InputRequired, Length

from ...documents.formats.task import read_task
from ...documents.language import gettext as _
from ...documents.language import marked, ngettext
from ...documents.pictures.svg import picture
from ...school.demo.accounts import DEMO_PASSWORD, SHOWN_ACCOUNTS
from ...school.joining import provider
from ...school.models import Person
from ...school.people import second_factor, signing_in
from ...school.people.passwords import LONGEST_PASSWORD
from ...school.tasks.library import LIBRARY
from ..access import begin_session, end_session
from ..database import session, sessions
from ..serving import devices, logs
from ..serving.metrics import SIGN_INS


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
    try:
        found = signing_in.by_password(
            sessions(), secret, passwords, filled.login.data, filled.password.data, devices.origin()
        )
    except signing_in.TooSoon as wait:
        return put_off(wait, lambda words: show(filled, words))
    except signing_in.HasLeft as left:
        told("failed")
        return show(filled, str(left)), 422
    if found is None:
        told("failed")
        return show(filled, _("Login and password do not fit. Check both, or ask your teacher.")), 422
    return entered(found, filled.next.data)


def enter_by_code() -> ResponseReturnValue:
    """Sign in with a class code and a personal code."""
    codes = request.form.get("class_code", "")[:40], request.form.get("code", "")[:40]

    def again(words: str) -> str:
        return show(SignInForm(formdata=None), code_error=words, codes=codes)

    try:
        found = signing_in.by_code(sessions(), current_app.config["CODES_KEY"], *codes, devices.origin())
    except signing_in.TooSoon as wait:
        return put_off(wait, again)
    except signing_in.ClassClosed as closed:
        told("failed")
        return again(str(closed)), 422
    if found is None:
        told("failed")
        return again(_("These two codes do not fit. Check both on your card, or ask your teacher.")), 422
    return entered(found, request.form.get("next"))


def put_off(wait: signing_in.TooSoon, page: Callable[[str], str]) -> ResponseReturnValue:
    """The page again, with how long to wait."""
    told("put off")
    return (
        page(too_soon(wait)),
        429,
        {"Retry-After": str(wait.seconds)},
    )


def too_soon(wait: signing_in.TooSoon) -> str:
    """How long somebody has to wait, in words."""
    seconds = ngettext("a second", "%(n)s seconds", wait.seconds, n=wait.seconds)
    return _("Too many tries have failed. Wait %(seconds)s, then try again.", seconds=seconds)


def entered(person_id: int, target: str | None) -> Response:
    """On to where somebody who is known now wanted to go, or to the second factor."""
    person = session().get_one(Person, person_id)
    if person.has_second_factor:
        browser_session["halfway"] = {"person": person.id, "at": int(time()), "next": target or ""}
        return redirect(url_for("signin.second"))
    told("succeeded")
    begin_session(person)
    return redirect(local(target) or url_for("home"))


HALFWAY = 300
"""Seconds for which somebody whose password was right may take to type a code."""


def halfway() -> Person | None:
    """Whose password was right just now, in this browser."""
    known = browser_session.get("halfway")
    if not isinstance(known, dict) or int(time()) - known["at"] > HALFWAY:
        return None
    person = session().get(Person, known["person"])
    return person if person and person.has_second_factor and not person.left else None


def second() -> ResponseReturnValue:
    """Ask for the code of the second factor."""
    if halfway() is None:
        return redirect(url_for("signin.form"))
    return render_template("signin/second.html")


def enter_second() -> ResponseReturnValue:
    """Sign in with the code, once the password was right. Wrong codes count as wrong passwords do."""
    person = halfway()
    if person is None:
        return redirect(url_for("signin.form"))

    def again(words: str) -> str:
        return render_template("signin/second.html", error=words)

    def fits() -> Person | None:
        with sessions()() as apart:
            right = second_factor.fits(apart, apart.get_one(Person, person.id), request.form.get("code", "")[:40])
            apart.commit()
        return person if right else None

    try:
        found = signing_in.by_second_factor(sessions(), person, devices.origin(), fits)
    except signing_in.TooSoon as wait:
        return put_off(wait, again)
    if found is None:
        told("failed")
        return again(
            _("This code does not fit, or was used already. Wait for the next one, or use a recovery code.")
        ), 422
    target = browser_session["halfway"]["next"]
    told("succeeded")
    begin_session(person)
    return redirect(local(target) or url_for("home"))


def told(outcome: str) -> None:
    """Count a try to sign in, and write it down."""
    SIGN_INS.labels(outcome).inc()
    if outcome != "succeeded":
        logs.security("sign-in", outcome=outcome)


def leave() -> ResponseReturnValue:
    """Sign out here. The session ends on the server too: a copy of its cookie is worth nothing afterwards.

    Whoever came by the school's account is signed out there as well.
    """
    there = end_session()
    if there is not None:  # by a page, since forms may lead to no other site, not even by way of this one
        return render_template("single_sign_on/leaving.html", there=there)
    return redirect(url_for("signin.form"))


def show(filled: SignInForm, error: str | None = None, **context: Any) -> str:
    """The sign-in page; in the demo with a button per demo account."""
    accounts = SHOWN_ACCOUNTS if current_app.config["DEMO"] else ()
    return render_template(
        "signin/form.html",
        form=filled,
        error=error,
        accounts=accounts,
        demo_password=DEMO_PASSWORD,
        pictures=pictures(),
        provider=provider.present(session()),
        **context,
    )


@cache
def pictures() -> list[tuple[Markup, str]]:
    """What the product is for, in three drawings with a sentence each: what is given, built, and checked."""
    task = read_task(LIBRARY["incircle"].document())
    answer = [one.name for one in task.wanted]
    given = picture(task.given, (), frame=task.model)
    built = picture(task.given, task.model[:-1], frame=task.model)
    checked = picture(task.given, task.model, answer)
    return [
        (Markup(given), _("A teacher sets a construction and its tools.")),
        (Markup(built), _("Students build it with ruler and compass.")),
        (Markup(checked), _("The program says whether it is right, and holds when dragged.")),
    ]


def local(target: str | None) -> str | None:
    """A path on this site, or None: nobody is sent elsewhere after signing in."""
    target = target or ""
    if not target.isprintable() or "\\" in target or not target.startswith("/") or target.startswith("//"):
        return None
    parts = urlsplit(target)
    return None if parts.scheme or parts.netloc else target
