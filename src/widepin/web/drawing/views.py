"""What the browser draws and speaks with: the tool book, with its words, under an address that changes with it."""

from __future__ import annotations

import hashlib
import json
from functools import cache

from flask import Response, abort, url_for

from ...documents.reading import JsonObject
from ...documents.wording import make_words, relation_words
from ...plane import toolbook


@cache
def book() -> tuple[str, str]:
    """The tool book as text, and the version that its address carries."""
    words = {"words": make_words.words_for_scripts(), "relations": relation_words.words_for_scripts()}
    text = json.dumps(toolbook.tool_book() | words, separators=(",", ":"))
    return text, hashlib.sha256(text.encode()).hexdigest()[:16]


def tool_book(version: str) -> Response:
    """The tool book; it may be kept for ever, since another one has another address."""
    text, current = book()
    if version != current:
        abort(404)
    response = Response(text, mimetype="application/json")
    response.cache_control.public = True
    response.cache_control.max_age = 31_536_000
    response.cache_control.immutable = True
    return response


def tool_book_address() -> JsonObject:
    """The address, for templates."""
    return {"tool_book_url": url_for("drawing.tool_book", version=book()[1])}
