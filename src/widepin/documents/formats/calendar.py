"""Due dates as a calendar that other programs read (iCalendar).

Source: RFC 5545; RFC 7986 for the name of a calendar and how often it is to be asked for.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from icalendar import Calendar, Event, vDuration

from ..language import gettext as _

ASKED_FOR = timedelta(hours=4)
"""How often programs are asked to look again."""


@dataclass(frozen=True)
class Entry:
    """An entry: ``id`` is its own for good; ``at`` in UTC; ``link``: where it leads."""

    id: str
    title: str
    about: str
    at: datetime
    link: str


def calendar_of(name: str, entries: Iterable[Entry], made: datetime) -> bytes:
    """A calendar of moments. ``made``: when what it says was so, in UTC.

    >>> entry = Entry("1@school", "Kite", "First year", datetime(2026, 5, 4, 10), "")
    >>> text = calendar_of("Due", [entry], datetime(2026, 5, 1))
    >>> [line for line in text.decode().splitlines() if line.startswith(("UID", "SUMMARY", "DTSTART"))]
    ['SUMMARY:Kite', 'DTSTART:20260504T100000Z', 'UID:1@school']
    """
    found = Calendar()
    for field, value in (("prodid", "-//Wide Pin//Due dates//EN"), ("version", "2.0"), ("method", "PUBLISH")):
        found.add(field, value)
    found.add("name", name)
    found.add("x-wr-calname", name)
    found.add("refresh-interval", vDuration(ASKED_FOR), parameters={"value": "DURATION"})
    for one in entries:
        event = Event()
        event.add("uid", one.id)
        event.add("dtstamp", made.replace(tzinfo=UTC))
        event.add("dtstart", one.at.replace(tzinfo=UTC))
        event.add("summary", one.title)
        event.add("description", _("Due: %(about)s", about=one.about))
        event.add("transp", "TRANSPARENT")  # to have something due does not keep anybody busy
        if one.link:
            event.add("url", one.link)
        found.add_component(event)
    return bytes(found.to_ical())
