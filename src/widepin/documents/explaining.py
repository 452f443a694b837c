"""A verdict explained in plain English, at three levels of help that the teacher chooses."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import assert_never

from ..judge.task import Task
from ..judge.verdict import Failure, Measured, Mend, Outcome, Quantity, Report, Verdict
from ..plane.rows import complete
from ..plane.steps import Step
from .language import gettext as _
from .language import marked, ngettext
from .words import Words, listed, place_in_words, verdict_in_words


class Feedback(StrEnum):
    """What a student sees of a verdict."""

    RESULT = "result"  # correct, holds when dragged, moves
    CONDITIONS = "conditions"  # which conditions fail, too
    BREAK = "break"  # and the counterexample, and what would fix it


FEEDBACK_WORDS: dict[str, str] = complete(
    "FEEDBACK_WORDS",
    Feedback,
    {
        Feedback.RESULT: marked("only the result"),
        Feedback.CONDITIONS: marked("which conditions fail"),
        Feedback.BREAK: marked("where it breaks, and what would fix it"),
    },
)
"""What students see, by how much of a verdict they are told."""


def explained(verdict: Verdict, task: Task, level: str = "break") -> list[str]:
    """Sentences for the student, the most helpful first. A refusal is always said: it is about the rules.

    What would mend it, what stays true and the shapes in which it holds are said apart.
    """
    if verdict.outcome is Outcome.REFUSED:
        return [verdict_in_words(verdict)]
    if level == "result":
        return []
    if level == "conditions":
        return [*overlooked(verdict, hint_only=True), *failing_conditions(verdict, task), *stopped(verdict)]
    closest = closest_in_words(verdict, task)
    sentences = [*overlooked(verdict), *(closest or [verdict_in_words(verdict)])]
    # An answer that was not found because there are too many objects is first of all to be pointed out.
    sentences = [*stopped(verdict), *sentences] if verdict.outcome is Outcome.WRONG else [*sentences, *stopped(verdict)]
    if verdict.report is not None:
        report = verdict.report
        if verdict.outcome is Outcome.APPROXIMATE:
            miss = max(condition.gap_as_drawn or 0.0 for condition in report.conditions)
            sentences.append(_("As drawn it misses by %(miss)s cm.", miss=f"{miss:.1g}"))
        if verdict.breaks is not None and verdict.breaks.happens is Failure.WRONG:
            sentences += at_the_break(report, task)
        mended = {step.id for mend in report.mends for step in mend.steps}
        said_already = {id_ for id_ in report.by_eye if len(report.by_eye) == 1}
        sentences += [
            tie_in_words(step) for id_, step in report.ties.items() if id_ not in mended and id_ not in said_already
        ]
        sentences += [
            _("%(again)s is the same as %(first)s.", again=again, first=first)
            for again, first in report.repeated.items()
        ]
    return sentences


def overlooked(verdict: Verdict, hint_only: bool = False) -> list[str]:
    """That another object than the one pointed out is right, or an intersection that is not marked; or only a hint at
    it.
    """
    report = verdict.report
    if report is None:
        return []
    if report.instead and verdict.answer:
        chosen = listed(_as(verdict.answer[name], name) for name in report.instead)
        start = ngettext("%(chosen)s was chosen", "%(chosen)s were chosen", len(report.instead), chosen=chosen)
        if hint_only:
            return [_("%(start)s; another object on the board would be right.", start=start)]
        return [_("%(start)s; %(other)s would be right.", start=start, other=listed(report.instead.values()))]
    if report.unmarked:
        if hint_only:
            return [_("An intersection that is a correct answer is on the board, but it is not marked.")]
        return [
            _(
                "Mark %(places)s first: that would be right.",
                places=listed(place_in_words(step) for step in report.unmarked),
            )
        ]
    return []


def _as(id_: str, name: str) -> str:
    return id_ if id_ == name else _("%(object)s as %(name)s", object=id_, name=name)


def stopped(verdict: Verdict) -> list[str]:
    """That not all answers were tried, where that is so."""
    if not verdict.search_stopped:
        return []
    if verdict.outcome is Outcome.SOUND:
        return [_("There are too many answers to try them all; another one may need fewer moves.")]
    return [_("There are too many objects to try them all. An answer can be chosen on the board.")]


def failing_conditions(verdict: Verdict, task: Task) -> list[str]:
    """Which conditions do not hold as drawn, or else not everywhere."""
    if verdict.report is None:
        return [_("Nothing on the board fulfils all conditions.")]
    words = Words(task)
    clauses = [words.condition(condition) for condition in task.conditions]
    if verdict.report.closest is not None or not verdict.report.conditions:
        return closest_in_words(verdict, task) or [_("Nothing on the board fulfils all conditions.")]
    bad = [clauses[condition.place] for condition in verdict.report.conditions if condition.holds_at_break is False]
    if verdict.outcome is Outcome.SOUND:
        return [_("All conditions hold.")]
    if not bad:
        return [_("All conditions hold as drawn, but not exactly in every position.")]
    return [_("Not in every position is it true that %(bad)s.", bad=listed(bad))]


def at_the_break(report: Report, task: Task) -> list[str]:
    """The conditions that fail in the break, with what was measured there."""
    words = Words(task)
    sentences = []
    for condition in report.conditions:
        if condition.holds_at_break is False and condition.gap_at_break is not None:
            clause = words.condition(task.conditions[condition.place])
            values = measured_in_words(condition.measured, words, at_break=True)
            miss = _(", by %(gap)s cm", gap=f"{condition.gap_at_break:.2g}") if condition.gap_at_break > 0.005 else ""
            sentences.append(
                _(
                    "There it is no longer true that %(clause)s%(measured)s.",
                    clause=clause,
                    measured=f": {values}" if values else miss,
                )
            )
    return sentences


@dataclass(frozen=True)
class Asked:
    """A condition in words, whether it holds and what was measured: as drawn, and in the break if there is one."""

    clause: str
    holds_as_drawn: bool
    drawn: str
    holds_at_break: bool | None
    at_break: str


def what_was_asked(report: Report, task: Task) -> list[Asked]:
    """Every condition of the task, looked at."""
    words = Words(task)
    return [
        Asked(
            words.condition(task.conditions[condition.place]),
            condition.holds_as_drawn,
            measured_in_words(condition.measured, words),
            condition.holds_at_break,
            measured_in_words(condition.measured, words, at_break=True),
        )
        for condition in report.conditions
    ]


def measured_in_words(values: Sequence[Measured], words: Words, at_break: bool = False) -> str:
    """What was measured, as drawn or in the break, to so many places that what differs can be seen to."""
    found = [(value, value.at_break if at_break else value.drawn) for value in values]
    # What vanishes as it should is no news.
    there = [(one, value) for one, value in found if value is not None and value > 1e-9]
    alike = [value for one, value in there if one.what == there[0][0].what]
    places = next((n for n in range(2, 6) if len({round(v, n) for v in alike}) == len({round(v, 6) for v in alike})), 6)
    return listed(
        _(
            "%(quantity)s is %(value)s" if number == 0 else "%(quantity)s %(value)s",
            quantity=_measure_name(one, words),
            value=f"{value:.{places}f}{_unit(one)}",
        )
        for number, (one, value) in enumerate(there)
    )


def _measure_name(one: Measured, words: Words) -> str:
    names = [words.name(term) for term in one.of]
    match one.what:
        case Quantity.LENGTH:
            return names[0]
        case Quantity.DISTANCE_OF_CENTRE:
            return _("from the centre of %(circle)s to %(other)s", circle=names[0], other=names[1])
        case Quantity.DISTANCE_OF_CENTRES:
            return _("from centre to centre")
        case Quantity.DISTANCE_OF_INTERSECTION:
            return _("from the intersection of %(meeting)s to %(other)s", meeting=listed(names[:2]), other=names[2])
        case Quantity.DISTANCE | Quantity.ANGLE if len(names) > 1:
            return _("the %(quantity)s between %(names)s", quantity=_(QUANTITY_WORDS[one.what]), names=listed(names))
        case Quantity.DISTANCE | Quantity.ANGLE | Quantity.RADIUS | Quantity.AREA:
            return _("the %(quantity)s of %(names)s", quantity=_(QUANTITY_WORDS[one.what]), names=listed(names))
        case _ as never:
            assert_never(never)


QUANTITY_WORDS: dict[str, str] = complete(
    "QUANTITY_WORDS",
    Quantity,
    {
        Quantity.LENGTH: marked("length"),
        Quantity.DISTANCE: marked("distance"),
        Quantity.DISTANCE_OF_CENTRE: marked("distance of the centre"),
        Quantity.DISTANCE_OF_CENTRES: marked("distance of the centres"),
        Quantity.DISTANCE_OF_INTERSECTION: marked("distance of the intersection"),
        Quantity.RADIUS: marked("radius"),
        Quantity.ANGLE: marked("angle"),
        Quantity.AREA: marked("area"),
    },
)


def _unit(one: Measured) -> str:
    match one.what:
        case Quantity.ANGLE:
            return "°"
        case Quantity.AREA:
            return " cm²"
        case Quantity.LENGTH | Quantity.DISTANCE | Quantity.RADIUS:
            return " cm"
        case Quantity.DISTANCE_OF_CENTRE | Quantity.DISTANCE_OF_CENTRES | Quantity.DISTANCE_OF_INTERSECTION:
            return " cm"
        case _ as never:
            assert_never(never)


def what_stays_true(report: Report, task: Task) -> list[str]:
    """The equalities that hold in every position, as clauses."""
    return Words(task).conditions(report.truths)


def mend_in_words(mend: Mend) -> str:
    """What to do instead of steps."""
    return _(
        "Make %(steps)s, and it holds everywhere.",
        steps=listed(f"{step.id} {place_in_words(step)}" for step in mend.steps),
    )


def tie_in_words(step: Step) -> str:
    """What a point by eye lies next to."""
    return _(
        "%(point)s lies next to %(place)s, but nothing ties it there.",
        point=step.id,
        place=place_in_words(step),
    )


def closest_in_words(verdict: Verdict, task: Task) -> list[str]:
    """What comes closest where nothing is right, and what it misses by."""
    report = verdict.report
    if report is None or report.closest is None:
        return []
    words = Words(task)
    named = listed(_as(id_, name) for name, id_ in report.closest.items())
    sentences = []
    for condition in report.conditions:
        if not condition.holds_as_drawn:
            values = measured_in_words(condition.measured, words)
            clause = words.condition(task.conditions[condition.place])
            sentences.append(
                _(
                    "it is not true that %(clause)s%(measured)s.",
                    clause=clause,
                    measured=f": {values}" if values else "",
                )
            )
    if not sentences:
        return []
    start = (
        _("You pointed out %(named)s, but", named=named)
        if verdict.answer
        else _("What comes closest is %(named)s, but", named=named)
    )
    return [f"{start} {sentences[0]}", *(_("And %(one)s", one=sentence) for sentence in sentences[1:])]
