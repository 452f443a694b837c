"""Constructions as tools of a class: given by its teacher, and allowed for one task or another."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from ...documents.formats.construction import read_steps, write_step
from ...documents.language import gettext as _
from ...documents.reading import JsonObject, Unreadable
from ...documents.wording.rule_words import worded
from ...judge.costs.class_tools import ClassToolGeometry, NotATool, class_tool_geometry
from ...judge.costs.structure import needed_by
from ...judge.task import Use
from ...judge.task_check import judge_model
from ...judge.verdict import Outcome
from ...plane.steps import Step
from ..models import Assignment, ClassTool, HandIn, SchoolClass, TaskSheet
from ..refused import Refused
from .sheets import task_in

PRICES = ("one", "full")
"""What a use of a class tool counts: one move, or the moves of its construction."""


def tool_of_sheet(sheet: TaskSheet) -> JsonObject:
    """The model of a task, as the document of a class tool. Raises Refused."""
    try:
        task = task_in(sheet)
    except Unreadable as wrong:
        raise Refused(_("The task is not finished yet: %(wrong)s.", wrong=wrong)) from None
    found = judge_model(task)
    if found.outcome is not Outcome.SOUND:
        raise Refused(_("The sample solution does not solve the task, so there is nothing to make a tool of yet."))
    return document_of(task.given, task.model, found.answer or {})


def tool_of_attempt(attempt: HandIn) -> JsonObject:
    """A student's sound work, as the document of a class tool. Raises Refused."""
    if attempt.outcome is not Outcome.SOUND:
        raise Refused(_("Only a construction that holds everywhere becomes a class tool."))
    given, start, steps = (read_steps(attempt.document[part]) for part in ("given", "start", "steps"))
    return document_of(given, (*start, *steps), attempt.verdict["answer"] or {})


def document_of(given: tuple[Step, ...], steps: tuple[Step, ...], answer: dict[str, str]) -> JsonObject:
    """What is kept of a construction: no more of it than the answer needs. Raises Refused."""
    made = {step.id for step in steps}
    gives = [id_ for id_ in answer.values() if id_ in made]
    try:
        class_tool_geometry(given, steps, gives)
    except NotATool as wrong:
        raise Refused(f"{worded(wrong.broken)}.") from None
    needed = needed_by([*given, *steps], gives)
    return {
        "given": [write_step(step) for step in given if step.id in needed],
        "steps": [write_step(step) for step in steps if step.id in needed],
        "gives": gives,
    }


def read_class_tool(document: JsonObject) -> ClassToolGeometry:
    """The class tool of a document that was kept."""
    return class_tool_geometry(read_steps(document["given"]), read_steps(document["steps"]), document["gives"])


def give(session: Session, school_class: SchoolClass, name: str, price: str, document: JsonObject) -> ClassTool:
    """Give a class a new class tool. Raises Refused."""
    name = " ".join(name.split())
    if not name or len(name) > 40:
        raise Refused(_("Give the class tool a name of at most 40 characters."))
    if price not in PRICES:
        raise Refused(_("Choose what a use of it counts."))
    there = select(ClassTool.id).where(ClassTool.class_id == school_class.id, ClassTool.name == name)
    if session.scalar(there):
        raise Refused(
            _(
                "%(class_name)s has a class tool %(name)s already; take another name.",
                class_name=school_class.name,
                name=name,
            )
        )
    moves = 1 if price == "one" else read_class_tool(document).moves
    made = ClassTool(school_class=school_class, name=name, document=document, moves=moves)
    session.add(made)
    session.flush()
    return made


def remove(session: Session, class_tool: ClassTool) -> None:
    """Delete a class tool; what was built with it stays, and counts as before."""
    session.delete(class_tool)


def allowed_tools(assignment: Assignment) -> dict[str, tuple[ClassToolGeometry, int]]:
    """The class tools that may be used for a task, by name, with what one use counts."""
    return {
        class_tool.name: (read_class_tool(class_tool.document), class_tool.moves)
        for class_tool in assignment.class_tools
    }


def uses_in(document: JsonObject) -> tuple[Use, ...]:
    """The uses of class_tools in the document of an attempt."""
    return tuple(
        Use(one["class_tool"], tuple(one["ids"]), tuple(one["gives"]), one["moves"]) for one in document.get("uses", [])
    )
