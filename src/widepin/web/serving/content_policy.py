"""What a page may do beyond the content security policy of all: be framed by a platform, or send a form there."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Flask, Response, g

POLICY = "Content-Security-Policy"


def use_content_policy(app: Flask) -> None:
    """Let views widen the policy of their page. To be called before what sets the policy: the last is done first."""
    app.after_request(_widen)


def allow(directive: str, *addresses: str) -> None:
    """Let this page be framed by (``frame-ancestors``), or send forms to (``form-action``), the sites of addresses."""
    g.setdefault("content_policy", {})[directive] = sorted({origin for one in addresses if (origin := origin_of(one))})


def origin_of(address: str) -> str:
    """The site of an address; "" for what is none.

    >>> origin_of("https://learn.example:8443/a/b?c"), origin_of("javascript:alert(1)"), origin_of("https://a b")
    ('https://learn.example:8443', '', '')
    """
    parts = urlsplit(address)
    is_site = parts.scheme in ("https", "http") and parts.netloc and not set(parts.netloc) & set(" ;,'\"@")
    return f"{parts.scheme}://{parts.netloc}" if is_site else ""


def _widen(response: Response) -> Response:
    for directive, origins in g.pop("content_policy", {}).items():
        parts = [part.strip() for part in response.headers.get(POLICY, "").split(";")]
        others = [part for part in parts if part and not part.startswith(directive)]
        allowed = ["'self'", *origins] if directive == "form-action" else origins or ["'none'"]
        response.headers[POLICY] = "; ".join([*others, " ".join([directive, *allowed])])
        if directive == "frame-ancestors":
            response.headers.pop("X-Frame-Options", None)
    return response
