"""Rows as JSON and back, by the names of their columns."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import datetime
from enum import StrEnum
from typing import Any

from sqlalchemy import Enum, inspect

from ...documents.language import gettext as _
from ...documents.reading import JsonObject, Unreadable
from ..models import Base


def as_json(row: Base, names: Iterable[str]) -> JsonObject:
    """The values of some columns; times as ISO 8601 in UTC, members of enumerations as they are stored."""

    def plain(value: Any) -> Any:
        if isinstance(value, datetime):
            return value.isoformat()
        return value.value if isinstance(value, StrEnum) else value

    return {name: plain(getattr(row, name)) for name in names}


def values_of(kind: type[Base], said: Mapping[str, Any], names: Iterable[str], place: str) -> dict[str, Any]:
    """What was written as columns of a table, read again. Raises Unreadable with the place.

    A column that is not said keeps its default; one that has none must be said.
    """
    columns = inspect(kind).columns
    found: dict[str, Any] = {}
    for name in names:
        column = columns[name]
        if name not in said:
            if not column.nullable and column.default is None and column.server_default is None:
                raise Unreadable(f"{place}.{name}", _("is missing"))
            continue
        found[name] = _value(column, said[name], f"{place}.{name}")
    return found


def _value(column: Any, value: Any, place: str) -> Any:
    if value is None:
        if not column.nullable:
            raise Unreadable(place, _("must be something"))
        return None
    kind = column.type
    try:
        if isinstance(kind, Enum) and kind.enum_class is not None:
            return kind.enum_class(value)
        python = kind.python_type
        if python is datetime:
            return datetime.fromisoformat(value)
        if python in (dict, list):
            return value
    except (ValueError, TypeError, NotImplementedError):
        raise Unreadable(place, _("is none of the values that it can have")) from None
    if not isinstance(value, python) or (isinstance(value, bool) and python is not bool):
        raise Unreadable(place, _("is of another kind than it must be"))
    length = getattr(kind, "length", None)
    if isinstance(value, str) and length is not None and len(value) > length:
        raise Unreadable(place, _("has more than %(most)s characters", most=length))
    return value
