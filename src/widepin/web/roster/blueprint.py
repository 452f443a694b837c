"""A class as such: who is in it, the codes they sign in by, and what becomes of the class."""

from flask import Blueprint

from . import moving, views

blueprint = Blueprint("roster", __name__)

blueprint.add_url_rule("/classes", "create", views.create, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/roster", "index", views.index)
blueprint.add_url_rule("/classes/<int:class_id>/roster/read", "read", views.read, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/roster", "add", views.add, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/roster.csv", "as_csv", views.as_csv)
blueprint.add_url_rule("/classes/<int:class_id>/name-cards.pdf", "name_cards", views.name_cards)
blueprint.add_url_rule("/classes/<int:class_id>/data.json", "class_data", views.class_data)
blueprint.add_url_rule("/classes/<int:class_id>/class.zip", "class_file", moving.class_file)
blueprint.add_url_rule("/classes/bring-in", "bring_in", moving.bring_in, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/rename", "rename_class", views.rename_class, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/time-zone", "set_time_zone", views.set_time_zone, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/archive", "archive", views.archive, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/colleagues", "set_colleagues", views.set_colleagues, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/copy", "copy", views.copy, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/renew", "ask_renew_all", views.ask_renew_all)
blueprint.add_url_rule("/classes/<int:class_id>/renew", "renew_all", views.renew_all, methods=["POST"])
blueprint.add_url_rule("/classes/<int:class_id>/remove", "ask_remove_class", views.ask_remove_class)
blueprint.add_url_rule("/classes/<int:class_id>/remove", "remove_class", views.remove_class, methods=["POST"])

STUDENT = "/classes/<int:class_id>/students/<int:person_id>"

blueprint.add_url_rule(f"{STUDENT}/rename", "rename", views.rename, methods=["POST"])
blueprint.add_url_rule(f"{STUDENT}/move", "move", views.move, methods=["POST"])
blueprint.add_url_rule(f"{STUDENT}/renew", "ask_renew", views.ask_renew)
blueprint.add_url_rule(f"{STUDENT}/renew", "renew", views.renew, methods=["POST"])
blueprint.add_url_rule(f"{STUDENT}/remove", "remove", views.remove, methods=["POST"])
blueprint.add_url_rule(f"{STUDENT}/erase", "ask_erase", views.ask_erase)
blueprint.add_url_rule(f"{STUDENT}/erase", "erase", views.erase, methods=["POST"])
blueprint.add_url_rule(f"{STUDENT}/data.json", "student_data", views.student_data)
