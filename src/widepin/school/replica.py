"""A copy of the database that follows it, from which reports are read."""

from __future__ import annotations

from time import monotonic

from sqlalchemy.exc import SQLAlchemyError

from . import leases
from .database import make_engine, make_sessions

LOOK = 5.0
"""Seconds between two looks at whether it follows."""

SERVED = "served"
"""How the leases of servers begin, which are made longer all the time: a copy where none holds follows no more."""


class Replica:
    """A replica, and whether it follows the database closely enough."""

    def __init__(self, url: str):
        self.sessions = make_sessions(make_engine(url))
        self._near, self._looked = False, -LOOK

    def is_near(self) -> bool:
        """Whether it answers, and is behind by less than a server's lease."""
        if monotonic() - self._looked >= LOOK:
            self._looked = monotonic()
            try:
                with self.sessions() as session:
                    self._near = bool(leases.held(session, SERVED))
            except SQLAlchemyError:
                self._near = False
        return self._near
