"""Proven constructions as instruments of a class: given by its teacher, and lent for one task or another."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..documents.construction import read_steps, write_step
from ..documents.reading import Unreadable
from ..judge.instruments import Instrument, NoInstrument, instrument_of
from ..judge.rehearsal import judge_model
from ..judge.structure import needed_by
from ..judge.task import Use
from ..judge.verdict import Outcome
from ..plane.steps import Step
from .models import Assignment, ClassInstrument, HandIn, SchoolClass, TaskSheet
from .sheets import task_in

PRICES = ("one", "full")
"""What a use of an instrument counts: one move, or the moves of its construction."""


class Refused(Exception):
    """An instrument that cannot be given so. The message says what to change."""


def proven_on_sheet(sheet: TaskSheet) -> dict[str, Any]:
    """The model of a task, as the document of an instrument. Raises NoInstrument."""
    try:
        task = task_in(sheet)
    except Unreadable as wrong:
        raise NoInstrument(f"The task is not finished yet: {wrong}.") from None
    found = judge_model(task)
    if found.outcome is not Outcome.SOUND:
        raise NoInstrument("The model does not solve the task, so nothing is proven yet.")
    return document_of(task.given, task.model, found.answer or {})


def proven_by(attempt: HandIn) -> dict[str, Any]:
    """A student's sound work, as the document of an instrument. Raises NoInstrument."""
    if attempt.outcome is not Outcome.SOUND:
        raise NoInstrument("Only a construction that holds everywhere becomes an instrument.")
    given, start, steps = (read_steps(attempt.document[part]) for part in ("given", "start", "steps"))
    return document_of(given, (*start, *steps), attempt.verdict["answer"] or {})


def document_of(given: tuple[Step, ...], steps: tuple[Step, ...], answer: dict[str, str]) -> dict[str, Any]:
    """What is kept of a construction: no more of it than the answer needs. Raises NoInstrument."""
    made = {step.id for step in steps}
    gives = [id_ for id_ in answer.values() if id_ in made]
    instrument_of(given, steps, gives)
    needed = needed_by([*given, *steps], gives)
    return {
        "given": [write_step(step) for step in given if step.id in needed],
        "steps": [write_step(step) for step in steps if step.id in needed],
        "gives": gives,
    }


def read_instrument(document: dict[str, Any]) -> Instrument:
    """The instrument of a document that was kept."""
    return instrument_of(read_steps(document["given"]), read_steps(document["steps"]), document["gives"])


def give(
    session: Session, school_class: SchoolClass, name: str, price: str, document: dict[str, Any]
) -> ClassInstrument:
    """Give a class a new instrument. Raises Refused."""
    name = " ".join(name.split())
    if not name or len(name) > 40:
        raise Refused("Give the instrument a name of at most 40 characters.")
    if price not in PRICES:
        raise Refused("Choose what a use of it counts.")
    there = select(ClassInstrument.id).where(ClassInstrument.class_id == school_class.id, ClassInstrument.name == name)
    if session.scalar(there):
        raise Refused(f"{school_class.name} has an instrument {name} already; take another name.")
    moves = 1 if price == "one" else read_instrument(document).moves
    made = ClassInstrument(school_class=school_class, name=name, document=document, moves=moves)
    session.add(made)
    session.flush()
    return made


def lent(assignment: Assignment) -> dict[str, tuple[Instrument, int]]:
    """The instruments that may be used for a task, by name, with what one use counts."""
    return {one.name: (read_instrument(one.document), one.moves) for one in assignment.instruments}


def write_uses(uses: tuple[Use, ...]) -> list[dict[str, Any]]:
    """Uses of instruments as JSON."""
    return [
        {"instrument": one.instrument, "ids": list(one.ids), "gives": list(one.gives), "moves": one.moves}
        for one in uses
    ]


def uses_in(document: dict[str, Any]) -> tuple[Use, ...]:
    """The uses of instruments in the document of an attempt."""
    return tuple(
        Use(one["instrument"], tuple(one["ids"]), tuple(one["gives"]), one["moves"]) for one in document.get("uses", [])
    )
