"""Documents on paper: made once, apart from the server, one at a time for a person, and kept for whoever asks again.

A paper is known by what is on it, so that one that has not changed is not made twice. While it is made, the answer is
a page that shows how far it is and asks again by itself.
"""

from __future__ import annotations

import fcntl
import hashlib
import json
import os
import signal
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from time import time
from urllib.parse import urlencode

from flask import Response, current_app, render_template, request

from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ..access import me
from ..database import session
from ..downloads import download
from ..jobs import apart
from . import paper

SECONDS, MEGABYTES = 60, 400
"""What a paper may take."""

AT_ONCE = 3.0
"""Seconds after which a page says how far it is."""

MAX_KEPT = 200
"""Papers that are kept."""


def printed(name: str, kind: str, data: JsonObject) -> Response:
    """A document of a kind of ``paper.KINDS`` as PDF, or the page that says how far it is."""
    known = json.dumps([kind, data], sort_keys=True)
    job = Job(current_app.extensions["papers"], hashlib.sha256(known.encode()).hexdigest()[:32])
    if not job.made.exists():
        if "again" in request.args and job.has_failed():
            job.begun.unlink(missing_ok=True)
        if not job.has_failed() and not is_at_it(job.folder, me().id):
            session().commit()  # no connection of the database waits along
            apart.begin(make, (job, me().id, kind, data), SECONDS, MEGABYTES).join(AT_ONCE)
    has_failed = job.has_failed()
    if job.made.exists():
        return download(job.made.read_bytes(), f"{name}.pdf", "application/pdf", in_place=True)
    return being_made(name, job, has_failed)


def being_made(name: str, job: Job, trouble: bool) -> Response:
    """The page that shows how far a paper is; it asks again by itself, unless there is trouble."""
    asked = {**request.args, "again": "1"}  # a plain address: url_for would take some parameters for its own
    again = f"{request.path}?{urlencode(asked)}"
    page = render_template("paper/being_made.html", name=name, progress=job.progress(), trouble=trouble, again=again)
    response = Response(page, 422 if trouble else 200)
    if not trouble:
        response.headers["Refresh"] = "1"
    return response


class Job:
    """The files of a paper: the document once it is made, how far it is, and that it was begun.

    Whoever makes the paper, for whichever person, holds the lock of what says that it was begun, and takes that away in
    the end. So where it is there and nobody holds it, the process was ended before the paper was made.
    """

    def __init__(self, folder: Path, key: str):
        self.folder = folder
        self.made, self.far, self.begun = (folder / f"{key}.{end}" for end in ("pdf", "far", "begun"))

    @contextmanager
    def begin(self) -> Iterator[None]:
        """While the paper is made."""
        mark = self.begun.with_name(f"{self.begun.name}.{os.getpid()}")
        with mark.open("w") as held:
            apart.take(held)
            mark.replace(self.begun)  # it is locked before anybody sees it
            yield
            for file in (self.begun, self.far):
                file.unlink(missing_ok=True)

    def has_failed(self) -> bool:
        """Whether the paper was begun, and could not be made."""
        try:
            with self.begun.open() as mark:
                return apart.take(mark) and not self.made.exists()
        except FileNotFoundError:
            return False

    def tell(self, what: str, done: int, of: int) -> None:
        """Write down how far it is."""
        write(self.far, json.dumps({"what": what, "done": done, "of": of}).encode())

    def progress(self) -> JsonObject:
        """How far it is, as far as is known."""
        try:
            return json.loads(self.far.read_text())  # type: ignore[no-any-return]
        except (OSError, ValueError):
            return {"what": _("Waiting for other papers"), "done": 0, "of": 0}


def make(job: Job, whose: int, kind: str, data: JsonObject) -> None:
    """Make a paper, in a process of its own: after those of other people, and only if this one's is not at another."""
    with (job.folder / f"person-{whose}").open("a") as own, (job.folder / "turn").open("a") as turn:
        if not apart.take(own):
            return
        fcntl.flock(turn, fcntl.LOCK_EX)
        if job.made.exists():
            return
        signal.alarm(SECONDS)  # waiting is done
        with job.begin():
            document = paper.typeset(kind, data, job.tell)
            clear_away(job.folder)
            write(job.made, document)


def is_at_it(folder: Path, whose: int) -> bool:
    """Whether a paper of this person's is being made."""
    with (folder / f"person-{whose}").open("a") as own:
        return not apart.take(own)


def write(path: Path, content: bytes) -> None:
    """Write a file so that it is there wholly or not at all."""
    half = path.with_name(f"{path.name}.{os.getpid()}")
    half.write_bytes(content)
    half.replace(path)


def clear_away(folder: Path) -> None:
    """Forget the papers that were made longest ago."""
    made = sorted(folder.glob("*.pdf"), key=lambda path: path.stat().st_mtime)
    for path in made[: max(0, len(made) - MAX_KEPT)]:
        path.unlink(missing_ok=True)
    for path in folder.glob("*.begun"):
        if path.stat().st_mtime < time() - 3600:
            path.unlink(missing_ok=True)
