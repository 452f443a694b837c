"""Practice with the library, and the map of what is mastered."""

from flask import Blueprint

from ...documents.language import marked
from ...school.states import Role
from ..navigation import Entry
from . import views

blueprint = Blueprint("practice", __name__)

NAVIGATION = (Entry(marked("Practice"), "practice.index", Role.STUDENT, ("practice",), 3),)

blueprint.add_url_rule("/practice", "index", views.index)
blueprint.add_url_rule("/practice/<key>", "begin", views.begin, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/practice", "of_class", views.of_class)
blueprint.add_url_rule("/classes/<int:class_id>/practice", "set_topics", views.set_topics, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/practice/<key>", "works", views.works)
