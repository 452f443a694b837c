"""Forms that say what they were made from, so that what somebody else has saved meanwhile is not lost.

``made_from`` in a template writes the fields as the page found them; ``joined_form`` joins what was sent with what is
stored by now.
"""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence

from flask import request
from markupsafe import Markup
from werkzeug.datastructures import MultiDict

from ..documents.joining import joined

Typed = Mapping[str, str | Sequence[str]]
"""Fields as they are typed: one value, or several for a field of choices."""

FIELD = "made_from"


def made_from(fields: Typed) -> Markup:
    """The hidden field that says what a form is made from."""
    return Markup('<input type="hidden" name="{}" value="{}">').format(FIELD, json.dumps(_as_lists(fields)))


def joined_form(stored: Typed, titles: Mapping[str, str] | None = None) -> MultiDict[str, str]:
    """The form that was sent, with the fields that were left alone in it as they are stored. Raises ChangedElsewhere.

    ``stored``: the fields as they would be typed now. A form that does not say what it is made from stands as it is.
    """
    form = MultiDict(request.form)
    known = _as_lists(stored)
    sent = {name: sorted(value.strip() for value in form.getlist(name)) for name in known}
    found = joined(sent, _sent_made_from(), known, titles)
    for name, values in found.items():
        if values != sent[name]:
            form.setlist(name, values)
    return form


def _sent_made_from() -> dict[str, list[str]]:
    try:
        found = json.loads(request.form.get(FIELD, "{}"))
    except (ValueError, RecursionError):
        return {}
    if not isinstance(found, dict):
        return {}
    return {name: values for name, values in found.items() if isinstance(values, list)}


def _as_lists(fields: Typed) -> dict[str, list[str]]:
    return {name: [value] if isinstance(value, str) else sorted(value) for name, value in fields.items()}
