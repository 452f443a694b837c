"""What of a task does not fit together, each kind by itself; tasks of the library have none."""

from dataclasses import replace

import pytest

from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.task import read_task
from widepin.documents.wording.misfit_words import at_steps, misfit_in_words
from widepin.judge.misfits import Misfit, MisfitKind
from widepin.judge.task import Allowance, Condition, Wanted
from widepin.judge.task_check import check_task
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.library.notation import steps


def task(key):
    return read_task(LIBRARY[key].document())


def misfits(task, *wrong):
    return check_task(task, 0, wrong).misfits


@pytest.mark.parametrize(
    "key", ["midpoint", "sixty-degrees", "kite", "outer-tangents", "nine-point-circle", "fermat-point"]
)
def test_tasks_of_the_library_fit_together(key):
    assert misfits(task(key)) == ()


def test_tools_that_cannot_make_the_sample_solution():
    (found,) = misfits(replace(task("midpoint"), tools=(Allowance("line"),)))
    assert found.kind is MisfitKind.TOOLS and at_steps((found,)) == {"tools": "do not suffice"}


def test_a_limit_that_the_sample_solution_does_not_keep():
    own = task("midpoint")
    assert misfits(replace(own, budget=2)) == (Misfit(MisfitKind.LIMIT, moves=3),)
    assert misfits(replace(own, budget=3)) == () and misfits(replace(own, budget=None)) == ()


@pytest.mark.parametrize(
    "idle",
    [
        Condition("equal_length", (("M", "A"), ("A", "M"))),
        Condition("on", ("A", "s")),
        Condition("distinct", ("A", "B")),
        Condition("collinear", ("M", "A", "A")),
    ],
    ids=["of any answer", "of given objects", "given points differ", "a point twice"],
)
def test_a_condition_that_any_answer_fulfils(idle):
    own = task("midpoint")
    conditions = (*own.conditions, idle)
    (found,) = misfits(replace(own, conditions=conditions))
    assert (found.kind, found.place) == (MisfitKind.ALWAYS_TRUE, len(own.conditions))
    assert misfit_in_words(replace(own, conditions=conditions), found).startswith("Whatever is drawn fulfils")


def test_conditions_that_leave_answers_out_are_meant():
    own = task("mirror-a-point")
    assert any(one.rel == "distinct" for one in own.conditions) and misfits(own) == ()


def test_a_condition_that_is_not_true_of_the_sample_solution():
    own = task("midpoint")
    false = Condition("same", ("M", "A"))
    (found,) = misfits(replace(own, conditions=(*own.conditions, false)))
    assert (found.kind, found.place) == (MisfitKind.NEVER_TRUE, len(own.conditions))


def test_an_answer_that_is_given():
    own = task("midpoint")
    model = (*own.model, *read_steps(steps("N intersection c s pick=2")))
    given = replace(own, model=model, wanted=(Wanted("N", "point"),), conditions=(Condition("on", ("N", "model:c")),))
    kinds = {one.kind for one in misfits(given)}
    assert MisfitKind.ANSWER_GIVEN in kinds
    (pair,) = (one.names for one in misfits(given) if one.kind is MisfitKind.ANSWER_GIVEN)
    assert pair == ("N", "B")


def test_a_wrong_solution_that_passes():
    own = task("midpoint")
    wrong = read_steps(steps("M free_point at=4,4"))
    assert misfits(own, wrong) == ()
    loose = replace(own, conditions=(Condition("distinct", ("M", "A")),))
    found = misfits(loose, wrong, own.model)
    assert [one.place for one in found if one.kind is MisfitKind.WRONG_PASSES] == [0, 1]
