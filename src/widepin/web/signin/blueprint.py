"""Signing in and out."""

from flask import Blueprint

from ..serving import devices
from . import views

blueprint = Blueprint("signin", __name__)
blueprint.after_request(devices.remember)

blueprint.add_url_rule("/sign-in", "form", views.form)
blueprint.add_url_rule("/sign-in", "enter", views.enter, methods=["POST"])
blueprint.add_url_rule("/sign-in/code", "enter_by_code", views.enter_by_code, methods=["POST"])
blueprint.add_url_rule("/sign-in/second", "second", views.second)
blueprint.add_url_rule("/sign-in/second", "enter_second", views.enter_second, methods=["POST"])
blueprint.add_url_rule("/sign-out", "leave", views.leave, methods=["POST"])
