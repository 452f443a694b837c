"""The teacher's guide."""

from __future__ import annotations

from flask import render_template, request

from ...documents.language import gettext as _
from ..access import teachers_only
from .sections import SECTIONS, WORDS


@teachers_only
def index() -> str:
    """The guide, or the sections and words that have all the words that are looked for."""
    words = request.args.get("words", "").strip()[:60]

    def has(text: str) -> bool:
        return all(word in text.casefold() for word in words.casefold().split())

    return render_template(
        "guide/index.html",
        sections=[one for one in SECTIONS if has(" ".join((_(one.heading), *(_(text) for text in one.paragraphs))))],
        terms={term: text for term, text in WORDS.items() if has(f"{_(term)} {_(text)}")},
        words=words,
    )
