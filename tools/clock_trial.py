"""The clock is set while the school is at work: ``bin/widepin tool clock_trial --seconds 90``.

Students save steps and hand in while the clock by which the app goes is set forward and back, by minutes and by hours
(``clock_app.py``; the clock that only counts on is left alone, as on a real machine). After each time somebody mistypes
a password and then signs in, and the overview asks for changes. Asked for at the end: everything acknowledged.
"""

from __future__ import annotations

import argparse
import json
import os
import threading
from collections import Counter
from pathlib import Path
from tempfile import TemporaryDirectory
from time import monotonic, sleep

from sqlalchemy import select

from widepin.school.database import make_engine, make_sessions
from widepin.school.models import HandIn

from .kill_trial import Writer, check
from .serving import Browser, Served, served

OFFSETS = (0, 600, -600, 3600, 0, -7200, -1800, 0, 5400, 0)
"""Seconds by which the clock is wrong, one after the other; never so much at once that sessions run out by it."""

STUDENTS = 8


def look(on: Served, login: str, since: str) -> tuple[Counter[str], str]:
    """What somebody does who comes after the clock was set: what was answered, and until when the overview is known."""
    answers: Counter[str] = Counter()
    stranger = Browser(on.web.port)
    stranger.page("/sign-in")
    status, _ = stranger.form("/sign-in", login=login, password="not this one")
    answers[f"wrong password {status}"] += 1
    status, _ = stranger.form("/sign-in", login=login, password="tracery")
    answers[f"sign in {status}"] += 1
    teacher = Browser(on.web.port).sign_in("teacher")
    status, body = teacher.ask("GET", f"/assignments/{on.assignment}/changes?since={since}")
    answers[f"changes {status}"] += 1
    for path in ("/today", f"/assignments/{on.assignment}", "/classes/1"):
        answers[f"page {teacher.ask('GET', path)[0]}"] += 1

    return answers, str(json.loads(body)["at"]) if status == 200 else since


def main() -> None:
    """Set the clock, and say what came of it."""
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--seconds", type=float, default=90)
    wanted = asked.parse_args()
    with TemporaryDirectory() as folder:
        stamp = Path(folder) / "offset"
        stamp.write_text("0")
        os.environ["WIDEPIN_CLOCK_OFFSET"] = str(stamp)
        with served(STUDENTS + 1, app="tools.clock_app:from_environment()") as on:
            writers = [Writer(on, login) for login in on.logins[1:-1]]
            stop, answers, since = threading.Event(), Counter[str](), "2026-01-01"
            threads = [threading.Thread(target=one.write, args=(stop,)) for one in writers]
            for thread in threads:
                thread.start()
            until = monotonic() + wanted.seconds
            while monotonic() < until:
                for offset in OFFSETS:
                    (fresh := stamp.with_suffix(".new")).write_text(str(offset))
                    fresh.replace(stamp)
                    sleep(2)
                    seen, since = look(on, on.logins[-1], since)
                    answers += seen
            stop.set()
            for thread in threads:
                thread.join()
            saved = sum((one.answers for one in writers), Counter[int]())
            found, lost = check(on, writers), missing_hand_ins(on, writers)
    print("saves:", ", ".join(f"{count} x {status}" for status, count in sorted(saved.items())))
    print("besides:", ", ".join(f"{count} x {what}" for what, count in sorted(answers.items())))
    print("steps:", ", ".join(f"{count} {what}" for what, count in found.items()))
    print(f"{sum(len(one.handed_in) for one in writers)} hand-ins acknowledged, {lost} of them lost")


def missing_hand_ins(on: Served, writers: list[Writer]) -> int:
    """How many hand-ins are not there that were acknowledged."""
    engine = make_engine(on.url)
    with make_sessions(engine)() as session:
        keys = set(session.scalars(select(HandIn.key)))
    engine.dispose()
    return sum(key not in keys for one in writers for key in one.handed_in)


if __name__ == "__main__":
    main()
