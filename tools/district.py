"""Lessons of a district on a cluster, and what happens to it meanwhile: ``bin/widepin tool district``.

First the recorded mix of a lesson (as in ``class_trial``) with ``--students`` and ``--teachers``, for ``--seconds``.
Then the trials: each database node, each application server, the queue and a worker is killed, stopped, or cut off,
and the program is upgraded server by server, with a migration, while students save steps and hand in without pause and
others load pages. Printed for each: how long the longest wait for an answer was, and what was answered; at the end what
became of everything that was acknowledged. ``--only`` takes the trials whose names begin so.
"""

from __future__ import annotations

import argparse
import shutil
import signal
import threading
from collections import Counter
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from functools import partial
from http.client import HTTPException
from pathlib import Path
from time import monotonic, sleep
from typing import Any

from widepin.running.migrate import ROOT

from .class_trial import Record, Student, watch
from .cluster import Application, Cluster, cluster
from .galera import Node
from .kill_trial import Teacher, Writer, check, check_others
from .serving import Address, Browser, Lesson, fill

WRITERS, READERS = 12, 4

CUT_OFF = 15.0
"""Seconds for which something is cut off."""

QUEUE_GONE = 60.0

SETTLED = 10
"""Steps that every student has stored before the next trial."""

LONGEST_TRIAL = 240.0


@dataclass
class Reader:
    """Somebody who loads a page every half second: whatever is not 200 is an error that a student sees."""

    on: Lesson
    login: str
    answers: Counter[int] = field(default_factory=Counter)
    longest: float = 0.0

    def read(self, stop: threading.Event) -> None:
        """Until it is over."""
        browser = Browser(self.on.web.port, timeout=60).sign_in(self.login)
        while not stop.is_set():
            begun = monotonic()
            try:
                status, _body = browser.ask("GET", "/tasks")
            except (OSError, HTTPException):
                status = 0
            self.answers[status] += 1
            self.longest = max(self.longest, monotonic() - begun)
            stop.wait(0.5)


def _others(answers: Counter[int]) -> str:
    """What was answered besides what is as it should be, in words; 0 stands for no answer at all."""
    odd = {status: count for status, count in answers.items() if status not in (200, 409)}
    return ", ".join(f"{count} x {status}" for status, count in sorted(odd.items())) or "none"


class Watched:
    """Students at work, and how long one of them has waited for a step to be stored."""

    def __init__(self, writers: list[Writer], readers: list[Reader]):
        self.writers, self.readers = writers, readers
        self.counts = {one.login: 0 for one in writers}
        self.since = {one.login: monotonic() for one in writers}
        self.longest = 0.0

    def look(self) -> None:
        """Take note of who has got on."""
        at = monotonic()
        for one in self.writers:
            self.longest = max(self.longest, at - self.since[one.login])
            if len(one.acknowledged) > self.counts[one.login]:
                self.counts[one.login], self.since[one.login] = len(one.acknowledged), at

    def begin(self) -> tuple[Counter[int], Counter[int]]:
        """Begin to measure anew; what was answered so far."""
        at = monotonic()
        self.longest, self.since = 0.0, dict.fromkeys(self.since, at)
        for one in self.readers:
            one.longest = 0.0
        return self._saves(), self._pages()

    def _saves(self) -> Counter[int]:
        return sum((one.answers for one in self.writers), Counter())

    def _pages(self) -> Counter[int]:
        return sum((one.answers for one in self.readers), Counter())

    def until_everybody_got_on(self, steps: int) -> bool:
        """Wait until everybody has stored so many further steps; whether that came."""
        wanted = {one.login: len(one.acknowledged) + steps for one in self.writers}
        until = monotonic() + LONGEST_TRIAL
        while any(len(one.acknowledged) < wanted[one.login] for one in self.writers):
            if monotonic() > until:
                return False
            sleep(0.05)
        return True

    def told(self, before: tuple[Counter[int], Counter[int]]) -> str:
        """What was measured, in words."""
        saves, pages = self._saves() - before[0], self._pages() - before[1]
        put_off, failed = (_others(answers) for answers in (saves, pages))
        slowest = max((one.longest for one in self.readers), default=0.0)
        return (
            f"{saves[200]} steps stored, put off: {put_off}, longest wait {self.longest:.1f} s; "
            f"{pages[200]} pages, not answered: {failed}, longest {slowest:.1f} s"
        )

    def look_on(self, stop: threading.Event) -> None:
        """Take note all the time."""
        while not stop.wait(0.05):
            self.look()


Deed = Callable[[], object]


def trials(on: Cluster) -> Iterator[tuple[str, Deed]]:
    """Everything that happens, in order, by name."""
    for node in on.nodes:
        yield f"database {node.name} killed", partial(_again, node.kill, node.start)
        yield f"database {node.name} stopped", partial(_again, node.stop, node.start)
        yield f"database {node.name} cut off", partial(_cut_off, node)
    for application in on.applications:
        yield f"{application.name} killed", partial(_again, application.kill, partial(_start, application))
        yield f"{application.name} stopped", partial(_again, application.stop, partial(_start, application))
        yield f"{application.name} cut off", partial(_freeze, application)
    worker, redis = on.programs["worker1"], on.programs["redis"]
    yield "worker killed", partial(_again, worker.kill, worker.start)
    yield "queue killed", partial(_again, redis.kill, redis.start, QUEUE_GONE)
    yield "rolling upgrade", partial(_upgrade, on)


