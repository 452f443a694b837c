"""What programs ask that watch over this one."""

from collections.abc import Callable
from typing import Any

from flask import Blueprint

from . import views

View = Callable[[], Any]


def plain_http(view: View) -> View:
    """A view that is answered over HTTP too, as Flask-Talisman wants it said."""
    view.talisman_view_options = {"force_https": False}  # type: ignore[attr-defined]
    return view


blueprint = Blueprint("health", __name__)

for path, name, view in (
    ("/healthz", "alive", views.alive),
    ("/readyz", "ready", views.ready),
    ("/metrics", "metrics", views.metrics),
):
    # They are asked on the machine itself, past the proxy that speaks HTTPS, and must not be sent there.
    blueprint.add_url_rule(path, name, plain_http(view))
