"""The task library: a teacher's own tasks, those of the school, and those that come with the product."""

from __future__ import annotations

from contextlib import suppress

from flask import abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from ...documents.formats.task import read_task
from ...documents.language import gettext as _
from ...documents.language import ngettext
from ...documents.reading import JsonObject, Unreadable, parse_json
from ...documents.reasons.shown_proofs import for_reader
from ...documents.wording.fewest_words import fewest_in_words
from ...documents.wording.words import Words
from ...economy.search import Fewest
from ...judge.costs.counts import moves_within
from ...school.models import now
from ...school.tasks import sheets
from ...school.tasks.library import LEVELS, LIBRARY, TOPICS, LibraryTask, shipped
from ..access import known_task, me, own_sheet, shared_sheet, teachers_only
from ..database import session
from ..figures import draft_figure
from ..jobs import proofs
from ..reading import number_of

ARCHIVE = "*archive"
"""What stands for the archive where a folder is chosen; no folder is called so."""


@teachers_only
def library() -> str:
    """All tasks to choose from: the teacher's own, and those that come with the product."""
    words, topic = request.args.get("words", "").strip(), request.args.get("topic", "")
    every = sheets.own_sheets(session(), me())
    folders = sorted({one.folder for one in every if one.folder and not one.archived}, key=str.casefold)
    folder = request.args.get("folder", "")
    own = [
        one
        for one in every
        if topic in ("", one.topic)
        and fits(words, f"{one.title} {one.topic} {one.document.get('text', '')}")
        and (bool(one.archived) if folder == ARCHIVE else not one.archived and folder in ("", one.folder))
    ]
    known = [one for one in found_by(words) if topic in ("", one.topic)]
    shared = [
        one
        for one in sheets.shared_by_others(session(), me())
        if topic in ("", one.topic) and fits(words, f"{one.title} {one.topic} {one.document.get('text', '')}")
    ]
    return render_template(
        "sheets/library.html",
        shared=[(one, draft_figure(one.document)) for one in shared],
        own=[(one, draft_figure(one.document)) for one in own],
        known=[(one, draft_figure(one.document())) for one in known],
        levels=LEVELS,
        topics=TOPICS,
        topic=topic,
        words=words,
        folder=folder,
        folders=folders,
        archive=ARCHIVE if any(one.archived for one in every) else None,
        ready_made=list(sheets.READY_MADE),
    )


def found_by(words: str) -> list[LibraryTask]:
    """The tasks of the library that a search finds, by words, search terms and place in the Elements."""
    return [
        one
        for one in LIBRARY.values()
        if fits(
            words,
            " ".join((one.title, one.topic, one.text, one.terms, f"Elements {one.elements}")),
        )
    ]


def fits(words: str, text: str) -> bool:
    """Whether a text has all words that were asked for."""
    text = text.casefold()
    return all(word in text for word in words.casefold().split())


@teachers_only
def library_task(key: str) -> str:
    """A task of the task library, with its model and what should be known before."""
    known = known_task(key)
    document = known.document()
    task, searched = read_task(document), shipped.fewest_of(document)
    return render_template(
        "sheets/library_task.html",
        known=known,
        task=task,
        words=Words(task),
        figure=draft_figure(document),
        **({} if searched is None else shorter_way(known, document, searched)),
        prerequisites=[LIBRARY[prerequisite] for prerequisite in known.prerequisites],
        level=LEVELS[known.level],
    )


def shorter_way(known: LibraryTask, document: JsonObject, searched: JsonObject) -> JsonObject:
    """What a search found of the fewest moves, in words, and as a figure where the sample solution takes more."""
    moves = searched["moves"]
    found = Fewest(
        moves,
        excluded=searched["excluded"],
        arbitrary=searched["arbitrary"],
        states=searched["states"],
        stopped=moves is None,
    )
    is_shorter = moves is not None and moves < known.moves
    return {
        "fewest": fewest_in_words(found),
        "shorter": draft_figure(document | {"model": searched["steps"]}) if is_shorter else None,
    }


@teachers_only
def why_known(key: str) -> ResponseReturnValue:
    """The proof that the sample solution of a task of the library is right."""
    return for_reader(proofs.why_known(known_task(key)), me().elements)


@teachers_only
def known_as_json(key: str) -> ResponseReturnValue:
    """A task of the task library with its topic, to fill a page that is being made."""
    known = known_task(key)
    return {"document": known.document(), "topic": known.topic}


