"""Making tasks."""

from __future__ import annotations

import json
from dataclasses import replace

from flask import abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from pydantic import Field
from werkzeug.wrappers import Response

from ...documents.formats.construction import read_steps
from ...documents.formats.kept import Policy
from ...documents.formats.task import write_condition
from ...documents.formats.verdict import write_verdict
from ...documents.joining import ChangedElsewhere
from ...documents.language import gettext as _
from ...documents.language import marked
from ...documents.reading import JsonObject, Unreadable, check_plain, parse_json
from ...documents.reasons.shown_proofs import for_reader
from ...documents.wording.explaining import FEEDBACK_WORDS, explained
from ...documents.wording.fewest_words import fewest_in_words
from ...documents.wording.verdict_words import only_by, results_of
from ...documents.wording.words import TOOL_WORDS, Words
from ...economy import fewest as searching
from ...economy.search import Fewest, Place
from ...judge.costs.counts import foreign_tools
from ...judge.judging import judge
from ...judge.suggesting import strict_task, suggestions
from ...judge.task import MAX_WANTED, TOOLS, Task, Work
from ...judge.task_check import MAX_EFFORT, check_task
from ...school.models import TaskSheet
from ...school.people import removing
from ...school.tasks import sheets, wrong_solutions
from ...school.tasks.library import LIBRARY, TOPICS
from ...school.tasks.proofs import shown_instead
from ...school.tasks.scoring import SCORING, SCORING_WORDS
from ..access import me, own_sheet, teachers_only
from ..database import session
from ..downloads import download
from ..figures import board_setting, draft_figure
from ..jobs import proofs
from ..jobs.judging import apart
from ..printed.handouts import handout
from ..reading import JsonBody, json_body, sentence
from ..removed.notice import in_the_bin
from .checking import task_check_in_words
from .wrong_solutions import kept


@teachers_only
def sheet(sheet_id: int) -> str:
    """Making a task, in five parts."""
    sheet = own_sheet(sheet_id)
    return render_template(
        "sheets/sheet.html",
        sheet=sheet,
        state=state_of(sheet),
        assigned=sheets.is_assigned(session(), sheet),
        original=sheets.changed_original(session(), sheet),
        figure=draft_figure(sheet.document),
        ready_made={name: sheets.figure_named(name) for name in sheets.READY_MADE},
        tool_sets=sheets.TOOL_SETS,
        usual=USUAL,
        rare=RARE,
        uses_rare=any(read_tool(one) in RARE for one in sheet.document["tools"]),
        topics=TOPICS,
        known={topic: [one for one in LIBRARY.values() if one.topic == topic] for topic in TOPICS},
        feedback_levels=FEEDBACK_WORDS,
        scoring=SCORING,
        scoring_words=SCORING_WORDS,
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
        "students_read": students_read(found),
        **kept(found),
        "urls": {
            name: url_for(f"sheets.{endpoint}", sheet_id=found.id)
            for name, endpoint in (
                ("page", "sheet"),
                ("save", "save"),
                ("propose", "propose"),
                ("check_task", "try_out"),
                ("fewest", "fewest"),
                ("assign", "ask_assign"),
                ("json", "as_json"),
                ("proof", "proof"),
                ("keep_wrong", "keep_wrong"),
            )
        }
        | {"demonstration": url_for("demonstrations.of_sheet", sheet_id=found.id)}
        | {part: url_for("sheets.draw", sheet_id=found.id, part=part) for part in (*sheets.CONSTRUCTIONS, "trial")},
    }


def students_read(found: TaskSheet) -> JsonObject | None:
    """The task as students will read it, and what of it tells how it is done; None while it is not finished."""
    try:
        task = sheets.task_in(found)
    except Unreadable:
        return None
    words = Words(task)
    asked, clauses = words.asked()
    return {
        "foreign": [TOOL_WORDS[tool] for tool in foreign_tools(task.model, task.tools)],
        "asked": asked,
        "conditions": clauses,
        "gives_away": [words.condition(condition) for condition in task.conditions if words.tells_how(condition)],
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
    made_from: JsonObject | None = None  # the same fields as they were found


@teachers_only
def save(sheet_id: int) -> ResponseReturnValue:
    """Store what was changed on a sheet; 422 with what is wrong, and then nothing is stored."""
    found, sent = own_sheet(sheet_id), json_body(Changed)
    try:
        stored = sheets.change(session(), found, sent.document, sent.policy, sent.topic, sent.made_from)
    except ChangedElsewhere as elsewhere:
        session().rollback()
        return {"changed_elsewhere": elsewhere.names, "fields": sheets.fields_of(own_sheet(sheet_id))}, 409
    except Unreadable as wrong:
        return {"error": sentence(wrong)}, 422
    return state_of(stored)


@teachers_only
def draw(sheet_id: int, part: str) -> str:
    """The board, to draw the given figure or the model on it, or to work the task as a student would.

    ``then`` in the address: "demonstration", where that is drawn for one.
    """
    sheet = own_sheet(sheet_id)
    then = "demonstration" if request.args.get("then") == "demonstration" else "page"
    everything: list[JsonObject] = [{"tool": tool, "most": None} for tool in TOOLS]
    if part == "trial":
        task = ready(sheet)
        setting = board_setting(task)
        context = {"task": task, "words": Words(task), "hand_in_url": url_for("sheets.judge_trial", sheet_id=sheet.id)}
    elif part in sheets.CONSTRUCTIONS:
        given = [] if part == "given" else sheet.document["given"]
        if part == "model":
            everything = [one | {"foreign": not has_tool(sheet, one["tool"])} for one in everything]
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
        "draft": {"part": part, "url": url_for("sheets.save", sheet_id=sheet.id), "then": then},
        "urls": {"operations": f"draft {part} {sheet.id}"},
    }
    done = state_of(sheet)["urls"][then]
    return render_template("tasks/board.html", sheet=sheet, part=part, setting=setting, done_url=done, **context)


