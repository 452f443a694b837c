"""Helping who is stuck: the hint that the program would give, and sending it."""

from __future__ import annotations

from functools import partial

from flask.typing import ResponseReturnValue

from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...documents.wording.hint_words import hint_for
from ...school.refused import Refused
from ...school.works import hinting
from ..access import taught_work, teachers_only
from ..database import session
from ..jobs.judging import apart
from ..reading import sentence


@teachers_only
def hint(work_id: int) -> JsonObject:
    """The hint that the program would give for a work as it stands; nothing is told to the student."""
    found = hinting.look(session(), taught_work(work_id), partial(apart, hint_for))
    return {"levels": list(found.levels), "can_be_sent": found.step is not None}


@teachers_only
def send_hint(work_id: int) -> ResponseReturnValue:
    """Send that hint to the student, its first level, or one more than was sent before."""
    work = taught_work(work_id)
    try:
        sent = hinting.send(session(), work, partial(apart, hint_for))
    except Refused as wrong:
        return {"error": sentence(wrong)}, 422
    return {"said": _("Sent to %(name)s: %(words)s", name=work.student.name, words=sent.words)}
