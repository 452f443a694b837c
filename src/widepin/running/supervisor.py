"""A database and a web server, started and stopped together, and kept going in between."""

from __future__ import annotations

import contextlib
import fcntl
import os
import select
import signal
import socket
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from types import FrameType

from rich.console import Console

from .databases import Database
from .watching import Watch
from .web_server import WebServer


class CannotStart(Exception):
    """It cannot start; the message says why and what to do."""


class Stopped(Exception):
    """Somebody asked to stop."""


def supervise(
    database: Database,
    prepare: Callable[[str], WebServer],
    ready: Callable[[], None],
    console: Console,
    hold: Callable[[], None] = lambda: None,
) -> None:
    """Start both and keep them going until somebody asks to stop.

    ``prepare(url)``: what is to be done with the database before the web server is made; ``hold``: what is to be done
    again and again while it is served. SIGHUP starts the web server
    again, gracefully: requests that are under way are answered first.
    """
    again = Again()
    signal.signal(signal.SIGTERM, _stop)
    signal.signal(signal.SIGINT, _stop)
    signal.signal(signal.SIGHUP, again.ask)
    web: WebServer | None = None
    try:
        with progress(console, "Starting the database"):
            url = database.start()
        web = prepare(url)
        with progress(console, "Starting the web server"):
            web.start()
        ready()
        watched = Watch(database, web, console.print, hold)
        while True:
            if again.is_asked():
                console.print("The web server is started again, as was asked.")
                web.stop()
            watched.look()
            again.wait(watched.seconds_to_next_look(), [database.process_id, web.process_id])
    except Stopped:
        pass
    finally:
        for number in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
            signal.signal(number, signal.SIG_IGN)
        console.print("Stopping …")
        if web is not None:
            web.stop()
        database.stop()
        console.print("Stopped. All data are kept for the next start.")


class Again:
    """Whether somebody has asked by a signal that the web server be started again."""

    def __init__(self) -> None:
        self._asked = False
        self._woken, self._waking = os.pipe2(os.O_NONBLOCK | os.O_CLOEXEC)

    def ask(self, number: int, frame: FrameType | None) -> None:
        """What the signal calls."""
        self._asked = True
        with contextlib.suppress(BlockingIOError):
            os.write(self._waking, b"!")

    def wait(self, seconds: float, processes: Sequence[int | None]) -> None:
        """Until it is asked, one of some child processes ends, or the time is over; costs nothing meanwhile."""
        with contextlib.ExitStack() as opened:
            watched = [self._woken]
            for number in processes:
                with contextlib.suppress(ProcessLookupError):
                    if number is not None:
                        watched.append(os.pidfd_open(number))
                        opened.callback(os.close, watched[-1])
            select.select(watched, [], [], seconds)
        with contextlib.suppress(BlockingIOError):
            os.read(self._woken, 1000)

    def is_asked(self) -> bool:
        """Whether it was asked since the last time."""
        asked, self._asked = self._asked, False
        return asked


@contextlib.contextmanager
def progress(console: Console, words: str) -> Iterator[Callable[[str], None]]:
    """Show what is going on, as a line that changes on a terminal and as lines elsewhere."""
    if not console.is_terminal:
        console.print(f"{words} …")
        yield lambda more: console.print(f"{more} …")
        return
    with console.status(words) as status:
        yield status.update


@contextlib.contextmanager
def only_one(path: Path, what: str, address: str) -> Iterator[None]:
    """Hold the lock of what is served. Raises CannotStart where another one holds it."""
    path.parent.mkdir(parents=True, exist_ok=True)
    with path.open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            lock.seek(0)
            raise CannotStart(f"{what} is running already: {lock.read().strip()}. Stop it first.") from None
        lock.truncate(0)
        lock.write(address)
        lock.flush()
        yield


def is_served(path: Path) -> bool:
    """Whether somebody holds the lock of what is served."""
    with contextlib.suppress(FileNotFoundError), path.open("r+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            return True
    return False


def require_free(host: str, port: int, remedy: str) -> None:
    """Raise CannotStart where something else listens on the port; ``remedy`` says how another one is chosen."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            raise CannotStart(f"Port {port} is taken by another program; {remedy}.") from None


def _stop(number: int, frame: FrameType | None) -> None:
    raise Stopped
