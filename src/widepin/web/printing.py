"""Pages on paper: a template, set by WeasyPrint."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from flask import Response, current_app, render_template, request

from .downloads import download

STATIC = Path(__file__).parent / "static"


def printed(name: str, template: str, **context: Any) -> Response:
    """A template as PDF, with the app's own typefaces."""
    # Takes more than a second to import, and few requests need it.
    from weasyprint import HTML  # type: ignore[import-untyped]

    page = render_template(template, address=current_app.config["ADDRESS"] or request.host_url, **context)
    document = HTML(string=page, base_url=STATIC.as_uri() + "/").write_pdf()
    return download(document, f"{name}.pdf", "application/pdf", in_place=True)
