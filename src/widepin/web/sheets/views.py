"""The task library, and making tasks."""

from __future__ import annotations

import json
from dataclasses import replace
from functools import partial

from flask import abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from pydantic import Field
from sqlalchemy import select
from werkzeug.wrappers import Response

from ...documents.construction import read_steps
from ...documents.explaining import explained
from ...documents.kept import Policy
from ...documents.language import gettext as _
from ...documents.language import marked
from ...documents.reading import JsonObject, Unreadable, check_plain, parse_json
from ...documents.task import read_task, write_condition
from ...documents.verdict import write_verdict
from ...documents.words import Words, listed, results_of
from ...judge.judging import judge
from ...judge.task import MAX_WANTED, TOOLS, Task, Work
from ...judge.task_check import check_task, is_solved, proposed
from ...school import assigning, graded_series, sheets
from ...school.library import LEVELS, LIBRARY, TOPICS, LibraryTask
from ...school.models import Assignment, SchoolClass, TaskSheet
from ...school.refused import Refused
from ...school.scoring import SCORING
from ...school.teaching import taught_by
from ..access import known_task, me, own_class, own_sheet, shared_sheet, teachers_only
from ..classes.views import FEEDBACK_IN_WORDS
from ..database import session
from ..downloads import download
from ..figures import board_setting, draft_figure, task_figure
from ..handouts import handout
from ..judging import apart
from ..reading import JsonBody, json_body, number_of
from .checking import task_check_in_words


