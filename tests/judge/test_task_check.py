"""Trying a task before students do."""

from dataclasses import replace

import pytest

from tests.amount import chosen
from widepin.documents.formats.task import read_task
from widepin.documents.wording.rule_words import worded
from widepin.judge.suggesting import the_same
from widepin.judge.task import Allowance, Condition
from widepin.judge.task_check import check_task, mutants
from widepin.judge.verdict import Outcome
from widepin.school.tasks.library import LIBRARY


def task(key):
    return read_task(LIBRARY[key].document())


@pytest.mark.parametrize("key", LIBRARY)
def test_the_tasks_of_the_library_pass_their_check(key):
    tried = check_task(task(key))
    assert tried.is_solved and not tried.stands_empty and tried.refusal is None
    assert not tried.stopped or len(task(key).model) > 14  # where it takes too long, that is said
    assert not any(mutant.by_eye for mutant in tried.passing)


def test_the_other_side_is_shown_as_passing_too():
    (mutant, *_) = check_task(task("equilateral-triangle")).passing
    assert mutant.changed == "C" and not mutant.by_eye


MIRRORED = {
    "sixty-degrees": ["equal_length"],
    "equilateral-triangle": ["equal_length"],
    "thirty-degrees": [],
    "perpendicular-at-an-end": ["on", "perpendicular"],
    "isosceles-right": ["equal_length", "perpendicular"],
    "tangent-from-a-point": ["on", "tangent"],
    "square-on-a-side": ["equal_length", "equal_length"],
    "hexagon-on-a-side": ["midpoint", "midpoint", "midpoint", "equal_length"],
    "geometric-mean": ["perpendicular", "perpendicular"],
    "pentagon-on-a-side": ["equal_length", "equal_length"],
}
"""Models whose answer has a mirror image, with what could be asked for so that both count."""


@pytest.mark.parametrize("key", sorted({*MIRRORED, *chosen(LIBRARY, 16)}))
def test_asking_for_the_models_objects_shuts_the_other_side_out(key):
    own = task(key)
    strict = replace(own, conditions=tuple(the_same(one) for one in own.wanted))
    tried = check_task(strict)
    assert bool(tried.rejected) == (key in MIRRORED)
    assert [one.rel for one in tried.looser] == MIRRORED.get(key, [])
    if tried.looser:
        assert check_task(replace(own, conditions=tried.looser)).rejected == ()


@pytest.mark.parametrize("key", MIRRORED)
def test_tasks_of_the_library_take_both_sides(key):
    assert check_task(task(key)).rejected == ()


def test_conditions_that_leave_too_much_open_are_shown():
    loose = replace(task("midpoint"), conditions=(Condition("on", ("M", "model:m")),))
    assert {"D", "E", "m"} <= {mutant.changed for mutant in check_task(loose).passing}


def test_a_model_that_contradicts_the_conditions_does_not_solve_the_task():
    wrong = replace(task("midpoint"), conditions=(Condition("distinct", ("M", "A")), Condition("on", ("M", "model:c"))))
    tried = check_task(wrong)
    assert not tried.is_solved and tried.model.outcome is Outcome.WRONG and tried.passing == ()


def test_tools_that_do_not_reach_are_said():
    poor = replace(task("midpoint"), tools=(Allowance("line"),))
    tried = check_task(poor)
    assert tried.is_solved and tried.refusal is not None and "circle" in worded(tried.refusal.broken)


def test_an_answer_that_is_given_already_is_noticed():
    base = task("midpoint")
    given = replace(base, conditions=(Condition("on", ("M", "s")),), wanted=(replace(base.wanted[0], given=True),))
    assert check_task(given).stands_empty


def test_mutants_change_one_step_each():
    base = task("perpendicular-bisector")
    for mutant in mutants(base):
        (changed,) = [one for one, before in zip(mutant.steps, base.model, strict=True) if one != before]
        assert changed.id == mutant.changed


def test_the_tries_of_a_long_model_are_bounded_and_that_is_said():
    own = task("incircle")
    assert not check_task(own).stopped
    few = check_task(own, most_effort=3 * len(own.model))
    assert few.stopped and few.is_solved and len(few.passing) <= len(check_task(own).passing)
