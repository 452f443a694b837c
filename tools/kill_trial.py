"""Killing everything in mid-write: ``bin/widepin tool kill_trial --kills 1000``.

Students save steps and hand in without pause, their teacher comments, scores and renames the task, and everybody sends
each thing until it is acknowledged, as the pages do, while a worker, the main process of the web server or the database
is killed (-9) again and again; what keeps a demo going starts them again. At the end the database is asked: is each
acknowledged thing there, once, as it was sent, and can every board be read?
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
from http.client import HTTPException
from pathlib import Path
from time import monotonic, sleep
from typing import Any
from urllib.parse import urlencode

from sqlalchemy import select

from widepin.running.watching import Watch
from widepin.school.database import make_engine, make_sessions
from widepin.school.models import Comment, HandIn, Operation, Person, TaskSheet, Work
from widepin.school.works.autosave import state_of

from .serving import Browser, Lesson, Served, served

STUDENTS = 12

SHARES = {"worker": 6, "main process": 1, "database": 3}
"""Of ten kills."""

EVERY_STEPS, BETWEEN_ATTEMPTS = 60, 6.0
"""Steps, and seconds, of a student between two hand-ins at least: more than 12 a minute are not taken."""

PUT_OFF = frozenset({429, 503})
"""Answers to what is to be sent again after a while."""

LONGEST_WAIT = 15.0
"""Seconds after which the next one is killed even if nothing was saved since."""


class Sender:
    """Somebody who sends each thing until it is acknowledged."""

    def __init__(self, on: Lesson, login: str):
        self.browser, self.login, self.answers = Browser(on.web.port, timeout=20).sign_in(login), login, Counter[int]()

    def send_form(self, path: str, fields: dict[str, str], stop: threading.Event) -> dict[str, Any] | None:
        """What was answered to a form in the end; None where the trial ended before."""
        headers = {"Content-Type": "application/x-www-form-urlencoded", "Accept": "application/json"}
        while not stop.is_set():
            body = urlencode({"csrf_token": self.browser.token, **fields}).encode()
            try:
                status, answer = self.browser.ask("POST", path, body, headers)
            except (OSError, HTTPException):
                status, answer = 0, b""
            self.answers[status] += 1
            if status == 200:
                return dict(json.loads(answer))
            if 0 < status < 500 and status not in PUT_OFF:
                raise AssertionError(f"{path} {status} {answer[:300]!r}")
            sleep(0.1)
        return None


class Writer(Sender):
    """A student who saves one step after the other, hands in now and then, and remembers what was acknowledged."""

    def __init__(self, on: Lesson, login: str):
        super().__init__(on, login)
        self.browser.page(f"/tasks/{on.assignment}")
        self.page = f"/tasks/{on.assignment}"
        self.path = f"{self.page}/operations"
        self.acknowledged: dict[str, tuple[int, dict[str, Any]]] = {}
        self.handed_in: dict[str, str] = {}  # keys, and the address of each
        self.after, self.sent, self.last_attempt = 0, 0, 0.0

    def write(self, stop: threading.Event) -> None:
        while not stop.is_set():
            self.sent += 1
            place = [self.sent % 50 / 10, self.sent % 40 / 10]
            operation = {"op": "move", "points": {"A": place}} if self.sent % 3 else circle(self.sent)
            if self.sent > 200 and operation["op"] == "add":
                operation = {"op": "undo"}
            self._until_acknowledged(secrets.token_hex(16), operation, stop)
            if self.sent % EVERY_STEPS == 0 and monotonic() - self.last_attempt > BETWEEN_ATTEMPTS:
                self.last_attempt, key = monotonic(), secrets.token_hex(16)
                if (answer := self.send_form(f"{self.page}/hand-in", {"key": key}, stop)) is not None:
                    self.handed_in[key] = str(answer["url"])
            sleep(0.02)

    def _until_acknowledged(self, key: str, operation: dict[str, Any], stop: threading.Event) -> None:
        while not stop.is_set():
            try:
                status, body = self.browser.send(self.path, {"key": key, "after": self.after, "operation": operation})
            except (OSError, HTTPException):
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


class Teacher(Sender):
    """Who comments and scores what was handed in, and renames the task; remembers what was acknowledged."""

    def __init__(self, on: Lesson, login: str, students: list[Writer]):
        super().__init__(on, login)
        self.sheet, self.students = on.sheet, students
        self.browser.page("/today")
        self.comments: set[str] = set()
        self.titles = ("", "")  # the last that was acknowledged, the last that was sent

    def write(self, stop: threading.Event) -> None:
        number = 0
        while not stop.is_set():
            number += 1
            handed_in = [url for one in self.students for url in list(one.handed_in.values())[-2:]]
            if handed_in and number % 2:
                key = secrets.token_hex(16)
                sent = {"key": key, "text": f"Comment {number}"}
                if self.send_form(f"{random.choice(handed_in)}/comments", sent, stop) is not None:
                    self.comments.add(key)
            else:
                self._rename(f"Title {number}", stop)
            sleep(0.25)

    def _rename(self, title: str, stop: threading.Event) -> None:
        self.titles = self.titles[0], title
        while not stop.is_set():
            try:
                status, body = self.browser.send(f"/sheets/{self.sheet}", {"document": {"title": title}})
            except (OSError, HTTPException):
                status, body = 0, b""
            self.answers[status] += 1
            if status == 200:
                self.sheet = int(json.loads(body)["urls"]["page"].rpartition("/")[2])
                self.titles = title, title
                return
            if 0 < status < 500:
                raise AssertionError(f"{status} {body[:300]!r}")
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


def check_others(on: Lesson, teacher: Teacher, writers: list[Writer]) -> Counter[str]:
    """What became of hand-ins, comments and the title."""
    found = Counter[str]()
    engine = make_engine(on.url)
    with make_sessions(engine)() as session:
        handed_in = Counter(session.scalars(select(HandIn.key)))
        comments = Counter(session.scalars(select(Comment.key)))
        title = session.scalars(select(TaskSheet.title).where(TaskSheet.id == teacher.sheet)).one()
    engine.dispose()
    for name, acknowledged, stored in (
        ("hand-ins", [key for one in writers for key in one.handed_in], handed_in),
        ("comments", list(teacher.comments), comments),
    ):
        found[f"{name} stored"] = stored.total()
        found[f"{name} acknowledged"] = len(acknowledged)
        found[f"{name} lost"] = sum(not stored[key] for key in acknowledged)
        found[f"{name} doubled"] = sum(count > 1 for count in stored.values())
    found["titles lost"] = int(title not in teacher.titles)
    return found


def check(on: Lesson, writers: list[Writer]) -> Counter[str]:
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
        teacher = Teacher(on, on.logins[0], writers)
        threads = [
            threading.Thread(target=work, args=(stop,)) for work in (teacher.write, *(one.write for one in writers))
        ]
        for thread in threads:
            thread.start()
        begun = monotonic()
        done = kill(on, writers, kills)
        stop.set()
        for thread in threads:
            thread.join()
        print(f"{dict(done)} killed in {monotonic() - begun:.0f} s")
        print("answers:", dict(sum((one.answers for one in (teacher, *writers)), Counter())))
        found = check(on, writers)
        print(
            ", ".join(
                f"{name}: {found[name]}"
                for name in ("stored", "acknowledged", "lost", "changed", "doubled or missing numbers", "unreadable")
            )
        )
        print(", ".join(f"{name}: {count}" for name, count in check_others(on, teacher, writers).items()))


if __name__ == "__main__":
    main()
