"""Work that comes again and again while the server runs: every process has a thread for it, one at a time works."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable
from dataclasses import dataclass

from flask import Flask

from ...school import long_work
from ...school.leases import alone
from ...school.works import packing
from ..database import sessions
from .background import judge_what_was_left
from .joining import send_scores, take_over_nightly, tell_activity


@dataclass(frozen=True)
class Recurring:
    """Something to be done every so many seconds. ``name``: of the lock that keeps others from doing it meanwhile."""

    name: str
    seconds: float
    work: Callable[[], None]


def clear_away() -> None:
    """Forget what came of long work that was fetched long ago."""
    with sessions()() as session:
        long_work.clear_away(session)
        session.commit()


def pack_logs() -> None:
    """Pack the logs of some of the works that nobody has touched for long."""
    packing.pack_old(sessions())


EVERY = (
    Recurring("scores", 10, send_scores),
    Recurring("activity", 30, tell_activity),
    Recurring("lists", 1800, take_over_nightly),
    Recurring("judging", 60, judge_what_was_left),
    Recurring("results", 600, clear_away),
    Recurring("packing", 600, pack_logs),
)
"""What is done again and again; lists are looked through so often, and each taken over nightly."""


def keep_going(app: Flask) -> threading.Thread:
    """Begin, in a thread that ends with the process."""
    thread = threading.Thread(target=_run, args=(app,), name="recurring", daemon=True)
    thread.start()
    return thread


def _run(app: Flask) -> None:
    due = {one.name: time.monotonic() + one.seconds for one in EVERY}
    failing: set[str] = set()
    while True:
        time.sleep(max(0.5, min(due.values()) - time.monotonic()))
        for one in EVERY:
            if due[one.name] <= time.monotonic():
                do_once(app, one, failing)
                due[one.name] = time.monotonic() + one.seconds


def do_once(app: Flask, one: Recurring, failing: set[str]) -> None:
    """Do it now, unless another process is at it; what fails is logged, and comes again.

    ``failing``: what failed the last time too, and is not logged again until it has worked.
    """
    try:
        with app.app_context(), alone(app.extensions["sessions"], one.name) as is_free:
            if is_free:
                one.work()
        failing.discard(one.name)
    except Exception:
        if one.name not in failing:
            app.logger.exception("what comes again and again failed: %s", one.name)
        failing.add(one.name)
