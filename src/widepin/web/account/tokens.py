"""Tokens of one's own for programs."""

from __future__ import annotations

from collections.abc import Mapping

from flask import flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from ...documents.language import gettext as _
from ...documents.language import marked
from ...plane.rows import complete
from ...school.models import now
from ...school.people import tokens
from ...school.refused import Refused
from ...school.states import Scope
from ..access import me, teachers_only
from ..database import session
from ..reading import number_of

SCOPE_WORDS: Mapping[str, str] = complete(
    "SCOPE_WORDS",
    Scope,
    {
        Scope.TASKS_READ: marked("read your tasks"),
        Scope.TASKS_WRITE: marked("add tasks to yours"),
        Scope.CLASSES_READ: marked("read your classes with the names of students, and their tasks"),
        Scope.ASSIGNMENTS_WRITE: marked("give your classes tasks"),
        Scope.WORKS_READ: marked("read works, verdicts, scores and proofs"),
        Scope.CHECK: marked("have works checked"),
    },
)


@teachers_only
def programs() -> str:
    """The tokens that there are, and a form for a new one."""
    return show()


def show(**context: object) -> str:
    """The page of tokens; with a new one, or with what is wrong with what was chosen."""
    return render_template(
        "account/programs.html",
        tokens=tokens.of(session(), me()),
        scope_words=SCOPE_WORDS,
        holds=tokens.HOLDS,
        longest=tokens.LONGEST_NAME,
        at=now(),
        **context,
    )


@teachers_only
def make_token() -> ResponseReturnValue:
    """A new token, shown once."""
    form = request.form
    try:
        made = tokens.make(session(), me(), form.get("name", ""), form.getlist("scope"), number_of(form.get("days")))
    except Refused as wrong:
        return show(trouble=str(wrong), typed=form), 422
    return show(made=made, name=form["name"].strip())


@teachers_only
def end_token(token_id: int) -> Response:
    """End a token."""
    tokens.end(session(), me(), token_id)
    flash(_("A program with that token gets nothing any more."))
    return redirect(url_for("account.programs"))
