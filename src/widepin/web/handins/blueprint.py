"""Handed-in works, for the student and the teacher."""

from flask import Blueprint

from . import views

blueprint = Blueprint("handins", __name__)

blueprint.add_url_rule("/hand-ins/<int:hand_in_id>", "hand_in", views.hand_in)
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/handout.pdf", "on_paper", views.on_paper)
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/comments", "comment", views.comment, methods=["POST"])
blueprint.add_url_rule("/comments/<int:comment_id>/remove", "remove_comment", views.remove_comment, methods=["POST"])
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/score", "set_score", views.set_score, methods=["POST"])
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/hand-back", "return_work", views.return_work, methods=["POST"])
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/mend", "mend", views.mend, methods=["POST"])
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/why", "why", views.why)
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/reasons", "give_reasons", views.give_reasons, methods=["POST"])
