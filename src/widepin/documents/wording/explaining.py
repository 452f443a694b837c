"""A verdict explained in plain English, at three levels of help that the teacher chooses."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import assert_never

from ...judge.conditions import RelationName, TermKind
from ...judge.task import Task
from ...judge.verdict import ConditionReport, Failure, Measured, Mend, Outcome, Quantity, Report, Verdict
from ...plane.rows import complete
from ...plane.shapes import Kind
from ...plane.steps import Step
from ..language import gettext as _
from ..language import marked, ngettext
from ..reading import JsonObject
from .absence import absence_in_words
from .amounts import centimetres
from .verdict_words import place_in_words, verdict_in_words, which_in_words
from .words import Words, listed


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


MOST_HELPFUL = 5
"""Sentences that are shown at once; the others are there for who asks for more."""


def explained(verdict: Verdict, task: Task, level: str = "break") -> list[str]:
    """Sentences for the student, the most helpful first, none of them twice. A refusal is always said: it is about the
    rules.

    What would mend it, what stays true and the shapes in which it holds are said apart.
    """
    return list(dict.fromkeys(_explained(verdict, task, level)))


def said_of(verdict: Verdict, task: Task) -> JsonObject:
    """What the screens say at the most helpful level: ``conditions`` of the task, and ``sentences`` on a work."""
    mends = [mend_in_words(mend) for mend in verdict.report.mends] if verdict.report else []
    sentences = [*explained(verdict, task)[:MOST_HELPFUL], *mends]
    return {"conditions": Words(task).conditions(), "sentences": sentences[:MOST_HELPFUL]}


def _explained(verdict: Verdict, task: Task, level: str) -> list[str]:
    if verdict.outcome is Outcome.REFUSED:
        return [verdict_in_words(verdict)]
    if level == "result":
        return []
    if level == "conditions":
        return [*overlooked(verdict, hint_only=True), *failing_conditions(verdict, task), *stopped(verdict)]
    gone = [absence_in_words(one) for one in verdict.report.absent] if verdict.report else []
    closest = [] if gone else closest_in_words(verdict, task)
    sentences = [*gone, *overlooked(verdict), *(gone or closest or [verdict_in_words(verdict)])]
    # An answer that was not found because there are too many objects is first of all to be pointed out.
    sentences = [*stopped(verdict), *sentences] if verdict.outcome is Outcome.WRONG else [*sentences, *stopped(verdict)]
    if verdict.outcome.is_right_as_drawn and task.budget is not None and verdict.counts.moves > task.budget:
        over, limit = verdict.counts.moves - task.budget, task.budget
        sentences.append(
            ngettext(
                "It takes %(n)s move more than the limit of %(limit)s.",
                "It takes %(n)s moves more than the limit of %(limit)s.",
                over,
                limit=limit,
            )
        )
    if verdict.report is not None:
        report = verdict.report
        if verdict.outcome is Outcome.APPROXIMATE:
            miss = max(condition.gap_as_drawn or 0.0 for condition in report.conditions)
            sentences.append(_("As drawn it misses by %(miss)s.", miss=centimetres(miss)))
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
        chosen_ids = {*(verdict.answer or {}).values(), *(report.closest or {}).values()}
        return [
            _(
                "Mark %(places)s: that would be right.",
                places=listed(_unmarked_in_words(step, chosen_ids) for step in report.unmarked),
            )
        ]
    return []


def _unmarked_in_words(step: Step, chosen: Collection[str]) -> str:
    """An intersection that was overlooked; the other one of two, where the first of them was chosen."""
    if step.reference is None:
        return place_in_words(step)
    first, second = step.sources
    if step.reference in chosen:
        return _(
            "the other intersection of %(first)s and %(second)s, not %(chosen)s",
            first=first,
            second=second,
            chosen=step.reference,
        )
    return _(
        "the intersection of %(first)s and %(second)s other than %(chosen)s",
        first=first,
        second=second,
        chosen=step.reference,
    )


def _as(id_: str, name: str) -> str:
    return id_ if id_ == name else _("%(object)s as %(name)s", object=id_, name=name)


def stopped(verdict: Verdict) -> list[str]:
    """That not all answers were tried, where that is so."""
    if not verdict.stopped:
        return []
    if verdict.outcome is Outcome.SOUND:
        return [_("There are too many answers to try them all; another one may need fewer moves.")]
    if verdict.outcome is Outcome.WRONG and verdict.answer is None:
        return [
            _(
                "No answer was found in time among so many objects; that does not say that there is none."
                " Point it out on the board."
            )
        ]
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
            values = _why_it_fails(condition, task, words, at_break=True)
            is_length = condition.gap_at_break > 0.005 and not condition.measured
            miss = _(", by %(gap)s", gap=centimetres(condition.gap_at_break)) if is_length else ""
            sentences.append(
                _(
                    "There it is no longer true that %(clause)s%(measured)s.",
                    clause=clause,
                    measured=f": {values}" if values else miss,
                )
            )
    return sentences


def _why_it_fails(condition: ConditionReport, task: Task, words: Words, at_break: bool = False) -> str:
    asks_for = task.conditions[condition.place].rel == RelationName.SAME
    return measured_in_words(condition.measured, words, at_break, asks_for, fails=True)


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
            words.condition(asked := task.conditions[condition.place]),
            condition.holds_as_drawn,
            measured_in_words(condition.measured, words, asks_for=asked.rel == RelationName.SAME),
            condition.holds_at_break,
            measured_in_words(condition.measured, words, True, asked.rel == RelationName.SAME),
        )
        for condition in report.conditions
    ]


VANISHES = 1e-9
"""Centimetres or degrees below which a value vanishes, as it should."""


def measured_in_words(
    values: Sequence[Measured], words: Words, at_break: bool = False, asks_for: bool = False, fails: bool = False
) -> str:
    """What was measured, as drawn or in the break, to so many places that what differs can be seen to.

    ``asks_for``: the condition says that something is what is asked for, which is not told by how it is made.
    ``fails``: it is said why a condition fails; nothing is, where no difference would be seen.
    """
    found = [(value, value.at_break if at_break else value.drawn) for value in values]
    # What vanishes as it should is no news.
    through_centre = [one for one, value in found if one.what is Quantity.DISTANCE_OF_CENTRE and value is not None]
    if fails and any(value is not None and value <= VANISHES and one in through_centre for one, value in found):
        circle, other = (words.term(term, TermKind.CURVE) for term in through_centre[0].of)
        return _("%(other)s passes through the centre of %(circle)s", circle=circle, other=other)
    there = [(one, value) for one, value in found if value is not None and value > VANISHES]
    beyond = [(one, value) for one, value in there if one.what is Quantity.BEYOND_END]
    there = [(one, value) for one, value in there if one.what is not Quantity.BEYOND_END]
    lengths = {round(value, 6) for one, value in there if _unit(one) == " cm"}
    # Equal numbers prove no difference: what is wrong then lies elsewhere.
    if (
        fails
        and len(there) > 1
        and len(lengths) == 1
        and len(there) == sum(_unit(one) == " cm" for one, _value in there)
    ):
        there = []
    alike = [value for one, value in there if one.what == there[0][0].what]
    places = next((n for n in range(2, 6) if len({round(v, n) for v in alike}) == len({round(v, 6) for v in alike})), 6)
    parts = [
        _(
            "%(quantity)s is %(value)s" if number == 0 else "%(quantity)s %(value)s",
            quantity=_measure_name(one, words, asks_for),
            value=f"{value:.{places}f}{_unit(one)}",
        )
        for number, (one, value) in enumerate(there)
    ]
    return listed(parts) or (listed(_beyond_in_words(one, value, words) for one, value in beyond) if fails else "")


def _beyond_in_words(one: Measured, value: float, words: Words) -> str:
    point, curve = one.of
    line = words.term(curve, TermKind.CURVE)
    if isinstance(point, str) and Kind.CIRCLE in words.kinds.get(point, ()):
        return _("they would touch %(far)s beyond the end of %(line)s", far=centimetres(value), line=line)
    name = words.name(point)
    return _("%(point)s lies %(far)s beyond the end of %(line)s", point=name, far=centimetres(value), line=line)


def _measure_name(one: Measured, words: Words, asks_for: bool) -> str:
    if one.what is Quantity.LENGTH:
        return words.term(one.of[0], TermKind.PAIR)
    if one.what is Quantity.ANGLE and len(one.of) == 1:
        return _("the angle %(name)s", name=words.term(one.of[0], TermKind.TRIPLE))
    if one.what is Quantity.AREA:
        return _("the area of %(name)s", name=words.triangle(one.of[0]))
    names = [words.asked_for(term) if asks_for else words.term(term, TermKind.CURVE) for term in one.of]
    match one.what:
        case Quantity.DISTANCE_OF_CENTRE:
            return _("the distance from the centre of %(circle)s to %(other)s", circle=names[0], other=names[1])
        case Quantity.DISTANCE_OF_CENTRES:
            return _("the distance from centre to centre")
        case Quantity.DISTANCE_OF_INTERSECTION:
            return _(
                "the distance from the intersection of %(meeting)s to %(other)s",
                meeting=listed(names[:2]),
                other=names[2],
            )
        case Quantity.DISTANCE | Quantity.ANGLE:
            return _("the %(quantity)s between %(names)s", quantity=_(QUANTITY_WORDS[one.what]), names=listed(names))
        case Quantity.RADIUS:
            return _("the radius of %(name)s", name=names[0])
        case Quantity.BEYOND_END:
            return _("the distance beyond the end of %(name)s", name=names[1])
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
        Quantity.BEYOND_END: marked("distance beyond the end"),
    },
)


def _unit(one: Measured) -> str:
    match one.what:
        case Quantity.ANGLE:
            return "°"
        case Quantity.AREA:
            return " cm²"
        case Quantity.LENGTH | Quantity.DISTANCE | Quantity.RADIUS | Quantity.BEYOND_END:
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


def jumps_in_words(verdict: Verdict) -> str:
    """That only the choice of an intersection makes a work fail when it is dragged."""
    answer = listed((verdict.answer or {}).values())
    return _(
        "When dragged, the other intersection is taken in some positions, and %(answer)s is no longer right.",
        answer=answer,
    )


def kept_in_words(mend: Mend) -> str:
    """A change of intersections, as what is kept: Keep the one farther from A."""
    if len(mend.steps) == 1:
        return _("Keep the one%(which)s", which=which_in_words(mend.steps[0]))
    kept = (f"{step.id}{which_in_words(step)}" for step in mend.steps)
    return _("Keep %(kept)s", kept=listed(kept))


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
            values = _why_it_fails(condition, task, words)
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
