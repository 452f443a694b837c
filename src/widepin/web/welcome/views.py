"""Links that work once: an account is made, or a password chosen anew."""

from __future__ import annotations

from flask import current_app, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from ...documents.language import gettext as _
from ...school.models import OneTimeLink
from ...school.people import accounts
from ...school.refused import Refused
from ...school.states import LinkPurpose
from ..access import begin_session
from ..database import session


def link(token: str) -> ResponseReturnValue:
    """What a link is for; opening it uses nothing up, since programs that look at messages open links too."""
    found = accounts.open_link(session(), token)
    return show(found) if found else gone()


def gone() -> ResponseReturnValue:
    """A link that does not work, or no longer."""
    return render_template("welcome/gone.html"), 404


def show(found: OneTimeLink, trouble: str | None = None) -> str:
    """The form that a link leads to."""
    return render_template(
        "welcome/link.html",
        link=found,
        is_invitation=found.purpose is LinkPurpose.INVITATION,
        typed=request.form,
        trouble=trouble,
        least=accounts.SHORTEST_PASSWORD,
        days=accounts.LINK_HOLDS.days,
    )


def use(token: str) -> ResponseReturnValue:
    """Make the account, or change the password; then somebody is signed in."""
    found = accounts.open_link(session(), token)
    if found is None:
        return gone()
    passwords, school = current_app.extensions["passwords"], current_app.config["SCHOOL_NAME"]
    password = request.form.get("password", "")
    try:
        if found.purpose is LinkPurpose.INVITATION:
            name, login = request.form.get("name", ""), request.form.get("login", "")
            person = accounts.join(session(), found, passwords, name, login, password, school)
        else:
            person = accounts.choose_anew(session(), found, passwords, password, school)
    except Refused as wrong:
        return show(found, str(wrong)), 422
    begin_session(person)
    flash(_("Welcome, %(name)s. Your login is %(login)s.", name=person.name, login=person.login))
    return redirect(url_for("home"))
