"""Which of the objects another choice of intersection may help."""

import numpy as np
import pytest

from tests.judge.test_judging import ALL, task
from tests.zoo import steps
from widepin.judge.trials.examination import Examination
from widepin.judge.trials.method import combinations_of_intersections, picked_intersection, that_may_help
from widepin.judge.trials.trial import try_answer
from widepin.school.tasks.library.notation import rel

CHORD = "A free_point at=0,0\nB free_point at=4,0\nC free_point at=9,0\nD free_point at=-9,0"


def examined(made):
    asked = task(CHORD, ["point X"], [rel("distinct", "X", "A")], tools=ALL)
    found = Examination(asked, steps(made))
    return found, found.figure.index["X"]


@pytest.mark.parametrize(
    ("made", "may_help"),
    [
        # The segment from A to C leaves the circle about A at B; the other end of that chord lies beyond A.
        ("k circle A B\ns segment A C\nX intersection s k pick=1", True),
        ("k circle A B\ns segment A C\nX intersection s k pick=2", True),
        ("k circle A B\ns segment A D\nX intersection s k pick=1", True),
        ("k circle A B\nM midpoint A B\ns segment A M\nX intersection s k pick=1", False),  # it ends inside
    ],
)
def test_an_intersection_that_is_gone_is_chosen_anew_only_where_its_curves_meet(made, may_help):
    found, number = examined(made)
    positions = found.drawn[:, None]
    ((*helping,),) = that_may_help(found, {"X": number}, positions, [number])
    is_there = bool(np.isfinite(found.shapes[number].x))
    assert (number in helping) == (may_help or is_there)


def test_both_choices_are_tried_at_every_intersection():
    found, number = examined("k circle A C\nl line B C\nX intersection l k pick=1")
    trial = try_answer(found, {"X": number})
    choices = combinations_of_intersections(found, trial)
    tried = [choice[number] for choice in choices]
    assert tried == [picked_intersection(found, number, pick) for pick in (1, 2)]
    assert tried[0] != tried[1]
