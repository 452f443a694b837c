"""Handed-in works, for the student and the teacher."""

from flask import Blueprint

from . import views

blueprint = Blueprint("handins", __name__)

blueprint.add_url_rule("/hand-ins/<int:hand_in_id>", "hand_in", views.hand_in)
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/handout.pdf", "on_paper", views.on_paper)
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/comments", "comment", views.comment, methods=["POST"])
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/credit", "give_credit", views.give_credit, methods=["POST"])
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/hand-back", "hand_back", views.hand_back, methods=["POST"])
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/mend", "mend", views.mend, methods=["POST"])
