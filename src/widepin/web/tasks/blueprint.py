"""The student's tasks and the board."""

from flask import Blueprint

from ...documents.language import marked
from ...school.states import Role
from ..navigation import Entry
from . import views

blueprint = Blueprint("tasks", __name__)

NAVIGATION = (Entry(marked("Tasks"), "tasks.index", Role.STUDENT, ("tasks", "handins"), 1),)

blueprint.add_url_rule("/tasks", "index", views.index)
blueprint.add_url_rule("/tasks/<int:assignment_id>", "board", views.board)
blueprint.add_url_rule("/tasks/<int:assignment_id>/solutions", "solutions", views.solutions)
blueprint.add_url_rule("/tasks/<int:assignment_id>/operations", "operations", views.operations)
blueprint.add_url_rule("/tasks/<int:assignment_id>/operations", "store", views.store, methods=["POST"])
blueprint.add_url_rule("/tasks/<int:assignment_id>/here", "here", views.here, methods=["POST"])
blueprint.add_url_rule("/tasks/<int:assignment_id>/claims", "claims", views.claims, methods=["POST"])
blueprint.add_url_rule("/tasks/<int:assignment_id>/import-steps", "import_steps", views.import_steps, methods=["POST"])
blueprint.add_url_rule("/tasks/<int:assignment_id>/how-far", "how_far", views.how_far, methods=["POST"])
blueprint.add_url_rule("/tasks/<int:assignment_id>/hint", "hint", views.hint, methods=["POST"])
blueprint.add_url_rule("/tasks/<int:assignment_id>/hand-in", "hand_in", views.hand_in, methods=["POST"])
