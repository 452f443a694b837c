"""Numbers with their units in words: 1 move, 2.5 moves, 3 days 20 hours."""

from __future__ import annotations

from datetime import timedelta
from math import floor, log10

from ..language import gettext, ngettext


def number(value: float) -> str:
    """A number as it is read: whole where it is, else to one decimal.

    >>> number(2.0), number(2.5), number(1 / 3)
    ('2', '2.5', '0.3')
    """
    return f"{round(value, 1):g}"


def centimetres(value: float) -> str:
    """A length to two digits, written out.

    >>> centimetres(1.234), centimetres(123.4), centimetres(0.0567), centimetres(0.00099), centimetres(0.001)
    ('1.2 cm', '120 cm', '0.057 cm', 'less than 0.001 cm', '0.001 cm')
    """
    if value < 0.001:
        return gettext("less than %(value)s cm", value="0.001")
    places = max(0, 1 - floor(log10(value)))
    rounded = round(value, 1 - floor(log10(value)))
    return gettext(
        "%(value)s cm", value=f"{rounded:.{places}f}".rstrip("0").rstrip(".") if places else f"{rounded:.0f}"
    )


def times(count: int) -> str:
    """How often: once, twice, 3 times.

    >>> times(0), times(1), times(2), times(5)
    ('never', 'once', 'twice', '5 times')
    """
    named = {0: gettext("never"), 1: gettext("once"), 2: gettext("twice")}
    return named.get(count) or gettext("%(n)s times", n=count)


def moves(count: float) -> str:
    """So many moves.

    >>> moves(1), moves(2.5)
    ('1 move', '2.5 moves')
    """
    return ngettext("%(n)s move", "%(n)s moves", count, n=number(count))


def attempts(count: float) -> str:
    """So many attempts."""
    return ngettext("%(n)s attempt", "%(n)s attempts", count, n=number(count))


def students(count: int) -> str:
    """So many students."""
    return ngettext("%(n)s student", "%(n)s students", count, n=count)


def classes(count: int) -> str:
    """So many classes."""
    return ngettext("%(n)s class", "%(n)s classes", count, n=count)


def tasks(count: int) -> str:
    """So many tasks."""
    return ngettext("%(n)s task", "%(n)s tasks", count, n=count)


def works(count: int) -> str:
    """So many works."""
    return ngettext("%(n)s work", "%(n)s works", count, n=count)


def duration(time: timedelta) -> str:
    """A length of time in its two largest units, rounded to a minute; under an hour in minutes.

    >>> duration(timedelta(minutes=5546)), duration(timedelta(seconds=61)), duration(timedelta(hours=2))
    ('3 days 20 hours', '1 minute', '2 hours')
    >>> duration(timedelta(seconds=20))
    'less than a minute'
    """
    minutes = round(time / timedelta(minutes=1))
    if minutes == 0:
        return gettext("less than a minute")
    days, hours, minutes = minutes // 1440, minutes // 60 % 24, minutes % 60
    parts = [
        ngettext("%(n)s day", "%(n)s days", days, n=days) if days else "",
        ngettext("%(n)s hour", "%(n)s hours", hours, n=hours) if hours else "",
        ngettext("%(n)s minute", "%(n)s minutes", minutes, n=minutes) if minutes and not days else "",
    ]
    return " ".join(filter(None, parts))
