"""A proof fails when an object is hidden on which it rests."""

from __future__ import annotations

import pytest

from tests.amount import THOROUGH, chosen
from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.task import read_task
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.judge.trials.examination import Examination
from widepin.plane.figure import is_defined
from widepin.reason.drawing import columns_where_all_is
from widepin.reason.proving import Attempt, prove
from widepin.school.demo.tasks import TASKS
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.library.notation import steps


def hidden_curves(task, made, answer):
    """Lines and circles of the work that its proof cites, each with what is proved where the engine does not know it.

    Points on it stay where they are; what is asked for is not hidden.
    """
    proof = prove(task, made, answer)
    examined = Examination(task, made)
    there = [n for n in range(examined.last) if is_defined(examined.shapes[n])]
    cited = {step for line in proof.lines for step in line.steps}
    given = {step.id for step in task.done}
    for name in sorted(cited - given - set(answer.values())):
        number = examined.figure.index[name]
        if name[0].islower():
            left = [n for n in there if n != number]
            yield name, Attempt(examined, left, columns_where_all_is(examined, left), answer).proof()


SHORT = [key for key, one in LIBRARY.items() if len(one.document()["model"]) <= 9]
"""Proofs of long sample solutions take most of the time, and hang on their objects no less."""


@pytest.mark.parametrize("key", LIBRARY if THOROUGH else chosen(SHORT, 12))
def test_a_sample_solution_is_not_proved_without_what_it_rests_on(key):
    task = read_task(LIBRARY[key].document())
    for name, proof in hidden_curves(task, task.model, {one.name: one.name for one in task.wanted}):
        assert proof.open, name


@pytest.mark.parametrize("demo", TASKS[:9] if THOROUGH else chosen(TASKS[:6], 3), ids=lambda task: task.title)
def test_a_students_way_is_not_proved_without_what_it_rests_on(demo):
    task = read_task(demo.document())
    for outcome, lines in demo.solutions:
        if outcome == "sound":
            work = Work(read_steps(steps(lines)))
            answer = judge(task, work, report=False).answer
            for name, proof in hidden_curves(task, work.steps, answer):
                assert proof.open, name
