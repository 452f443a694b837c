"""The clock of the school: times are kept in UTC, and said in the school's time zone."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
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


def as_typed(at: datetime) -> str:
    """A time in UTC as it stands in a field of a form, on the school's clock: 2031-05-06T12:00."""
    return f"{local(at):%Y-%m-%dT%H:%M}"


def utc(typed: datetime) -> datetime:
    """A time on the school's clock in UTC, as the database has it.

    Of the two that the clock shows twice in autumn it is the first; one that it skips in spring becomes an hour later.
    """
    return typed.replace(tzinfo=_zone, fold=0).astimezone(UTC).replace(tzinfo=None)


def days_later(at: datetime, days: int) -> datetime:
    """A time in UTC so many days later, at the same hour on the school's clock, also where its summer time changes."""
    return utc(local(at).replace(tzinfo=None) + timedelta(days=days))


def in_words(at: datetime) -> str:
    """A time in UTC in words, on the school's clock."""
    return f"{local(at):%A %-d %B at %H:%M}"