@teachers_only
def take(key: str) -> Response:
    """Put a task of the library among the teacher's own: to change it, or to assign it, which makes no second copy."""
    known = known_task(key)
    if "assign" in request.form:
        made = sheets.from_library(session(), me(), known)
        return redirect(url_for("sheets.ask_assign", sheet_id=made.id, class_id=request.form.get("class_id") or None))
    made = sheets.new_sheet(session(), me(), known.document(), known.topic, known.key)
    return redirect(url_for("sheets.sheet", sheet_id=made.id))


@teachers_only
def create() -> Response:
    """Begin a task, with a ready-made figure or with none."""
    figure = request.form.get("figure", "")
    given = sheets.figure_named(figure) if figure in sheets.READY_MADE else []
    made = sheets.new_sheet(session(), me(), sheets.BLANK | {"title": _("New task"), "given": given})
    return redirect(url_for("sheets.sheet", sheet_id=made.id))


@teachers_only
def read() -> Response:
    """Take a task from a JSON document."""
    file = request.files.get("file")
    try:
        made = sheets.from_document(session(), me(), parse_json(file.read() if file else b""))
    except Unreadable as wrong:
        flash(
            _(
                "%(file)s cannot be taken: %(wrong)s.",
                file=(file.filename if file else None) or _("The file"),
                wrong=wrong,
            )
        )
        return redirect(url_for("sheets.library"))
    return redirect(url_for("sheets.sheet", sheet_id=made.id))


@teachers_only
def share(sheet_id: int) -> Response:
    """Put a task into the school's library, or take it out again."""
    sheet = own_sheet(sheet_id)
    sheet.shared = "shared" in request.form
    words = (
        _("%(title)s is in the school’s library.")
        if sheet.shared
        else _("%(title)s is no longer in the school’s library.")
    )
    flash(words % {"title": sheet.title or _("The task")})
    return redirect(url_for("sheets.sheet", sheet_id=sheet.id))


@teachers_only
def shared_task(sheet_id: int) -> str:
    """A task that a colleague shares with the school."""
    sheet = shared_sheet(sheet_id)
    with suppress(Unreadable):
        task = sheets.task_in(sheet)
        known = {"task": task, "words": Words(task), "moves": moves_within(task.model, task.tools)}
        return render_template("sheets/shared_task.html", sheet=sheet, figure=draft_figure(sheet.document), **known)
    return render_template("sheets/shared_task.html", sheet=sheet, figure=draft_figure(sheet.document))


@teachers_only
def take_shared(sheet_id: int) -> Response:
    """A task of one's own that begins as a colleague's stands: to change it, or to assign it, which makes no second
    copy.
    """
    if "assign" in request.form:
        made = sheets.from_colleague(session(), me(), shared_sheet(sheet_id))
        return redirect(url_for("sheets.ask_assign", sheet_id=made.id))
    made = sheets.copy_of(session(), me(), shared_sheet(sheet_id))
    return redirect(url_for("sheets.sheet", sheet_id=made.id))


@teachers_only
def original_seen(sheet_id: int) -> Response:
    """Say no more that the task of which one's own is a copy was changed, until it is changed again."""
    sheet = own_sheet(sheet_id)
    sheet.copied = now()
    return redirect(url_for("sheets.sheet", sheet_id=sheet.id))


@teachers_only
def organise() -> Response:
    """Put own tasks into a folder, into the archive, or back."""
    chosen = [own_sheet(number_of(one)) for one in request.form.getlist("sheet")]
    what, folder = request.form.get("what"), " ".join(request.form.get("folder", "").split())
    if not chosen:
        flash(_("Select tasks first."))
    for one in chosen:
        if what == "folder":
            try:
                sheets.set_folder(session(), one, folder)
            except Unreadable as wrong:
                abort(422, f"{wrong}.")
        else:
            sheets.set_archived(session(), one, what == "archive")
    if chosen:
        count = ngettext("%(n)s task", "%(n)s tasks", len(chosen))
        said = {
            "folder": _("%(count)s in the folder “%(folder)s”.", count=count, folder=folder)
            if folder
            else _("%(count)s in no folder.", count=count),
            "archive": _("%(count)s in the archive.", count=count),
        }
        flash(said.get(what or "", _("%(count)s out of the archive.", count=count)))
    return redirect(url_for("sheets.library", folder=request.form.get("shown") or None))
