"""Heavy work in processes of its own, so that pages stay quick: each job has limits of time and memory, and whatever
happens in one ends with it.

Jobs are forked from a process that has loaded what they need and does nothing else; they run at a lower priority than
the server. A person has one job of a kind at a time, counted by locks on files, so that all processes of the server
count together and nothing has to be cleaned up after a crash.
"""

from __future__ import annotations

import fcntl
import multiprocessing
import os
import pickle
import resource
import signal
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from pathlib import Path
from time import monotonic, sleep
from typing import Any, TypeVar

from ...documents.language import gettext as _
from ...plane.errors import CoreError

Result = TypeVar("Result")

LESS_URGENT = 5
"""By how much jobs are nicer than the server."""

MEGABYTE = 1 << 20

LONGEST_LOADING = 20.0
"""Seconds that a process of the server waits for that; it takes about two."""


class Busy(CoreError):
    """Too much is under way already; nothing was done. The message is for whoever waits."""


class TooHeavy(CoreError):
    """A job took more time or memory than it may; nothing came of it. The message is for whoever asked."""


@dataclass(frozen=True)
class Limits:
    """What a job may take."""

    seconds: int
    megabytes: int


Failed = Callable[..., object]
Begun = Callable[[float], object]
"""Waits until a job that was started is done, for so many seconds at most."""


_context = multiprocessing.get_context("forkserver")
_context.set_forkserver_preload(["widepin.web.jobs.apart_loaded"])


def warm_up() -> None:
    """Start the process that jobs are forked from, and wait until it has loaded what they need."""
    process = _context.Process(target=_nothing)
    process.start()
    process.join(LONGEST_LOADING)


def _nothing() -> None:
    """A job that only makes the process that it is forked from start."""


def begin(job: Callable[..., None], arguments: tuple[Any, ...], seconds: int, megabytes: int) -> BaseProcess:
    """Start a job that nobody has to wait for; ends by itself after so many seconds. Returns its process."""
    process = _context.Process(target=_limited, args=(job, arguments, seconds, megabytes), daemon=True)
    process.start()
    return process


def _limited(job: Callable[..., None], arguments: tuple[Any, ...], seconds: int, megabytes: int) -> None:
    os.nice(LESS_URGENT)
    signal.signal(signal.SIGTERM, signal.SIG_DFL)
    signal.signal(signal.SIGALRM, signal.SIG_DFL)  # which ends the process
    signal.alarm(seconds)
    used = int(Path("/proc/self/statm").read_text().split()[5]) * resource.getpagesize()
    resource.setrlimit(resource.RLIMIT_DATA, (used + megabytes * MEGABYTE,) * 2)
    job(*arguments)


class JobQueue:
    """Where jobs are done: one at a time in each process of the server, and one at a time for a person.

    ``folder``: for locks. ``waiting``: how many may wait in a process before no more are taken; ``waiting_each``: for
    one person. ``at_once``: how many are done at a time in a process.
    """

    def __init__(self, folder: Path, seconds: int, megabytes: int, waiting: int, waiting_each: int, at_once: int = 1):
        self.folder, self.seconds, self.megabytes = folder, seconds, megabytes
        self.waiting, self.waiting_each = waiting, waiting_each
        self.free = threading.Semaphore(at_once)
        self.count: dict[int, int] = {}
        self.counting = threading.Lock()

    def do(self, whose: int, function: Callable[..., Result], *arguments: Any) -> Result:
        """What a function returns, from a process of its own; what it raises is raised. Raises Busy and TooHeavy."""
        until = monotonic() + self.seconds
        with self._in_line(whose), locked(self.folder / f"person-{whose}", until):
            return self.answer(until, function, arguments)

    def answer(self, until: float, function: Callable[..., Result], arguments: tuple[Any, ...]) -> Result:
        """What a function returns, once it is its turn in this process of the server, which must be before a time."""
        if not self.free.acquire(timeout=max(0.0, until - monotonic())):
            raise Busy(_("Many works are being checked at the moment. Wait some seconds, then try again."))
        try:
            return self._done(function, arguments)
        finally:
            self.free.release()

    def start(self, function: Callable[..., None], arguments: tuple[Any, ...], limits: Limits, failed: Failed) -> Begun:
        """Start a job that nobody has to wait for. ``failed``: called with its arguments where it is ended, by its
        limits or by what was wrong with it, before it is done.
        """
        process = begin(function, arguments, limits.seconds, limits.megabytes)

        def watch() -> None:
            process.join()
            if process.exitcode:
                failed(*arguments)

        thread = threading.Thread(target=watch, daemon=True)
        thread.start()
        return thread.join

    @contextmanager
    def _in_line(self, whose: int) -> Iterator[None]:
        with self.counting:
            if self.count.get(whose, 0) >= self.waiting_each:
                raise Busy(_("What you asked for before is still being worked on. Wait for it, then try again."))
            if sum(self.count.values()) >= self.waiting:
                raise Busy(_("Many works are being checked at the moment. Wait some seconds, then try again."))
            self.count[whose] = self.count.get(whose, 0) + 1
        try:
            yield
        finally:
            with self.counting:
                self.count[whose] -= 1
                if not self.count[whose]:
                    del self.count[whose]

    def _done(self, function: Callable[..., Result], arguments: tuple[Any, ...]) -> Result:
        here, there = _context.Pipe(duplex=False)
        process = begin(_answer, (there, function, arguments), self.seconds, self.megabytes)
        there.close()
        answer: tuple[bool, Any] | None = None
        try:
            if here.poll(self.seconds + 1):
                answer = here.recv()
        except EOFError:  # it was ended
            pass
        finally:
            here.close()
            process.kill()
            process.join()
        if answer is None:
            raise TooHeavy(
                _(
                    "That takes more than %(seconds)s seconds, or more memory than there is for one work.",
                    seconds=self.seconds,
                )
            )
        worked, result = answer
        if not worked:
            raise result
        return result  # type: ignore[no-any-return]


def _answer(there: Connection, function: Callable[..., Any], arguments: tuple[Any, ...]) -> None:
    try:
        answer = (True, function(*arguments))
    except MemoryError:
        return  # no answer says that it was too much
    except Exception as error:
        answer = (False, error if travels(error) else RuntimeError(repr(error)))
    there.send(answer)
    there.close()


def travels(error: Exception) -> bool:
    """Whether an exception can be sent from one process to another."""
    try:
        pickle.loads(pickle.dumps(error))
    except Exception:
        return False
    return True


@contextmanager
def locked(path: Path, until: float) -> Iterator[None]:
    """Hold the lock of a file, whichever process asks for it; waits until a time. Raises Busy."""
    with path.open("a") as file:
        while not take(file):
            if monotonic() > until:
                raise Busy(_("What you asked for before is still being worked on. Wait for it, then try again."))
            sleep(0.02)
        yield


def take(file: Any) -> bool:
    """Whether an open file's lock could be had; it is held until the file is closed."""
    try:
        fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        return False
    return True
