"""One's own account."""

from flask import Blueprint

from . import tokens, views

blueprint = Blueprint("account", __name__)

blueprint.add_url_rule("/account", "index", views.index)
blueprint.add_url_rule("/account/password", "set_password", views.set_password, methods=["POST"])
blueprint.add_url_rule("/account/second-factor", "second_factor", views.second_factor)
blueprint.add_url_rule("/account/second-factor", "set_second_factor", views.set_second_factor, methods=["POST"])
blueprint.add_url_rule("/account/second-factor/end", "end_second_factor", views.end_second_factor, methods=["POST"])
blueprint.add_url_rule("/account/recovery-codes", "new_codes", views.new_codes, methods=["POST"])
blueprint.add_url_rule("/account/proofs", "set_proofs", views.set_proofs, methods=["POST"])
blueprint.add_url_rule(
    "/account/phrases/<int:phrase_id>/remove", "remove_phrase", views.remove_phrase, methods=["POST"]
)
blueprint.add_url_rule("/account/sessions/end", "end_others", views.end_others, methods=["POST"])
blueprint.add_url_rule("/account/sessions/<int:session_id>/end", "end_session", views.end_session, methods=["POST"])
blueprint.add_url_rule("/account/programs", "programs", tokens.programs)
blueprint.add_url_rule("/account/programs", "make_token", tokens.make_token, methods=["POST"])
blueprint.add_url_rule("/account/programs/<int:token_id>/end", "end_token", tokens.end_token, methods=["POST"])
