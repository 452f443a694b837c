"""Killing everything in mid-write: ``bin/widepin tool kill_trial --kills 1000``.

Students save steps without pause and send each one until it is acknowledged, as boards do, while a worker, the main
process of the web server or the database is killed (-9) again and again; what keeps a demo going starts them again.
At the end the database is asked for every step: is each acknowledged one there, once, as it was sent, and can every
board be read?
"""

from __future__ import annotations

import argparse
import json
import os
import random
import secrets
import signal
import threading
from collections import Counter
from pathlib import Path
from time import monotonic, sleep
from typing import Any

from sqlalchemy import select

from widepin.running.watching import Watch
from widepin.school.database import make_engine, make_sessions
from widepin.school.models import Operation, Person, Work
from widepin.school.works.autosave import state_of

from .serving import Browser, Served, served

STUDENTS = 12

SHARES = {"worker": 6, "main process": 1, "database": 3}
"""Of ten kills."""

LONGEST_WAIT = 15.0
"""Seconds after which the next one is killed even if nothing was saved since."""


class Writer:
    """A student who saves one step after the other, and remembers what was acknowledged."""

    def __init__(self, on: Served, login: str):
        self.browser, self.login = Browser(on.web.port, timeout=20).sign_in(login), login
        self.browser.page(f"/tasks/{on.assignment}")
        self.path = f"/tasks/{on.assignment}/operations"
        self.acknowledged: dict[str, tuple[int, dict[str, Any]]] = {}
        self.after, self.sent, self.answers = 0, 0, Counter[int]()

    def write(self, stop: threading.Event) -> None:
        while not stop.is_set():
            self.sent += 1
            place = [self.sent % 50 / 10, self.sent % 40 / 10]
            operation = {"op": "move", "points": {"A": place}} if self.sent % 3 else circle(self.sent)
            if self.sent > 200 and operation["op"] == "add":
                operation = {"op": "undo"}
            self._until_acknowledged(secrets.token_hex(16), operation, stop)
            sleep(0.02)

    def _until_acknowledged(self, key: str, operation: dict[str, Any], stop: threading.Event) -> None:
        while not stop.is_set():
            try:
                status, body = self.browser.send(self.path, {"key": key, "after": self.after, "operation": operation})
            except OSError:
                status, body = 0, b""
            self.answers[status] += 1
            if status == 200:
                number = json.loads(body)["number"]
                self.acknowledged[key] = number, operation
                self.after = max(self.after, number)
                return
            if status == 409:
                self.after += len(json.loads(body)["operations"])
                continue
            if 0 < status < 500:
                raise AssertionError(f"{status} {body!r}")
            sleep(0.1)


def circle(number: int) -> dict[str, Any]:
    return {"op": "add", "step": {"id": f"c{number}", "make": "circle", "from": ["A", "B"]}}


def children(pid: int) -> list[int]:
    """Processes that a process has started, gunicorn's workers among them."""
    try:
        return [int(one) for one in Path(f"/proc/{pid}/task/{pid}/children").read_text().split()]
    except OSError:
        return []


def victim(on: Served, kind: str) -> int | None:
    """The process to kill."""
    web, database = on.web.process, on.database.process
    if web is None or database is None:
        return None
    if kind == "worker":
        workers = children(web.pid)
        return random.choice(workers) if workers else None
    return web.pid if kind == "main process" else database.pid


def kill(on: Served, writers: list[Writer], kills: int) -> Counter[str]:
    """Kill so many processes, each some steps after the one before, and keep the servers going."""
    watched, done, shown = Watch(on.database, on.web, lambda words: None), Counter[str](), 0
    wait, enough = monotonic() + LONGEST_WAIT, STUDENTS
    while done.total() < kills:
        watched.look()
        sleep(0.02)
        if on.web.ended or on.database.ended:
            continue
        if sum(len(writer.acknowledged) for writer in writers) < enough and monotonic() < wait:
            continue  # first everything has to work again, for some steps
        sleep(random.uniform(0.0, 0.2))
        kind = random.choices(list(SHARES), list(SHARES.values()))[0]
        pid = victim(on, kind)
        if pid is None:
            continue
        os.kill(pid, signal.SIGKILL)
        done[kind] += 1
        wait = monotonic() + LONGEST_WAIT
        enough = sum(len(writer.acknowledged) for writer in writers) + random.randint(1, 2 * STUDENTS)
        if done.total() // 100 > shown:
            shown = done.total() // 100
            print(f"{done.total()} kills", flush=True)
    for _ in range(100):
        watched.look()
        sleep(0.05)
    return done


def check(on: Served, writers: list[Writer]) -> Counter[str]:
    """What became of the steps."""
    found = Counter[str]()
    engine = make_engine(on.url)
    with make_sessions(engine)() as session:
        for writer in writers:
            work = session.scalars(select(Work).join(Person).where(Person.login == writer.login)).one()
            log = list(
                session.scalars(select(Operation).where(Operation.work_id == work.id).order_by(Operation.number))
            )
            stored = {one.key: (one.number, one.document) for one in log}
            found["stored"] += len(log)
            found["acknowledged"] += len(writer.acknowledged)
            found["lost"] += sum(key not in stored for key in writer.acknowledged)
            found["changed"] += sum(
                key in stored and (stored[key][0] != number or stored[key][1]["op"] != operation["op"])
                for key, (number, operation) in writer.acknowledged.items()
            )
            found["doubled or missing numbers"] += [one.number for one in log] != list(range(1, len(log) + 1))
            try:
                state_of(work)
            except Exception as error:
                print("unreadable:", repr(error))
                found["unreadable"] += 1
    engine.dispose()
    return found


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    asked.add_argument("--kills", type=int, default=1000)
    kills = asked.parse_args().kills
    with served(STUDENTS) as on:
        writers = [Writer(on, login) for login in on.logins[1:]]
        stop = threading.Event()
        threads = [threading.Thread(target=writer.write, args=(stop,)) for writer in writers]
        for thread in threads:
            thread.start()
        begun = monotonic()
        done = kill(on, writers, kills)
        stop.set()
        for thread in threads:
            thread.join()
        print(f"{dict(done)} killed in {monotonic() - begun:.0f} s")
        print("answers:", dict(sum((writer.answers for writer in writers), Counter())))
        found = check(on, writers)
        print(
            ", ".join(
                f"{name}: {found[name]}"
                for name in ("stored", "acknowledged", "lost", "changed", "doubled or missing numbers", "unreadable")
            )
        )


if __name__ == "__main__":
    main()
