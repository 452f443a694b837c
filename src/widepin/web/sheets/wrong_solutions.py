"""Solutions of a task that must be rejected: kept from the preview, and from what a check found to pass."""

from __future__ import annotations

from typing import Any

from flask import url_for
from flask.typing import ResponseReturnValue

from ...documents.reading import JsonObject
from ...school.models import TaskSheet
from ...school.tasks import wrong_solutions
from ..access import own_sheet, teachers_only
from ..database import session
from ..reading import JsonBody, json_body


class Drawn(JsonBody):
    """The steps of a solution, after the given figure."""

    steps: Any


@teachers_only
def keep_wrong(sheet_id: int) -> ResponseReturnValue:
    """Keep a solution that must be rejected; answers with all of them."""
    sheet = own_sheet(sheet_id)
    wrong_solutions.keep(session(), sheet, json_body(Drawn).steps)
    return kept(sheet)


@teachers_only
def remove_wrong(sheet_id: int, place: int) -> ResponseReturnValue:
    """Keep one of them no longer; answers with those that are left."""
    sheet = own_sheet(sheet_id)
    wrong_solutions.remove(session(), sheet, place)
    return kept(sheet)


def kept(sheet: TaskSheet) -> JsonObject:
    """The wrong solutions of a task: the steps of each, and where it is removed."""
    return {
        "wrong": [
            {"steps": steps, "remove": url_for("sheets.remove_wrong", sheet_id=sheet.id, place=place)}
            for place, steps in enumerate(sheet.wrong)
        ]
    }
