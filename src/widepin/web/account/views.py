"""One's own account: password, second factor, and where one is signed in."""

from __future__ import annotations

from flask import abort, current_app, flash, redirect, render_template, request, url_for
from flask import session as browser_session
from flask.typing import ResponseReturnValue
from markupsafe import Markup
from werkzeug.wrappers import Response

from ...documents.language import gettext as _
from ...school.models import BrowserSession
from ...school.people import accounts, browser_sessions, signing_in
from ...school.people import second_factor as factors
from ...school.refused import Refused
from ...school.works import phrases
from ..access import begin_session, me, teachers_only
from ..database import session, sessions
from ..printed.qr import picture_of
from ..serving import devices
from ..signin.views import too_soon


@teachers_only
def index() -> str:
    """One's own account."""
    return show()


def show(**context: object) -> str:
    """The page of one's own account, with what is wrong with what was typed."""
    return render_template(
        "account/index.html",
        sessions=browser_sessions.of(session(), me()),
        phrases=phrases.of(session(), me()),
        here=accounts.digest(browser_session.get("key", "")),
        codes_left=factors.codes_left(session(), me()),
        least=accounts.SHORTEST_WITH_SECOND_FACTOR if me().has_second_factor else accounts.SHORTEST_PASSWORD,
        **context,
    )


def wrong_password(typed: str) -> str:
    """What is wrong with the password of whoever sits here, in words, "" for nothing: the browser may be found open."""
    passwords = current_app.extensions["passwords"]
    try:
        right = signing_in.confirm_password(sessions(), passwords, me(), typed, devices.origin())
    except signing_in.TooSoon as wait:
        return too_soon(wait)
    return "" if right else _("This is not your present password.")


@teachers_only
def set_password() -> ResponseReturnValue:
    """Choose another password; other browsers have to sign in again."""
    if trouble := wrong_password(request.form.get("old", "")):
        return show(password_trouble=trouble), 422
    try:
        accounts.change_password(
            session(),
            me(),
            current_app.extensions["passwords"],
            request.form.get("new", ""),
            current_app.config["SCHOOL_NAME"],
        )
    except Refused as wrong:
        return show(password_trouble=str(wrong)), 422
    begin_session(me())
    flash(_("Your password is changed. Wherever else you were signed in, that has ended."))
    return redirect(url_for("account.index"))


@teachers_only
def set_proofs() -> Response:
    """How proofs are shown to oneself and one's students."""
    me().elements = request.form.get("elements") == "yes"
    named, unnamed = _("Proofs name places in Euclid’s Elements."), _("Proofs name no places in the Elements.")
    flash(named if me().elements else unnamed)
    return redirect(url_for("account.index", _anchor="proofs"))


@teachers_only
def remove_phrase(phrase_id: int) -> Response:
    """Forget a phrase."""
    phrases.remove(session(), me(), phrase_id)
    return redirect(url_for("account.index", _anchor="phrases"))


@teachers_only
def second_factor() -> ResponseReturnValue:
    """A secret for an app that makes codes, as a picture and in letters."""
    if me().has_second_factor:
        return redirect(url_for("account.index"))
    here = this_session()
    here.otp_secret = here.otp_secret or factors.new_secret()  # on the server: a cookie can be read
    return show_secret()


def this_session() -> BrowserSession:
    """The session that this request belongs to."""
    found = browser_sessions.known(session(), browser_session.get("key", ""))
    if found is None:
        abort(404)
    return found


def show_secret(trouble: str | None = None) -> str:
    """The page with the secret that is being set up."""
    secret = this_session().otp_secret
    address = factors.address_of(secret, me(), current_app.config["SCHOOL_NAME"] or "Wide Pin")
    return render_template(
        "account/second_factor.html", picture=Markup(picture_of(address)), secret=secret, trouble=trouble
    )


@teachers_only
def set_second_factor() -> ResponseReturnValue:
    """Ask for codes from now on, once the first one is right; show the recovery codes."""
    secret = this_session().otp_secret
    if not secret or me().has_second_factor:
        return redirect(url_for("account.second_factor"))
    if trouble := wrong_password(request.form.get("password", "")):
        return show_secret(trouble), 422
    codes = factors.begin(session(), me(), secret, request.form.get("code", ""))
    if codes is None:
        return show_secret(_("This code does not fit. Type the one that the app shows now; is its clock right?")), 422
    this_session().otp_secret = ""
    return render_template("account/recovery_codes.html", codes=codes)


@teachers_only
def end_second_factor() -> ResponseReturnValue:
    """Sign in with the password alone from now on."""
    if trouble := wrong_password(request.form.get("password", "")):
        return show(factor_trouble=trouble), 422
    factors.end(session(), me())
    flash(_("Signing in asks for the password alone from now on."))
    return redirect(url_for("account.index"))


@teachers_only
def new_codes() -> ResponseReturnValue:
    """New recovery codes; the old ones are void."""
    if not me().has_second_factor:
        return redirect(url_for("account.index"))
    if trouble := wrong_password(request.form.get("password", "")):
        return show(factor_trouble=trouble), 422
    return render_template("account/recovery_codes.html", codes=factors.new_recovery_codes(session(), me()))


@teachers_only
def end_session(session_id: int) -> Response:
    """End one of one's own sessions."""
    browser_sessions.end_one(session(), me(), session_id)
    flash(_("That browser has to sign in again."))
    return redirect(url_for("account.index"))


@teachers_only
def end_others() -> Response:
    """End all of one's own sessions but this one."""
    browser_sessions.end_others(session(), me(), browser_session.get("key", ""))
    flash(_("You are signed in here alone."))
    return redirect(url_for("account.index"))
