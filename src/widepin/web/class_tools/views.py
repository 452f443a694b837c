"""Class tools: given to a class, shown, and removed."""

from __future__ import annotations

from collections.abc import Callable

from flask import flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...documents.wording.words import class_tool_in_words, listed
from ...school.people.directory import present_classes_of
from ...school.refused import Refused
from ...school.tasks import class_tools
from ...school.tasks.assigning import with_tasks
from ..access import me, own_class, own_sheet, taught_class_tool, teachers_only, visible_hand_in
from ..database import session
from ..figures import class_tool_figure
from ..reading import number_of


@teachers_only
def index(class_id: int) -> str:
    """The class tools of a class, and where a new one may come from."""
    (found,) = with_tasks(session(), own_class(class_id))
    shown = [
        (class_tool, class_tools.read_class_tool(class_tool.document), class_tool_figure(class_tool.document))
        for class_tool in found.class_tools
    ]
    return render_template("class_tools/index.html", school_class=found, shown=shown, in_words=class_tool_in_words)


@teachers_only
def from_task(class_id: int) -> Response:
    """On to the model of one of the class's tasks."""
    school_class = own_class(class_id)
    sheet = own_sheet(number_of(request.args.get("sheet")))
    return redirect(url_for("class_tools.ask_model", sheet_id=sheet.id, to=school_class.id))


@teachers_only
def ask_model(sheet_id: int) -> ResponseReturnValue:
    """Ask how a task's model is to be given as a class tool."""
    sheet = own_sheet(sheet_id)
    return show(lambda: class_tools.tool_of_sheet(sheet), sheet.title)


@teachers_only
def give_model(sheet_id: int) -> ResponseReturnValue:
    """Give a task's model to a class as a class tool."""
    sheet = own_sheet(sheet_id)
    return give(lambda: class_tools.tool_of_sheet(sheet), sheet.title)


@teachers_only
def ask_work(hand_in_id: int) -> ResponseReturnValue:
    """Ask how a student's sound work is to be given as a class tool."""
    attempt = visible_hand_in(hand_in_id)
    return show(
        lambda: class_tools.tool_of_attempt(attempt),
        attempt.work.assignment.sheet.title,
        attempt.work.assignment.class_id,
    )


@teachers_only
def give_work(hand_in_id: int) -> ResponseReturnValue:
    """Give a student's sound work to a class as a class tool."""
    attempt = visible_hand_in(hand_in_id)
    return give(lambda: class_tools.tool_of_attempt(attempt), attempt.work.assignment.sheet.title)


DocumentOf = Callable[[], JsonObject]
"""Makes the document of a class tool of a sample solution or of a work. Raises Refused where that is none."""


def show(document_of: DocumentOf, title: str, class_id: int | None = None, trouble: str | None = None) -> str:
    """The page that asks for name, class and price; or says why this is no class tool."""
    context: JsonObject = {
        "title": title,
        "classes": present_classes_of(session(), me()),
        "typed": request.form,
        "chosen": request.form.get("class") or request.args.get("to") or class_id,
        "trouble": trouble,
    }
    try:
        document = document_of()
    except Refused as wrong:
        return render_template("class_tools/give.html", why_not=str(wrong), **context)
    class_tool = class_tools.read_class_tool(document)
    return render_template(
        "class_tools/give.html",
        figure=class_tool_figure(document),
        words=class_tool_in_words(class_tool),
        moves=class_tool.moves,
        **context,
    )


def give(document_of: DocumentOf, title: str) -> ResponseReturnValue:
    """Give a class tool to the class that was chosen."""
    school_class = own_class(number_of(request.form.get("class")))
    name, price = request.form.get("name", ""), request.form.get("price", "")
    try:
        made = class_tools.give(session(), school_class, name, price, document_of())
    except Refused as wrong:
        return show(document_of, title, trouble=str(wrong)), 422
    flash(
        _(
            "%(name)s is a tool of %(class_name)s now. Allow it for a task when you assign it.",
            name=made.name,
            class_name=school_class.name,
        )
    )
    return redirect(url_for("class_tools.index", class_id=school_class.id))


@teachers_only
def ask_remove(class_tool_id: int) -> str:
    """Say what taking a class tool from its class means."""
    class_tool = taught_class_tool(class_tool_id)
    tasks = [assignment.sheet.title for assignment in class_tool.assignments]
    return render_template(
        "confirm.html",
        title=_(
            "Delete the class tool “%(name)s” from %(class_name)s?",
            name=class_tool.name,
            class_name=class_tool.school_class.name,
        ),
        lost=[
            _("the class tool, allowed for %(tasks)s", tasks=listed(tasks))
            if tasks
            else _("the class tool, which is allowed for no task yet")
        ],
        keep=_("What students have built with it stays, and counts as before."),
        export=None,
        action=url_for("class_tools.remove", class_tool_id=class_tool.id),
        deed=_("Remove from the class"),
        back=url_for("class_tools.index", class_id=class_tool.class_id),
    )


@teachers_only
def remove(class_tool_id: int) -> Response:
    """Take a class tool from its class."""
    class_tool = taught_class_tool(class_tool_id)
    flash(
        _(
            "%(name)s is not a tool of %(class_name)s any more.",
            name=class_tool.name,
            class_name=class_tool.school_class.name,
        )
    )
    class_tools.remove(session(), class_tool)
    return redirect(url_for("class_tools.index", class_id=class_tool.class_id))
