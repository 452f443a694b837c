"""Conditions that are suggested from a sample solution."""

from dataclasses import replace

import pytest

from tests.amount import chosen
from widepin.documents.formats.task import read_task
from widepin.documents.wording.words import Words
from widepin.judge.suggesting import strict_task, suggestions
from widepin.judge.task import TOOLS, Allowance, Condition, Work
from widepin.judge.task_check import judge_model
from widepin.judge.trials.examination import Examination
from widepin.judge.verdict import Outcome
from widepin.school.tasks.library import LIBRARY


def of_library(key):
    task = read_task(LIBRARY[key].document())
    wanted = [one.name for one in task.wanted]
    return strict_task(task.given, task.model, wanted), suggestions(task.given, task.model, wanted)


@pytest.mark.parametrize(
    ("key", "first"),
    [
        ("equilateral-triangle", ["CA, CB and AB are equally long"]),
        ("circumcircle", ["A, B and C lie on k"]),
        ("incircle", ["k touches c, a and b"]),
        ("midpoint", ["M is the midpoint of AB"]),
        ("foot-of-an-altitude", ["F lies on AB", "FC is perpendicular to c"]),
        ("third-of-a-segment", ["P lies on s", "AP : PB = 1 : 2"]),
        ("parallel-through-a-point", ["P lies on n", "n is parallel to g"]),
    ],
)
def test_what_holds_the_answer_fast_comes_first_in_the_words_of_a_student(key, first):
    task, found = of_library(key)
    assert found[0].pins and Words(replace(task, conditions=found[0].conditions)).conditions() == first


@pytest.mark.parametrize("key", chosen(LIBRARY, 12))
def test_what_is_suggested_is_true_of_the_sample_solution_everywhere(key):
    task, found = of_library(key)
    assert found[-1].conditions == task.conditions
    for one in found:
        assert judge_model(replace(task, conditions=one.conditions)).outcome is Outcome.SOUND
        if one is not found[-1]:
            assert not any("model:" in name for condition in one.conditions for name in condition.names)


def test_what_is_open_by_itself_is_said_to_be():
    _, found = of_library("third-of-a-segment")
    pins = {one.conditions[0].rel: one.pins for one in found if len(one.conditions) == 1}
    assert pins == {"on": False, "ratio": False, "same": True}


def test_what_does_not_pin_lets_a_sliding_answer_pass():
    """A point that slides on s is right for what leaves something open, and wrong for what does not."""
    task, found = of_library("midpoint")
    by_words = {Words(replace(task, conditions=one.conditions)).conditions()[0]: one for one in found}
    sliding = Work(tuple(Examination(task, ()).steps) + _sliding("M", "s"))
    for words, passes in (("M lies on s", True), ("M is the midpoint of AB", False)):
        loose = replace(task, conditions=by_words[words].conditions, tools=tuple(map(Allowance, TOOLS)))
        from widepin.judge.judging import judge

        assert (judge(loose, sliding).outcome is Outcome.SOUND) == passes == (not by_words[words].pins)


def _sliding(name, curve):
    from widepin.plane.steps import Step

    return (Step(name, "point_on", (curve,), (1, 1)),)


@pytest.mark.parametrize(
    ("condition", "tells"),
    [
        (Condition("on", ("M", "model:m")), False),
        (Condition("same", ("M", "model:M")), False),
        (Condition("on", ("M", "model:e")), False),
        (Condition("equal_length", (("M", "model:D"), ("A", "model:D"))), True),
    ],
)
def test_a_teacher_is_told_where_words_tell_how_it_is_done(condition, tells):
    task = read_task(LIBRARY["midpoint"].document())
    names = {f"model:{step.id}" for step in task.model}
    if condition.names - {"M", "A"} <= names:
        assert Words(replace(task, conditions=(condition,))).tells_how(condition) == tells
