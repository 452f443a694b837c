"""Hints in three levels: what to aim for, which tool and where, and the next step itself."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ...economy.completing import Completion, completion_of
from ...judge.costs.counts import is_move
from ...judge.judging import judge
from ...judge.task import Task, Work
from ...plane.makes import MAKES
from ...plane.shapes import Kind
from ...plane.steps import Step
from ..language import gettext as _
from ..language import ngettext
from .make_words import MAKE_WORDS
from .words import instruction, kind_in_words, listed


@dataclass(frozen=True)
class Hint:
    """``moves_left``: on the way that is known, None where none is; ``levels``: three sentences, each telling more;
    ``step``: the next one, None where there is nothing to do or nothing known.
    """

    moves_left: int | None
    levels: tuple[str, str, str]
    step: Step | None = None


def hint_for(task: Task, work: Work, methods: Sequence[Work]) -> Hint:
    """The next hint for a work that somebody has begun. ``methods``: sound works of the task that are known."""
    found = completion_of(task, work, methods)
    if found is None:
        return Hint(None, (_unknown(), _unknown(), _unknown()))
    if not found.steps:
        done = _("It is right as it stands: hand it in.")
        return Hint(0, (done, done, done))
    step = found.steps[0]
    first = _what_to_aim_for(task, found)
    wrong = _placed_by_eye(task, work)
    levels = (
        (f"{wrong} {first}" if wrong else first),
        _tool_and_where(step),
        _("Next: %(step)s.", step=instruction(step)),
    )
    return Hint(found.moves, levels, step)


def moves_left_in_words(hint: Hint) -> str:
    """How far somebody is, without a word on the way.

    >>> [moves_left_in_words(Hint(moves, ("Hand it in.", "", ""))) for moves in (0, 1, 2)]
    ['Hand it in.', '1 move is left on a way that is known.', '2 moves are left on a way that is known.']
    """
    if hint.moves_left is None or hint.moves_left == 0:
        return hint.levels[0]
    return ngettext(
        "%(n)s move is left on a way that is known.", "%(n)s moves are left on a way that is known.", hint.moves_left
    )


def _unknown() -> str:
    return _("No way on from here is known. Undo the last steps, or ask your teacher.")


def _placed_by_eye(task: Task, work: Work) -> str:
    """What is in the way: a point that only looks as if it lay where it should."""
    if not work.steps:
        return ""
    report = judge(task, work).report
    if report is None or not report.by_eye:
        return ""
    return _("%(points)s was placed by eye: take the intersection instead.", points=listed(report.by_eye))


def _what_to_aim_for(task: Task, found: Completion) -> str:
    step, answer = found.steps[0], set(found.answer.values())
    kind = kind_in_words(MAKES[step.make].gives)
    if step.id in answer:
        if found.moves <= 1:
            return _("What is asked for itself is what is missing yet: a %(kind)s.", kind=kind)
        return _("A part of what is asked for can be drawn now: a %(kind)s.", kind=kind)
    if not is_move(step.make):
        use = next((one for one in found.steps[1:] if step.id in one.parents), None)
        if use is None:
            return _("A point is missing that is on the board already, unmarked.")
        return _(
            "A point is needed for a %(kind)s; where it lies can be seen already.",
            kind=kind_in_words(MAKES[use.make].gives),
        )
    meeting = next((one for one in found.steps[1:] if one.make == "intersection" and step.id in one.sources), None)
    if meeting is None:
        return _("One more %(kind)s is needed on the way.", kind=kind)
    other = next(source for source in meeting.sources if source != step.id)
    if other in {one.id for one in found.steps}:
        return _("A point is needed that two more curves give, one of them a %(kind)s.", kind=kind)
    return _("A point is needed where %(curve)s meets one more %(kind)s.", curve=other, kind=kind)


def _tool_and_where(step: Step) -> str:
    card = MAKE_WORDS[step.make].card or _("Point")
    if step.make in ("circle", "circle_radius"):
        return _("Take the tool %(card)s; its centre is %(centre)s.", card=card, centre=step.sources[0])
    if not step.sources:
        return _("Take the tool %(card)s; any place will do.", card=card)
    if MAKES[step.make].gives is Kind.POINT or len(step.sources) == 1:
        return _("Take the tool %(card)s, with %(sources)s.", card=card, sources=listed(step.sources))
    return _("Take the tool %(card)s; it needs %(source)s.", card=card, source=step.sources[0])
