"""What a verdict says beyond its outcome, each claim checked."""

from dataclasses import replace

import pytest

from tests.judge.test_cases import CASES
from tests.judge.test_judging import AB, ALL, DEMO, MIDDLE, TASKS_BY_NAME, task, verdict
from widepin.documents.formats.bundle import read_bundle
from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.verdict import judge_document
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.school.tasks.library.notation import rel
from widepin.school.tasks.library.notation import steps as from_lines


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
        instead = {step.id: step for step in mend.steps}
        mended = tuple(instead.get(step.id, step) for step in steps)
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


def test_two_intersections_that_jump_are_mended_together():
    """Two bisectors are wanted, and each hangs on an intersection that jumps."""
    one = task(
        "A free_point at=2,2\nB free_point at=9,2.5\nC free_point at=5.5,7.5\nq ray A C\np ray B C",
        ["ray m", "ray n"],
        [rel("same", "m", "model:m"), rel("same", "n", "model:n")],
        "m angle_bisector B A C\nn angle_bisector A B C",
        ALL,
    )
    made = (
        "c circle A B\nD intersection q c pick=2\nd circle B D\ne circle D B\nF intersection d e pick=2\nm ray A F\n"
        "f circle B A\nE intersection p f pick=2\ng circle A E\nh circle E A\nG intersection g h pick=1\nn ray B G"
    )
    found = verdict(one, made)
    assert found.outcome == "switching"
    (mend,) = found.report.mends
    assert [(step.id, step.choice, step.reference) for step in mend.steps] == [
        ("F", "farthest_from", "A"),
        ("G", "farthest_from", "B"),
    ]


def test_a_point_by_eye_is_told_what_it_lies_next_to():
    made = "c circle A B\nd circle B A\nD free_point at=4.14,8.69\nE free_point at=5.86,-1.7\nm line D E"
    report = verdict(TASKS_BY_NAME["Centre line of a sill"], made).report
    assert set(report.by_eye) == set(report.ties) == {"D", "E"}
    assert all(set(step.sources) == {"c", "d"} for step in report.ties.values())


def test_a_point_by_eye_near_one_curve_only_is_told_that_curve():
    made = "F free_point at=8.13,5.66\nc circle A F\nm ray A F"
    near = "p line A C\nu perpendicular_bisector B C\nF free_point at=8.13,5.66\nm ray A F"
    one = task(
        "A free_point at=2,2\nB free_point at=9,2.5\nC free_point at=5.5,7.5",
        ["ray m"],
        [rel("same", "m", "model:m")],
        "m angle_bisector B A C",
        [*ALL, "perpendicular_bisector"],
    )
    assert verdict(one, made).report.ties == {}
    ties = verdict(one, near).report.ties
    assert not ties or ties["F"].sources == ("u",)


def test_where_nothing_is_right_what_comes_closest_is_told_with_its_values():
    report = verdict(TASKS_BY_NAME["A course through a mark"], "n line P B\no line P A").report
    assert report.closest == {"n": "n"} or report.closest == {"n": "o"}
    parallel, on = report.conditions
    assert not parallel.holds_as_drawn and on.holds_as_drawn and parallel.measured[0].drawn > 5


def test_a_declared_answer_that_is_wrong_is_looked_at_itself():
    found = verdict(TASKS_BY_NAME["A course through a mark"], "n line P B\no line P A", {"n": "o"})
    assert found.outcome == "wrong" and found.report.closest == {"n": "o"}
