"""What computes for long, in processes of its own while pages are served (``apart.py``)."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

from flask import current_app

from ..access import me
from ..database import session

Result = TypeVar("Result")


def apart(function: Callable[..., Result], *arguments: object) -> Result:
    """What a function of the core returns. Raises what it raises, and Busy and TooHeavy.

    The request's transaction ends before, so that no connection of the database waits along.
    """
    session().commit()
    return current_app.extensions["jobs"].do(me().id, function, *arguments)  # type: ignore[no-any-return]
