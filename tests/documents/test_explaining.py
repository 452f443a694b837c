"""Verdicts explained at three levels of help."""

import pytest

from tests.judge.test_judging import DEMO, TASKS_BY_NAME, verdict
from widepin.documents.explaining import HELP, explained


@pytest.mark.parametrize(("title", "expected", "made"), DEMO, ids=[f"{t}-{e}-{len(m)}" for t, e, m in DEMO])
def test_every_level_speaks_plain_sentences(title, expected, made):
    task = TASKS_BY_NAME[title]
    found = verdict(task, made)
    said = {level: explained(found, task, level) for level in HELP}
    assert said["break"] and all(line.endswith(".") and "_" not in line for lines in said.values() for line in lines)
    assert bool(said["seals"]) == (expected == "refused")


def test_a_jumping_crossing_is_mended_in_words():
    task = TASKS_BY_NAME["Splitting a gable"]
    made = next(made for title, expected, made in DEMO if (title, expected) == ("Splitting a gable", "switching"))
    said = explained(verdict(task, made), task)
    assert "Make F the crossing of d and e farther from A, and it holds everywhere." in said
    assert any("no longer true that m is the bisector of angle BAC" in line for line in said)


def test_a_point_by_eye_is_told_what_it_should_have_been():
    task = TASKS_BY_NAME["Crown of a pointed arch"]
    said = explained(verdict(task, "c circle A B\nd circle B A\nC free_point at=4.482,7.494"), task)
    assert "Make C the crossing of c and d, and it holds everywhere." in said


def test_shapes_are_told_where_they_differ():
    task = TASKS_BY_NAME["Roundel in a gable"]
    made = next(made for title, expected, made in DEMO if (title, expected) == ("Roundel in a gable", "fragile"))
    (line,) = [line for line in explained(verdict(task, made), task) if line.startswith("By shape")]
    assert "holds when" in line and "vanishes when" in line
