"""Statements of activity for a store that the school names (xAPI): what each says, and sending them.

Source: Experience API 1.0.3, parts 2 and 3.
"""

from __future__ import annotations

import json
import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from ..documents.language import gettext as _
from .http_client import NotReached, ask

VERSION = "1.0.3"
COMPLETED = {"id": "http://adlnet.gov/expapi/verbs/completed", "display": {"en": "completed"}}
TASK = "http://adlnet.gov/expapi/activities/assessment"
MOVES = "extensions/moves"

AT_ONCE = 100
"""Statements in one request."""


@dataclass(frozen=True)
class HandedIn:
    """A hand-in, as it is told. ``person``, ``task``: numbers here, which no other system can tell a name by."""

    number: int
    person: int
    task: int
    title: str
    percent: int
    is_right: bool
    moves: int
    at: datetime


def statement(one: HandedIn, home: str) -> dict[str, Any]:
    """What is said of a hand-in; ``home``: the address of this school's installation.

    Its id follows from the hand-in, so that one that is sent again is known to be the same.
    """
    home = home.rstrip("/")
    return {
        "id": str(uuid.uuid5(uuid.NAMESPACE_URL, f"{home}/hand-ins/{one.number}")),
        "actor": {"objectType": "Agent", "account": {"homePage": home, "name": str(one.person)}},
        "verb": COMPLETED,
        "object": {
            "objectType": "Activity",
            "id": f"{home}/assignments/{one.task}",
            "definition": {"type": TASK, "name": {"en": one.title}},
        },
        "result": {
            "score": {"scaled": one.percent / 100, "raw": one.percent, "min": 0, "max": 100},
            "success": one.is_right,
            "completion": True,
            "extensions": {f"{home}/{MOVES}": one.moves},
        },
        "timestamp": one.at.replace(tzinfo=UTC).isoformat(timespec="seconds").replace("+00:00", "Z"),
    }


def send(address: str, key: str, secret: str, statements: Sequence[dict[str, Any]]) -> None:
    """Send statements. Raises NotReached."""
    ask(
        "POST",
        address.rstrip("/") + "/statements",
        body=json.dumps(list(statements)),
        auth=(key, secret),
        headers={"X-Experience-API-Version": VERSION},
    )


def greet(address: str, key: str, secret: str) -> None:
    """Ask a store which versions it speaks. Raises NotReached with what is wrong."""
    said = ask("GET", address.rstrip("/") + "/about", auth=(key, secret)).json
    versions = said.get("version") if isinstance(said, dict) else None
    if not isinstance(versions, list) or not any(str(one).startswith("1.0") for one in versions):
        raise NotReached(_("what answers there is no store for xAPI 1.0"))
