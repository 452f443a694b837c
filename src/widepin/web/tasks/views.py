"""The student's tasks and the board."""

from __future__ import annotations

from collections.abc import Iterable
from contextlib import suppress
from dataclasses import asdict
from functools import partial
from typing import Annotated, Any

from flask import abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from pydantic import Field

from ...documents.formats.construction import write_step
from ...documents.formats.verdict import read_verdict
from ...documents.language import gettext as _
from ...documents.language import ngettext
from ...documents.reading import JsonObject, Unreadable
from ...documents.wording.explaining import Feedback, explained, jumps_in_words, kept_in_words, mend_in_words
from ...documents.wording.hint_words import hint_for, moves_left_in_words
from ...documents.wording.verdict_words import only_by, results_of
from ...documents.wording.words import Words, instruction
from ...judge.costs.counts import foreign_tools, moves_within
from ...judge.judging import judge
from ...judge.reports.claims import Claimed, in_every_position
from ...judge.verdict import Mend, Outcome, Verdict
from ...school.lessons.demonstrations import demonstration_for, may_see
from ...school.models import Assignment, HandIn, Operation, now
from ...school.refused import Refused
from ...school.results import news
from ...school.results.practice import open_topics
from ...school.results.progress import best_of, in_order_of_work, to_do, what_next
from ...school.results.release import any_released, is_released, possible_moves, shortest_work
from ...school.states import Reasons
from ...school.works import handins, hinting, reasoning
from ...school.works.autosave import (
    MAX_OPERATIONS,
    StaleLog,
    is_open,
    save,
    state_of,
    task_judged,
    task_of,
    work_of,
)
from ...school.works.autosave import import_steps as store_all
from ...school.works.board_standing import MAX_CLAIMS, BoardStanding, board_standing, claimed
from ...school.works.handins import figure_of
from ...school.works.history import OperationRefused
from ..access import assignment_to_do, me, on_clock_of, own_work, students_only
from ..database import session
from ..demonstrations import voices
from ..figures import board_setting, class_tools_setting, draft_figure, task_figure, told_figure
from ..jobs import proofs
from ..jobs.apart import Busy, TooHeavy
from ..jobs.judging import apart
from ..reading import JsonBody, for_script, json_body, number_of, sentence


@students_only
def index() -> str:
    """All tasks of the student, with their state."""
    on_clock_of(*me().classes)
    found, at = in_order_of_work(to_do(session(), me())), now()
    rows = [(one, figure_of_task(one.assignment)) for one in found]
    practises = bool(open_topics(session(), *me().classes))
    return render_template("tasks/index.html", rows=rows, next=what_next(found, at), at=at, practises=practises)


def figure_of_task(assignment: Assignment) -> JsonObject | None:
    """The given figure of an assignment's task; None for one that cannot be read, so that it breaks no list."""
    try:
        return task_figure(task_of(assignment))
    except Unreadable:
        return None


@students_only
def board(assignment_id: int) -> str:
    """The drawing board."""
    assignment = assignment_to_do(assignment_id)
    work = own_work(assignment)
    task, best = task_of(assignment), best_of(work.hand_ins) if work else None
    standing = board_standing(session(), assignment, me())

    def where(endpoint: str) -> str:
        return url_for(f"tasks.{endpoint}", assignment_id=assignment.id)

    setting = {
        **board_setting(task),
        "left_out": state_of(work).left_out if work else (),
        "measuring": assignment.measuring,
        "finding": assignment.finding,
        "loci": assignment.loci,
        "version": standing.version,
        "class_tools": class_tools_setting(assignment),
        "log": written(work.operations) if work else [],
        "student": me().id,
        "urls": {
            "operations": where("operations"),
            "import": where("import_steps"),
            "here": where("here"),
            "claims": where("claims") if assignment.measuring else None,
            "hint": where("hint") if hinting.allowed(assignment) else None,
            "how_far": where("how_far") if hinting.tells_how_far(assignment) else None,
        },
        "standing": as_json(standing),
        "hints": {
            "left": hinting.left(work, assignment),
            "cost": 0 if assignment.practice_key else assignment.hint_cost,
        },
        "possible": possible_moves(assignment, best, now()),
    }
    if work is not None:
        news.look(session(), work, best, now())
    return render_template(
        "tasks/board.html",
        task=task,
        words=Words(task),
        setting=setting,
        work=work,
        demonstration=demonstration_for(assignment.sheet) if may_see(assignment, best, now()) else None,
        voices=voices.address("of_assignment", "assignment_id", assignment.id),
        solutions=any_released(assignment, best, now()),
        assignment=assignment,
        hand_in_url=url_for("tasks.hand_in", assignment_id=assignment.id),
    )


