"""The task library, and making tasks."""

from flask import Blueprint

from ...documents.language import marked
from ...school.states import Role
from ..navigation import Entry
from . import assign, library, views, wrong_solutions

blueprint = Blueprint("sheets", __name__)

NAVIGATION = (Entry(marked("Task library"), "sheets.library", Role.TEACHER, ("sheets", "demonstrations"), 2),)

blueprint.add_url_rule("/library", "library", library.library)
blueprint.add_url_rule("/library/<key>", "library_task", library.library_task)
blueprint.add_url_rule("/library/<key>.json", "known_as_json", library.known_as_json)
blueprint.add_url_rule("/library/<key>/take", "take", library.take, methods=["POST"])
blueprint.add_url_rule("/sheets", "create", library.create, methods=["POST"])
blueprint.add_url_rule("/sheets/read", "read", library.read, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>", "sheet", views.sheet)
blueprint.add_url_rule("/sheets/<int:sheet_id>", "save", views.save, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>/draw/<part>", "draw", views.draw)
blueprint.add_url_rule("/sheets/<int:sheet_id>/propose", "propose", views.propose, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>/check_task", "try_out", views.try_out, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>/fewest", "fewest", views.fewest, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>/judge", "judge_trial", views.judge_trial, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>/wrong", "keep_wrong", wrong_solutions.keep_wrong, methods=["POST"])
blueprint.add_url_rule(
    "/sheets/<int:sheet_id>/wrong/<int:place>/remove", "remove_wrong", wrong_solutions.remove_wrong, methods=["POST"]
)
blueprint.add_url_rule("/sheets/<int:sheet_id>/proof", "proof", views.proof)
blueprint.add_url_rule("/sheets/<int:sheet_id>/why", "why", views.why)
blueprint.add_url_rule("/sheets/<int:sheet_id>/task.json", "as_json", views.as_json)
blueprint.add_url_rule("/sheets/<int:sheet_id>/handout.pdf", "on_paper", views.on_paper)
blueprint.add_url_rule("/sheets/<int:sheet_id>/copy", "copy", views.copy, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>/remove", "remove", views.remove, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>/assign", "ask_assign", assign.ask_assign)
blueprint.add_url_rule("/sheets/<int:sheet_id>/assign", "assign", assign.assign, methods=["POST"])
blueprint.add_url_rule("/sheets/assigned/take-back", "take_back", assign.take_back, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>/share", "share", library.share, methods=["POST"])
blueprint.add_url_rule("/library/school/<int:sheet_id>", "shared_task", library.shared_task)
blueprint.add_url_rule("/library/school/<int:sheet_id>/take", "take_shared", library.take_shared, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>/original", "original_seen", library.original_seen, methods=["POST"])
blueprint.add_url_rule("/sheets/organise", "organise", library.organise, methods=["POST"])
blueprint.add_url_rule("/library/<key>/why", "why_known", library.why_known)
