"""What programs ask that watch over this one."""

from flask import Blueprint

from . import views

blueprint = Blueprint("health", __name__)

blueprint.add_url_rule("/healthz", "alive", views.alive)
blueprint.add_url_rule("/readyz", "ready", views.ready)
blueprint.add_url_rule("/metrics", "metrics", views.metrics)
