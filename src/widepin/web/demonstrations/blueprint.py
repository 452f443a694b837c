"""Demonstrations: how a construction is done and why, frame by frame."""

from flask import Blueprint

from . import views, voices

blueprint = Blueprint("demonstrations", __name__)

blueprint.add_url_rule("/library/<key>/demonstration", "of_library", views.of_library)
blueprint.add_url_rule("/library/<key>/demonstration.html", "library_file", views.library_file)
blueprint.add_url_rule("/sheets/<int:sheet_id>/demonstration", "of_sheet", views.of_sheet)
blueprint.add_url_rule("/sheets/<int:sheet_id>/demonstration.html", "sheet_file", views.sheet_file)
blueprint.add_url_rule("/sheets/<int:sheet_id>/demonstration/frames", "save", views.save, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>/demonstration/discard", "discard", views.discard, methods=["POST"])
blueprint.add_url_rule("/tasks/<int:assignment_id>/demonstration", "of_task", views.of_task)
blueprint.add_url_rule("/library/<key>/demonstration/handout", "library_handout", views.library_handout)
blueprint.add_url_rule("/sheets/<int:sheet_id>/demonstration/handout", "sheet_handout", views.sheet_handout)
blueprint.add_url_rule("/sheets/<int:sheet_id>/demonstration/voice", "record", voices.record, methods=["POST"])
blueprint.add_url_rule("/sheets/<int:sheet_id>/demonstration/voice/<digest>", "of_own", voices.of_own)
blueprint.add_url_rule("/library/school/<int:sheet_id>/demonstration/voice/<digest>", "of_shared", voices.of_shared)
blueprint.add_url_rule("/tasks/<int:assignment_id>/demonstration/voice/<digest>", "of_assignment", voices.of_assignment)
blueprint.add_url_rule("/library/school/<int:sheet_id>/demonstration", "shared", views.shared)
blueprint.add_url_rule("/demonstrations", "begin", views.begin, methods=["POST"])
blueprint.add_url_rule("/hand-ins/<int:hand_in_id>/demonstration", "of_work", views.of_work, methods=["POST"])
