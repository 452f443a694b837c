"""The simplest position in which a work fails: it really fails there, and nothing simpler was at hand."""

import numpy as np
import pytest

from tests.judge.test_judging import DEMO, TASKS_BY_NAME, verdict
from widepin.documents.formats.construction import read_steps
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.judge.trials.examination import Examination
from widepin.judge.trials.findings import Ruling
from widepin.school.tasks.library.notation import steps as from_lines

FAILING = [row for row in DEMO if row[1] in ("fragile", "switching", "eyeballed")]


@pytest.fixture(params=FAILING, ids=[f"{title}-{expected}" for title, expected, _ in FAILING])
def failing(request):
    title, _, made = request.param
    task, steps = TASKS_BY_NAME[title], read_steps(from_lines(made))
    found = judge(task, Work(steps))
    return Examination(task, steps), found


def test_it_fails_in_the_break_as_balls_see_it(failing):
    examined, found = failing
    answer = {name: examined.figure.index[id_] for name, id_ in found.answer.items()}
    ruling, _ = examined.certify(found.breaks.position, answer)
    assert ruling is (Ruling.UNDEFINED if found.breaks.happens == "undefined" else Ruling.WRONG)


def test_only_the_named_points_are_dragged(failing):
    examined, found = failing
    named = {drag.id for drag in found.breaks.drags}
    assert 1 <= len(named) <= 2
    for handle in examined.handles:
        same = np.array_equal(np.array(found.breaks.position)[handle.inputs], examined.drawn[handle.inputs])
        assert same == (examined.figure.nodes[handle.number].step.id not in named)


def test_drags_start_where_the_points_are_drawn(failing):
    examined, found = failing
    for drag in found.breaks.drags:
        shape = examined.shapes[examined.figure.index[drag.id]]
        assert drag.start == pytest.approx((shape.x, shape.y))
        assert drag.by == ("given" if examined.figure.index[drag.id] < examined.given else "own")


def test_what_is_named_is_gone_or_part_of_the_answer(failing):
    examined, found = failing
    number = examined.figure.index[found.breaks.object]
    if found.breaks.happens == "undefined":
        shapes = examined.figure.evaluate_batch(np.array(found.breaks.position)[:, None])
        assert np.isnan(sum(float(np.ravel(x)[0]) for x in shapes[number]))
    else:
        assert found.breaks.object in found.answer.values()


def test_sound_approximate_and_wrong_works_have_no_break():
    for title, expected, made in DEMO:
        if expected in ("sound", "approximate", "wrong", "refused"):
            assert verdict(TASKS_BY_NAME[title], made).breaks is None