@students_only
def solutions(assignment_id: int) -> str:
    """The sample solution, and the shortest work of the class, as far as the teacher shows them."""
    assignment = assignment_to_do(assignment_id)
    work = own_work(assignment)
    best, at = best_of(work.hand_ins) if work else None, now()
    if not any_released(assignment, best, at):
        abort(403, _("Your teacher does not show solutions of this task, or not yet."))
    if work is not None:
        news.look(session(), work, best, at)
    task = task_of(assignment)
    known = is_released(assignment.solution, assignment, best, at)
    shortest = shortest_work(session(), assignment) if is_released(assignment.shortest, assignment, best, at) else None
    return render_template(
        "tasks/solutions.html",
        assignment=assignment,
        task=task,
        own=best,
        solution=draft_figure(assignment.sheet.document) if known else None,
        words=[instruction(step) for step in task.model],
        shortest=shortest,
        shortest_figure=figure_of(shortest) | {"breaks": None, "notes": []} if shortest else None,
        moves=moves_within(task.model, task.tools),
        foreign=foreign_tools(task.model, task.tools),
        shows_shortest=is_released(assignment.shortest, assignment, best, at),
    )


@students_only
def operations(assignment_id: int) -> ResponseReturnValue:
    """The log of the student's work, from after operation ``after`` on."""
    work = own_work(assignment_to_do(assignment_id))
    after = number_of(request.args.get("after"))
    return {"operations": written(work.operations[max(0, after) :]) if work else []}


class Sent(JsonBody):
    """An operation, under a key of its own, that follows operation number ``after``."""

    key: str = Field(min_length=8, max_length=40)
    after: int = Field(ge=0, le=2 * MAX_OPERATIONS, strict=True)
    operation: Any


@students_only
def store(assignment_id: int) -> ResponseReturnValue:
    """Store one operation: 200 with what is stored, 409 with what the sender missed, 422 with what is wrong."""
    assignment, sent = assignment_to_do(assignment_id), json_body(Sent)
    try:
        stored = save(session(), assignment, me(), sent.key, sent.after, sent.operation)
    except StaleLog as behind:
        return {"operations": written(behind.missed)}, 409
    except (OperationRefused, Unreadable) as wrong:
        return {"error": sentence(wrong)}, 422
    return written([stored])[0]


@students_only
def here(assignment_id: int) -> ResponseReturnValue:
    """The board says that it is open before somebody, and is told how the task and the work stand meanwhile."""
    assignment = assignment_to_do(assignment_id)
    is_open(session(), assignment, me())
    return as_json(board_standing(session(), assignment, me()))


def as_json(standing: BoardStanding) -> JsonObject:
    """How a task and the work on it stand, as the board knows it. Times are UTC."""
    return {
        "version": standing.version,
        "due": standing.due and f"{standing.due.isoformat()}Z",
        "is_over": bool(standing.due and standing.due < now()),
        "is_closed": standing.is_closed,
        "is_late": standing.is_late,
        "class_tools": standing.class_tools,
        "hint": standing.hint and asdict(standing.hint),
        "attempts_left": standing.attempts_left,
        "not_taken": standing.not_taken,
        "operations": standing.operations,
        "comments": [
            {"by": one.author.name, "is_own": one.author_id == me().id, "step": one.step, "text": one.text}
            for one in standing.comments
        ],
        "comment_url": standing.attempt_id and url_for("handins.comment", hand_in_id=standing.attempt_id),
    }


class Claim(JsonBody):
    """That lengths or angles are equal, or an angle is right: points, vertices second."""

    rel: Claimed
    of: Annotated[list[Annotated[list[str], Field(min_length=2, max_length=3)]], Field(min_length=1, max_length=2)]


class Claims(JsonBody):
    """What a student believes of the board as it stands."""

    claims: list[Claim] = Field(min_length=1, max_length=MAX_CLAIMS)


@students_only
def claims(assignment_id: int) -> ResponseReturnValue:
    """Which claims about the board as it stands hold in every position: 200 with a truth value each, in order."""
    assignment, sent = assignment_to_do(assignment_id), json_body(Claims)
    if not assignment.measuring:
        return {"error": _("Nothing is to be measured in this task.")}, 422
    work = own_work(assignment)
    try:
        task, steps, wanted = claimed(work, [(one.rel, one.of) for one in sent.claims])
    except OperationRefused as wrong:
        return {"error": sentence(wrong)}, 422
    return {"holds": apart(in_every_position, task, steps, wanted)}


@students_only
def hint(assignment_id: int) -> ResponseReturnValue:
    """The next level of the hint for the board as it stands; 422 where there are none left."""
    assignment = assignment_to_do(assignment_id)
    try:
        found = hinting.take(session(), work_of(session(), assignment, me()), partial(apart, hint_for))
    except Refused as wrong:
        return {"error": sentence(wrong)}, 422
    return asdict(found)


@students_only
def how_far(assignment_id: int) -> ResponseReturnValue:
    """How many moves are left on a way that is known from the board as it stands; 422 where that is not told."""
    assignment = assignment_to_do(assignment_id)
    if not hinting.tells_how_far(assignment):
        return {"error": _("Your teacher does not tell that in this task.")}, 422
    found = hinting.look(session(), work_of(session(), assignment, me()), partial(apart, hint_for))
    return {"said": moves_left_in_words(found)}


