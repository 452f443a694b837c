"""Instruments of a class that are proven constructions."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from flask import flash, redirect, render_template, request, url_for
from sqlalchemy import select
from werkzeug.wrappers import Response

from ...documents.words import instrument_in_words, listed
from ...judge.instruments import NoInstrument
from ...school import class_instruments
from ...school.assigning import with_tasks
from ...school.models import SchoolClass
from ..access import me, own_class, own_sheet, taught_instrument, teachers_only, visible_hand_in
from ..database import session
from ..figures import proven_figure
from ..reading import number_of


@teachers_only
def index(class_id: int) -> str:
    """The instruments of a class, and where a new one may come from."""
    (found,) = with_tasks(session(), own_class(class_id))
    shown = [
        (one, class_instruments.read_instrument(one.document), proven_figure(one.document)) for one in found.instruments
    ]
    return render_template("instruments/index.html", school_class=found, shown=shown, in_words=instrument_in_words)


@teachers_only
def from_task(class_id: int) -> Response:
    """On to the model of one of the class's tasks."""
    found = own_class(class_id)
    sheet = own_sheet(number_of(request.args.get("sheet")))
    return redirect(url_for("instruments.ask_model", sheet_id=sheet.id, to=found.id))


@teachers_only
def ask_model(sheet_id: int) -> Any:
    """Ask how a task's model is to be given as an instrument."""
    found = own_sheet(sheet_id)
    return show(lambda: class_instruments.proven_on_sheet(found), found.title)


@teachers_only
def give_model(sheet_id: int) -> Any:
    """Give a task's model to a class as an instrument."""
    found = own_sheet(sheet_id)
    return give(lambda: class_instruments.proven_on_sheet(found), found.title)


@teachers_only
def ask_work(hand_in_id: int) -> Any:
    """Ask how a student's sound work is to be given as an instrument."""
    found = visible_hand_in(hand_in_id)
    return show(
        lambda: class_instruments.proven_by(found), found.work.assignment.sheet.title, found.work.assignment.class_id
    )


@teachers_only
def give_work(hand_in_id: int) -> Any:
    """Give a student's sound work to a class as an instrument."""
    found = visible_hand_in(hand_in_id)
    return give(lambda: class_instruments.proven_by(found), found.work.assignment.sheet.title)


Proven = Callable[[], dict[str, Any]]


def show(proven: Proven, title: str, class_id: int | None = None, trouble: str | None = None) -> str:
    """The page that asks for name, class and price; or says why this is no instrument."""
    classes = select(SchoolClass).where(SchoolClass.teacher_id == me().id, SchoolClass.archived.is_(None))
    context: dict[str, Any] = {
        "title": title,
        "classes": list(session().scalars(classes.order_by(SchoolClass.name))),
        "typed": request.form,
        "chosen": request.form.get("class") or request.args.get("to") or class_id,
        "trouble": trouble,
    }
    try:
        document = proven()
    except NoInstrument as wrong:
        return render_template("instruments/give.html", why_not=str(wrong), **context)
    instrument = class_instruments.read_instrument(document)
    return render_template(
        "instruments/give.html",
        figure=proven_figure(document),
        words=instrument_in_words(instrument),
        moves=instrument.moves,
        **context,
    )


def give(proven: Proven, title: str) -> Any:
    """Give what is proven to the class that was chosen."""
    school_class = own_class(number_of(request.form.get("class")))
    name, price = request.form.get("name", ""), request.form.get("price", "")
    try:
        made = class_instruments.give(session(), school_class, name, price, proven())
    except (class_instruments.Refused, NoInstrument) as wrong:
        return show(proven, title, trouble=str(wrong)), 422
    flash(f"{made.name} is an instrument of {school_class.name} now. Lend it for a task when you assign it.")
    return redirect(url_for("instruments.index", class_id=school_class.id))


@teachers_only
def ask_remove(instrument_id: int) -> str:
    """Say what taking an instrument from its class means."""
    found = taught_instrument(instrument_id)
    tasks = [one.sheet.title for one in found.assignments]
    return render_template(
        "confirm.html",
        title=f"Take the instrument “{found.name}” from {found.school_class.name}?",
        lost=[f"the instrument for {listed(tasks)}" if tasks else "the instrument, which is lent for no task yet"],
        keep="What students have built with it stays, and counts as before.",
        export=None,
        action=url_for("instruments.remove", instrument_id=found.id),
        deed="Remove from the class",
        back=url_for("instruments.index", class_id=found.class_id),
    )


@teachers_only
def remove(instrument_id: int) -> Response:
    """Take an instrument from its class."""
    found = taught_instrument(instrument_id)
    flash(f"{found.name} is no instrument of {found.school_class.name} any more.")
    session().delete(found)
    return redirect(url_for("instruments.index", class_id=found.class_id))