def has_tool(found: TaskSheet, tool: str) -> bool:
    """Whether students have a tool, as far as any were chosen."""
    allowed = {read_tool(one) for one in found.document["tools"]}
    return not allowed or tool in allowed or (tool in ("free_point", "point_on") and "points" in allowed)


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
    """Conditions on the wanted objects that the model fulfils, to choose from, each as students will read it."""
    found, wanted = own_sheet(sheet_id), json_body(Ticked).wanted
    try:
        given, model = read_steps(found.document["given"]), read_steps(found.document["model"])
    except Unreadable as wrong:
        return {"error": sentence(wrong)}, 422
    if not wanted or not set(wanted) <= {step.id for step in model}:
        return {"error": _("Tick first what the answer consists of.")}, 422
    task = strict_task(given, model, wanted)
    proposed: dict[tuple[str, ...], JsonObject] = {}
    for one in apart(suggestions, given, model, wanted):
        words = Words(replace(task, conditions=one.conditions)).conditions()
        conditions = list(map(write_condition, one.conditions))
        # The one that the answer is the sample solution's reads as another where a relation says just that.
        proposed.setdefault(tuple(words), {"conditions": conditions, "words": words, "pins": one.pins})
    return {"suggestions": list(proposed.values())}


@teachers_only
def try_out(sheet_id: int) -> ResponseReturnValue:
    """Try the task: whether its model solves it, and what else would pass; ``quick`` leaves that out."""
    sheet = own_sheet(sheet_id)
    try:
        task = sheets.task_in(sheet)
    except Unreadable as wrong:
        return {"error": _("Not finished yet: %(wrong)s.", wrong=wrong)}, 422
    document, must_fail = sheet.document, wrong_solutions.steps_of(sheet)
    if "quick" in request.args:
        return task_check_in_words(task, replace(apart(check_task, task, 0, must_fail), stopped=False), document)
    return task_check_in_words(task, apart(check_task, task, MAX_EFFORT, must_fail), document)


SEARCH_SECONDS = 12.0
"""For which the fewest moves are searched for while a teacher waits."""


@teachers_only
def fewest(sheet_id: int) -> ResponseReturnValue:
    """Search for the fewest moves of the task: what was found, in words, and the number to take as its limit."""
    sheet = own_sheet(sheet_id)
    try:
        task = sheets.task_in(sheet)
    except Unreadable as wrong:
        return {"error": _("Not finished yet: %(wrong)s.", wrong=wrong)}, 422
    before = sheet.fewest or {}
    since = Fewest(states=before["states"], places=places_in(before)) if before.get("stopped") else None
    found = apart(searching.fewest, task, task.budget or 6, SEARCH_SECONDS, 1, since, False)
    own_sheet(sheet_id).fewest = {
        "moves": found.moves,
        "excluded": found.excluded,
        "arbitrary": found.arbitrary,
        "states": found.states,
        "stopped": found.stopped,
        "places": found.places,
    }
    return {"said": fewest_in_words(found), "moves": found.moves, "goes_on": bool(found.places) and found.stopped}


def places_in(found: JsonObject) -> tuple[Place, ...]:
    """Where a search goes on that was stopped."""
    return tuple(Place(*place) for place in found["places"])


@teachers_only
def judge_trial(sheet_id: int) -> ResponseReturnValue:
    """Judge what the teacher built as a student would; nothing is kept."""
    task = ready(own_sheet(sheet_id))
    try:
        value = parse_json(request.form.get("steps", "[]"))
        check_plain(value)
        steps = read_steps(value)
    except Unreadable as wrong:
        return {"error": sentence(wrong)}, 422
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
            for word, state, meaning in results_of(verdict.outcome, verdict.counts.moves, task.budget, only_by(verdict))
        ],
        "sentences": explained(verdict, task),
        "outcome": verdict.outcome.value,
        "answer": sorted((verdict.answer or {}).values()),
        "breaks": written["breaks"],
        "keep_wrong": url_for("sheets.keep_wrong", sheet_id=sheet_id),
    }


@teachers_only
def proof(sheet_id: int) -> str:
    """Why the sample solution of a task is right, beside its figure."""
    sheet = own_sheet(sheet_id)
    ready(sheet)
    return render_template("sheets/proof.html", sheet=sheet, figure=draft_figure(sheet.document))


@teachers_only
def why(sheet_id: int) -> JsonObject:
    """The proof that the sample solution of a task is right."""
    sheet = own_sheet(sheet_id)
    ready(sheet)
    return for_reader(proofs.of_sheet(sheet), me().elements)


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
    names = [one.name for one in task.wanted]
    proved = dict(zip(names, names, strict=True))
    shows = shown_instead(sheet)
    return handout(sheet.document, figure, names, task.title, sheet.topic, proved, me().elements, shows)


@teachers_only
def copy(sheet_id: int) -> Response:
    """Another task that begins as this one stands."""
    sheet = own_sheet(sheet_id)
    title = _("%(title)s, copy", title=sheet.title)[:200]
    return redirect(url_for("sheets.sheet", sheet_id=sheets.copy_of(session(), me(), sheet, title).id))


@teachers_only
def remove(sheet_id: int) -> Response:
    """Delete a task; versions that are assigned stay with their classes."""
    sheet = own_sheet(sheet_id)
    flash(
        in_the_bin(_("%(title)s is removed.", title=sheet.title or _("The task")))
        if not sheets.is_assigned(session(), sheet)
        else _("This version is assigned to a class; remove it there first.")
    )
    removing.remove_task(session(), me(), sheet)
    return redirect(url_for("sheets.library"))
