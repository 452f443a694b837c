"""A class at work: ``bin/widepin tool class_trial --students 30 --seconds 300``.

Students open their boards, save a step every three seconds (or as ``--pause`` says), say that they are there, load the
board again and hand in; their teacher watches the class overview, in as many windows as ``--overviews`` says, and reads
proofs in as many as ``--proofs`` says. With ``--papers`` others print a work of 300 steps over and over, and with
``--heavy`` eight students hand in works of 280 idle objects as often as they may. Printed: how many requests of each
kind, what was answered, and times; at the end, whether every step that was acknowledged is there.
"""

from __future__ import annotations

import argparse
import json
import random
import secrets
import threading
from collections import Counter, defaultdict
from time import monotonic, perf_counter, sleep
from typing import Any

from widepin.school.tasks.library import LIBRARY

from .serving import Browser, Lesson, served

PAUSE = 3.0
"""Seconds between two steps of a student on average, if nothing else is said: as fast as hands are."""


class Record:
    """Times and answers of all requests, by kind."""

    def __init__(self) -> None:
        self.times: dict[str, list[float]] = defaultdict(list)
        self.answers: dict[str, Counter[str]] = defaultdict(Counter)
        self.lock = threading.Lock()

    def of(self, kind: str, ask: Any, *arguments: Any) -> tuple[int, bytes]:
        """Ask, and note how that went."""
        begun = perf_counter()
        try:
            status, body = ask(*arguments)
        except OSError as error:
            status, body = 0, repr(error).encode()
        with self.lock:
            self.times[kind].append(perf_counter() - begun)
            self.answers[kind][str(status)] += 1
        return status, body

    def show(self) -> None:
        """A line for each kind."""
        for kind, times in self.times.items():
            ordered = sorted(times)
            shares = "  ".join(
                f"{share} % {1000 * ordered[int(share / 100 * (len(ordered) - 1))]:.0f} ms" for share in (50, 95, 100)
            )
            answers = ", ".join(f"{count} x {status}" for status, count in sorted(self.answers[kind].items()))
            print(f"{kind:16} {len(times):7}   {shares}   {answers}", flush=True)


def circles(count: int) -> list[dict[str, Any]]:
    """So many steps that no answer needs."""
    return [
        {"id": f"q{n}", "make": "circle", "from": ["A", "B"]}
        if n % 2
        else {"id": f"q{n}", "make": "free_point", "at": [n / 40, (n * 7 % 40) / 10]}
        for n in range(count)
    ]


class Student:
    """Somebody at a board."""

    def __init__(self, on: Lesson, number: int, record: Record, pause: float = PAUSE):
        self.pause = pause
        login = on.logins[number]
        self.browser, self.record, self.acknowledged = Browser(on.web.port).sign_in(login), record, 0
        self.page = f"/tasks/{on.assignments[(number - 1) % len(on.assignments)]}"
        self.rng = random.Random(login)

    def save(self, operation: dict[str, Any]) -> None:
        sent = {"key": secrets.token_hex(16), "after": self.acknowledged, "operation": operation}
        status, _ = self.record.of("save", self.browser.send, f"{self.page}/operations", sent)
        self.acknowledged += status == 200

    def import_steps(self, steps: list[dict[str, Any]]) -> None:
        self.browser.page(self.page)
        status, body = self.browser.send(f"{self.page}/import-steps", {"after": 0, "work": {"steps": steps}})
        assert status == 200, body
        self.acknowledged = len(steps)

    def hand_in(self, kind: str = "hand in") -> str:
        """Hand in as it stands; the address of the attempt, if it was taken."""
        ask = {"Accept": "application/json", "Content-Type": "application/x-www-form-urlencoded"}
        body = f"csrf_token={self.browser.token}".encode()
        status, answer = self.record.of(kind, self.browser.ask, "POST", f"{self.page}/hand-in", body, ask)
        return str(json.loads(answer)["url"]) if status == 200 else ""

    def work(self, until: float) -> None:
        """Build until a time."""
        self.record.of("board", self.browser.ask, "GET", self.page)
        self.browser.page(self.page)
        sleep(self.rng.uniform(0, self.pause))
        while monotonic() < until:
            n = self.acknowledged
            choice = self.rng.random()
            if choice < 0.55:
                step = {"id": f"c{n}", "make": "circle", "from": ["A", "B"]}
                self.save({"op": "add", "step": step} if n < 250 else {"op": "undo"})
            elif choice < 0.85:
                self.save({"op": "move", "points": {"A": [self.rng.uniform(0, 4), self.rng.uniform(0, 4)]}})
            elif choice < 0.9:
                self.record.of("here", self.browser.send, f"{self.page}/here", {})
            elif choice < 0.96:
                self.record.of("board", self.browser.ask, "GET", self.page)
            else:
                self.hand_in()
            sleep(self.rng.uniform(0.5, 1.5) * self.pause)

    def is_whole(self) -> bool:
        """Whether every step that was acknowledged is there."""
        _, body = self.browser.ask("GET", f"{self.page}/operations")
        return len(json.loads(body)["operations"]) >= self.acknowledged


