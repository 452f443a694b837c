"""Give the reason: exercises from the proof of one's own work, what counts as right, and what it is worth."""

import json

import pytest

from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.operations import add
from widepin.documents.reasons.proofs import explained_proof
from widepin.documents.reasons.reason_cards import card_at
from widepin.reason.proving import prove
from widepin.school.models import SchoolClass
from widepin.school.states import Reasons
from widepin.school.tasks.assigning import assign
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.library.shipped import FILE
from widepin.school.tasks.scoring import SCORING
from widepin.school.tasks.settings import proposed
from widepin.school.tasks.sheets import from_library
from widepin.school.works import autosave, handins, reasoning
from widepin.school.works.autosave import task_of


@pytest.fixture
def asked(session):
    """Hands in a circumcircle, with its reasons asked for in some way; the attempt, and the lines of its proof."""
    from sqlalchemy import select

    school_class = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()

    def hand_in(kind, share=40):
        sheet = from_library(session, school_class.teacher, LIBRARY["lost-centre"])
        made = assign(session, sheet, school_class, proposed(reasons=kind, reasons_share=share))
        work = autosave.work_of(session, made, school_class.students[0])
        for after, step in enumerate(read_steps(sheet.document["model"])):
            autosave.store(session, work, f"reason-{after:04}", after, add(step))
        session.refresh(work)
        attempt = handins.hand_in(session, work)
        task = task_of(made)
        proof = prove(task, read_steps(attempt.document["steps"]), attempt.verdict["answer"])
        lines = explained_proof(proof, task)
        reasoning.begin(attempt, lines)
        return attempt, lines

    return hand_in


def never(_number, _rule):
    return False


def test_part_of_the_score_waits_for_the_reasons_and_the_best_answer_counts(asked):
    attempt, lines = asked(Reasons.ORDER)
    assert (attempt.reasoned, attempt.score) == (0, round(SCORING["sound"] * 0.6))
    numbers = [str(line["n"]) for line in lines]
    right = reasoning.rightness(attempt, lines, {"line": numbers}, never)
    assert all(right.values()) and reasoning.answer(attempt, right) == 100
    assert (attempt.reasoned, attempt.score) == (100, 100)
    worse = reasoning.rightness(attempt, lines, {"line": numbers[::-1]}, never)
    assert reasoning.answer(attempt, worse) < 100
    assert (attempt.reasoned, attempt.score) == (100, 100)


def test_any_order_counts_in_which_lines_come_after_what_they_rest_on(asked):
    attempt, lines = asked(Reasons.ORDER)
    numbers = [line["n"] for line in lines]
    free = [n for n in numbers if not lines[n - 1]["because"]]
    assert len(free) > 1
    other = [*free[::-1], *(n for n in numbers if n not in free)]
    assert other != numbers and all(
        reasoning.rightness(attempt, lines, {"line": list(map(str, other))}, never).values()
    )
    last_first = [numbers[-1], *numbers[:-1]]
    told = reasoning.rightness(attempt, lines, {"line": list(map(str, last_first))}, never)
    assert not told[numbers[-1]] and all(told[n] for n in free)
    for bad in ([], ["1"], ["x"] * len(numbers), [*map(str, numbers), "99"]):
        assert not any(reasoning.rightness(attempt, lines, {"line": bad}, never).values())


def test_a_reason_is_right_by_its_rule_or_by_another_that_it_follows_by(asked):
    attempt, lines = asked(Reasons.CHOOSE)
    rows = reasoning.exercise(attempt, lines)
    assert [row.number for row in rows] == [line["n"] for line in lines]
    assert all(line["rule"] in row.choices and len(row.choices) > 1 for row, line in zip(rows, lines, strict=True))
    sent = {f"line-{line['n']}": [line["rule"]] for line in lines}
    assert all(reasoning.rightness(attempt, lines, sent, never).values())
    other = next(iter(lines[0]["others"]))
    wrong = {**sent, "line-1": [other]}
    assert not reasoning.rightness(attempt, lines, wrong, never)[1]
    assert reasoning.rightness(attempt, lines, wrong, lambda number, rule: (number, rule) == (1, other))[1]
    assert not reasoning.rightness(attempt, lines, {**sent, "line-1": ["no rule"]}, lambda *_of: True)[1]
    assert not any(reasoning.rightness(attempt, lines, {}, never).values())


