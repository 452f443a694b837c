"""What a verdict says beyond its outcome, each claim checked."""

from dataclasses import replace

import pytest

from tests.judge.test_cases import CASES
from tests.judge.test_judging import AB, DEMO, MIDDLE, TASKS_BY_NAME, task, verdict
from widepin.documents.bundle import read_bundle
from widepin.documents.construction import read_steps
from widepin.documents.verdict import judge_document
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.school.demo_tasks import rel
from widepin.school.demo_tasks import steps as from_lines


def test_altitudes_as_segments_hold_in_acute_triangles_and_vanish_in_obtuse_ones():
    bundle = read_bundle(next(path for path in CASES if path.stem == "orthocentre"))
    shapes = judge_document(bundle.task, bundle.works[1][1]).report.shapes
    assert (shapes["acute"], shapes["obtuse"], shapes["wide"]) == ("holds", "vanishes", "vanishes")
    assert set(judge_document(bundle.task, bundle.works[0][1]).report.shapes.values()) == {"holds"}


@pytest.mark.parametrize(("title", "expected", "made"), DEMO, ids=[f"{t}-{e}-{len(m)}" for t, e, m in DEMO])
def test_every_mend_really_makes_the_work_sound(title, expected, made):
    one, steps = TASKS_BY_NAME[title], read_steps(from_lines(made))
    found = judge(one, Work(steps))
    for mend in found.report.mends if found.report else ():
        mended = tuple(mend.instead if step.id == mend.step else step for step in steps)
        assert judge(one, Work(mended, found.answer)).outcome == "sound"
    if expected == "switching":
        assert found.report.mends


def test_points_by_eye_are_those_that_the_answer_hangs_on():
    made = "c circle A B\nd circle B A\nD free_point at=4.14,8.69\nE intersection c d pick=2\nH free_point at=1,9\nm line D E"
    assert verdict(TASKS_BY_NAME["Centre line of a sill"], made).report.by_eye == ("D",)


def test_what_was_there_already_is_said_to_be_repeated():
    made = (
        "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E\n"
        "c2 circle_radius A A B\nF intersection d c pick=1\nm2 line E D\ns2 segment B A\ns3 segment A D\nl line A B"
    )
    report = verdict(TASKS_BY_NAME["Centre line of a sill"], made).report
    assert report.repeated == {"c2": "c", "F": "E", "m2": "m", "s2": "s"}


def test_what_is_equal_only_as_drawn_is_not_repeated():
    made = "M midpoint A B\nN free_point at=4,1.5\nK point_on l at=4,1.5"
    assert verdict(MIDDLE, "l line A B\n" + made).report.repeated == {}


def test_a_condition_has_its_gap_in_centimetres():
    ten = task("A free_point at=0,0\nB free_point at=10,0", ["point P"], [rel("midpoint", "P", "A", "B")])
    found = verdict(ten, "P free_point at=5.02,0")
    (one,) = found.report.conditions
    assert one.holds_as_drawn and one.gap_as_drawn == pytest.approx(0.02)
    assert one.holds_at_break is False and one.gap_at_break > 0.012 * 5


def test_a_sound_work_has_nothing_to_mend():
    report = verdict(MIDDLE, "M midpoint A B").report
    assert (report.mends, report.by_eye, report.repeated) == ((), (), {})
    assert replace(report, conditions=()).shapes == {}


def test_the_middle_of_ab_needs_three_points_for_named_shapes():
    assert (
        "acute" not in verdict(task(AB, ["point P"], [rel("midpoint", "P", "A", "B")]), "M midpoint A B").report.shapes
    )
