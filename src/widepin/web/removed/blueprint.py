"""What was removed, to have it back."""

from flask import Blueprint

from . import views

blueprint = Blueprint("removed", __name__)

blueprint.add_url_rule("/bin", "index", views.index)
blueprint.add_url_rule("/bin/<int:removal_id>/restore", "restore", views.restore, methods=["POST"])
blueprint.add_url_rule("/bin/<int:removal_id>/erase", "ask_erase", views.ask_erase)
blueprint.add_url_rule("/bin/<int:removal_id>/erase", "erase", views.erase, methods=["POST"])
