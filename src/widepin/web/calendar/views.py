"""The address of one's own calendar of due dates, and the calendar itself."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Response, abort, current_app, flash, redirect, render_template, request, url_for
from flask_login import login_required
from werkzeug.wrappers import Response as Answer

from ...documents.formats.calendar import ASKED_FOR, Entry, calendar_of
from ...documents.language import gettext as _
from ...school.lessons import due_dates
from ...school.models import Person, now
from ...school.people import calendar_addresses
from ..access import me
from ..database import session


@login_required
def index() -> str:
    """One's own address, if there is one, and what it is good for."""
    secret = calendar_addresses.secret_of(current_app.config["CODES_KEY"], me())
    address = url_for("calendar.feed", person_id=me().id, secret=secret, _external=True) if secret else None
    dates = due_dates.of(session(), me())
    upcoming = [one for one in dates if one.at >= now()]
    return render_template(
        "calendar/index.html",
        address=address,
        subscribe=address and address.replace(urlsplit(address).scheme, "webcal", 1),
        upcoming=upcoming,
    )


@login_required
def renew() -> Answer:
    """An address, or another one."""
    is_first = me().calendar_number <= 0
    calendar_addresses.renew(me())
    first = _("Your calendar has an address now.")
    flash(first if is_first else _("Your calendar has another address; the old one is void."))
    return redirect(url_for("calendar.index"))


@login_required
def end() -> Answer:
    """No address any more."""
    calendar_addresses.end(me())
    flash(_("Your calendar has no address any more; programs that know the old one get nothing."))
    return redirect(url_for("calendar.index"))


def feed(person_id: int, secret: str) -> Response:
    """The due dates of whoever has this address."""
    person = calendar_addresses.person_at(session(), current_app.config["CODES_KEY"], person_id, secret)
    if person is None:
        abort(404)
    name = _("Due: %(school)s", school=current_app.config["SCHOOL_NAME"] or "Wide Pin")
    entries = [_entry(person, one) for one in due_dates.of(session(), person)]
    response = Response(calendar_of(name, entries, now()), mimetype="text/calendar")
    response.cache_control.private = True
    response.cache_control.max_age = int(ASKED_FOR.total_seconds()) // 8
    return response


def _entry(person: Person, one: due_dates.DueDate) -> Entry:
    endpoint = "classes.assignment" if person.is_teacher else "tasks.board"
    link = url_for(endpoint, assignment_id=one.number, _external=True)
    return Entry(f"assignment-{one.number}@{request.host}", one.title, one.class_name, one.at, link)
