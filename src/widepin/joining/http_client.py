"""Asking other systems over HTTP: with limits of time and size, and errors that say what went wrong."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import requests

from ..documents.language import gettext as _

TIMEOUT = (5, 15)
"""Seconds for a connection, and between two parts of an answer."""

LARGEST = 20_000_000
"""Bytes of an answer."""


class NotReached(Exception):
    """Another system that could not be asked; the message says what happened, in a clause.

    ``status``: of its answer; 0 where there was none. ``is_passing``: whether asking again later may help.
    """

    def __init__(self, words: str, status: int = 0):
        super().__init__(words)
        self.status = status

    @property
    def is_passing(self) -> bool:
        """Whether it is likely to be over some time: no answer, an error of its own, or too many requests."""
        return self.status == 0 or self.status >= 500 or self.status in (408, 425, 429)


@dataclass(frozen=True)
class Answer:
    """What another system said. ``date``: of its clock, as its header says; ``next``: where the list goes on."""

    content: bytes
    json: Any
    date: str
    next: str


def ask(
    method: str,
    address: str,
    *,
    token: str = "",
    accept: str = "application/json",
    form: Mapping[str, str] | None = None,
    body: str | bytes | None = None,
    content_type: str = "application/json",
    auth: tuple[str, str] | None = None,
    headers: Mapping[str, str] | None = None,
) -> Answer:
    """Send a request. Raises NotReached for anything but an answer of success that can be read."""
    headers = {"Accept": accept, "User-Agent": "widepin", **(headers or {})}
    if token:
        headers["Authorization"] = f"Bearer {token}"
    if body is not None:
        headers["Content-Type"] = content_type
    host = _host(address)
    try:
        with requests.request(
            method,
            address,
            headers=headers,
            data=body if body is not None else form,
            auth=auth,
            timeout=TIMEOUT,
            allow_redirects=False,
            stream=True,
        ) as answer:
            content = answer.raw.read(LARGEST + 1, decode_content=True)
    except requests.exceptions.SSLError:
        raise NotReached(_("%(host)s has no certificate that is trusted here", host=host)) from None
    except requests.exceptions.Timeout:
        raise NotReached(_("%(host)s did not answer in time", host=host)) from None
    except (requests.exceptions.RequestException, OSError, ValueError):
        raise NotReached(_("%(host)s could not be reached", host=host)) from None
    if len(content) > LARGEST:
        raise NotReached(_("%(host)s sent more than %(size)s MB", host=host, size=LARGEST // 1_000_000))
    if not 200 <= answer.status_code < 300:
        raise NotReached(
            _("%(host)s answered with status %(status)s", host=host, status=answer.status_code), answer.status_code
        )
    return Answer(content, _json(content, answer, host), answer.headers.get("Date", ""), _next(answer))


def _json(content: bytes, answer: requests.Response, host: str) -> Any:
    if "json" not in answer.headers.get("Content-Type", "") or not content:
        return None
    try:
        return requests.compat.json.loads(content)  # type: ignore[attr-defined]
    except ValueError:
        raise NotReached(_("%(host)s sent an answer that is no JSON", host=host)) from None


def _next(answer: requests.Response) -> str:
    """Where a list in pages goes on, by the Link header (RFC 8288)."""
    return str(answer.links.get("next", {}).get("url", ""))


def _host(address: str) -> str:
    return address.split("/")[2] if address.count("/") > 1 else address[:80]