class BroughtIn(JsonBody):
    """A work document, whose steps follow operation number ``after``."""

    after: int = Field(ge=0, le=2 * MAX_OPERATIONS, strict=True)
    work: Any


@students_only
def import_steps(assignment_id: int) -> ResponseReturnValue:
    """Store the steps of a work document: 200 with the operations, 409 for who is behind, 422 with place and remedy."""
    assignment, sent = assignment_to_do(assignment_id), json_body(BroughtIn)
    try:
        stored = store_all(session(), work_of(session(), assignment, me()), sent.after, sent.work)
    except StaleLog as behind:
        return {"operations": written(behind.missed)}, 409
    except (OperationRefused, Unreadable) as wrong:
        return {"error": sentence(wrong)}, 422
    return {"operations": written(stored)}


@students_only
def hand_in(assignment_id: int) -> ResponseReturnValue:
    """Hand the work in as it stands, and show what the judge says."""
    assignment = assignment_to_do(assignment_id)
    try:
        answer = handins.answer_of(assignment, request.form.getlist("answer"))
        offering = for_script() and assignment.feedback is Feedback.BREAK and "as_it_is" not in request.form
        work = work_of(session(), assignment, me())
        key = request.form.get("key", "")[:40] or None
        attempt = handins.hand_in(session(), work, answer, partial(apart, judge), offering, key)
    except handins.FixOffered as offered:
        return {"offer": fix_to_offer(offered.verdict, offered.mend)}
    except handins.NothingToHandIn:
        return not_handed_in(_("There is nothing on the board to hand in yet."), assignment_id)
    except handins.NotTaken as wrong:
        return not_handed_in(str(wrong), assignment_id)
    if assignment.reasons is not Reasons.NONE and attempt.outcome is Outcome.SOUND and attempt.reasoned is None:
        with suppress(Busy, TooHeavy):  # the work is handed in; then nothing more is asked
            reasoning.begin(attempt, proofs.of_attempt(attempt)["lines"])
    if not for_script():
        return redirect(url_for("handins.hand_in", hand_in_id=attempt.id))
    return result_on_board(attempt)


def fix_to_offer(verdict: Verdict, mend: Mend) -> JsonObject:
    """What the board offers before a work is handed in that only takes the wrong intersection when dragged."""
    return {
        "words": jumps_in_words(verdict),
        "fix": kept_in_words(mend),
        "steps": [write_step(step) for step in mend.steps],
    }


def mends_on_board(verdict: Verdict) -> list[JsonObject]:
    """The mends of a verdict as the board can make them itself."""
    found = verdict.report.mends if verdict.report else ()
    return [{"words": mend_in_words(mend), "steps": [write_step(step) for step in mend.steps]} for mend in found]


def not_handed_in(words: str, assignment_id: int) -> ResponseReturnValue:
    """Why nothing was handed in: to the board in place, else as a notice on it."""
    if for_script():
        return {"error": words}, 422
    flash(words)
    return redirect(url_for("tasks.board", assignment_id=assignment_id))


def result_on_board(attempt: HandIn) -> JsonObject:
    """What the board itself shows of a result, as far as the teacher lets it tell."""
    assignment = attempt.work.assignment
    task = task_judged(attempt)
    figure = told_figure(attempt, assignment.feedback)
    verdict = read_verdict(attempt.verdict)
    return {
        "url": url_for("handins.hand_in", hand_in_id=attempt.id),
        "has_why": reasoning.is_why_told(attempt, mine=True),
        "results": [
            {"word": word, "state": state, "meaning": meaning}
            for word, state, meaning in results_of(attempt.outcome, attempt.moves, task.budget, only_by(verdict))
        ],
        "sentences": [
            *([_("Now say why it is right: in the full report.")] if attempt.reasoned is not None else []),
            *explained(verdict, task, assignment.feedback),
            *shorter_in_words(attempt),
        ],
        "mends": mends_on_board(verdict) if assignment.feedback is Feedback.BREAK else [],
        "outcome": figure["outcome"],
        "answer": figure["answer"],
        "breaks": figure["breaks"],
    }


def shorter_in_words(attempt: HandIn) -> list[str]:
    """That a correct work can be done in fewer moves, where the teacher lets that be known."""
    work = attempt.work
    possible = possible_moves(work.assignment, best_of(work.hand_ins), now())
    if attempt.outcome is not Outcome.SOUND or possible is None or attempt.moves <= possible:
        return []
    return [ngettext("%(n)s move is possible.", "%(n)s moves are possible.", possible)]


def written(log: Iterable[Operation]) -> list[JsonObject]:
    """Operations as the board knows them."""
    return [{"number": one.number, "key": one.key, "operation": one.document} for one in log]
