"""The teacher's guide."""

from __future__ import annotations

from flask import abort, render_template, request
from flask_login import login_required

from ...documents.language import gettext as _
from ...documents.reasons.reason_cards import card_at, cards
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


@login_required
def reasons() -> str:
    """All that a line of a proof may rest on, by topics."""
    return render_template("guide/reasons.html", topics=cards())


@login_required
def reason(anchor: str) -> str:
    """The card of one reason, to be shown beside a proof."""
    card = card_at(anchor)
    if card is None:
        abort(404)
    return render_template("guide/reason.html", card=card)
