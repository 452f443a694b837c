"""Documents on paper: made apart, one at a time for a person, and kept for a while for whoever asks again.

A paper is known by what is on it, so that one that has not changed is not made twice.
"""

from __future__ import annotations

from flask import Response

from ...documents.reading import JsonObject
from ...school.database import Sessions
from ...school.long_work import Tell
from ..downloads import download
from ..jobs import results
from . import paper


def printed(name: str, kind: str, data: JsonObject) -> Response:
    """A document of a kind of ``paper.KINDS`` as PDF, or the page that says how far it is."""
    key = results.key_of("paper", kind, data)
    content = results.result_of(key, typeset, (kind, data))
    if content is None:
        return results.being_made(name, key)
    return download(content, f"{name}.pdf", "application/pdf", in_place=True)


def typeset(_sessions: Sessions, tell: Tell, about: tuple[str, JsonObject]) -> bytes:
    """The paper, as ``paper.typeset`` makes it."""
    kind, data = about
    return paper.typeset(kind, data, tell)
