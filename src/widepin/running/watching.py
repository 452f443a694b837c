"""Keeping the servers going: what ends or hangs is started again, for as long as it takes."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass, field

import pymysql
from sqlalchemy.exc import SQLAlchemyError

from .databases import Database
from .mariadb import DatabaseTrouble
from .web_server import WebServer, WebTrouble

EVERY, WHILE_IT_FAILS = 15.0, 2.0
"""Seconds between two looks at whether the database writes, and between those after one that failed."""

MAX_FAILURES = 4
"""Looks in a row that fail before the database is started again."""

LONGEST_PAUSE = 20.0
"""Seconds between two tries to start a server that does not start."""


@dataclass
class Watch:
    """What is known of two servers that are to run. ``say``: tells whoever looks on; ``hold``: done at every look."""

    database: Database
    web: WebServer
    say: Callable[[str], None]
    hold: Callable[[], None] = lambda: None
    failures: int = 0
    looked: float = field(default_factory=time.monotonic)
    pause: float = 0.0
    not_before: float = 0.0

    def look(self) -> None:
        """Look once, and start again what has ended or does not answer."""
        now = time.monotonic()
        if now < self.not_before:
            return
        if self.database.ended:
            self._again("database", self.database.start)
        elif now - self.looked >= self._pace:
            self._look_at_database()
        if self.web.ended:
            self._again("web server", self.web.start)

    @property
    def _pace(self) -> float:
        return WHILE_IT_FAILS if self.failures else EVERY

    def seconds_to_next_look(self) -> float:
        """After which ``look`` has something to do, where nothing ends before."""
        now = time.monotonic()
        return max(0.1, self.not_before - now, 0.0 if self.pause else self.looked + self._pace - now)

    def _look_at_database(self) -> None:
        try:
            self.database.write_a_beat()
            self.hold()
            self.failures = 0
        except (pymysql.err.Error, SQLAlchemyError, OSError):
            self.failures += 1
        self.looked = time.monotonic()
        if self.failures >= MAX_FAILURES:
            self.say("The database does not write. It is ended, and started again.")
            self.database.kill()
            self.failures = 0

    def _again(self, name: str, start: Callable[[], object]) -> None:
        if not self.pause:
            self.say(f"The {name} has ended. It is started again; nothing that was saved is lost.")
        try:
            start()
        except (DatabaseTrouble, WebTrouble, OSError) as trouble:
            self.pause = min(LONGEST_PAUSE, 2 * self.pause or 1.0)
            self.not_before = time.monotonic() + self.pause
            self.say(f"The {name} does not start; the next try follows in {self.pause:.0f} s. {trouble}")
            return
        self.say(f"The {name} runs again.")
        self.pause, self.looked = 0.0, time.monotonic()
