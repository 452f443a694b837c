"""Long work that somebody waits for."""

from flask import Blueprint

from . import views

blueprint = Blueprint("waiting", __name__)

blueprint.add_url_rule("/waiting/<key>/stop", "stop", views.stop, methods=["POST"])
