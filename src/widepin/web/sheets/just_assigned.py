"""What somebody assigned just now, and can take back for a minute."""

from __future__ import annotations

from collections.abc import Sequence
from time import time

from flask import session as browser_session
from flask import url_for
from flask_wtf.csrf import generate_csrf
from markupsafe import Markup

from ...documents.language import gettext as _
from ...school.models import Assignment

SECONDS = 60
GRACE = 15
"""Seconds that it takes to read the notice and to press its button."""

KEY = "assigned"
"""In the session of the browser: numbers of the assignments, of their task, and when it was."""


def notice(said: str, sheet_id: int, made: Sequence[Assignment]) -> Markup:
    """What is said of a task that was assigned just now, with the button that takes it back."""
    browser_session[KEY] = {"sheet": sheet_id, "made": [one.id for one in made], "at": int(time())}
    return Markup(
        '{} <form class="in-notice" method="post" action="{}"><input type="hidden" name="csrf_token" value="{}">'
        '<button class="btn btn-plain">{}</button></form>'
    ).format(said, url_for("sheets.take_back"), generate_csrf(), _("Take it back"))


def to_take_back() -> tuple[int | None, list[int]]:
    """The number of the task, and those of the assignments that can be taken back; asked for once."""
    known = browser_session.pop(KEY, None)
    if not known or time() - known["at"] > SECONDS + GRACE:
        return None, []
    return known["sheet"], known["made"]
