"""The power is gone: ``bin/widepin tool power_trial --copies 40``.

While students save steps and hand in, the database server is stopped in the middle of whatever it does (SIGSTOP), its
data folder is copied as it lies on the disk, and the server goes on. Each copy is then started as after a failure, and
asked for everything that was acknowledged before the server was stopped. What only a disk's own cache can lose is not
tried by this: for that the server writes through at every commit (``DURABLE``).
"""

from __future__ import annotations

import argparse
import os
import random
import shutil
import signal
import threading
from pathlib import Path
from tempfile import TemporaryDirectory
from time import monotonic, sleep

from sqlalchemy import select

from widepin.running.mariadb import DURABLE, MariaDB
from widepin.school.database import make_engine, make_sessions
from widepin.school.models import HandIn, Operation

from .kill_trial import Writer
from .serving import Served, served

STUDENTS = 8


def copied(on: Served, to: Path) -> None:
    """Copy the folder of the database as it lies on the disk at a moment."""
    number = on.database.process_id
    assert number is not None
    os.kill(number, signal.SIGSTOP)
    try:
        shutil.copytree(on.database.folder, to, ignore=shutil.ignore_patterns("*.sock", "*.pid", "scratch"))
    finally:
        os.kill(number, signal.SIGCONT)


def lost(folder: Path, steps: set[str], hand_ins: set[str]) -> tuple[int, float]:
    """How many of these keys are not there once the copy is started, and the seconds until it answers."""
    begun = monotonic()
    server = MariaDB(folder, DURABLE)
    try:
        engine = make_engine(server.start())
        took = monotonic() - begun
        with make_sessions(engine)() as session:
            there = set(session.scalars(select(Operation.key)))
            handed_in = set(session.scalars(select(HandIn.key)))
        engine.dispose()
    finally:
        server.stop()
    return len(steps - there) + len(hand_ins - handed_in), took


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    asked.add_argument("--copies", type=int, default=40)
    copies = asked.parse_args().copies
    with served(STUDENTS) as on, TemporaryDirectory(prefix="widepin-copy-") as scratch:
        writers = [Writer(on, login) for login in on.logins[1:]]
        stop = threading.Event()
        threads = [threading.Thread(target=one.write, args=(stop,)) for one in writers]
        for thread in threads:
            thread.start()
        missing, slowest, asked_for = 0, 0.0, 0
        for number in range(copies):
            sleep(random.uniform(0.05, 0.8))
            steps = {key for one in writers for key in list(one.acknowledged)}
            hand_ins = {key for one in writers for key in list(one.handed_in)}
            copied(on, folder := Path(scratch) / f"copy{number}")
            gone, took = lost(folder, steps, hand_ins)
            shutil.rmtree(folder, ignore_errors=True)
            missing, slowest, asked_for = missing + gone, max(slowest, took), len(steps) + len(hand_ins)
            print(f"copy {number + 1}: {asked_for} acknowledged, {gone} lost, started in {took:.1f} s", flush=True)
        stop.set()
        for thread in threads:
            thread.join()
        print(f"{copies} copies started, at most after {slowest:.1f} s; {missing} lost of {asked_for} in the last")


if __name__ == "__main__":
    main()
