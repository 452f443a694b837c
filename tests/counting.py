"""Counting what a deed asks of the database, and what a student has done."""

from __future__ import annotations

from collections.abc import Callable

from sqlalchemy import Engine, event

from widepin.school.people import removing


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


def done_by(session, school_class, student) -> tuple[int, int]:
    """How many works and hand-ins a student has in a class."""
    hanging = removing.what_hangs_on(session, student)
    return next(((works, attempts) for one, works, attempts in hanging if one.id == school_class.id), (0, 0))
