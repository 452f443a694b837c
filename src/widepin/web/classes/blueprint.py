"""The teacher's classes and their assignments."""

from flask import Blueprint

from ...documents.language import marked
from ...school.states import Role
from ..navigation import Entry
from . import assignments, helping, views

blueprint = Blueprint("classes", __name__)

IN_CLASSES = ("classes", "roster", "handins", "class_tools", "marks", "practice", "terms", "removed")
"""Features whose pages stand under a teacher's classes."""

NAVIGATION = (Entry(marked("Classes"), "classes.index", Role.TEACHER, IN_CLASSES, 1),)

blueprint.add_url_rule("/classes", "index", views.index)
blueprint.add_url_rule("/classes/<int:class_id>", "school_class", views.school_class)
blueprint.add_url_rule("/classes/<int:class_id>/students/<int:person_id>", "student", views.student)
blueprint.add_url_rule("/classes/<int:class_id>/marks.csv", "as_csv", views.as_csv)
blueprint.add_url_rule("/assignments/<int:assignment_id>", "assignment", assignments.assignment)
blueprint.add_url_rule("/assignments/<int:assignment_id>/changes", "changes", assignments.changes)
blueprint.add_url_rule("/assignments/<int:assignment_id>/groups", "groups", assignments.groups)
blueprint.add_url_rule("/assignments/<int:assignment_id>/several", "several", assignments.several, methods=["POST"])
blueprint.add_url_rule("/assignments/<int:assignment_id>/projector", "projector", assignments.projector)
blueprint.add_url_rule("/assignments/<int:assignment_id>/overview.pdf", "on_paper", assignments.on_paper)
blueprint.add_url_rule("/works/<int:work_id>", "replay", assignments.replay)
blueprint.add_url_rule("/works/<int:work_id>/hint", "hint", helping.hint)
blueprint.add_url_rule("/works/<int:work_id>/hint", "send_hint", helping.send_hint, methods=["POST"])
blueprint.add_url_rule(
    "/assignments/<int:assignment_id>/copy-task", "copy_task", assignments.copy_task, methods=["POST"]
)
blueprint.add_url_rule(
    "/assignments/<int:assignment_id>/version", "take_version", assignments.take_version, methods=["POST"]
)
blueprint.add_url_rule(
    "/assignments/<int:assignment_id>/again", "judge_again", assignments.judge_again, methods=["POST"]
)
blueprint.add_url_rule("/assignments/<int:assignment_id>/again", "judging", assignments.judging)
blueprint.add_url_rule(
    "/assignments/<int:assignment_id>/again/stop", "stop_judging", assignments.stop_judging, methods=["POST"]
)
blueprint.add_url_rule("/assignments/<int:assignment_id>/terms", "set_terms", assignments.set_terms, methods=["POST"])
blueprint.add_url_rule("/assignments/<int:assignment_id>/place", "set_place", assignments.set_place, methods=["POST"])
blueprint.add_url_rule("/assignments/<int:assignment_id>/remove", "ask_remove", assignments.ask_remove)
blueprint.add_url_rule("/assignments/<int:assignment_id>/remove", "remove", assignments.remove, methods=["POST"])
blueprint.add_url_rule(
    "/assignments/<int:assignment_id>/feedback", "set_feedback", assignments.set_feedback, methods=["POST"]
)
