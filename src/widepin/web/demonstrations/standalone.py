"""A demonstration as one HTML file that opens without a network: the same scripts and styles as the page, within it.

Scripts stay modules. An import map leads from their names to their texts, so that nothing is bundled or rewritten but
the paths that they import each other by.
"""

from __future__ import annotations

import json
import posixpath
import re
from base64 import b64encode
from collections.abc import Mapping
from functools import cache
from pathlib import Path

from flask import render_template

from ...documents.reading import JsonObject
from ..drawing.views import book

STATIC = Path(__file__).resolve().parents[1] / "static"
ENTRY = "demonstration/show.js"
STYLES = ("look/colours.css", "look/figure.css", "look/pages/demonstration.css")
IMPORT = re.compile(r'(\bfrom\s+|\bimport\s+)"(\.{1,2}/[^"]+)"')


def standalone(document: JsonObject, spoken: Mapping[str, str]) -> str:
    """The file. ``spoken``: the recordings of its frames, by digest, each as an address that holds it."""
    return render_template(
        "demonstrations/standalone.html",
        document=document,
        spoken=dict(spoken),
        import_map=import_map(),
        entry=name_of(ENTRY),
        styles="\n".join((STATIC / path).read_text() for path in STYLES),
        book=json.loads(book()[0]),
    )


@cache
def import_map() -> JsonObject:
    """The scripts that the page needs, each as an address that holds its text."""
    return {"imports": {name_of(path): as_address(text) for path, text in scripts(ENTRY).items()}}


def scripts(entry: str) -> dict[str, str]:
    """A script and all that it imports, by path, with imports by name.

    >>> "figure/view.js" in scripts("figure/drawing.js") or "figure/layer.js" in scripts("figure/drawing.js")
    True
    """
    found: dict[str, str] = {}
    waiting = [entry]
    while waiting:
        path = waiting.pop()
        if path in found:
            continue
        text = (STATIC / path).read_text()
        folder = posixpath.dirname(path)

        def named(match: re.Match[str], folder: str = folder) -> str:
            wanted = posixpath.normpath(posixpath.join(folder, match[2]))
            waiting.append(wanted)
            return f'{match[1]}"{name_of(wanted)}"'

        found[path] = IMPORT.sub(named, text)
    return found


def name_of(path: str) -> str:
    """What a script is imported by in the file."""
    return f"widepin/{path}"


def as_address(text: str) -> str:
    """An address that holds a script."""
    return f"data:text/javascript;base64,{b64encode(text.encode()).decode()}"
