"""Scripts, styles and typefaces: each under an address that tells what is in them, so that browsers keep them.

All of them lie below one folder whose name is a digest of their contents: modules that import each other by relative
paths stay together, and a new version of the program has new addresses.
"""

from __future__ import annotations

import hashlib
import re
from functools import cache
from pathlib import Path
from shutil import copytree
from wsgiref.headers import Headers

from flask import Flask, Response
from whitenoise import WhiteNoise
from whitenoise.compress import Compressor

FOLDER = Path(__file__).parents[1] / "static"

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


def use_static_files(app: Flask, scratch: Path) -> None:
    """Serve the files for good under the address of their version, and for now under any other.

    WhiteNoise answers for good, before the application is asked: nothing about a person is read for a file, so that it
    is the same for everybody who sits down at a browser, and costs a tenth. It takes compressed copies in ``scratch``,
    made here: the program's own folder need not be writable.
    """

    def without_version(filename: str) -> Response:
        """A file by its bare name, or one that a page of an older version asks for: as it is now."""
        return app.send_static_file(DIGEST.sub("", filename, count=1))

    app.add_url_rule("/static/<path:filename>", "static_now", without_version)
    app.wsgi_app = WhiteNoise(  # type: ignore[method-assign]
        app.wsgi_app,
        root=str(_compressed(scratch / "static")),
        prefix=app.static_url_path,
        immutable_file_test=lambda _path, _url: True,
        allow_all_origins=False,
        add_headers_function=_say_that_types_are_right,
    )


def _compressed(copies: Path) -> Path:
    """A folder with copies of all files, and of most a compressed one beside it."""
    copytree(FOLDER, copies, dirs_exist_ok=True)
    # Brotli saves a tenth more, and takes seconds at each start.
    compressor = Compressor(use_brotli=False, quiet=True)
    for path in [path for path in copies.rglob("*") if path.is_file()]:
        if compressor.should_compress(path.name):
            compressor.compress(str(path))
    return copies


def _say_that_types_are_right(headers: Headers, _path: str, _url: str) -> None:
    headers["X-Content-Type-Options"] = "nosniff"
