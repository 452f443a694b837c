"""The lists of the school's office: looked through, then taken over; and from where they come nightly."""

from __future__ import annotations

from datetime import datetime

from flask import Response, current_app, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from ...documents.language import gettext as _
from ...documents.language import ngettext
from ...documents.reading import Unreadable
from ...joining.oneroster import read_zip, results_zip
from ...school.joining import office_lists
from ...school.people import audit
from ...school.refused import Refused
from ...school.states import Action
from ..access import administrators_only, me
from ..database import session
from ..downloads import download
from ..jobs import joining


@administrators_only
def form() -> str:
    """Where lists are brought, and from where they come nightly."""
    return show()


def show(trouble: str | None = None) -> str:
    """The page of lists."""
    there = office_lists.source(session())
    return render_template(
        "administration/lists.html",
        source=there,
        last=datetime.fromisoformat(there["at"]) if there and "at" in there else None,
        waits=office_lists.kept(session(), me()) is not None,
        trouble=trouble,
    )


@administrators_only
def bring() -> ResponseReturnValue:
    """Take a file of lists, to be looked through; nothing is changed yet."""
    file = request.files.get("file")
    content = file.read() if file else b""
    try:
        if not content:
            raise Refused(_("Choose a file: the lists as OneRoster CSV, in a ZIP file."))
        read_zip(content)
        office_lists.keep(session(), me(), content)
    except (Refused, Unreadable) as wrong:
        return show(str(wrong)), 422
    return redirect(url_for("administration.look_through"))


@administrators_only
def look_through() -> ResponseReturnValue:
    """What taking the lists over would do."""
    content = office_lists.kept(session(), me())
    if content is None:
        return redirect(url_for("administration.lists"))
    lists = read_zip(content)
    return render_template(
        "administration/look_through.html", lists=lists, plan=office_lists.plan(session(), lists), most=MOST_SHOWN
    )


MOST_SHOWN = 200
"""Names of each kind that are shown; of the others it is said how many there are."""


@administrators_only
def take_over() -> ResponseReturnValue:
    """Take the lists over, as they were looked through."""
    content = office_lists.kept(session(), me())
    if content is None:
        return redirect(url_for("administration.lists"))
    lists = read_zip(content)
    decided = {
        name.removeprefix("same-"): int(value)
        for name, value in request.form.items()
        if name.startswith("same-") and value.isdecimal() and len(value) < 10
    }
    done = office_lists.take_over(session(), me(), lists, decided)
    office_lists.forget(session(), me())
    flash(in_words(done, len(done.doubtful) - len(decided)))
    return redirect(url_for("administration.lists"))


def in_words(done: office_lists.Plan, undecided: int) -> str:
    """What was done, in a sentence."""
    parts = [
        ngettext("%(n)s account made", "%(n)s accounts made", len(done.new)),
        ngettext("%(n)s name changed", "%(n)s names changed", len(done.changed)),
        ngettext("%(n)s class made", "%(n)s classes made", len(done.new_classes)),
    ]
    said = _("The lists are taken over: %(what)s.", what=", ".join(parts))
    if undecided > 0:
        said += " " + ngettext("%(n)s person was left out.", "%(n)s people were left out.", undecided)
    return said


@administrators_only
def drop() -> ResponseReturnValue:
    """Throw the lists away that were brought; nothing is changed."""
    office_lists.forget(session(), me())
    return redirect(url_for("administration.lists"))


@administrators_only
def set_source() -> ResponseReturnValue:
    """Choose from where lists come nightly."""
    address, token_address, client_id, secret = (
        request.form.get(name, "").strip()[:500] for name in ("address", "token_address", "client_id", "secret")
    )
    unsafe = not current_app.config["HTTPS"]
    try:
        office_lists.set_source(session(), me(), address, client_id, secret, unsafe, token_address)
    except Refused as wrong:
        return show(str(wrong)), 422
    flash(_("That is saved."))
    return redirect(url_for("administration.lists"))


@administrators_only
def ask_now() -> ResponseReturnValue:
    """Take the lists over from the address now."""
    session().commit()  # nothing is held while the office is waited for
    flash(joining.take_over_office())
    return redirect(url_for("administration.lists"))


@administrators_only
def results() -> Response:
    """What listed students have reached in listed classes, for the office."""
    audit.record(session(), me(), Action.EXPORTED)
    return download(results_zip(*office_lists.results(session())), "results.zip", "application/zip")