def watch(on: Lesson, record: Record, until: float, number: int) -> None:
    """The teacher at the overview of a class, as the page asks for what has changed."""
    teacher = Browser(on.web.port).sign_in("teacher")
    page, since = f"/assignments/{on.assignments[number % len(on.assignments)]}", "2026-01-01"
    record.of("overview", teacher.ask, "GET", page)
    while monotonic() < until:
        status, body = record.of("changes", teacher.ask, "GET", f"{page}/changes?since={since}")
        since = json.loads(body)["at"] if status == 200 else since
        record.of("marks", teacher.ask, "GET", "/classes/1")
        sleep(4.0)


def read_proofs(on: Lesson, record: Record, until: float, number: int) -> None:
    """The teacher at a page with a proof, of one task of the library after the other."""
    teacher, keys = Browser(on.web.port).sign_in("teacher"), list(LIBRARY)
    while monotonic() < until:
        number += 1
        record.of("proof", teacher.ask, "GET", f"/library/{keys[number * 7 % len(keys)]}/why")
        sleep(4.0)


def print_over_and_over(student: Student, record: Record, until: float) -> None:
    """Somebody who prints a long work, with arcs and without, and does not wait for it."""
    student.import_steps(circles(300))
    attempt, number = student.hand_in("heavy hand in"), 0
    while monotonic() < until:
        number += 1
        path = f"{attempt}/handout.pdf" + ("?arcs=1" if number % 2 else "")
        record.of("paper", student.browser.ask, "GET", path)
        sleep(1.0)


def hand_in_over_and_over(student: Student, until: float) -> None:
    """Somebody who hands in a large idle work as often as is taken."""
    student.import_steps(circles(280))
    while monotonic() < until:
        student.hand_in("heavy hand in")
        sleep(0.5)


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    asked.add_argument("--students", type=int, default=30)
    asked.add_argument("--seconds", type=float, default=300)
    asked.add_argument("--pause", type=float, default=PAUSE, help="seconds between two steps of a student")
    asked.add_argument("--classes", type=int, default=1)
    asked.add_argument("--overviews", type=int, default=1, help="in how many windows the overview is watched")
    asked.add_argument("--proofs", type=int, default=0, help="in how many windows proofs are read")
    asked.add_argument("--papers", type=int, default=0, help="how many print a long work over and over")
    asked.add_argument("--heavy", type=int, default=0, help="how many hand in a large idle work over and over")
    wanted = asked.parse_args()
    record = Record()
    with served(wanted.students + wanted.papers + wanted.heavy, classes=wanted.classes) as on:
        everybody = [Student(on, number, record, wanted.pause) for number in range(1, len(on.logins))]
        until = monotonic() + wanted.seconds
        printing, heavy = everybody[: wanted.papers], everybody[wanted.papers : wanted.papers + wanted.heavy]
        at_work = everybody[wanted.papers + wanted.heavy :]
        threads = [threading.Thread(target=watch, args=(on, record, until, n)) for n in range(wanted.overviews)]
        threads += [threading.Thread(target=read_proofs, args=(on, record, until, n)) for n in range(wanted.proofs)]
        threads += [threading.Thread(target=print_over_and_over, args=(one, record, until)) for one in printing]
        threads += [threading.Thread(target=hand_in_over_and_over, args=(one, until)) for one in heavy]
        threads += [threading.Thread(target=one.work, args=(until,)) for one in at_work]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        record.show()
        lost = [one for one in everybody if not one.is_whole()]
        steps = sum(one.acknowledged for one in everybody)
        print(f"{len(everybody)} students, {steps} steps acknowledged, {len(lost)} boards that lack some of theirs")


if __name__ == "__main__":
    main()
