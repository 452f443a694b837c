"""Work that nobody waits for: in a thread of its own, one at a time in the whole installation.

Each kind holds a named lock of the database while it is done, so that the processes of the server do not do it twice;
what a process leaves undone when it ends, the next one that is asked goes on with.
"""

from __future__ import annotations

import threading
from collections.abc import Callable
from functools import partial
from time import sleep

from flask import Flask, Response, after_this_request, current_app

from ...judge.task import Task, Work
from ...judge.verdict import Verdict
from ...school.database import alone
from ...school.people import removing
from ...school.tasks import recordings
from ...school.works import again
from ..database import sessions
from .apart import Busy, JobQueue


def after_this(start: Callable[[], None]) -> None:
    """Start work once what this request has done is stored."""

    @after_this_request
    def begin_now(response: Response) -> Response:
        start()
        return response


def erase_outdated() -> None:
    """Erase what was removed long enough ago."""
    made = sessions()

    def erase() -> None:
        with made() as session:
            removing.erase_outdated(session)
            recordings.sweep(session)
            session.commit()

    begin("erase", erase)


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

    begin(f"judge {assignment_id}", partial(again.go_on, sessions(), assignment_id, SLICE, judged))


def begin(name: str, work: Callable[[], object]) -> threading.Thread:
    """Begin work that nobody waits for; nothing where the same is being done. ``name``: what is locked."""
    app: Flask = current_app._get_current_object()  # type: ignore[attr-defined]

    def run() -> None:
        try:
            with app.app_context(), alone(app.extensions["sessions"], name) as is_free:
                if is_free:
                    work()
        except Exception:
            app.logger.exception("work in the background failed: %s", name)

    thread = threading.Thread(target=run, name=name, daemon=True)
    thread.start()
    return thread
