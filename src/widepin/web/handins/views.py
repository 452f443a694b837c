"""Handed-in works, for the student and the teacher."""

from __future__ import annotations

from flask import render_template
from flask_login import login_required

from ...documents.explaining import explained
from ...documents.verdict import read_verdict
from ...school.works import task_of
from ..access import me, visible_hand_in
from ..figures import hand_in_figure


@login_required
def hand_in(hand_in_id: int) -> str:
    """One attempt: its figure, its seals, and a sentence that says why."""
    attempt = visible_hand_in(hand_in_id)
    task = task_of(attempt.work.assignment)
    mine = attempt.work.student_id == me().id
    level = attempt.work.assignment.help if mine else "break"
    figure = hand_in_figure(attempt)
    if level != "break":
        figure["breaks"] = None
    return render_template(
        "handins/hand_in.html",
        attempt=attempt,
        task=task,
        sentences=explained(read_verdict(attempt.verdict), task, level),
        figure=figure,
        mine=mine,
    )
