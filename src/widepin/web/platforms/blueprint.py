"""Learning platforms (LTI 1.3): where they send their people, and where they read the keys of this program."""

from flask import Blueprint

from . import choosing, lists, registering, views

blueprint = Blueprint("platforms", __name__, url_prefix="/lti")

blueprint.add_url_rule("/login", "login", views.login, methods=["GET", "POST"])
blueprint.add_url_rule("/launch", "launch", views.launch, methods=["POST"])
blueprint.add_url_rule("/launch", "about", views.about)
blueprint.add_url_rule("/first-visit/<secret>", "first_visit", views.first_visit)
blueprint.add_url_rule("/first-visit/<secret>", "go_on", views.go_on, methods=["POST"])
blueprint.add_url_rule("/first-visit/<secret>/sign-in", "sign_in_first", views.sign_in_first)
blueprint.add_url_rule("/choose/<secret>", "choose", choosing.choose)
blueprint.add_url_rule("/choose/<secret>", "chosen", choosing.chosen, methods=["POST"])
blueprint.add_url_rule("/register/<secret>", "register", registering.register)
blueprint.add_url_rule("/courses/<int:course_id>/list", "take_over", lists.take_over, methods=["POST"])
blueprint.add_url_rule("/keys", "keys", views.keys)

FROM_ELSEWHERE = (views.login, views.launch)
"""Views whose forms other sites send: a state that only this browser knows takes the place of a token."""
