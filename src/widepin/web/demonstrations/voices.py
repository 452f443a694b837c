"""What is said in demonstrations: taking recordings, and playing them to whoever may see the demonstration."""

from __future__ import annotations

from base64 import b64encode
from io import BytesIO

from flask import Response, abort, request, send_file, url_for
from flask.typing import ResponseReturnValue

from ...documents.language import gettext as _
from ...school.lessons import demonstrations
from ...school.models import Recording, TaskSheet, now
from ...school.results.progress import standing
from ...school.tasks import recordings
from ..access import assignment_to_do, me, own_sheet, own_work, shared_sheet, students_only, teachers_only
from ..database import session

IN_ADDRESS = "0" * 64
"""What stands for the digest of a recording in the address that a page knows."""

A_DAY = 86400


@teachers_only
def record(sheet_id: int) -> ResponseReturnValue:
    """Keep a recording: answers with the digest by which a frame names it."""
    sheet = own_sheet(sheet_id)
    sent = request.files.get("sound")
    if sent is None:
        return {"error": _("The recording is missing; record it again.")}, 422
    return {"voice": recordings.keep(session(), sheet.owner, sent.read(recordings.LARGEST + 1)).digest}


@teachers_only
def of_own(sheet_id: int, digest: str) -> Response:
    """What is said in a demonstration of one's own, also while the frame that says it is not stored yet."""
    sheet = own_sheet(sheet_id)
    return _played(recordings.kept(session(), sheet.owner, digest))


@teachers_only
def of_shared(sheet_id: int, digest: str) -> Response:
    """What is said in the demonstration of a colleague's task."""
    return _played(recordings.spoken_in(session(), shared_sheet(sheet_id), digest))


@students_only
def of_assignment(assignment_id: int, digest: str) -> Response:
    """What is said in the demonstration of a task, where the teacher shows it."""
    assignment = assignment_to_do(assignment_id)
    if not demonstrations.may_see(assignment, standing(me(), own_work(assignment)).best, now()):
        abort(403, _("Your teacher does not show how this is done, or not yet."))
    return _played(recordings.spoken_in(session(), assignment.sheet, digest))


def _played(found: Recording | None) -> Response:
    if found is None:
        abort(404)
    sent = send_file(BytesIO(found.sound), found.kind, etag=found.digest, conditional=True)
    sent.cache_control.private, sent.cache_control.max_age = True, A_DAY
    return sent


def address(endpoint: str, where: str, number: int) -> str:
    """The address of recordings, with ``IN_ADDRESS`` in the place of the digest. ``where``: whose number it is."""
    return url_for(f"demonstrations.{endpoint}", digest=IN_ADDRESS, **{where: number})  # type: ignore[arg-type]


def within(sheet: TaskSheet) -> dict[str, str]:
    """The recordings of a demonstration, each as an address that holds it, for a file that needs no network."""
    found = recordings.all_spoken_in(session(), sheet)
    return {digest: f"data:{one.kind};base64,{b64encode(one.sound).decode()}" for digest, one in found.items()}
