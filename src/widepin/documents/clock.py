"""The clock of the school, or of a class elsewhere: times are kept in UTC, and said and typed in a time zone."""

from __future__ import annotations

from contextvars import ContextVar
from datetime import UTC, datetime, timedelta
from difflib import get_close_matches
from zoneinfo import ZoneInfo, available_timezones

_zone = ZoneInfo("UTC")
_other: ContextVar[ZoneInfo | None] = ContextVar("a time zone besides the school's", default=None)


def set_zone(name: str) -> None:
    """Say times in this time zone from now on: that of the school that this process serves. ``name``: as in the IANA
    database. Raises ZoneInfoNotFoundError.
    """
    global _zone
    _zone = ZoneInfo(name)


def use(name: str | None) -> None:
    """Say times in another time zone than the school's in this context, which is a request; None: in the school's.

    Raises ZoneInfoNotFoundError.
    """
    _other.set(ZoneInfo(name) if name else None)


def zone() -> str:
    """The name of the time zone in which times are said now."""
    return _here().key


def school_zone() -> str:
    """The name of the school's time zone."""
    return _zone.key


def like(name: str) -> str | None:
    """The name of a time zone that is spelt as this or nearly so; None where none is.

    >>> like("europe/lisbon"), like("Lisbon"), like("Nowhere/At all")
    ('Europe/Lisbon', 'Europe/Lisbon', None)
    """
    known = {one.casefold(): one for one in available_timezones()}
    known |= {one.rsplit("/", 1)[-1]: known[one] for one in sorted(known, reverse=True) if one.count("/") == 1}
    found = get_close_matches(name.strip().casefold().replace(" ", "_"), known, 1, 0.8)
    return known[found[0]] if found else None


def _here() -> ZoneInfo:
    return _other.get() or _zone


def local(at: datetime) -> datetime:
    """A time in UTC, as the database has it, on the clock that is in use."""
    return at.replace(tzinfo=UTC).astimezone(_here())


def as_typed(at: datetime) -> str:
    """A time in UTC as it stands in a field of a form, on the school's clock: 2031-05-06T12:00."""
    return f"{local(at):%Y-%m-%dT%H:%M}"


def utc(typed: datetime) -> datetime:
    """A time on the school's clock in UTC, as the database has it.

    Of the two that the clock shows twice in autumn it is the first; one that it skips in spring becomes an hour later.
    """
    return typed.replace(tzinfo=_here(), fold=0).astimezone(UTC).replace(tzinfo=None)


def days_later(at: datetime, days: int) -> datetime:
    """A time in UTC so many days later, at the same hour on the school's clock, also where its summer time changes."""
    return utc(local(at).replace(tzinfo=None) + timedelta(days=days))


def in_words(at: datetime) -> str:
    """A time in UTC in words, on the school's clock."""
    return f"{local(at):%A %-d %B at %H:%M}"
