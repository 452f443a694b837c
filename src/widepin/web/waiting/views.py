"""Long work that somebody waits for, and does not any more."""

from __future__ import annotations

from flask import flash, redirect, url_for
from flask.typing import ResponseReturnValue
from flask_login import login_required

from ...documents.language import gettext as _
from ...school import long_work
from ..access import me
from ..database import session


@login_required
def stop(key: str) -> ResponseReturnValue:
    """Stop what this person has begun; what is done already, or somebody else's, stays as it is."""
    long_work.stop(session(), key, me().id)
    flash(_("It was stopped. Nothing else has changed."))
    return redirect(url_for("home"))
