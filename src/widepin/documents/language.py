"""Texts in the reader's language. English is the only one so far; a catalogue of another can be added without code.

Texts are marked as Flask-Babel marks them, so that ``pybabel extract`` gathers them. Whoever answers a
request chooses the catalogue.
"""

from __future__ import annotations

from contextvars import ContextVar
from gettext import NullTranslations
from typing import Any

catalogue: ContextVar[NullTranslations] = ContextVar("catalogue")
"""The translations in use; none means English."""

ENGLISH = NullTranslations()


def gettext(text: str, **values: Any) -> str:
    """A text with ``%(name)s`` replaced by the value of that name."""
    said = catalogue.get(ENGLISH).gettext(text)
    return said % values if values else said


def marked(text: str) -> str:
    """A text that is gathered for translation here, and translated where it is said."""
    return text


def ngettext(one: str, several: str, count: float, **values: Any) -> str:
    """The text for one or for several, with ``count`` as ``n``. A fraction counts as several."""
    said = catalogue.get(ENGLISH).ngettext(one, several, 1 if count == 1 else max(2, int(count)))
    return said % {"n": count, **values} if "%(" in said else said
