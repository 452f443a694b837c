"""The benchmark measures what it says; times themselves are never tested."""

import numpy as np
import pytest

from widepin.benchmark import Measured, eyeballed, floor_of, fragile, sound, walk
from widepin.judge.judging import judge
from widepin.judge.trial import Board


@pytest.mark.parametrize("count", [5, 40])
@pytest.mark.parametrize(("name", "make"), [("sound", sound), ("fragile", fragile), ("eyeballed", eyeballed)])
def test_works_have_the_steps_and_the_outcome_that_they_are_named_for(name, make, count):
    task, work, _ = make(count)
    assert len(work.steps) == count
    assert judge(task, work).outcome == name


def test_the_floor_computes_the_same_geometry():
    task, work, rounds = sound(40)
    board = Board(task, work.steps)
    (ax, ay), (bx, by) = board.batch.positions[0:2], board.batch.positions[2:4]
    assert np.abs(walk(ax, ay, bx, by, rounds, np.sqrt)).max() < 1e-9
    floor_of(board, rounds)()


def test_a_ratio_is_verdict_by_floor():
    assert Measured("sound", 5, "sound", 0.002, 0.01).ratio == pytest.approx(5)
