"""A verdict explained in plain English, at three levels of help that the teacher chooses."""

from __future__ import annotations

from collections.abc import Sequence

from ..judge.task import Task
from ..judge.verdict import Measured, Mend, Outcome, Report, Verdict
from .words import Words, listed, verdict_in_words

HELP = ("seals", "conditions", "break")
"""Only the seals; which conditions fail; the break itself and what would mend it."""


def explained(verdict: Verdict, task: Task, level: str = "break") -> list[str]:
    """Sentences for the student, the most important first. A refusal is always said: it is about the rules.

    What would mend it, what stays true and the shapes in which it holds are said apart.
    """
    if verdict.outcome is Outcome.REFUSED:
        return [verdict_in_words(verdict)]
    if level == "seals":
        return []
    if level == "conditions":
        return failing_conditions(verdict, task)
    sentences = [verdict_in_words(verdict)]
    if verdict.report is not None:
        report = verdict.report
        if verdict.outcome is Outcome.APPROXIMATE:
            miss = max(one.gap_as_drawn or 0.0 for one in report.conditions)
            sentences.append(f"As drawn it misses by {miss:.1g} cm.")
        if verdict.breaks is not None and verdict.breaks.happens == "wrong":
            sentences += at_the_break(report, task)
        sentences += [f"{again} is {first} once more." for again, first in report.repeated.items()]
    return sentences


def failing_conditions(verdict: Verdict, task: Task) -> list[str]:
    """Which conditions do not hold as drawn, or else not everywhere."""
    if verdict.report is None:
        return ["Nothing on the board fulfils all that is asked for."]
    words = Words(task)
    clauses = [words.condition(condition) for condition in task.conditions]
    bad = [clauses[one.place] for one in verdict.report.conditions if one.holds_at_break is False]
    if verdict.outcome is Outcome.SOUND:
        return ["All that is asked for holds."]
    if not bad:
        return ["All that is asked for holds as drawn, but not exactly in every position."]
    return [f"Not in every position is it true that {listed(bad)}."]


def at_the_break(report: Report, task: Task) -> list[str]:
    """The conditions that fail in the break, with what was measured there."""
    words = Words(task)
    sentences = []
    for one in report.conditions:
        if one.holds_at_break is False and one.gap_at_break is not None:
            clause = words.condition(task.conditions[one.place])
            values = measured_in_words(one.measured, words, at_break=True)
            miss = f", by {one.gap_at_break:.2g} cm" if one.gap_at_break > 0.005 else ""
            sentences.append(f"There it is no longer true that {clause}{f': {values}' if values else miss}.")
    return sentences


def measured_in_words(values: Sequence[Measured], words: Words, at_break: bool = False) -> str:
    """What was measured, as drawn or in the break, to so many places that what differs can be seen to."""
    found = [(one, one.at_break if at_break else one.drawn) for one in values]
    # What vanishes as it should is no news.
    there = [(one, value) for one, value in found if value is not None and value > 1e-9]
    alike = [value for one, value in there if one.what == there[0][0].what]
    places = next((n for n in range(2, 6) if len({round(v, n) for v in alike}) == len({round(v, 6) for v in alike})), 6)
    return listed(
        f"{_measure_name(one, words)} {'' if number else 'is '}{value:.{places}f}{_unit(one)}"
        for number, (one, value) in enumerate(there)
    )


def _measure_name(one: Measured, words: Words) -> str:
    names = [words.name(term) for term in one.of]
    match one.what:
        case "length":
            return names[0]
        case "distance of centre":
            return f"from the centre of {names[0]} to {names[1]}"
        case "distance of centres":
            return "from centre to centre"
    joiner = "between" if len(names) > 1 else "of"
    return f"the {one.what} {joiner} {listed(names)}"


def _unit(one: Measured) -> str:
    return "°" if one.what == "angle" else " cm"


def what_stays_true(report: Report, task: Task) -> list[str]:
    """The equalities that hold in every position, as clauses."""
    return Words(task).conditions(report.truths)


def mend_in_words(mend: Mend) -> str:
    """What to do instead of a step."""
    step = mend.instead
    first, second = step.sources
    ways = {
        "other_than": f"the crossing of {first} and {second} other than {step.reference}",
        "nearest_to": f"the crossing of {first} and {second} nearer to {step.reference}",
        "farthest_from": f"the crossing of {first} and {second} farther from {step.reference}",
    }
    place = ways.get(step.choice, f"the crossing of {first} and {second}")
    return f"Make {mend.step} {place}, and it holds everywhere."
