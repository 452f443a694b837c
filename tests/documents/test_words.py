"""Tasks and verdicts in plain English."""

import pytest

from tests.judge.test_judging import TASKS_BY_NAME, verdict
from widepin.documents.wording.verdict_words import results_of, verdict_in_words
from widepin.documents.wording.words import Words, listed, tool_in_words
from widepin.judge.task import Allowance
from widepin.judge.verdict import Outcome
from widepin.school.demo.tasks import TASKS


@pytest.mark.parametrize(
    ("title", "clause"),
    [
        ("Centre line of a sill", "m is the perpendicular bisector of AB"),
        ("Crown of a pointed arch", "AB, BC and CA are equally long"),
        ("Splitting a gable", "m is the bisector of angle BAC"),
        ("Plumb from a boss", "P lies on p"),
        ("Six-petal rose", "A, B, C, D, E and F are different points"),
        ("Roundel in a gable", "k touches a, b and c"),
        ("Six-petal rose", "B, C, D, E and F lie on k"),
        ("Three lights over a sill", "AP : AB = 1 : 3"),
    ],
)
def test_a_condition_is_a_plain_clause(title, clause):
    assert clause in Words(TASKS_BY_NAME[title]).conditions()


@pytest.mark.parametrize("task", TASKS_BY_NAME.values(), ids=TASKS_BY_NAME)
def test_no_clause_shows_the_format(task):
    for clause in Words(task).conditions():
        assert "model:" not in clause and "_" not in clause and "(" not in clause


def test_tools_say_how_often():
    assert tool_in_words(Allowance("circle_radius")) == "circle by radius"
    assert tool_in_words(Allowance("circle_radius", None, ("R", "S"))) == "circle with radius RS only"
    assert tool_in_words(Allowance("perpendicular", 2)) == "perpendicular (twice at most)"


def test_a_line_is_called_by_its_points_where_it_has_two():
    words = Words(TASKS_BY_NAME["Roundel in a gable"])
    lines = {step.id: step for step in words.task.given if step.make in ("line", "segment", "ray")}
    assert lines and {words.line(name) for name in lines} == {"".join(step.sources) for step in lines.values()}
    assert words.line("no_such") == "no_such"


def test_a_list_ends_with_and():
    assert listed(["a"]) == "a" and listed(["a", "b", "c"]) == "a, b and c"


@pytest.mark.parametrize("one", TASKS, ids=[one.title for one in TASKS])
def test_every_verdict_has_one_sentence_that_says_why(one):
    for expected, made in one.solutions:
        sentence = verdict_in_words(verdict(TASKS_BY_NAME[one.title], made))
        assert sentence.endswith(".") and expected not in ("sound",) or "stays right" in sentence


def test_results_never_speak_by_colour_alone():
    for outcome in Outcome:
        for word, state, meaning in results_of(outcome, 5, 4):
            assert word and meaning and state in ("good", "half", "bad", "plain")
    assert results_of(Outcome.WRONG, 1, 4)[2][1] == "plain"
    assert results_of(Outcome.SOUND, 5, 4)[2][1] == "half" and results_of(Outcome.SOUND, 4, 4)[2][1] == "good"


def test_a_refused_work_has_no_result_for_or_against_it():
    assert [state for _, state, _ in results_of(Outcome.REFUSED, 3, 4)] == ["plain", "plain"]
