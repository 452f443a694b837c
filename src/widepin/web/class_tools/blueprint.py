"""Class tools of a class."""

from flask import Blueprint

from . import views

blueprint = Blueprint("class_tools", __name__)

blueprint.add_url_rule("/classes/<int:class_id>/tools", "index", views.index)
blueprint.add_url_rule("/classes/<int:class_id>/tools/from-task", "from_task", views.from_task)
blueprint.add_url_rule("/sheets/<int:sheet_id>/class-tool", "ask_model", views.ask_model)
blueprint.add_url_rule("/sheets/<int:sheet_id>/class-tool", "give_model", views.give_model, methods=["POST"])
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/class-tool", "ask_work", views.ask_work)
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/class-tool", "give_work", views.give_work, methods=["POST"])
blueprint.add_url_rule("/class-tools/<int:class_tool_id>/remove", "ask_remove", views.ask_remove)
blueprint.add_url_rule("/class-tools/<int:class_tool_id>/remove", "remove", views.remove, methods=["POST"])
