"""The benchmark measures what it says; times themselves are never tested."""

import numpy as np
import pytest

from widepin.benchmark import eyeballed, floor_of, fragile, hostile, sound, walk
from widepin.judge.judging import judge
from widepin.judge.trials.examination import Examination
from widepin.plane.steps import MAX_STEPS


@pytest.mark.parametrize("count", [5, 40])
@pytest.mark.parametrize(("name", "make"), [("sound", sound), ("fragile", fragile), ("eyeballed", eyeballed)])
def test_works_have_the_steps_and_the_outcome_that_they_are_named_for(name, make, count):
    task, work, _ = make(count)
    assert len(work.steps) == count
    assert judge(task, work).outcome == name


def test_the_floor_computes_the_same_geometry():
    task, work, rounds = sound(40)
    examined = Examination(task, work.steps)
    (ax, ay), (bx, by) = examined.batch.positions[0:2], examined.batch.positions[2:4]
    assert np.abs(walk(ax, ay, bx, by, rounds, np.sqrt)).max() < 1e-9
    floor_of(task, work, rounds)()


def test_the_hostile_work_is_as_large_as_a_work_may_be():
    task, work = hostile()
    assert len(work.steps) == MAX_STEPS
    verdict = judge(task, work)
    assert verdict.outcome == "eyeballed" and verdict.stopped
