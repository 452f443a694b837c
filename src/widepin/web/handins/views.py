"""Handed-in works, for the student and the teacher."""

from __future__ import annotations

from collections.abc import Mapping
from functools import partial

from flask import abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from flask_login import login_required

from ...documents.formats.verdict import read_verdict
from ...documents.joining import ChangedElsewhere
from ...documents.language import gettext as _
from ...documents.language import ngettext
from ...documents.reading import JsonObject
from ...documents.reasons.shown_proofs import for_reader
from ...documents.wording.explaining import (
    MOST_HELPFUL,
    Feedback,
    explained,
    mend_in_words,
    what_stays_true,
    what_was_asked,
)
from ...documents.wording.words import listed
from ...judge.task import Task
from ...school.models import HandIn, now
from ...school.people import removing
from ...school.refused import Refused
from ...school.results import news
from ...school.results.progress import best_of, standings
from ...school.results.release import any_released
from ...school.tasks.class_tools import uses_in
from ...school.tasks.scoring import table_of, taken_off
from ...school.works import handins, phrases, reasoning, reviewing
from ...school.works.autosave import task_judged
from ..access import me, own_comment, own_hand_in, students_only, teachers_only, visible_hand_in
from ..database import locked, session
from ..figures import shape_pictures, told_figure
from ..jobs import proofs
from ..made_from import joined_form
from ..printed.handouts import handout, under_labels
from ..reading import for_script, number_of, sentence
from ..removed.notice import in_the_bin


@login_required
def hand_in(hand_in_id: int) -> str:
    """One attempt: its figure to replay, its result, why it is so, and its report."""
    attempt = visible_hand_in(hand_in_id)
    if attempt.work.student_id == me().id:
        news.look(session(), attempt.work, best_of(attempt.work.hand_ins), now())
    return show(attempt)


def show(attempt: HandIn, trouble: str | None = None, right: Mapping[int, bool] | None = None) -> str:
    """The page of an attempt; with what is wrong with what was typed, or which reasons are ``right``."""
    assignment = attempt.work.assignment
    task = task_judged(attempt)
    mine = attempt.work.student_id == me().id
    level = assignment.feedback if mine else Feedback.BREAK
    verdict = read_verdict(attempt.verdict)
    report = verdict.report if level is Feedback.BREAK else None
    helpers = {id_ for use in uses_in(attempt.document) for id_ in use.helpers}
    return render_template(
        "handins/hand_in.html",
        attempt=attempt,
        task=task,
        level=level,
        sentences=explained(verdict, task, level),
        most_helpful=MOST_HELPFUL,
        over=over_the_limit(attempt, task),
        report=report,
        mends=[mend_in_words(mend) for mend in report.mends] if report else [],
        asked=what_was_asked(report, task) if report else [],
        truths=what_stays_true(report, task) if report else [],
        shapes=shape_pictures(report.shapes) if report else [],
        objects=[
            step for part in ("steps", "start", "given") for step in attempt.document[part] if step["id"] not in helpers
        ],
        shortest=handins.shortest_sound(session(), assignment),
        figure=told_figure(attempt, level)
        | ({} if mine else {"model": attempt.sheet_judged.document.get("model", [])}),
        figure_of=lambda one: told_figure(one, level),
        mine=mine,
        solutions=mine and any_released(assignment, best_of(attempt.work.hand_ins), now()),
        exercise=rows_of_exercise(attempt, mine),
        right=right or {},
        has_why=reasoning.is_why_told(attempt, mine),
        own_task=not mine and assignment.sheet.owner_id == me().id,
        demonstration_changed=assignment.sheet.demonstration is not None,
        phrases=[] if mine else phrases.of(session(), me()),
        late=handins.is_late(attempt),
        back=attempt.work.returned is not None,
        beside=() if mine else neighbours(attempt),
        typed=request.form,
        score_stored=reviewing.score_as_typed(attempt),
        trouble=trouble,
    )


def over_the_limit(attempt: HandIn, task: Task) -> str:
    """What moves over the limit have cost, in words; "" where there are none, or where the score is none."""
    if task.budget is None or attempt.moves <= task.budget or attempt.score_that_counts == 0:
        return ""
    cost = taken_off(attempt.moves, task.budget, table_of(attempt.work.assignment))
    over = attempt.moves - task.budget
    if not cost:
        return ngettext(
            "%(n)s move over the limit costs nothing here", "%(n)s moves over the limit cost nothing here", over
        )
    return ngettext(
        "%(n)s move over the limit costs %(cost)s", "%(n)s moves over the limit cost %(cost)s", over, cost=cost
    )


def rows_of_exercise(attempt: HandIn, mine: bool) -> list[reasoning.Row]:
    """What the student is still asked about this attempt; as it was sent last, where it is to be put in order."""
    if not mine or not reasoning.is_open(attempt):
        return []
    rows = reasoning.exercise(attempt, proofs.of_attempt(attempt)["lines"])
    sent = request.form.getlist("line")
    if len(sent) == len(rows):
        rows.sort(key=lambda row: sent.index(str(row.number)) if str(row.number) in sent else len(sent))
    return rows


