"""QR pictures, as SVG without a file or a script."""

from __future__ import annotations

import io

import segno


def picture_of(text: str) -> str:
    """A QR picture of a text, as an SVG element of a page."""
    out = io.BytesIO()
    segno.make(text, error="m").save(
        out, kind="svg", xmldecl=False, svgns=False, scale=5, border=2, svgclass="qr", lineclass=None, omitsize=False
    )
    return out.getvalue().decode()
