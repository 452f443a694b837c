"""A teacher's first page."""

from flask import Blueprint

from ...documents.language import marked
from ...school.states import Role
from ..navigation import Entry
from . import views

blueprint = Blueprint("today", __name__)

NAVIGATION = (Entry(marked("Today"), "today.index", Role.TEACHER, ("today",), 0),)

blueprint.add_url_rule("/today", "index", views.index)
blueprint.add_url_rule("/today/path", "dismiss_path", views.dismiss_path, methods=["POST"])
