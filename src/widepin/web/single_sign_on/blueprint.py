"""Signing in and out with the school's accounts (OpenID Connect)."""

from flask import Blueprint

from . import views

blueprint = Blueprint("single_sign_on", __name__, url_prefix="/single-sign-on")

blueprint.add_url_rule("", "begin", views.begin)
blueprint.add_url_rule("/back", "back", views.back)
blueprint.add_url_rule("/signed-out", "signed_out", views.signed_out, methods=["POST"])

FROM_ELSEWHERE = (views.signed_out,)
"""Views whose requests another system sends: a signed token takes the place of a browser's."""
