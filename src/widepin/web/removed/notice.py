"""What is said when something was removed."""

from __future__ import annotations

from flask import url_for
from markupsafe import Markup

from ...documents.language import gettext as _


def in_the_bin(done: str, comfort: str = "") -> Markup:
    """A sentence on what was removed, with the way to have it back. ``comfort``: said instead of for how long."""
    words = comfort or _("For 30 days you can have it back.")
    return Markup('{} {} <a href="{}">{}</a>').format(done, words, url_for("removed.index"), _("Recently deleted"))
