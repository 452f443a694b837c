"""Give the reason: exercises made from the proof of a student's own work, and what they are worth.

Any order counts in which each line comes after those that it rests on, and any reason by which a line follows.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from random import Random

from ...documents.formats.verdict import read_verdict
from ...documents.reading import JsonObject
from ...documents.reasons.reason_cards import anchor_of
from ...documents.wording.explaining import Feedback
from ...judge.verdict import Outcome
from ...reason.rule_names import RuleName
from ..models import HandIn, Person
from ..states import Reasons
from ..tasks.scoring import off_for_hints, score_for, table_of
from .autosave import task_judged

FEWEST_LINES = 2
"""Of a proof that is worth asking about."""

TRIES = 50
"""Shuffles after which lines stand in an order that is not right already, where there is one."""

CHOICES = 4
"""Reasons that are offered for a line."""


@dataclass(frozen=True)
class Row:
    """A line of an exercise: its number in the proof, what is shown of it, and what may be chosen: value -> words.

    ``words``: None where the line itself is to be filled in. ``cards``: rule -> the anchor of its card, for the reason
    that is shown, or for those that may be chosen.
    """

    number: int
    words: str | None
    reason: str | None
    choices: dict[str, str]
    cards: dict[str, str]


def is_asked(attempt: HandIn, lines: Sequence[JsonObject]) -> bool:
    """Whether an attempt is followed by an exercise, by the lines of its proof."""
    reasons = attempt.work.assignment.reasons
    if all(line["rule"] == RuleName.BY_CONSTRUCTION for line in lines):
        return False  # there is nothing to prove
    if reasons is Reasons.ORDER and not any(line["because"] for line in lines):
        return False  # every order is right
    return reasons is not Reasons.NONE and attempt.outcome is Outcome.SOUND and len(lines) >= FEWEST_LINES


def is_open(attempt: HandIn) -> bool:
    """Whether the reasons of an attempt are asked for, and not all of them are right yet."""
    return attempt.reasoned is not None and attempt.reasoned < 100


def is_why_told(attempt: HandIn, mine: bool) -> bool:
    """Whether somebody may see why an attempt is right: it is, and a student (``mine``) is told more than the result
    and has given the reasons that are asked for.
    """
    told = not mine or (attempt.work.assignment.feedback is not Feedback.RESULT and not is_open(attempt))
    return attempt.outcome is Outcome.SOUND and told


def names_elements(attempt: HandIn, reader: Person) -> bool:
    """Whether the proof of an attempt names places in the Elements: as the teacher likes who reads it, or whose student
    does.
    """
    return reader.elements if reader.is_teacher else attempt.work.assignment.school_class.teacher.elements


def begin(attempt: HandIn, lines: Sequence[JsonObject]) -> None:
    """Ask for the reasons of an attempt, if there is something to be asked; its score waits for them in part."""
    if is_asked(attempt, lines) and attempt.reasoned is None:
        attempt.reasoned = 0
        set_score(attempt)


def set_score(attempt: HandIn) -> None:
    """The score of an attempt: that of the construction, with its share for the reasons."""
    assignment, task = attempt.work.assignment, task_judged(attempt)
    off = off_for_hints(assignment, attempt.hints)
    whole = score_for(read_verdict(attempt.verdict), task.budget, table_of(assignment), off)
    share = assignment.reasons_share if attempt.reasoned is not None else 0
    attempt.score = round(whole * (100 - share + share * (attempt.reasoned or 0) / 100) / 100)


def exercise(attempt: HandIn, lines: Sequence[JsonObject]) -> list[Row]:
    """The rows of an exercise, the same whenever it is shown."""
    chance = Random(attempt.id)
    match attempt.work.assignment.reasons:
        case Reasons.ORDER:
            rows = [Row(line["n"], _said(line), line["because_of"], {}, _cards([line["rule"]])) for line in lines]
            for _try in range(TRIES):
                chance.shuffle(rows)
                if not all(_in_order(lines, [row.number for row in rows]).values()):
                    return rows
            return rows[::-1]
        case Reasons.CHOOSE:
            offers = [_choices(line, lines, chance) for line in lines]
            return [
                Row(line["n"], _said(line), None, offer, _cards(offer))
                for line, offer in zip(lines, offers, strict=True)
            ]
        case Reasons.FILL:
            hidden = {line["n"] for line in lines[1::2]} or {lines[-1]["n"]}
            offered = {str(line["n"]): _said(line) for line in lines if line["n"] in hidden}
            mixed = list(offered.items())
            chance.shuffle(mixed)
            return [
                Row(
                    line["n"],
                    None if line["n"] in hidden else _said(line),
                    line["because_of"],
                    dict(mixed),
                    _cards([line["rule"]]),
                )
                for line in lines
            ]
        case Reasons.NONE:
            return []


def _cards(rules: Iterable[str]) -> dict[str, str]:
    """The anchors of the cards of rules."""
    return {rule: anchor_of(rule) for rule in rules}


def _in_order(lines: Sequence[JsonObject], order: Sequence[int]) -> dict[int, bool]:
    """Which lines stand after all that they rest on, by their numbers."""
    place = {number: at for at, number in enumerate(order)}
    return {line["n"]: all(place[cited] < place[line["n"]] for cited in line["because"]) for line in lines}


def _said(line: JsonObject) -> str:
    """A line in words, with the case that it is said for: in both cases of a proof there may be the same line."""
    return f"{line['case']}: {line['words']}" if line["case"] else str(line["words"])


def _choices(line: JsonObject, lines: Sequence[JsonObject], chance: Random) -> dict[str, str]:
    """A line's own reason and some by which a line of its kind can follow, those of this proof first.

    Rules that are said in the same words are one choice.
    """
    elsewhere = {one["rule"]: one["because_of"] for one in lines if one["rule"] != line["rule"]}
    alike = {one["rule"] for one in lines if one["rel"] == line["rel"]} | {line["rule"]}
    others = [(rule, words) for rule, words in elsewhere.items() if rule in alike]
    more = [(rule, words) for rule, words in line["others"].items() if rule not in alike]
    chance.shuffle(others)
    chance.shuffle(more)
    offered = {line["because_of"]: line["rule"]}
    for rule, words in others + more:
        offered.setdefault(words, rule)
    if len(offered) == 1:  # a line of a kind of its own
        for rule, words in elsewhere.items():
            offered.setdefault(words, rule)
    chosen = [(rule, words) for words, rule in offered.items()][:CHOICES]
    chance.shuffle(chosen)
    return dict(chosen)


def rightness(
    attempt: HandIn,
    lines: Sequence[JsonObject],
    sent: Mapping[str, Sequence[str]],
    follows: Callable[[int, str], bool],
) -> dict[int, bool]:
    """Which lines of an answer are right, by their numbers.

    ``sent``: "line", the numbers in their order; or "line-N", what was chosen for line N. ``follows``: whether a line
    follows by another rule than its own.
    """
    match attempt.work.assignment.reasons:
        case Reasons.ORDER:
            order = list(sent.get("line", ()))
            if sorted(order) != sorted(str(line["n"]) for line in lines):
                return {line["n"]: False for line in lines}
            return _in_order(lines, list(map(int, order)))
        case Reasons.CHOOSE:
            chosen = {line["n"]: (sent.get(f"line-{line['n']}") or [""])[0] for line in lines}
            said = {rule: words for line in lines for rule, words in line["others"].items()}
            said |= {line["rule"]: line["because_of"] for line in lines}
            return {
                line["n"]: any(
                    rule == line["rule"] or follows(line["n"], rule)
                    for rule, words in said.items()
                    if words == said.get(chosen[line["n"]])
                )
                for line in lines
            }
        case Reasons.FILL:
            words = {str(line["n"]): _said(line) for line in lines}
            return {
                row.number: words.get((sent.get(f"line-{row.number}") or [""])[0]) == words[str(row.number)]
                for row in exercise(attempt, lines)
                if row.words is None
            }
        case Reasons.NONE:
            return {}


def answer(attempt: HandIn, right: Mapping[int, bool]) -> int:
    """Take an answer; how many percent of its lines are right. The best answer counts."""
    percent = round(100 * sum(right.values()) / len(right)) if right else 0
    if attempt.reasoned is not None:
        attempt.reasoned = max(attempt.reasoned, percent)
        set_score(attempt)
    return percent
