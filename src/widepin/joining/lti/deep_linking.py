"""Handing tasks over to a platform, which makes a link of each. Source: Deep Linking 2.0."""

from __future__ import annotations

import secrets
import time
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from ..tokens import signed
from . import words

DUE = "$ResourceLink.submission.endDateTime"
"""What a platform replaces by the due date that is set there."""


@dataclass(frozen=True)
class Chosen:
    """A task that was chosen. ``sheet``: its number here; ``due``: UTC."""

    title: str
    sheet: int
    due: datetime | None


def takes_several(settings: Mapping[str, Any]) -> bool:
    """Whether a platform takes several tasks at once."""
    return settings.get("accept_multiple") in (True, "true", None)


def item(chosen: Chosen, launch_address: str) -> dict[str, Any]:
    """A task as a link of a platform, with points and due date."""
    made: dict[str, Any] = {
        "type": "ltiResourceLink",
        "title": chosen.title,
        "url": launch_address,
        "custom": {"sheet": str(chosen.sheet), "due": DUE},
        "lineItem": {"scoreMaximum": 100, "label": chosen.title, "resourceId": str(chosen.sheet)},
        "window": {"targetName": "_blank"},
    }
    if chosen.due is not None:
        made["submission"] = {"endDateTime": chosen.due.replace(tzinfo=UTC).isoformat().replace("+00:00", "Z")}
    return made


def response(
    issuer: str,
    client_id: str,
    deployment: str,
    settings: Mapping[str, Any],
    items: Sequence[Mapping[str, Any]],
    key: tuple[str, str],
) -> str:
    """The token that hands chosen tasks over. ``key``: its name and PEM."""
    at = int(time.time())
    claims: dict[str, Any] = {
        "iss": client_id,
        "aud": [issuer],
        "iat": at,
        "exp": at + 300,
        "nonce": secrets.token_urlsafe(16),
        words.MESSAGE_TYPE: words.CHOSEN,
        words.VERSION: "1.3.0",
        words.DEPLOYMENT: deployment,
        words.ITEMS: list(items),
    }
    if "data" in settings:
        claims[words.DATA] = settings["data"]
    return signed(claims, *key)
