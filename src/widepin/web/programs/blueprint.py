"""The interface for programs: the open documents over HTTPS, with tokens that teachers make. See docs/programs.md."""

from flask import Blueprint, Response

from . import views
from .endpoints import ENDPOINTS

blueprint = Blueprint("programs", __name__, url_prefix="/api/v1")

blueprint.add_url_rule("/openapi.json", "description", views.description)
for one in ENDPOINTS:
    blueprint.add_url_rule(one.path, one.name, getattr(views, one.name), methods=[one.method])


@blueprint.after_request
def say_how(response: Response) -> Response:
    """What a program has to know to go on: how to say who it is, or when to try again."""
    if response.status_code == 401:
        response.headers["WWW-Authenticate"] = "Bearer"
    if response.status_code in (429, 503):
        response.headers.setdefault("Retry-After", "10")
    return response
