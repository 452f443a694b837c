"""Due dates for the calendars of other programs."""

from flask import Blueprint

from . import views

blueprint = Blueprint("calendar", __name__)

blueprint.add_url_rule("/calendar", "index", views.index)
blueprint.add_url_rule("/calendar", "renew", views.renew, methods=["POST"])
blueprint.add_url_rule("/calendar/end", "end", views.end, methods=["POST"])
blueprint.add_url_rule("/calendar/<int:person_id>/<secret>.ics", "feed", views.feed)
