"""Instruments of a class that are proven constructions."""

from flask import Blueprint

from . import views

blueprint = Blueprint("instruments", __name__)

blueprint.add_url_rule("/classes/<int:class_id>/instruments", "index", views.index)
blueprint.add_url_rule("/classes/<int:class_id>/instruments/from-task", "from_task", views.from_task)
blueprint.add_url_rule("/sheets/<int:sheet_id>/instrument", "ask_model", views.ask_model)
blueprint.add_url_rule("/sheets/<int:sheet_id>/instrument", "give_model", views.give_model, methods=["POST"])
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/instrument", "ask_work", views.ask_work)
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/instrument", "give_work", views.give_work, methods=["POST"])
blueprint.add_url_rule("/instruments/<int:instrument_id>/remove", "ask_remove", views.ask_remove)
blueprint.add_url_rule("/instruments/<int:instrument_id>/remove", "remove", views.remove, methods=["POST"])
