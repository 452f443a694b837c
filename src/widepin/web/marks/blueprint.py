"""What a teacher enters into the marks by hand."""

from flask import Blueprint

from . import views

blueprint = Blueprint("marks", __name__)

RESULTS = "/assignments/<int:assignment_id>/results"

blueprint.add_url_rule(RESULTS, "results", views.results)
blueprint.add_url_rule(RESULTS, "enter", views.enter, methods=["POST"])
blueprint.add_url_rule(f"{RESULTS}/<int:person_id>/photo", "photo", views.photo)
blueprint.add_url_rule(f"{RESULTS}/<int:person_id>/photo", "keep_photo", views.keep_photo, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/columns", "add_column", views.add_column, methods=["POST"])
blueprint.add_url_rule("/columns/<int:column_id>", "column", views.column)
blueprint.add_url_rule("/columns/<int:column_id>", "change_column", views.change_column, methods=["POST"])
blueprint.add_url_rule("/columns/<int:column_id>/remove", "ask_remove_column", views.ask_remove_column)
blueprint.add_url_rule("/columns/<int:column_id>/remove", "remove_column", views.remove_column, methods=["POST"])
