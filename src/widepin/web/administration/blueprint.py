"""Looking after the school."""

from flask import Blueprint

from ...documents.language import marked
from ...school.states import Role
from ..navigation import Entry
from . import activity, lists, platforms, provider, views

blueprint = Blueprint("administration", __name__, url_prefix="/administration")

NAVIGATION = (
    Entry(marked("School"), "administration.people", Role.TEACHER, ("administration",), 9, administrators_only=True),
)

blueprint.add_url_rule("/people", "people", views.people)
blueprint.add_url_rule("/people", "invite", views.invite, methods=["POST"])
blueprint.add_url_rule("/people/<int:person_id>/link", "reset", views.reset, methods=["POST"])
blueprint.add_url_rule(
    "/people/<int:person_id>/administrator", "set_administrator", views.set_administrator, methods=["POST"]
)
blueprint.add_url_rule("/people/<int:person_id>/presence", "set_presence", views.set_presence, methods=["POST"])
blueprint.add_url_rule("/people/<int:person_id>/data.json", "person_data", views.person_data)
blueprint.add_url_rule("/people/<int:person_id>/erase", "ask_erase", views.ask_erase)
blueprint.add_url_rule("/people/<int:person_id>/erase", "erase", views.erase, methods=["POST"])
blueprint.add_url_rule("/classes", "classes", views.classes)
blueprint.add_url_rule("/classes/<int:class_id>/teachers", "ask_teachers", views.ask_teachers)
blueprint.add_url_rule("/classes/<int:class_id>/teachers", "set_teachers", views.set_teachers, methods=["POST"])
blueprint.add_url_rule("/library", "library", views.library)
blueprint.add_url_rule("/library/<int:sheet_id>/unshare", "unshare", views.unshare, methods=["POST"])
blueprint.add_url_rule("/log", "log", views.log)
blueprint.add_url_rule("/sign-ins", "sign_ins", views.sign_ins)
blueprint.add_url_rule("/retention", "retention", views.retention)
blueprint.add_url_rule("/retention", "set_retention", views.set_retention, methods=["POST"])
blueprint.add_url_rule("/links/<int:link_id>/withdraw", "withdraw", views.withdraw, methods=["POST"])
blueprint.add_url_rule("/retention/erase", "erase_outdated", views.erase_outdated, methods=["POST"])
blueprint.add_url_rule("/marks", "marks", views.marks)
blueprint.add_url_rule("/marks", "set_scale", views.set_scale, methods=["POST"])
blueprint.add_url_rule("/names", "set_name_order", views.set_name_order, methods=["POST"])
blueprint.add_url_rule("/status", "status", views.status)
blueprint.add_url_rule("/platforms", "platforms", platforms.index)
blueprint.add_url_rule("/platforms/new", "ask_platform", platforms.ask_new)
blueprint.add_url_rule("/platforms/new", "register_platform", platforms.register, methods=["POST"])
blueprint.add_url_rule("/platforms/link", "make_platform_link", platforms.make_link, methods=["POST"])
blueprint.add_url_rule("/platforms/key", "renew_key", platforms.renew_key, methods=["POST"])
blueprint.add_url_rule("/platforms/<int:platform_id>", "ask_change_platform", platforms.ask_change)
blueprint.add_url_rule("/platforms/<int:platform_id>", "change_platform", platforms.change, methods=["POST"])
blueprint.add_url_rule("/platforms/<int:platform_id>/check", "check_platform", platforms.check, methods=["POST"])
blueprint.add_url_rule("/platforms/<int:platform_id>/again", "try_again", platforms.try_again, methods=["POST"])
blueprint.add_url_rule("/platforms/<int:platform_id>/remove", "ask_remove_platform", platforms.ask_remove)
blueprint.add_url_rule("/platforms/<int:platform_id>/remove", "remove_platform", platforms.remove, methods=["POST"])
blueprint.add_url_rule("/accounts", "provider", provider.form)
blueprint.add_url_rule("/accounts", "set_provider", provider.store, methods=["POST"])
blueprint.add_url_rule("/accounts/remove", "remove_provider", provider.remove, methods=["POST"])
blueprint.add_url_rule("/lists", "lists", lists.form)
blueprint.add_url_rule("/lists", "bring_lists", lists.bring, methods=["POST"])
blueprint.add_url_rule("/lists/new", "look_through", lists.look_through)
blueprint.add_url_rule("/lists/new", "take_lists_over", lists.take_over, methods=["POST"])
blueprint.add_url_rule("/lists/drop", "drop_lists", lists.drop, methods=["POST"])
blueprint.add_url_rule("/lists/source", "set_lists_source", lists.set_source, methods=["POST"])
blueprint.add_url_rule("/lists/now", "ask_lists_now", lists.ask_now, methods=["POST"])
blueprint.add_url_rule("/activity", "activity", activity.form)
blueprint.add_url_rule("/activity", "set_activity", activity.store, methods=["POST"])
blueprint.add_url_rule("/lists/results.zip", "results", lists.results)
