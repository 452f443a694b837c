"""Work that nobody waits for: in a thread of its own, or by a worker, one at a time in the whole installation.

Each kind holds a lease while it is done, so that the processes of all servers do not do it twice; what a process leaves
undone when it ends, the next one that is asked goes on with.
"""

from __future__ import annotations

import threading
from collections.abc import Callable
from time import sleep
from typing import Any

from flask import Flask, Response, after_this_request, current_app

from ...judge.task import Task, Work
from ...judge.verdict import Verdict
from ...school.leases import alone
from ...school.people import removing
from ...school.tasks import recordings
from ...school.works import again
from ..database import sessions
from .apart import Busy, JobQueue
from .queue import SharedQueue


def after_this(start: Callable[[], None]) -> None:
    """Start work once what this request has done is stored."""

    @after_this_request
    def begin_now(response: Response) -> Response:
        start()
        return response


def erase_outdated() -> None:
    """Erase what was removed long enough ago."""
    begin("erase", _erase)


def _erase() -> None:
    with sessions()() as session:
        removing.erase_outdated(session)
        recordings.sweep(session)
        session.commit()


SLICE = 2.0
"""Seconds of judging after which what is judged is stored."""


def judge_again(assignment_id: int) -> None:
    """Go on judging the attempts at an assignment again."""
    begin(f"judge {assignment_id}", _judge_again, assignment_id)


def _judge_again(assignment_id: int) -> None:
    jobs: JobQueue = current_app.extensions["jobs"]

    def judged(works: list[tuple[Task, Work]], seconds: float) -> list[Verdict]:
        """As ``again.judge_for``, in a process apart, after whatever students wait for."""
        while True:
            try:
                return jobs.do(-assignment_id, again.judge_for, works, seconds)
            except Busy:
                sleep(1)

    again.go_on(sessions(), assignment_id, SLICE, judged)


def judge_what_was_left() -> None:
    """Go on judging again where nobody is at it any more, since a process has ended."""
    with sessions()() as session:
        left = again.left_undone(session)
    for assignment_id in left:
        judge_again(assignment_id)


def begin(name: str, work: Callable[..., object], *arguments: Any) -> None:
    """Begin work that nobody waits for; nothing where the same is being done. ``name``: of its lease."""
    app: Flask = current_app._get_current_object()  # type: ignore[attr-defined]
    jobs = app.extensions["jobs"]
    if isinstance(jobs, SharedQueue) and jobs.send("background", (name, work, arguments)):
        return
    threading.Thread(target=run, args=(app, name, work, arguments), name=name, daemon=True).start()


def run(app: Flask, name: str, work: Callable[..., object], arguments: tuple[Any, ...]) -> None:
    """Do it now, unless the same is being done."""
    try:
        with app.app_context(), alone(app.extensions["sessions"], name) as is_free:
            if is_free:
                work(*arguments)
    except Exception:
        app.logger.exception("work in the background failed: %s", name)
