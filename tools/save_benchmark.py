"""What saving a step costs: ``bin/widepin tool save_benchmark``.

Students of a class save one operation after the other on their boards, through a real web server on a durable
database; in turn with them, the same clients call a *bare* route of the same app that does no more than one SELECT and
one committed INSERT of the same size. Nobody pauses, so that the server is always full. Printed: answers a second of
both, their ratio, and times of answers, with 30 and with 300 students. ``class_trial`` has students who think.
"""

from __future__ import annotations

import json
import secrets
import threading
from statistics import median
from time import perf_counter
from typing import Any

from flask import Flask, request
from sqlalchemy import text

from widepin.web.app import from_environment
from widepin.web.database import session

from .serving import Browser, Served, served

SECONDS, ROUNDS = 6.0, 3


def with_bare_route() -> Flask:
    """The app with one more address, which saves without reading, checking or knowing anything."""
    app = from_environment()

    def bare() -> Any:
        sent = request.get_json()
        session().execute(text("SELECT id, name FROM person WHERE id = :id"), {"id": 1}).one()
        session().execute(
            text("INSERT INTO bare (number, note) VALUES (:number, :note)"),
            {"number": sent["after"], "note": request.get_data(as_text=True)},
        )
        return {"number": sent["after"]}

    app.add_url_rule("/bare", "bare", bare, methods=["POST"])
    return app


class Saver:
    """A student who saves: circles that are made, moved points, and one in ten taken back."""

    def __init__(self, on: Served, login: str):
        self.browser = Browser(on.web.port).sign_in(login)
        self.path = f"/tasks/{on.assignment}/operations"
        self.browser.page(f"/tasks/{on.assignment}")
        self.count = len(json.loads(self.browser.ask("GET", self.path)[1])["operations"])

    def operation(self) -> dict[str, Any]:
        made = self.count % 60
        if self.count % 10 == 9:
            return {"op": "undo"}
        if made % 2:
            return {"op": "move", "points": {"A": [made / 10, 1.5]}}
        return {"op": "add", "step": {"id": f"c{self.count}", "make": "circle", "from": ["A", "B"]}}

    def save(self, bare: bool) -> tuple[int, float]:
        """Save one operation: the status, and how long it took."""
        sent = {"key": secrets.token_hex(16), "after": self.count, "operation": self.operation()}
        begun = perf_counter()
        status, _ = self.browser.send("/bare" if bare else self.path, sent)
        took = perf_counter() - begun
        if status == 200 and not bare:
            self.count += 1
        return status, took


def all_at_once(savers: list[Saver], bare: bool) -> tuple[float, list[float], int]:
    """Everybody saves for some seconds: answers a second, their times, and how many were no success."""
    until = perf_counter() + SECONDS
    times: list[float] = []
    failed: list[int] = []

    def go(saver: Saver) -> None:
        while perf_counter() < until:
            status, took = saver.save(bare)
            times.append(took)
            if status != 200:
                failed.append(status)

    threads = [threading.Thread(target=go, args=(saver,)) for saver in savers]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return len(times) / SECONDS, times, len(failed)


def measure(on: Served, students: int) -> None:
    """Both routes in turn, with so many students."""
    savers = [Saver(on, login) for login in on.logins[1 : students + 1]]
    rates: dict[bool, list[float]] = {True: [], False: []}
    times: list[float] = []
    failed = 0
    for _ in range(ROUNDS):
        for bare in (True, False):
            rate, took, lost = all_at_once(savers, bare)
            rates[bare].append(rate)
            if not bare:
                times += took
                failed += lost
    for saver in savers:
        saver.browser.close()
    bare_rate, rate = median(rates[True]), median(rates[False])
    late = sorted(times)[int(0.95 * len(times))]
    print(
        f"{students:4} students: {rate:6.0f} saves a second, bare {bare_rate:6.0f}, ratio {rate / bare_rate:.2f}; "
        f"median {1000 * median(times):.0f} ms, 95 % {1000 * late:.0f} ms, {failed} of {len(times)} failed",
        flush=True,
    )


def main() -> None:
    with served(300, "tools.save_benchmark:with_bare_route()") as on:
        with session_of(on) as connection:
            connection.execute(
                text("CREATE TABLE bare (id INT PRIMARY KEY AUTO_INCREMENT, number INT, note TEXT) ENGINE=InnoDB")
            )
        for students in (30, 300):
            measure(on, students)


def session_of(on: Served) -> Any:
    """A connection to the database of a server, with its own transaction."""
    from widepin.school.database import make_engine

    return make_engine(on.url).begin()


if __name__ == "__main__":
    main()