def _again(end: Callable[[], Any], start: Callable[[], Any], seconds: float = 5.0) -> None:
    end()
    sleep(seconds)
    start()


def _start(application: Application) -> None:
    application.start()
    application.wait_until_ready()


def _cut_off(node: Node) -> None:
    node.freeze()
    sleep(CUT_OFF)
    node.thaw()
    until = monotonic() + 60
    while monotonic() < until and not node.is_synced():
        sleep(0.5)


def _freeze(application: Application) -> None:
    application.send(signal.SIGSTOP)
    sleep(CUT_OFF)
    application.send(signal.SIGCONT)


MIGRATION = '''"""A trial: a newer version that adds a table."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "{next}", "{last}"
works_with = "{last}"


def upgrade() -> None:
    op.create_table("added_by_trial", sa.Column("id", sa.Integer(), primary_key=True))


def downgrade() -> None:
    op.drop_table("added_by_trial")
'''


def newer_program(folder: Path) -> Path:
    """A copy of the program with one migration more."""
    program = folder / "newer"
    for part in ("src", "migrations", "deploy"):
        shutil.copytree(ROOT / part, program / part, dirs_exist_ok=True)
    last = max(path.name[:4] for path in (program / "migrations" / "versions").glob("0*.py"))
    following = f"{int(last) + 1:04}"
    (program / "migrations" / "versions" / f"{following}_trial.py").write_text(
        MIGRATION.format(next=following, last=last)
    )
    return program


def _upgrade(on: Cluster) -> None:
    newer = newer_program(on.folder)
    for application in on.applications:
        application.stop()
        application.use(newer)
        application.start()
        application.wait_until_ready()
        sleep(5)


def run(on: Cluster, district: Lesson, only: str) -> None:
    """Run the trials, one after the other, while students work."""
    writers = [Writer(district, login) for login in district.logins[1 : 1 + WRITERS]]
    readers = [Reader(district, login) for login in district.logins[1 + WRITERS : 1 + WRITERS + READERS]]
    teacher = Teacher(district, district.logins[0], writers)
    watched = Watched(writers, readers)
    with at_work([*(one.write for one in writers), *(one.read for one in readers), teacher.write, watched.look_on]):
        watched.until_everybody_got_on(SETTLED)
        for name, deed in trials(on):
            if not name.startswith(only):
                continue
            before = watched.begin()
            deed()
            went_on = watched.until_everybody_got_on(SETTLED)
            print(f"{name:24} {watched.told(before)}{'' if went_on else '  DID NOT GO ON'}", flush=True)
    show_what_is_stored(district, writers, teacher)


def show_what_is_stored(district: Lesson, writers: list[Writer], teacher: Teacher) -> None:
    """Print what became of everything that was acknowledged."""
    found = check(district, writers) + check_others(district, teacher, writers)
    print(", ".join(f"{name}: {count}" for name, count in found.items()))
    lost = ("lost", "changed", "doubled or missing numbers", "unreadable", "hand-ins lost", "hand-ins doubled")
    print("nothing acknowledged was lost or doubled" if not any(found[name] for name in lost) else "SOMETHING IS LOST")


@contextmanager
def at_work(works: list[Callable[[threading.Event], None]]) -> Iterator[None]:
    """People at work, each in a thread, until all is done."""
    stop = threading.Event()
    threads = [threading.Thread(target=work, args=(stop,)) for work in works]
    for thread in threads:
        thread.start()
    try:
        yield
    finally:
        stop.set()
        for thread in threads:
            thread.join()


def lesson(district: Lesson, students: int, teachers: int, seconds: float, pause: float) -> None:
    """The recorded mix of a lesson."""
    record = Record()
    everybody = [Student(district, number, record, pause) for number in range(1, 1 + students)]
    until = monotonic() + seconds

    def at_board(student: Student, _stop: threading.Event) -> None:
        student.work(until)

    def at_overview(number: int, _stop: threading.Event) -> None:
        watch(district, record, until, number)

    with at_work([*(partial(at_board, one) for one in everybody), *(partial(at_overview, n) for n in range(teachers))]):
        sleep(seconds)
    record.show()
    whole = sum(one.is_whole() for one in everybody)
    print(f"{whole} of {students} boards hold every step that was acknowledged", flush=True)


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    asked.add_argument("--students", type=int, default=300)
    asked.add_argument("--teachers", type=int, default=20)
    asked.add_argument("--seconds", type=float, default=120)
    asked.add_argument("--pause", type=float, default=20, help="seconds between two steps of a student")
    asked.add_argument("--only", default="", help="the trials whose names begin so; 'none' for the lesson alone")
    wanted = asked.parse_args()
    with cluster() as on:
        classes = max(1, wanted.students // 30)
        in_trials = (WRITERS + READERS) * classes  # so many of the first class have not been in the lesson
        (assignments, sheet), logins = fill(on.url, wanted.students + in_trials, classes)
        district = Lesson(Address(on.port), on.url, assignments, sheet, logins)
        if wanted.seconds:
            lesson(district, wanted.students, wanted.teachers, wanted.seconds, wanted.pause)
        if wanted.only != "none":
            fresh = [login for n, login in enumerate(logins[1:]) if n >= wanted.students and n % classes == 0]
            trial = Lesson(Address(on.port), on.url, assignments[:1], sheet, [logins[0], *fresh])
            run(on, trial, wanted.only)


if __name__ == "__main__":
    main()
