"""Tables that have a row for every member of an enumeration."""

from __future__ import annotations

from collections.abc import Mapping
from enum import StrEnum
from typing import Any, TypeVar

Row = TypeVar("Row")


def complete(members: type[StrEnum], rows: Mapping[Any, Row]) -> dict[str, Row]:
    """A table by the values of an enumeration, in its order. Raises LookupError for a row that is missing or too many.

    >>> class Side(StrEnum):
    ...     LEFT = "left"
    ...     RIGHT = "right"
    >>> complete(Side, {Side.LEFT: 1})
    Traceback (most recent call last):
    LookupError: Side: a row is missing for right
    """
    missing = [member.value for member in members if member not in rows]
    if missing:
        raise LookupError(f"{members.__name__}: a row is missing for {', '.join(missing)}")
    foreign = [str(name) for name in rows if name not in list(members)]
    if foreign:
        raise LookupError(f"{members.__name__}: no member is called {', '.join(foreign)}")
    return {member.value: rows[member] for member in members}
