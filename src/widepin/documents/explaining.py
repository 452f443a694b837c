"""A verdict explained in plain English, at three levels of help that the teacher chooses."""

from __future__ import annotations

from ..judge.task import Task
from ..judge.verdict import Mend, Outcome, Report, Verdict
from .words import Words, listed, verdict_in_words

HELP = ("seals", "conditions", "break")
"""Only the seals; which conditions fail; the break itself and what would mend it."""


def explained(verdict: Verdict, task: Task, level: str = "break") -> list[str]:
    """Sentences for the student, the most important first. A refusal is always said: it is about the rules."""
    if verdict.outcome is Outcome.REFUSED:
        return [verdict_in_words(verdict)]
    if level == "seals":
        return []
    if level == "conditions":
        return failing_conditions(verdict, task)
    sentences = [verdict_in_words(verdict)]
    if verdict.report is not None:
        report = verdict.report
        if verdict.breaks is not None and verdict.breaks.happens == "wrong":
            sentences += at_the_break(report, task)
        sentences += [mend_in_words(mend) for mend in report.mends]
        sentences += by_shape(report)
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
    """The conditions that fail in the break, with what they miss by."""
    words = Words(task)
    sentences = []
    for one in report.conditions:
        if one.holds_at_break is False and one.gap_at_break is not None:
            clause = words.condition(task.conditions[one.place])
            miss = f", by {one.gap_at_break:.2g} cm" if one.gap_at_break > 0.005 else ""
            sentences.append(f"There it is no longer true that {clause}{miss}.")
    return sentences


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


def by_shape(report: Report) -> list[str]:
    """In which shapes of the given triangle it holds and in which it does not, where they differ."""
    if len(set(report.shapes.values())) < 2:
        return []
    groups: dict[str, list[str]] = {}
    for shape, what in report.shapes.items():
        groups.setdefault(what, []).append(shape)
    return [
        f"By shape of the given triangle: it {'; '.join(f'{what} when {listed(of)}' for what, of in groups.items())}."
    ]
