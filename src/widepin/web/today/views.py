"""A teacher's first page: what is new, what is due, who needs help."""

from __future__ import annotations

from flask import redirect, render_template, url_for
from flask.typing import ResponseReturnValue

from ...school.models import now
from ...school.today import Hint, today_of
from ..access import me, teachers_only
from ..database import session
from ..figures import draft_figure


@teachers_only
def index() -> ResponseReturnValue:
    """What is new since the last visit, per class; who has no class yet begins with one."""
    found = today_of(session(), me())
    if not found.classes:
        return redirect(url_for("classes.index"))
    return render_template("today/index.html", today=found, at=now(), draft_figure=draft_figure, address_of=address_of)


def address_of(hint: Hint) -> str:
    """Where a hint leads."""
    kind, number = hint.target
    match kind:
        case "hand-in":
            return url_for("handins.hand_in", hand_in_id=number)
        case "work":
            return url_for("classes.replay", work_id=number)
        case _assignment:
            return url_for("classes.assignment", assignment_id=number)
