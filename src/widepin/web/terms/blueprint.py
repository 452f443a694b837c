"""Settings of tasks that are assigned: of several at once, and for another class."""

from flask import Blueprint

from . import views

blueprint = Blueprint("terms", __name__)

blueprint.add_url_rule("/classes/<int:class_id>/terms", "several", views.several)
blueprint.add_url_rule("/classes/<int:class_id>/terms", "change_several", views.change_several, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/scoring", "set_scoring", views.set_scoring, methods=["POST"])
blueprint.add_url_rule("/assignments/<int:assignment_id>/copy", "copy", views.copy, methods=["POST"])
