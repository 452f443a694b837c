"""Handed-in works, for the student and the teacher."""

from __future__ import annotations

from typing import Any

from flask import abort, flash, redirect, render_template, request, url_for
from flask_login import login_required

from ...documents.explaining import explained, mend_in_words, what_stays_true, what_was_asked
from ...documents.verdict import read_verdict
from ...documents.words import listed
from ...school import handins
from ...school.works import task_of
from ..access import me, own_hand_in, students_only, visible_hand_in
from ..database import session
from ..figures import shape_pictures, told_figure


@login_required
def hand_in(hand_in_id: int) -> str:
    """One attempt: its figure to replay, its seals, why they are so, and its report."""
    attempt = visible_hand_in(hand_in_id)
    assignment = attempt.work.assignment
    task = task_of(assignment)
    mine = attempt.work.student_id == me().id
    level = assignment.help if mine else "break"
    verdict = read_verdict(attempt.verdict)
    report = verdict.report if level == "break" else None
    return render_template(
        "handins/hand_in.html",
        attempt=attempt,
        task=task,
        level=level,
        sentences=explained(verdict, task, level),
        report=report,
        mends=[mend_in_words(mend) for mend in report.mends] if report else [],
        asked=what_was_asked(report, task) if report else [],
        truths=what_stays_true(report, task) if report else [],
        shapes=shape_pictures(report.shapes) if report else [],
        shortest=handins.shortest_sound(session(), assignment),
        figure=told_figure(attempt, level),
        mine=mine,
    )


@students_only
def mend(hand_in_id: int) -> Any:
    """Make a proposed mend on the board, and go there."""
    attempt = own_hand_in(hand_in_id)
    assignment = attempt.work.assignment
    if assignment.help != "break":
        abort(404)
    place = request.form.get("place", type=int)
    if place is None:
        abort(400)
    try:
        made = handins.mend_on_board(session(), attempt, place)
        are = "are" if len(made.steps) > 1 else "is"
        names = listed(step.id for step in made.steps)
        flash(f"{names} {are} made the other way now. Drag the figure to see it hold; Take back undoes it.")
    except IndexError:
        abort(404)
    except handins.BoardHasChanged:
        flash("The board has changed since this was handed in, so the mend no longer fits. Nothing was changed.")
    return redirect(url_for("tasks.board", assignment_id=assignment.id))
