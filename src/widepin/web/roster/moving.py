"""A class taken along as one file, and brought in from such a file."""

from __future__ import annotations

from datetime import timedelta

from flask import flash, redirect, request, url_for
from flask.typing import ResponseReturnValue

from ... import version
from ...documents.language import gettext as _
from ...documents.reading import Unreadable
from ...school.database import Sessions
from ...school.long_work import Tell
from ...school.models import SchoolClass
from ...school.moving import bringing_in, taking_out
from ...school.people import audit
from ...school.refused import Refused
from ...school.states import Action
from ..access import me, own_class, teachers_only
from ..database import session
from ..downloads import download
from ..jobs import results

FILE_IS_GOOD_FOR = timedelta(minutes=2)
"""How old the file of a class may be that was made and not fetched at once."""


@teachers_only
def class_file(class_id: int) -> ResponseReturnValue:
    """A class with all that was done in it as one file, which can be brought in elsewhere."""
    school_class = own_class(class_id)
    key = results.key_of("class file", class_id, me().id)
    content = results.result_of(key, _class_file, (class_id, version()), FILE_IS_GOOD_FOR)
    if content is None:
        return results.being_made(school_class.name, key, "roster/file_being_made.html")
    audit.record(session(), me(), Action.EXPORTED, whole_class=school_class.id)
    results.fetched(key)
    return download(content, f"{school_class.name}.zip", "application/zip")


def _class_file(sessions: Sessions, tell: Tell, about: tuple[int, str]) -> bytes:
    class_id, of_program = about
    tell(_("Reading the works"), 0, 0)
    with sessions() as reading:
        return taking_out.class_file(reading, reading.get_one(SchoolClass, class_id), of_program)


@teachers_only
def bring_in() -> ResponseReturnValue:
    """A class from a file, as a new one of this teacher's."""
    file = request.files.get("file")
    content = file.read() if file else b""
    try:
        if not content:
            raise Refused(_("Choose the file of a class."))
        made = bringing_in.bring_in(session(), me(), content)
    except (Refused, Unreadable) as wrong:
        flash(_("The class was not brought in: %(why)s", why=wrong))
        return redirect(url_for("classes.index"))
    flash(
        _("%(name)s is here, with all that was done in it. Print new cards: codes are not in the file.", name=made.name)
    )
    return redirect(url_for("classes.school_class", class_id=made.id))
