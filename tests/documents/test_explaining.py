"""Verdicts explained at three levels of help."""

import pytest

from tests.judge.test_judging import DEMO, TASKS_BY_NAME, verdict
from widepin.documents.formats.verdict import write_verdict
from widepin.documents.wording.explaining import (
    Feedback,
    explained,
    measured_in_words,
    mend_in_words,
    what_stays_true,
    what_was_asked,
)
from widepin.documents.wording.verdict_words import Only, only_by, only_in
from widepin.documents.wording.words import Words
from widepin.judge.task import Condition
from widepin.judge.verdict import Break, Drag, Failure, Measured, Outcome, Quantity, Report, Verdict, Whose


@pytest.mark.parametrize(("title", "expected", "made"), DEMO, ids=[f"{t}-{e}-{len(m)}" for t, e, m in DEMO])
def test_every_level_speaks_plain_sentences(title, expected, made):
    task = TASKS_BY_NAME[title]
    found = verdict(task, made)
    said = {level: explained(found, task, level) for level in Feedback}
    assert said[Feedback.BREAK] and all(
        line.endswith(".") and "_" not in line for lines in said.values() for line in lines
    )
    assert bool(said[Feedback.RESULT]) == (expected == "refused")


def test_a_jumping_intersection_is_mended_in_words():
    task = TASKS_BY_NAME["Splitting a gable"]
    made = next(made for title, expected, made in DEMO if (title, expected) == ("Splitting a gable", "switching"))
    found = verdict(task, made)
    assert list(map(mend_in_words, found.report.mends)) == [
        "Make F the intersection of d and e farther from A, and it holds everywhere."
    ]
    assert any("no longer true that m is the bisector of angle BAC" in line for line in explained(found, task))


def test_a_point_by_eye_is_told_what_it_should_have_been():
    task = TASKS_BY_NAME["Crown of a pointed arch"]
    found = verdict(task, "c circle A B\nd circle B A\nC free_point at=4.482,7.494")
    assert mend_in_words(found.report.mends[0]) == "Make C the intersection of c and d, and it holds everywhere."
    assert any(
        line.startswith("There it is no longer true that AB, BC and CA are equally long: AB is ")
        for line in explained(found, task)
    )


def test_values_that_differ_are_told_to_where_they_differ():
    words = Words(TASKS_BY_NAME["Crown of a pointed arch"])
    sides = (
        Measured(Quantity.LENGTH, (("A", "B"),), 6.0, 6.21384),
        Measured(Quantity.LENGTH, (("B", "C"),), 6.0, 6.21391),
    )
    assert measured_in_words(sides, words, at_break=True) == "AB is 6.2138 cm and BC 6.2139 cm"
    assert measured_in_words(sides, words) == "AB is 6.00 cm and BC 6.00 cm"
    angle = (Measured(Quantity.ANGLE, ("m", ("A", "B")), 89.5), Measured(Quantity.DISTANCE, ("P", "m"), 0.0))
    assert measured_in_words(angle, words) == "the angle between m and AB is 89.50°"


def test_an_approximation_says_what_it_misses_by():
    task = TASKS_BY_NAME["Three lights over a sill"]
    made = next(made for title, expected, made in DEMO if expected == "approximate")
    assert any(line.startswith("As drawn it misses by 0.0") for line in explained(verdict(task, made), task))


def test_what_stays_true_is_said_together():
    task = TASKS_BY_NAME["Three lights over a sill"]
    report = Report(
        truths=(Condition("on", ("P", "s")), Condition("on", ("Q", "s")), Condition("concyclic", ("A", "B", "P", "Q")))
    )
    assert what_stays_true(report, task) == ["P and Q lie on s", "A, B, P and Q lie on one circle"]


def test_every_condition_is_told_with_what_was_measured():
    task = TASKS_BY_NAME["A course through a mark"]
    made = next(made for title, expected, made in DEMO if (title, expected) == ("A course through a mark", "eyeballed"))
    parallel, on = what_was_asked(verdict(task, made).report, task)
    assert parallel.clause == "n is parallel to g" and parallel.holds_as_drawn and parallel.holds_at_break is False
    assert parallel.drawn == "" and parallel.at_break.startswith("the angle between n and g is ")
    assert on.clause == "P lies on n" and on.holds_at_break


def moved_by(whose):
    return Break((Drag("P", (0, 0), (1, 0), whose),), Failure.UNDEFINED, "m")


@pytest.mark.parametrize(
    ("verdict", "only"),
    [
        (Verdict(Outcome.SOUND, answer={"m": "m"}), None),
        (Verdict(Outcome.WRONG, stopped=True), Only.SEARCH),
        (Verdict(Outcome.WRONG, answer={"m": "m"}, stopped=True), None),
        (Verdict(Outcome.WRONG), None),
        (Verdict(Outcome.FRAGILE, breaks=moved_by(Whose.OWN)), Only.HELPER),
        (Verdict(Outcome.FRAGILE, breaks=moved_by(Whose.GIVEN)), None),
        (Verdict(Outcome.SWITCHING, method_holds=True), Only.CHOICE),
        (Verdict(Outcome.SWITCHING, method_holds=False), None),
    ],
)
def test_what_alone_a_work_fails_by_is_the_same_of_a_verdict_and_of_its_document(verdict, only):
    assert only_by(verdict) is only and only_in(write_verdict(verdict)) is only
