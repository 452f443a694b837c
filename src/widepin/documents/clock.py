"""The clock of the school: times are kept in UTC, and said in the school's time zone."""

from __future__ import annotations

from datetime import UTC, datetime
from zoneinfo import ZoneInfo

_zone = ZoneInfo("UTC")


def set_zone(name: str) -> None:
    """Say times in this time zone from now on: that of the school that this process serves. ``name``: as in the IANA
    database. Raises ZoneInfoNotFoundError.
    """
    global _zone
    _zone = ZoneInfo(name)


def zone() -> str:
    """The name of the school's time zone."""
    return _zone.key


def local(at: datetime) -> datetime:
    """A time in UTC, as the database has it, on the school's clock."""
    return at.replace(tzinfo=UTC).astimezone(_zone)


def in_words(at: datetime) -> str:
    """A time in UTC in words, on the school's clock."""
    return f"{local(at):%A %-d %B at %H:%M}"