def neighbours(attempt: HandIn) -> list[HandIn | None]:
    """The best attempts of the students before and after this one, by name; none for who has the task no longer."""
    best = [one.best for one in standings(session(), attempt.work.assignment) if one.best]
    place = next((n for n, one in enumerate(best) if one.work_id == attempt.work_id), None)
    if place is None:
        return [None, None]
    return [best[place - 1] if place else None, best[place + 1] if place + 1 < len(best) else None]


@login_required
def why(hand_in_id: int) -> JsonObject:
    """The proof that a sound attempt is right, as far as the teacher lets the student know why."""
    attempt = visible_hand_in(hand_in_id)
    mine = attempt.work.student_id == me().id
    if mine and reasoning.is_open(attempt):
        abort(403, _("Give the reasons first; then you see the whole proof."))
    if not reasoning.is_why_told(attempt, mine):
        abort(404)
    return for_reader(proofs.of_attempt(attempt), reasoning.names_elements(attempt, me()))


@students_only
def give_reasons(hand_in_id: int) -> ResponseReturnValue:
    """Take the reasons that a student gives for the own work."""
    attempt = own_hand_in(hand_in_id)
    if attempt.reasoned is None:
        abort(404)
    lines, given = proofs.of_attempt(attempt)["lines"], request.form.to_dict(flat=False)
    right = reasoning.rightness(attempt, lines, given, partial(proofs.follows, attempt))
    percent = reasoning.answer(attempt, right)
    session().flush()
    if percent == 100:
        flash(_("All of it is right: that is why your construction is correct."))
        return redirect(url_for("handins.hand_in", hand_in_id=attempt.id))
    return show(attempt, right=right)


@login_required
def on_paper(hand_in_id: int) -> ResponseReturnValue:
    """An attempt step by step, as a PDF."""
    attempt = visible_hand_in(hand_in_id)
    document, names = under_labels(attempt.document)
    answer = {name: names.get(id_, id_) for name, id_ in (attempt.verdict["answer"] or {}).items()}
    sheet = attempt.sheet_judged
    proved = answer if reasoning.is_why_told(attempt, attempt.work.student_id == me().id) else None
    elements = reasoning.names_elements(attempt, me())
    return handout(sheet.document, document, answer.values(), sheet.title, attempt.work.student.name, proved, elements)


@login_required
def comment(hand_in_id: int) -> ResponseReturnValue:
    """Write a comment on an attempt; teacher and student may, as long as the student is in the class."""
    attempt = visible_hand_in(hand_in_id) if me().is_teacher else own_hand_in(hand_in_id)
    text, step, key = (request.form.get(name, "") for name in ("text", "step", "key"))
    try:
        reviewing.comment(session(), attempt, me(), text, step, key[:40] or None)
        if "keep" in request.form and me().is_teacher:
            phrases.keep(session(), me(), request.form["text"])
    except Refused as wrong:
        return ({"error": sentence(wrong)} if for_script() else show(attempt, str(wrong))), 422
    if for_script():
        return {}
    return redirect(url_for("handins.hand_in", hand_in_id=attempt.id, _anchor="comments"))


@login_required
def remove_comment(comment_id: int) -> ResponseReturnValue:
    """Take a comment of one's own back."""
    found = own_comment(comment_id)
    number = found.hand_in_id
    removing.remove_comment(session(), me(), found)
    said = _("The comment is removed.")
    flash(in_the_bin(said) if me().is_teacher else said)
    return redirect(url_for("handins.hand_in", hand_in_id=number, _anchor="comments"))


@teachers_only
def set_score(hand_in_id: int) -> ResponseReturnValue:
    """Override the score of the table."""
    attempt = locked(visible_hand_in(hand_in_id))
    try:
        form = joined_form(reviewing.score_as_typed(attempt), {"score": _("the score"), "reason": _("the reason")})
        reviewing.set_score(attempt, form.get("score", ""), form.get("reason", ""))
    except (Refused, ChangedElsewhere) as wrong:
        return show(attempt, str(wrong)), 422
    return redirect(url_for("handins.hand_in", hand_in_id=attempt.id))


@teachers_only
def return_work(hand_in_id: int) -> ResponseReturnValue:
    """Hand a work back for another try."""
    attempt = visible_hand_in(hand_in_id)
    reviewing.return_work(attempt)
    flash(_("%(name)s can try once more.", name=attempt.work.student.name))
    return redirect(url_for("handins.hand_in", hand_in_id=attempt.id))


@students_only
def mend(hand_in_id: int) -> ResponseReturnValue:
    """Make a proposed mend on the board, and go there."""
    attempt = own_hand_in(hand_in_id)
    assignment = attempt.work.assignment
    if assignment.feedback is not Feedback.BREAK:
        abort(404)
    if "place" not in request.form:
        abort(400)
    place = number_of(request.form["place"])
    try:
        made = handins.mend_on_board(session(), attempt, place)
        flash(
            ngettext(
                "%(names)s is made the other way now. Drag the figure to see it hold; Undo takes it back.",
                "%(names)s are made the other way now. Drag the figure to see it hold; Undo takes it back.",
                len(made.steps),
                names=listed(step.id for step in made.steps),
            )
        )
    except IndexError:
        abort(404)
    except handins.BoardHasChanged:
        flash(_("The board has changed since this was handed in, so the fix no longer fits. Nothing was changed."))
    return redirect(url_for("tasks.board", assignment_id=assignment.id))
