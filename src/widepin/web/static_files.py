"""Scripts, styles and typefaces: each under an address that tells what is in them, so that browsers keep them.

All of them lie below one folder whose name is a digest of their contents: modules that import each other by relative
paths stay together, and a new version of the program has new addresses.
"""

from __future__ import annotations

import hashlib
import re
from functools import cache
from pathlib import Path

from flask import Flask, Response, request

FOLDER = Path(__file__).parent / "static"

A_YEAR = 365 * 24 * 3600

ENDPOINTS = ("static", "static_now")

DIGEST = re.compile(r"[0-9a-f]{12}/")


@cache
def digest() -> str:
    """A digest of all files that are served."""
    contents = hashlib.sha256()
    for path in sorted(FOLDER.rglob("*")):
        if path.is_file():
            contents.update(f"{path.relative_to(FOLDER)}\n".encode())
            contents.update(hashlib.sha256(path.read_bytes()).digest())
    return contents.hexdigest()[:12]


def use_static_files(app: Flask) -> None:
    """Serve the files for good under the address of their version, and for now under any other."""

    def without_version(filename: str) -> Response:
        """A file by its bare name, or one that a page of an older version asks for: as it is now."""
        return app.send_static_file(DIGEST.sub("", filename, count=1))

    def keep(response: Response) -> Response:
        if request.endpoint == "static" and response.status_code in (200, 206, 304):
            response.cache_control.no_cache = None
            response.cache_control.public = True
            response.cache_control.max_age = A_YEAR
            response.cache_control.immutable = True
        return response

    app.add_url_rule("/static/<path:filename>", "static_now", without_version)
    app.after_request(keep)
