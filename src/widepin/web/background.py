"""Work that nobody waits for: in a thread of its own, one at a time in the whole installation.

Each kind holds a named lock of the database while it is done, so that the processes of the server do not do it twice;
what a process leaves undone when it ends, the next one that is asked goes on with.
"""

from __future__ import annotations

import threading
from collections.abc import Callable
from time import sleep

from flask import Flask, current_app
from sqlalchemy import text
from sqlalchemy.orm import Session, sessionmaker

from ..judge.task import Task, Work
from ..judge.verdict import Verdict
from ..school.people import removing
from ..school.works import again
from .apart import Busy, JobQueue


def erase_outdated() -> None:
    """Erase what was removed long enough ago."""
    begin("erase", lambda sessions: _in_session(sessions, removing.erase_outdated))


SLICE = 2.0
"""Seconds of judging after which what is judged is stored."""


def judge_again(assignment_id: int) -> None:
    """Go on judging the attempts at an assignment again."""
    jobs: JobQueue = current_app.extensions["jobs"]

    def judged(works: list[tuple[Task, Work]], seconds: float) -> list[Verdict]:
        """As ``again.judge_for``, in a process apart, after whatever students wait for."""
        while True:
            try:
                return jobs.do(-assignment_id, again.judge_for, works, seconds)
            except Busy:
                sleep(1)

    begin(f"judge {assignment_id}", lambda sessions: again.go_on(sessions, assignment_id, SLICE, judged))


def begin(name: str, work: Callable[[sessionmaker[Session]], None]) -> threading.Thread:
    """Begin work that nobody waits for; nothing where the same is being done. ``name``: what is locked."""
    app: Flask = current_app._get_current_object()  # type: ignore[attr-defined]
    thread = threading.Thread(target=_alone, args=(app, name, work), name=name, daemon=True)
    thread.start()
    return thread


def _alone(app: Flask, name: str, work: Callable[[sessionmaker[Session]], None]) -> None:
    sessions: sessionmaker[Session] = app.extensions["sessions"]
    with app.app_context(), sessions() as holding:
        try:
            # The database's own name is part of the lock's, since a server may hold several.
            locked = text("SELECT GET_LOCK(CONCAT(DATABASE(), ' ', :name), 0)")
            if holding.scalar(locked, {"name": name}) != 1:
                return
            try:
                work(sessions)
            finally:
                holding.execute(text("SELECT RELEASE_LOCK(CONCAT(DATABASE(), ' ', :name))"), {"name": name})
        except Exception:
            app.logger.exception("work in the background failed: %s", name)


def _in_session(sessions: sessionmaker[Session], work: Callable[[Session], object]) -> None:
    with sessions() as session:
        work(session)