@teachers_only
def library() -> str:
    """All tasks to choose from: the teacher's own, and those that come with the product."""
    words, topic = request.args.get("words", "").strip(), request.args.get("topic", "")
    own = [
        one
        for one in sheets.own_sheets(session(), me())
        if topic in ("", one.topic) and fits(words, f"{one.title} {one.topic} {one.document.get('text', '')}")
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
    task = read_task(known.document())
    return render_template(
        "sheets/library_task.html",
        known=known,
        task=task,
        words=Words(task),
        figure=draft_figure(known.document()),
        prerequisites=[LIBRARY[prerequisite] for prerequisite in known.prerequisites],
        level=LEVELS[known.level],
    )


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
        made = sheets.from_library(session(), me(), known.document(), known.topic)
        return redirect(url_for("sheets.ask_assign", sheet_id=made.id, class_id=request.form.get("class_id") or None))
    made = sheets.new_sheet(session(), me(), known.document(), known.topic)
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
        value = parse_json(file.read() if file else b"")
        check_plain(value)
        task = read_task(value)
        sheets.check_title(task.title)
    except Unreadable as wrong:
        flash(
            _(
                "%(file)s cannot be taken: %(wrong)s.",
                file=(file.filename if file else None) or _("The file"),
                wrong=wrong,
            )
        )
        return redirect(url_for("sheets.library"))
    made = sheets.new_sheet(session(), me(), {"title": task.title or "Task", **value})
    return redirect(url_for("sheets.sheet", sheet_id=made.id))


@teachers_only
def sheet(sheet_id: int) -> str:
    """Making a task, in five parts."""
    sheet = own_sheet(sheet_id)
    return render_template(
        "sheets/sheet.html",
        sheet=sheet,
        state=state_of(sheet),
        assigned=sheets.is_assigned(session(), sheet),
        figure=draft_figure(sheet.document),
        ready_made={name: sheets.figure_named(name) for name in sheets.READY_MADE},
        tool_sets=sheets.TOOL_SETS,
        usual=USUAL,
        rare=RARE,
        uses_rare=any(read_tool(one) in RARE for one in sheet.document["tools"]),
        topics=TOPICS,
        known={topic: [one for one in LIBRARY.values() if one.topic == topic] for topic in TOPICS},
        feedback_levels=FEEDBACK_IN_WORDS,
        scoring=SCORING,
        steps=STEPS_OF_MAKING,
    )


STEPS_OF_MAKING = {
    "given": marked("Given figure"),
    "tools": marked("Tools"),
    "wanted": marked("What to construct"),
    "limits": marked("Move limit and feedback"),
    "check": marked("Check"),
}
"""The steps of making a task, and their headings."""

USUAL = sheets.TOOL_SETS["Everything"]
"""The tools in the order in which teachers look for them."""

RARE = [tool for tool in TOOLS if tool not in USUAL]
"""Those that are seldom set; they come after."""


def read_tool(one: object) -> object:
    """The tool that an entry of a task's tools allows."""
    return one.get("tool") if isinstance(one, dict) else one


def state_of(found: TaskSheet) -> JsonObject:
    """What the page knows of a sheet."""
    return {
        "document": found.document,
        "policy": Policy.model_validate(found.policy).model_dump(),
        "topic": found.topic,
        "version": found.version,
        "trouble": trouble_of(found),
        "urls": {
            name: url_for(f"sheets.{endpoint}", sheet_id=found.id)
            for name, endpoint in (
                ("page", "sheet"),
                ("save", "save"),
                ("propose", "propose"),
                ("check_task", "try_out"),
                ("assign", "ask_assign"),
                ("json", "as_json"),
            )
        }
        | {part: url_for("sheets.draw", sheet_id=found.id, part=part) for part in (*sheets.CONSTRUCTIONS, "trial")},
    }


def trouble_of(found: TaskSheet) -> dict[str, str] | None:
    """What is still missing or wrong on a sheet, and where."""
    try:
        sheets.task_in(found)
    except Unreadable as wrong:
        return {"place": wrong.place, "words": wrong.remedy}
    return None


class Changed(JsonBody):
    """Fields of a sheet's document, how it is to be set, or its topic; what is left out stays."""

    document: JsonObject = {}
    policy: JsonObject | None = None
    topic: str | None = Field(None, max_length=60)


@teachers_only
def save(sheet_id: int) -> ResponseReturnValue:
    """Store what was changed on a sheet; 422 with what is wrong, and then nothing is stored."""
    found, sent = own_sheet(sheet_id), json_body(Changed)
    try:
        stored = sheets.change(session(), found, sent.document, sent.policy, sent.topic)
    except Unreadable as wrong:
        return {"error": str(wrong)}, 422
    return state_of(stored)


@teachers_only
def draw(sheet_id: int, part: str) -> str:
    """The board, to draw the given figure or the model on it, or to work the task as a student would."""
    sheet = own_sheet(sheet_id)
    everything = [{"tool": tool, "most": None} for tool in TOOLS]
    if part == "trial":
        task = ready(sheet)
        setting = board_setting(task)
        context = {"task": task, "words": Words(task), "hand_in_url": url_for("sheets.judge_trial", sheet_id=sheet.id)}
    elif part in sheets.CONSTRUCTIONS:
        given = [] if part == "given" else sheet.document["given"]
        setting = {"given": given, "start": [], "tools": everything, "budget": None, "wanted": [], "finding": True}
        context = {}
    else:
        abort(404)
    own = sheet.document[part] if part in sheets.CONSTRUCTIONS else []
    setting |= {
        "measuring": part == "trial",  # measures are not kept with a sheet
        "taken": [step["id"] for step in sheet.document["model"]] if part == "given" else [],
        "log": [
            {"number": number, "key": "", "operation": {"op": "add", "step": step}} for number, step in enumerate(own)
        ],
        "student": f"draft-{me().id}",
        "draft": {"part": part, "url": url_for("sheets.save", sheet_id=sheet.id)},
        "urls": {"operations": f"draft {part} {sheet.id}"},
    }
    return render_template("tasks/board.html", sheet=sheet, part=part, setting=setting, **context)


def ready(found: TaskSheet) -> Task:
    """The task on a sheet; 400 while it is not finished."""
    try:
        return sheets.task_in(found)
    except Unreadable as wrong:
        abort(400, _("The task is not finished yet: %(wrong)s.", wrong=wrong))


class Ticked(JsonBody):
    """The names of the wanted objects."""

    wanted: list[str] = Field(max_length=MAX_WANTED)


@teachers_only
def propose(sheet_id: int) -> ResponseReturnValue:
    """Conditions on the wanted objects that the model fulfils: those that say all, and others."""
    found, wanted = own_sheet(sheet_id), json_body(Ticked).wanted
    try:
        given, model = read_steps(found.document["given"]), read_steps(found.document["model"])
    except Unreadable as wrong:
        return {"error": str(wrong)}, 422
    if not wanted or not set(wanted) <= {step.id for step in model}:
        return {"error": _("Tick first what the answer consists of.")}, 422
    strict, others = apart(proposed, given, model, wanted)
    return {name: list(map(write_condition, found)) for name, found in (("strict", strict), ("others", others))}


@teachers_only
def try_out(sheet_id: int) -> ResponseReturnValue:
    """Try the task: whether its model solves it, and what else would pass; ``quick`` leaves that out."""
    sheet = own_sheet(sheet_id)
    try:
        task = sheets.task_in(sheet)
    except Unreadable as wrong:
        return {"error": _("Not finished yet: %(wrong)s.", wrong=wrong)}, 422
    if "quick" in request.args:
        return task_check_in_words(task, replace(apart(check_task, task, 0), stopped=False), sheet.document)
    return task_check_in_words(task, apart(check_task, task), sheet.document)


@teachers_only
def judge_trial(sheet_id: int) -> ResponseReturnValue:
    """Judge what the teacher built as a student would; nothing is kept."""
    task = ready(own_sheet(sheet_id))
    try:
        value = parse_json(request.form.get("steps", "[]"))
        check_plain(value)
        steps = read_steps(value)
    except Unreadable as wrong:
        return {"error": str(wrong)}, 422
    if not steps:
        return {"error": _("There is nothing on the board to check yet.")}, 422
    named = request.form.getlist("answer")
    answer = dict(zip((one.name for one in task.wanted), named, strict=False)) if any(named) else None
    verdict = apart(judge, task, Work(steps, answer))
    written = write_verdict(verdict)
    return {
        "url": "",
        "results": [
            {"word": word, "state": state, "meaning": meaning}
            for word, state, meaning in results_of(verdict.outcome, verdict.counts.moves, task.budget)
        ],
        "sentences": explained(verdict, task),
        "outcome": verdict.outcome.value,
        "answer": sorted((verdict.answer or {}).values()),
        "breaks": written["breaks"],
    }


@teachers_only
def as_json(sheet_id: int) -> Response:
    """The task document."""
    sheet = own_sheet(sheet_id)
    text = json.dumps(sheet.document, indent=1, ensure_ascii=False)
    return download(text, f"{sheet.title or 'task'}.json", "application/json")


@teachers_only
def on_paper(sheet_id: int) -> Response:
    """The task with its model step by step, as a PDF."""
    sheet = own_sheet(sheet_id)
    task = ready(sheet)
    figure = {"given": sheet.document["given"], "steps": sheet.document["model"]}
    return handout(sheet.document, figure, [one.name for one in task.wanted], task.title, sheet.topic)


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
    return render_template("sheets/shared_task.html", sheet=sheet, figure=draft_figure(sheet.document))


@teachers_only
def take_shared(sheet_id: int) -> Response:
    """A task of one's own that begins as a colleague's stands."""
    sheet = shared_sheet(sheet_id)
    made = sheets.new_sheet(session(), me(), dict(sheet.document), sheet.topic)
    made.policy = sheet.policy
    return redirect(url_for("sheets.sheet", sheet_id=made.id))


@teachers_only
def copy(sheet_id: int) -> Response:
    """Another task that begins as this one stands."""
    sheet = own_sheet(sheet_id)
    title = _("%(title)s, copy", title=sheet.title)[:200]
    made = sheets.new_sheet(session(), me(), {**sheet.document, "title": title}, sheet.topic)
    made.policy = sheet.policy
    return redirect(url_for("sheets.sheet", sheet_id=made.id))


@teachers_only
def remove(sheet_id: int) -> Response:
    """Delete a task; versions that are assigned stay with their classes."""
    sheet = own_sheet(sheet_id)
    flash(
        _("%(title)s is off the task library.", title=sheet.title or _("The task"))
        if not sheets.is_assigned(session(), sheet)
        else _("This version is assigned to a class; remove it there first.")
    )
    sheets.remove_sheet(session(), sheet)
    return redirect(url_for("sheets.library"))


@teachers_only
def ask_assign(sheet_id: int) -> ResponseReturnValue:
    """To whom a task is to be given, and when."""
    return show_assign(own_sheet(sheet_id))


def show_assign(found: TaskSheet, trouble: str | None = None, passed: bool = False) -> str:
    """The page that asks how to assign; with what is wrong, and whether a time that has passed may be meant."""
    task = ready(found)
    classes = select(SchoolClass).where(taught_by(me()), SchoolClass.archived.is_(None))
    return render_template(
        "sheets/assign.html",
        sheet=found,
        solved=apart(is_solved, task),
        levels=len(graded_series.levels(found.document)),
        classes=assigning.with_tasks(session(), *session().scalars(classes)),
        figure=task_figure(task),
        feedback_levels=FEEDBACK_IN_WORDS,
        policy=Policy.model_validate(found.policy),
        typed=request.form,
        trouble=trouble,
        passed=passed,
    )


@teachers_only
def assign(sheet_id: int) -> ResponseReturnValue:
    """Give a task to a class, or to several at once; to all of them or to none."""
    sheet = own_sheet(sheet_id)
    classes = [own_class(number_of(one)) for one in dict.fromkeys(request.form.getlist("class"))]
    if not classes:
        return show_assign(sheet, _("Choose a class.")), 422
    solved = partial(apart, is_solved)  # before anything is written: the transaction ends with it
    try:
        assigning.check_finished(sheet, solved)
        with session().begin_nested():
            made = [assign_to(sheet, school_class) for school_class in classes]
    except (Refused, sheets.NotSolved) as wrong:
        return show_assign(sheet, str(wrong), isinstance(wrong, assigning.DuePassed)), 422
    names = listed([school_class.name for school_class in classes])
    if "series" in request.form:
        flash(
            _(
                "%(title)s is a graded series of %(count)s levels for %(names)s.",
                title=sheet.title,
                count=len(made[0]),
                names=names,
            )
        )
        return redirect(url_for("classes.school_class", class_id=classes[0].id))
    flash(_("%(title)s is assigned to %(names)s.", title=sheet.title, names=names))
    return redirect(url_for("classes.assignment", assignment_id=made[0][0].id))


def assign_to(sheet: TaskSheet, school_class: SchoolClass) -> list[Assignment]:
    """Give a task that is finished to one class, by what was filled in. Raises Refused."""
    terms = assigning.read_terms(request.form, school_class)
    if "series" in request.form:
        return graded_series.assign_series(session(), sheet, school_class, terms)
    return [assigning.assign(session(), sheet, school_class, terms, lambda _task: True)]
