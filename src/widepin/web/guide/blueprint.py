"""The teacher's guide."""

from flask import Blueprint

from ...documents.language import marked
from ...school.states import Role
from ..navigation import Entry
from . import views

blueprint = Blueprint("guide", __name__)

NAVIGATION = (Entry(marked("Guide"), "guide.index", Role.TEACHER, ("guide",), 8),)

blueprint.add_url_rule("/guide", "index", views.index)
blueprint.add_url_rule("/reasons", "reasons", views.reasons)
blueprint.add_url_rule("/reasons/<anchor>", "reason", views.reason)
