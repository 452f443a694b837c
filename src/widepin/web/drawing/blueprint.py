"""What the browser draws with."""

from flask import Blueprint

from . import views

blueprint = Blueprint("drawing", __name__)

blueprint.add_url_rule("/tool-book/<version>.json", "tool_book", views.tool_book)
blueprint.app_context_processor(views.tool_book_address)
