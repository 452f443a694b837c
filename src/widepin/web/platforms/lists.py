"""The list of a course, taken over when its teacher says so."""

from __future__ import annotations

from flask import abort, flash, redirect, url_for
from werkzeug.wrappers import Response

from ...documents.language import gettext as _
from ...school.models import PlatformCourse
from ..access import own_class, teachers_only
from ..database import session
from ..jobs import joining


@teachers_only
def take_over(course_id: int) -> Response:
    """Take the list of a course over now, and say what came of it."""
    course = session().get(PlatformCourse, course_id)
    if course is None:
        abort(404)
    school_class = own_class(course.class_id)
    session().commit()  # nothing is held while the platform is waited for
    said = joining.take_over(course_id, joining.AT_ONCE)
    flash(said or _("The list is taken over."))
    return redirect(url_for("roster.index", class_id=school_class.id))
