"""Two hands on one thing: a change says what it was made from, and is joined with what others changed meanwhile."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ..plane.errors import CoreError
from .language import gettext as _


class ChangedElsewhere(CoreError):
    """The same fields were changed elsewhere meanwhile, in another way. ``names``: of these."""

    def __init__(self, names: list[str], titles: Mapping[str, str] | None = None):
        self.names = names
        said = ", ".join(dict.fromkeys((titles or {}).get(name, name) for name in names))
        super().__init__(
            _(
                "Changed elsewhere meanwhile: %(what)s. What you typed stands here; save again to keep it, or load the"
                " page again to see the other.",
                what=said,
            )
        )


def joined(
    sent: Mapping[str, Any],
    made_from: Mapping[str, Any],
    stored: Mapping[str, Any],
    titles: Mapping[str, str] | None = None,
) -> dict[str, Any]:
    """The fields as they are to be stored: those that were changed here, and as they are stored where they were not.

    ``made_from``: the fields as they were found; one that is not among them counts as changed here. Fields that are
    objects are joined field by field. ``titles``: what fields are called. Raises ChangedElsewhere.

    >>> joined({"a": 2, "b": 1}, {"a": 1, "b": 1}, {"a": 1, "b": 5})
    {'a': 2, 'b': 5}
    """
    found: dict[str, Any] = {}
    wrong = []
    for name, value in sent.items():
        was, there = made_from.get(name), stored.get(name)
        if name not in made_from or there in (was, value):
            found[name] = value
        elif value == was:
            found[name] = there
        elif isinstance(value, dict) and isinstance(was, dict) and isinstance(there, dict):
            try:
                found[name] = joined(value, was, there)
            except ChangedElsewhere:
                wrong.append(name)
        else:
            wrong.append(name)
    if wrong:
        raise ChangedElsewhere(wrong, titles)
    return found
