"""Whole addresses of pages, as other systems and people elsewhere know them."""

from __future__ import annotations

from typing import Any

from flask import current_app, request, url_for


def address_of(endpoint: str, **values: Any) -> str:
    """The address of a page: under that of the school where one is set, else under that of the request."""
    known = current_app.config["ADDRESS"] or request.host_url
    return str(known).rstrip("/") + url_for(endpoint, **values)
