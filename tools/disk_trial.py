"""A full disk, a database that only reads, one that hangs: ``bin/widepin tool disk_trial`` (as root, for a small disk).

Each trouble comes while students save steps and is taken away after a while. Printed: what the students were told
meanwhile, whether anything acknowledged was lost, and how long it took until steps were saved again, by itself.
"""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import tempfile
import threading
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from time import monotonic, sleep

import pymysql

from widepin.running.watching import Watch

from .kill_trial import Writer, check
from .serving import Browser, Served, served

STUDENTS, BEFORE, TROUBLE, LONGEST = 6, 4.0, 25.0, 90.0
"""Students; seconds of peace, seconds of trouble, and seconds that are waited for the recovery."""

MEGABYTES = 220
"""Size of the disk; an empty database takes about half of it."""


@contextmanager
def small_disk() -> Iterator[Path]:
    """A folder on a disk of its own."""
    folder = Path(tempfile.mkdtemp(prefix="widepin-disk-"))
    subprocess.run(["mount", "-t", "tmpfs", "-o", f"size={MEGABYTES}m", "tmpfs", str(folder)], check=True)
    try:
        yield folder
    finally:
        subprocess.run(["umount", "-l", str(folder)], check=True)
        shutil.rmtree(folder, ignore_errors=True)


@contextmanager
def full(on: Served, folder: Path) -> Iterator[None]:
    """The disk is full."""
    ballast = folder / "ballast"
    with ballast.open("wb") as file:
        try:
            while True:
                file.write(bytes(1 << 16))
                file.flush()
        except OSError:
            pass
    yield
    ballast.unlink()


@contextmanager
def read_only(on: Served, folder: Path) -> Iterator[None]:
    """The database refuses to write."""

    def say(value: int) -> None:
        with (
            pymysql.connect(unix_socket=str(on.database.socket), user="root") as connection,
            connection.cursor() as one,
        ):
            one.execute(f"SET GLOBAL read_only = {value}")

    say(1)
    yield
    say(0)


@contextmanager
def hanging(on: Served, folder: Path) -> Iterator[None]:
    """The database does not answer; it is ended and started again by what keeps the servers going."""
    assert on.database.process is not None
    os.kill(on.database.process.pid, signal.SIGSTOP)
    yield


def try_out(name: str, trouble: object, folder: Path) -> None:
    """One trouble, from peace to recovery."""
    said: list[str] = []
    with served(STUDENTS, folder=folder / "school") as on:
        writers = [Writer(on, login) for login in on.logins[1:]]
        stop = threading.Event()
        threads = [threading.Thread(target=writer.write, args=(stop,)) for writer in writers]
        for thread in threads:
            thread.start()
        watched = Watch(on.database, on.web, said.append)

        def wait(seconds: float, over: threading.Event | None = None) -> None:
            until = monotonic() + seconds
            while monotonic() < until and not (over and over.is_set()):
                watched.look()
                sleep(0.1)

        def acknowledged() -> int:
            return sum(len(writer.acknowledged) for writer in writers)

        wait(BEFORE)
        before, answers = acknowledged(), sum((writer.answers for writer in writers), Counter())
        with trouble(on, folder):  # type: ignore[operator]
            wait(TROUBLE)
            meanwhile = sum((writer.answers for writer in writers), Counter()) - answers
            page = Browser(on.web.port, timeout=40)
            status = page.ask("GET", "/sign-in")[0]
            during = acknowledged()
        freed, recovered = monotonic(), None
        while monotonic() < freed + LONGEST and recovered is None:
            wait(0.2)
            if acknowledged() >= during + STUDENTS:
                recovered = monotonic() - freed
        wait(3.0)
        stop.set()
        for thread in threads:
            thread.join()
        found = check(on, writers)
        print(f"{name}: {before} steps before, {during - before} during, {acknowledged() - during} after")
        after = "never" if recovered is None else f"{recovered:.1f} s"
        print(f"  answers meanwhile {dict(meanwhile)}, the sign-in page {status}; supervisor: {said or 'nothing'}")
        print(f"  saved again after {after}; {dict(found)}", flush=True)


def main() -> None:
    for name, trouble in (("full disk", full), ("read-only database", read_only), ("hanging database", hanging)):
        with small_disk() as folder:
            try_out(name, trouble, folder)


if __name__ == "__main__":
    main()