def test_a_reason_that_is_offered_could_be_meant(asked):
    attempt, lines = asked(Reasons.CHOOSE)
    for row, line in zip(reasoning.exercise(attempt, lines), lines, strict=True):
        alike = {one["rule"] for one in lines if one["rel"] == line["rel"]}
        assert set(row.choices) <= alike | set(line["others"]) and "SSS" not in row.choices


def test_no_two_reasons_offered_are_said_alike_and_the_other_rule_said_so_counts(asked):
    attempt, lines = asked(Reasons.CHOOSE)
    for entry in json.loads(FILE.read_text()).values():
        of_task = entry["proof"]["shown"]["lines"]
        for row in reasoning.exercise(attempt, of_task):
            assert len(set(row.choices.values())) == len(row.choices)
            own = next(line for line in of_task if line["n"] == row.number)
            assert row.choices[own["rule"]] == own["because_of"]
    said_alike = "a point of the perpendicular bisector", "on the line of points equally far from the ends"
    line = {**lines[0], "rule": said_alike[0], "because_of": lines[0]["others"][said_alike[0]]}
    assert reasoning.rightness(attempt, [line], {f"line-{line['n']}": [said_alike[1]]}, never) == {line["n"]: True}


def test_lines_to_be_put_in_order_never_come_in_order(asked):
    attempt, lines = asked(Reasons.ORDER)
    few = [{**line, "because": [1] if line["n"] == 2 else []} for line in lines[:2]]
    for number in range(40):
        attempt.id = number
        for given in (lines, few):
            order = [str(row.number) for row in reasoning.exercise(attempt, given)]
            assert not all(reasoning.rightness(attempt, given, {"line": order}, never).values())
    assert not reasoning.is_asked(attempt, [{**line, "because": []} for line in lines])


def test_missing_lines_are_filled_in(asked):
    attempt, lines = asked(Reasons.FILL)
    rows = reasoning.exercise(attempt, lines)
    missing = [row for row in rows if row.words is None]
    assert missing and len(missing) < len(rows)
    sent = {f"line-{row.number}": [str(row.number)] for row in missing}
    assert all(reasoning.rightness(attempt, lines, sent, never).values())
    assert reasoning.exercise(attempt, lines) == rows  # the same whenever it is shown
    sent[f"line-{missing[0].number}"] = ["1"]
    assert not reasoning.rightness(attempt, lines, sent, never)[missing[0].number]


def test_lines_that_both_cases_of_a_proof_have_are_told_apart(asked):
    attempt, lines = asked(Reasons.FILL)
    both = [line | {"case": case} for case in ("If C is above", "If C is below") for line in lines[:2]]
    both = [line | {"n": number, "because": []} for number, line in enumerate(both, 1)]
    rows = reasoning.exercise(attempt, both)
    missing = [row.number for row in rows if row.words is None]
    assert len(missing) == 2 and len(set(rows[missing[0] - 1].choices.values())) == 2
    sent = {f"line-{number}": [str(other)] for number, other in zip(missing, missing[::-1], strict=True)}
    assert not any(reasoning.rightness(attempt, both, sent, never).values())


def test_nothing_is_asked_where_there_is_nothing_to_prove(asked):
    attempt, lines = asked(Reasons.NONE)
    assert attempt.reasoned is None and attempt.score == 100
    attempt.work.assignment.reasons = Reasons.ORDER
    reasoning.begin(attempt, lines[:1])
    assert attempt.reasoned is None


def test_nothing_is_asked_where_every_line_is_made_so(asked):
    attempt, lines = asked(Reasons.CHOOSE)
    assert reasoning.is_asked(attempt, lines)
    assert not reasoning.is_asked(attempt, [line | {"rule": "by construction"} for line in lines])


@pytest.mark.parametrize("kind", [Reasons.ORDER, Reasons.CHOOSE, Reasons.FILL])
def test_every_reason_that_is_shown_or_offered_has_its_card(asked, kind):
    attempt, lines = asked(kind)
    for row in reasoning.exercise(attempt, lines):
        offered = list(row.choices) if kind is Reasons.CHOOSE else [lines[row.number - 1]["rule"]]
        assert list(row.cards) == offered and all(map(card_at, row.cards.values()))
