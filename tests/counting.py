"""Counting what a deed asks of the database."""

from __future__ import annotations

from collections.abc import Callable

from sqlalchemy import Engine, event


def queries(engine: Engine, deed: Callable[[], object]) -> int:
    """How many queries a deed takes."""
    count = 0

    def counted(*_: object) -> None:
        nonlocal count
        count += 1

    event.listen(engine, "before_cursor_execute", counted)
    try:
        deed()
    finally:
        event.remove(engine, "before_cursor_execute", counted)
    return count
