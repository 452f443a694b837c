"""Tables that have a row for every member of an enumeration."""

from __future__ import annotations

from collections.abc import Mapping
from enum import StrEnum
from typing import Any, TypeVar

Row = TypeVar("Row")


def complete(table: str, members: type[StrEnum], rows: Mapping[Any, Row]) -> dict[str, Row]:
    """A table by the values of an enumeration, in its order; ``table``: its name, which the error tells.

    Raises LookupError for a row that is missing or too many.

    >>> class Side(StrEnum):
    ...     LEFT = "left"
    ...     RIGHT = "right"
    >>> complete("TURNS", Side, {Side.LEFT: 1})
    Traceback (most recent call last):
    LookupError: TURNS: a row is missing for right of Side
    """
    missing = [member.value for member in members if member not in rows]
    if missing:
        raise LookupError(f"{table}: a row is missing for {', '.join(missing)} of {members.__name__}")
    foreign = [str(name) for name in rows if name not in list(members)]
    if foreign:
        raise LookupError(f"{table}: {members.__name__} has no member {', '.join(foreign)}")
    return {member.value: rows[member] for member in members}
