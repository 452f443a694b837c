"""Long work that somebody waits for at a page: done once, apart, and fetched when it is done.

It is known by a key, so that what has not changed is not made twice. Meanwhile a page says how far it is, asks again by
itself, and lets who waits stop it. Any server begins it, says how far it is, and hands over what came of it.
"""

from __future__ import annotations

import fcntl
import hashlib
import json
import signal
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from time import monotonic, sleep
from typing import Any
from urllib.parse import urlencode

from flask import Response, current_app, render_template, request

from ... import program_digest
from ...documents.language import gettext as _
from ...school import long_work
from ...school.database import Sessions, in_transaction, make_engine, make_sessions
from ...school.long_work import Tell
from ...school.models import is_within
from ...school.states import JobState
from ..access import me
from ..database import session, sessions
from .apart import JobQueue, Limits, take

LIMITS = Limits(seconds=60, megabytes=400)
"""What such work may take."""

AT_ONCE = 3.0
"""Seconds after which a page says how far it is."""

Work = Callable[[Sessions, Tell, Any], bytes]
"""Long work: takes sessions, what it says how far it is to, and what it is about. A function of a module."""


def key_of(*about: object) -> str:
    """What work is known by, made by this version of the program."""
    return hashlib.sha256(json.dumps([program_digest(), *about], sort_keys=True).encode()).hexdigest()[:32]


def result_of(key: str, work: Work, about: Any, good_for: timedelta = long_work.KEPT) -> bytes | None:
    """What came of work, begun now if it is not yet; None while it is not done, or where it cannot be.

    ``good_for``: how old what came of it may be.
    """
    jobs: JobQueue = current_app.extensions["jobs"]
    known = long_work.standing(session(), key)
    if known and (
        (known.state is JobState.FAILED and "again" in request.args)
        or (known.state is JobState.DONE and not is_within(known.at, good_for))
    ):
        long_work.forget(session(), key)
    found = long_work.ask(session(), key, me().id)
    session().commit()  # no connection of the database waits along
    if found.is_mine_to_start:
        where = (current_app.config["DATABASE_URL"], str(jobs.folder / "turn"))
        until = monotonic() + AT_ONCE
        jobs.start(_make, (where, key, work, about), LIMITS, _failed)(AT_ONCE)
        found = long_work.standing(session(), key) or found
        while found.state in (JobState.WAITING, JobState.RUNNING) and monotonic() < until:  # a worker is at it
            session().rollback()
            sleep(0.1)
            found = long_work.standing(session(), key) or found
    if found.state is JobState.DONE:
        return long_work.result(session(), key)
    return None


def being_made(name: str, key: str, template: str = "paper/being_made.html") -> Response:
    """The page that shows how far work is; it asks again by itself, unless there is trouble."""
    found = long_work.standing(session(), key)
    trouble = found is not None and found.state is JobState.FAILED
    told = (found.told if found else None) or {"what": _("Waiting for its turn"), "done": 0, "of": 0}
    asked = {**request.args, "again": "1"}  # a plain address: url_for would take some parameters for its own
    again = f"{request.path}?{urlencode(asked)}"
    page = render_template(template, name=name, key=key, progress=told, trouble=trouble, again=again)
    response = Response(page, 422 if trouble else 200)
    if not trouble:
        response.headers["Refresh"] = "1"
    return response


def fetched(key: str) -> None:
    """Keep no longer what came of work, where it is another the next time."""
    in_transaction(sessions(), lambda apart: long_work.forget(apart, key))


def _make(where: tuple[str, str], key: str, work: Work, about: Any) -> None:
    """Do work in a process of its own, after what is under way on this machine."""
    url, turn = where
    engine = make_engine(url)
    made = make_sessions(engine)

    def in_turn(tell: Tell) -> bytes:
        with Path(turn).open("a") as file:
            while not take(file):
                tell(_("Waiting for its turn"), 0, 0)
                sleep(0.2)
            signal.alarm(LIMITS.seconds)  # waiting is done
            content = work(made, tell, about)
            fcntl.flock(file, fcntl.LOCK_UN)
        return content

    try:
        long_work.do(made, key, in_turn)
    finally:
        engine.dispose()


def _failed(where: tuple[str, str], key: str, work: Work, about: Any) -> None:
    engine = make_engine(where[0])
    long_work.fail(make_sessions(engine), key)
    engine.dispose()
