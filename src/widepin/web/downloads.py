"""Files that a page hands out."""

from __future__ import annotations

import re

from flask import Response


def download(content: str | bytes, name: str, kind: str, in_place: bool = False) -> Response:
    """A file of a media type under a name; ``in_place``: shown by the browser instead of kept."""
    plain = re.sub(r"[^\w.,() -]", "", name) or "file"
    response = Response(content, mimetype=kind)
    response.headers.set("Content-Disposition", "inline" if in_place else "attachment", filename=plain)
    return response
