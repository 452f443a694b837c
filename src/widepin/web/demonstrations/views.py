"""Demonstrations: how a construction is done and why, frame by frame."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType
from typing import Any

from flask import Response, abort, flash, redirect, render_template, url_for
from flask.typing import ResponseReturnValue
from pydantic import Field

from ...documents.formats.demonstration import demonstration_of, with_reasons
from ...documents.formats.task import read_task
from ...documents.joining import ChangedElsewhere
from ...documents.language import gettext as _
from ...documents.reading import JsonObject, Unreadable
from ...school.lessons import demonstrations
from ...school.models import TaskSheet, now
from ...school.people import removing
from ...school.refused import Refused
from ...school.results.progress import standing
from ...school.tasks.sheets import BLANK, new_sheet
from ..access import (
    assignment_to_do,
    known_task,
    me,
    own_sheet,
    own_work,
    shared_sheet,
    students_only,
    teachers_only,
    visible_hand_in,
)
from ..database import locked, session
from ..downloads import download
from ..jobs import proofs
from ..reading import JsonBody, json_body, sentence
from ..removed.notice import in_the_bin
from . import voices
from .standalone import standalone


def shown(document: JsonObject, **context: Any) -> str:
    """The page of a demonstration."""
    return render_template("demonstrations/show.html", document=document, **context)


def of_this(sheet: TaskSheet) -> JsonObject:
    """The demonstration of a task; 400 while it is not finished."""
    try:
        document = demonstrations.demonstration_for(sheet)
    except Unreadable as wrong:
        abort(400, _("There is nothing to show yet: %(wrong)s.", wrong=wrong))
    if document["source"] != "sample solution":
        return document
    return with_reasons(document, proofs.of_sheet(sheet)["lines"])


def of_known(key: str) -> JsonObject:
    """The demonstration of a task of the library."""
    known = known_task(key)
    return with_reasons(demonstration_of(read_task(known.document())), proofs.why_known(known)["lines"])


@teachers_only
def of_library(key: str) -> str:
    """How a task of the library is done."""
    return shown(
        of_known(key),
        back=url_for("sheets.library_task", key=key),
        printed=url_for("demonstrations.library_handout", key=key),
        file=url_for("demonstrations.library_file", key=key),
    )


@teachers_only
def of_sheet(sheet_id: int) -> str:
    """How a task of one's own is done, with words and positions to be changed."""
    sheet = own_sheet(sheet_id)
    return shown(
        of_this(sheet),
        back=url_for("sheets.sheet", sheet_id=sheet.id),
        printed=url_for("demonstrations.sheet_handout", sheet_id=sheet.id),
        file=url_for("demonstrations.sheet_file", sheet_id=sheet.id),
        sheet=sheet,
        mark=demonstrations.mark_of(sheet),
        voices=voices.address("of_own", "sheet_id", sheet.id),
    )


@teachers_only
def shared(sheet_id: int) -> str:
    """How a colleague's task is done."""
    sheet = shared_sheet(sheet_id)
    return shown(
        of_this(sheet),
        back=url_for("sheets.shared_task", sheet_id=sheet.id),
        file=None,
        voices=voices.address("of_shared", "sheet_id", sheet.id),
    )


@students_only
def of_task(assignment_id: int) -> str:
    """How a task is done, where the teacher shows it."""
    assignment = assignment_to_do(assignment_id)
    if not demonstrations.may_see(assignment, standing(me(), own_work(assignment)).best, now()):
        abort(403, _("Your teacher does not show how this is done, or not yet."))
    return shown(
        of_this(assignment.sheet),
        back=url_for("tasks.board", assignment_id=assignment.id),
        file=None,
        voices=voices.address("of_assignment", "assignment_id", assignment.id),
    )


@teachers_only
def library_file(key: str) -> Response:
    """A demonstration of the library as one file that needs no network."""
    return as_file(of_known(key))


@teachers_only
def sheet_file(sheet_id: int) -> Response:
    """A demonstration as one file that needs no network."""
    sheet = own_sheet(sheet_id)
    return as_file(of_this(sheet), voices.within(sheet))


def as_file(document: JsonObject, spoken: Mapping[str, str] = MappingProxyType({})) -> Response:
    """A demonstration as one file, with what is said in it."""
    return download(standalone(document, spoken), f"{document['title']}.html", "text/html")


class Changed(JsonBody):
    """The frames of a demonstration, all of them, and its title where that is changed."""

    frames: list[Any]
    title: str | None = Field(None, max_length=200)
    made_from: str | None = Field(None, max_length=64)  # the mark of the frames as they were found


@teachers_only
def save(sheet_id: int) -> ResponseReturnValue:
    """Keep the frames as they were changed: 200, or 422 with what is wrong."""
    sheet, sent = locked(own_sheet(sheet_id)), json_body(Changed)
    try:
        demonstrations.keep(sheet, sent.frames, sent.made_from, sent.title)
    except ChangedElsewhere as elsewhere:
        return {"changed_elsewhere": elsewhere.names, "fields": {}, "mark": demonstrations.mark_of(sheet)}, 409
    except (Unreadable, Refused) as wrong:
        return {"error": sentence(wrong)}, 422
    session().flush()
    return {"mark": demonstrations.mark_of(sheet)}


@teachers_only
def discard(sheet_id: int) -> ResponseReturnValue:
    """Make the demonstration anew from the sample solution."""
    sheet = own_sheet(sheet_id)
    removing.remove_demonstration(session(), me(), sheet)
    flash(in_the_bin(_("The demonstration is as it follows from the sample solution.")))
    return redirect(url_for("demonstrations.of_sheet", sheet_id=sheet.id))


@teachers_only
def library_handout(key: str) -> str:
    """A demonstration of the library to be printed, a picture and words for each frame."""
    return on_paper(of_known(key), url_for("demonstrations.of_library", key=key))


@teachers_only
def sheet_handout(sheet_id: int) -> str:
    """A demonstration to be printed, a picture and words for each frame."""
    sheet = own_sheet(sheet_id)
    return on_paper(of_this(sheet), url_for("demonstrations.of_sheet", sheet_id=sheet.id))


def on_paper(document: JsonObject, back: str) -> str:
    """The page that is printed."""
    return render_template("demonstrations/handout.html", document=document, back=back)


@teachers_only
def begin() -> ResponseReturnValue:
    """A demonstration of its own: first it is drawn on the board."""
    made = new_sheet(session(), me(), BLANK | {"title": _("New demonstration")})
    return redirect(url_for("sheets.draw", sheet_id=made.id, part="model", then="demonstration"))


@teachers_only
def of_work(hand_in_id: int) -> ResponseReturnValue:
    """Make the demonstration of a task from a work on it."""
    attempt = visible_hand_in(hand_in_id)
    sheet = own_sheet(attempt.work.assignment.sheet_id)
    demonstrations.make_of_work(attempt)
    flash(_("The demonstration shows this work now, without the name. Say what is done and why."))
    return redirect(url_for("demonstrations.of_sheet", sheet_id=sheet.id))
