"""Activity for a store that the school names, as an administrator sets it up."""

from __future__ import annotations

import json
from datetime import datetime

from flask import current_app, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from ...documents.language import gettext as _
from ...joining import xapi
from ...joining.http_client import NotReached
from ...school.joining import activity
from ...school.models import now
from ...school.refused import Refused
from ..access import administrators_only, me
from ..addresses import address_of
from ..database import session

EXAMPLE = xapi.HandedIn(4711, 23, 7, "Midpoint of a segment", 100, True, 3, datetime(2026, 11, 30, 9, 15))


@administrators_only
def form() -> str:
    """The store, if one is set, and what is sent to it."""
    return show(activity.store(session()) or {})


def show(typed: dict[str, str], trouble: str | None = None) -> str:
    """The form for the store."""
    present = activity.store(session())
    return render_template(
        "administration/activity.html",
        typed=typed,
        present=present,
        last=datetime.fromisoformat(present["at"]) if present and "at" in present else None,
        example=json.dumps(xapi.statement(EXAMPLE, address_of("home")), indent=2),
        trouble=trouble,
        now=now(),
    )


@administrators_only
def store() -> ResponseReturnValue:
    """Set the store, once it has answered; with no address, none is told any more."""
    fields = {name: request.form.get(name, "").strip()[:600] for name in ("address", "key", "secret")}
    unsafe = not current_app.config["HTTPS"]
    try:
        if fields["address"]:
            secret = fields["secret"] or (activity.store(session()) or {}).get("secret", "")
            activity.check(fields["address"], fields["key"], secret, unsafe)
            session().commit()  # nothing is held while the store is waited for
            xapi.greet(fields["address"], fields["key"], secret)
        activity.set_store(session(), me(), fields["address"], fields["key"], fields["secret"], unsafe)
    except Refused as wrong:
        return show(fields, str(wrong)), 422
    except NotReached as wrong:
        return show(fields, _("The store did not answer as one: %(why)s.", why=wrong)), 422
    flash(_("Hand-ins are told to the store from now on.") if fields["address"] else _("Nothing is told any more."))
    return redirect(url_for("administration.activity"))
