"""Choosing tasks inside a learning platform: own ones and those of the library, with a due date."""

from __future__ import annotations

from datetime import datetime

from flask import abort, render_template, request
from flask.typing import ResponseReturnValue

from ...documents import clock
from ...documents.language import gettext as _
from ...documents.language import marked
from ...joining.lti import deep_linking
from ...judge.task import Task
from ...judge.task_check import check_task
from ...school.joining import handshakes, keys
from ...school.models import Platform, TaskSheet
from ...school.states import Question
from ...school.tasks import assigning, sheets
from ...school.tasks.library import LIBRARY, TOPICS
from ..access import me, own_class, teachers_only
from ..addresses import address_of
from ..database import session
from ..jobs.judging import apart
from ..serving.content_policy import allow
from .views import refuse

TOO_LATE = marked("This took too long, or was done already. Choose the tasks from your course again.")


@teachers_only
def choose(secret: str) -> ResponseReturnValue:
    """The tasks that can be chosen."""
    return show(secret)


def show(secret: str, trouble: str | None = None) -> ResponseReturnValue:
    """The page that asks for tasks; with what is wrong."""
    kept = handshakes.look(session(), Question.CHOOSING, secret)
    if kept is None:
        return refuse(_(TOO_LATE))
    school_class = own_class(kept["class"])
    return render_template(
        "platforms/choose.html",
        secret=secret,
        platform=session().get_one(Platform, kept["platform"]),
        school_class=school_class,
        several=deep_linking.takes_several(kept["settings"]),
        sheets=[one for one in sheets.own_sheets(session(), me()) if not one.archived],
        topics=[(topic, [one for one in LIBRARY.values() if one.topic == topic]) for topic in TOPICS],
        typed=request.form,
        trouble=trouble,
    ), 422 if trouble else 200


@teachers_only
def chosen(secret: str) -> ResponseReturnValue:
    """Hand the chosen tasks over to the platform, by way of the browser."""
    kept = handshakes.look(session(), Question.CHOOSING, secret)
    if kept is None:
        return refuse(_(TOO_LATE))
    own_class(kept["class"])
    try:
        due = clock.utc(datetime.fromisoformat(request.form["due"])) if request.form.get("due") else None
    except ValueError:
        return show(secret, _("Write the due date as a day and a time."))
    found = tasks_chosen()
    if not found:
        return show(secret, _("Choose a task."))
    if len(found) > 1 and not deep_linking.takes_several(kept["settings"]):
        return show(secret, _("Your platform takes one task at a time. Choose one."))
    try:
        for sheet in found:
            if not sheet.library_key:
                assigning.check_finished(sheet, is_solved)
    except sheets.NotSolved as wrong:
        return show(secret, f"{sheet.title}: {wrong}")
    platform = session().get_one(Platform, kept["platform"])
    items = [
        deep_linking.item(deep_linking.Chosen(one.title, one.id, due), address_of("platforms.launch")) for one in found
    ]
    key = keys.current(session())
    token = deep_linking.response(
        platform.issuer, platform.client_id, kept["deployment"], kept["settings"], items, (key.kid, key.pem)
    )
    if handshakes.answer(session(), Question.CHOOSING, secret) is None:
        return refuse(_(TOO_LATE))
    address = str(kept["settings"].get("deep_link_return_url", ""))
    allow("form-action", address)
    return render_template("platforms/hand_over.html", address=address, token=token, count=len(found))


def is_solved(task: Task) -> bool:
    """Whether the sample solution of a task solves it, found in a process apart."""
    return bool(apart(check_task, task, 0).is_solved)


def tasks_chosen() -> list[TaskSheet]:
    """The sheets that were chosen, in the order of the page; tasks of the library become the teacher's own."""
    own = {str(one.id): one for one in sheets.own_sheets(session(), me())}
    found = []
    for value in dict.fromkeys(request.form.getlist("task")):
        if value in own:
            found.append(own[value])
        elif value in LIBRARY:
            found.append(sheets.from_library(session(), me(), LIBRARY[value]))
        else:
            abort(404)
    session().flush()
    return found
