"""Database servers as a supervisor sees them."""

from __future__ import annotations

from typing import Protocol


class Database(Protocol):
    """A database server as a supervisor sees it: one of its own, or one that others run."""

    @property
    def ended(self) -> bool:
        """Whether it is not running, or not any more."""

    @property
    def process_id(self) -> int | None:
        """Of its main process, where it is a child of this one."""

    def start(self) -> str:
        """Start it; the address for SQLAlchemy."""

    def stop(self) -> None:
        """End it."""

    def kill(self) -> None:
        """End it at once."""

    def write_a_beat(self) -> None:
        """Write something that means nothing, or raise."""


class RunByOthers:
    """A database server that somebody else runs: nothing is started, stopped or watched here."""

    ended, process_id = False, None

    def __init__(self, url: str):
        self.url = url

    def start(self) -> str:
        """Its address."""
        return self.url

    def stop(self) -> None:
        """Nothing: it goes on."""

    def kill(self) -> None:
        """Nothing: it is not ours."""

    def write_a_beat(self) -> None:
        """Nothing: whoever runs it watches it."""
