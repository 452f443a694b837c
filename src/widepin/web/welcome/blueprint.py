"""Links that work once."""

from flask import Blueprint

from . import views

blueprint = Blueprint("welcome", __name__)

blueprint.add_url_rule("/welcome/<token>", "link", views.link)
blueprint.add_url_rule("/welcome/<token>", "use", views.use, methods=["POST"])
