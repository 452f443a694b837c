"""The bin: what was removed in the last 30 days, restored or erased from here."""

from __future__ import annotations

from flask import abort, flash, redirect, render_template, url_for
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from ...documents.language import gettext as _
from ...documents.language import marked
from ...school.models import Removal
from ...school.people import removing
from ...school.refused import Refused
from ...school.states import Removed
from ..access import me, teachers_only
from ..database import session
from ..jobs import background

KINDS = {
    Removed.CLASS: marked("class"),
    Removed.ASSIGNMENT: marked("task of a class"),
    Removed.TASK: marked("task of yours"),
    Removed.MEMBER: marked("taken out of a class"),
    Removed.STUDENT: marked("student"),
    Removed.DEMONSTRATION: marked("demonstration"),
    Removed.COMMENT: marked("comment"),
}
"""What was removed, in words."""


@teachers_only
def index() -> str:
    """What can be had back."""
    return render_template(
        "removed/index.html", removals=removing.listed(session(), me()), kinds=KINDS, kept=removing.KEPT
    )


def own_removal(removal_id: int) -> Removal:
    """Something that this teacher may have back."""
    try:
        return removing.in_bin(session(), me(), removal_id)
    except removing.Gone:
        abort(404)


@teachers_only
def restore(removal_id: int) -> Response:
    """Have something back."""
    found = own_removal(removal_id)
    name = found.name
    try:
        removing.restore(session(), me(), found)
        flash(_("“%(name)s” is back.", name=name))
    except Refused as wrong:
        flash(str(wrong))
    return redirect(url_for("removed.index"))


@teachers_only
def ask_erase(removal_id: int) -> str:
    """Say that it cannot be had back then."""
    found = own_removal(removal_id)
    return render_template(
        "confirm.html",
        title=_("Erase “%(name)s” now?", name=found.name),
        lost=[_("all that hangs on it; nobody can restore it then")],
        keep=_("Left alone, it is erased when its time is over."),
        action=url_for("removed.erase", removal_id=found.id),
        deed=_("Erase for ever"),
        back=url_for("removed.index"),
    )


@teachers_only
def erase(removal_id: int) -> ResponseReturnValue:
    """Give something up for good."""
    found = own_removal(removal_id)
    removing.erase_soon(session(), me(), found)
    background.after_this(background.erase_outdated)
    flash(_("“%(name)s” is being erased.", name=found.name))
    return redirect(url_for("removed.index"))
