"""What was computed once of the tasks of the library, and ships with them: why their sample solutions are right, and the
fewest moves. ``bin/widepin tool ship_library`` makes the file anew; what it holds of another state of a task is not used.
"""

from __future__ import annotations

import json
from functools import cache
from hashlib import sha256
from pathlib import Path
from typing import Any

from ....documents.reading import JsonObject

FILE = Path(__file__).with_name("shipped.json")

OF_TASK = ("given", "tools", "wanted", "conditions", "model", "start")
"""The fields of a task on which its fewest moves depend."""


def mark_of(asked: Any) -> str:
    """What tells one question for a proof from another; ``asked``: a Question."""
    return _digest([asked.task_text, asked.steps_text, asked.answer_text, asked.names_text, asked.shows_text])


def mark_of_task(document: JsonObject) -> str:
    """What tells one state of a task from another, of all that its fewest moves depend on."""
    return _digest([document.get(name) for name in OF_TASK])


def proof_of(asked: Any) -> JsonObject | None:
    """The proof that was asked for, as it is shown, where it ships."""
    return _proofs().get(mark_of(asked))


def fewest_of(document: JsonObject) -> JsonObject | None:
    """What is known of the fewest moves of a task, where it is one of the library as it is: the fields of
    ``economy.search.Fewest`` but for ``stopped``, its steps as documents.
    """
    return _fewest().get(mark_of_task(document))


def _digest(value: object) -> str:
    return sha256(json.dumps(value, sort_keys=True).encode()).hexdigest()[:24]


@cache
def _shipped() -> dict[str, JsonObject]:
    return json.loads(FILE.read_text()) if FILE.exists() else {}  # type: ignore[no-any-return]


@cache
def _proofs() -> dict[str, JsonObject]:
    return {one["proof"]["asked"]: one["proof"]["shown"] for one in _shipped().values()}


@cache
def _fewest() -> dict[str, JsonObject]:
    return {one["task"]: one for entry in _shipped().values() if (one := entry["fewest"])}
