"""Keeping the servers going: what ends or hangs is started again, for as long as it takes."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass, field

import pymysql

from .databases import Database
from .mariadb import DatabaseTrouble
from .web_server import WebServer, WebTrouble

EVERY = 2.0
"""Seconds between two looks at whether the database writes."""

MAX_FAILURES = 4
"""Looks in a row that fail before the database is started again."""

LONGEST_PAUSE = 20.0
"""Seconds between two tries to start a server that does not start."""


@dataclass
class Watch:
    """What is known of two servers that are to run. ``say``: tells whoever looks on."""

    database: Database
    web: WebServer
    say: Callable[[str], None]
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
        elif now - self.looked >= EVERY:
            self._look_at_database()
        if self.web.ended:
            self._again("web server", self.web.start)

    def _look_at_database(self) -> None:
        try:
            self.database.write_a_beat()
            self.failures = 0
        except (pymysql.err.Error, OSError):
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
