"""What computes for long, in processes of its own while pages are served (``apart.py``)."""

from __future__ import annotations

import pickle
from collections.abc import Callable
from typing import TypeVar

from flask import current_app, g

from ..access import me
from ..database import session

Result = TypeVar("Result")


def apart(function: Callable[..., Result], *arguments: object) -> Result:
    """What a function of the core returns. Raises what it raises, and Busy and TooHeavy.

    The request's transaction ends before, so that no connection of the database waits along. Where the one after it has
    to be tried again, nothing is computed twice.
    """
    session().commit()
    found: dict[bytes, Result] = g.setdefault("computed", {})
    about = pickle.dumps((function, arguments))
    if about not in found:
        found[about] = current_app.extensions["jobs"].do(me().id, function, *arguments)
    return found[about]
