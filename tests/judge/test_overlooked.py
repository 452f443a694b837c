"""What a student has overlooked, and the plain condition that a helper must fulfil: found, and said first."""

import pytest

from tests.judge.test_judging import AB, ALL, TASKS_BY_NAME, task, verdict
from widepin.documents.formats.verdict import read_verdict, write_verdict
from widepin.documents.wording.explaining import explained
from widepin.judge.trials import search
from widepin.school.tasks.library.notation import rel
from widepin.school.tasks.scoring import score_for

CROWN = TASKS_BY_NAME["Crown of a pointed arch"]
SILL = TASKS_BY_NAME["Centre line of a sill"]
MIDDLE = task(AB, ["point P"], [rel("midpoint", "P", "A", "B")], tools=[*ALL, "perpendicular_bisector"])


def first_words(of, made, answer=None, level="break"):
    found = verdict(of, made, answer)
    assert write_verdict(read_verdict(write_verdict(found))) == write_verdict(found)
    return explained(found, of, level)[0]


def test_a_right_object_beside_the_one_pointed_out_is_the_first_thing_said():
    made = "M midpoint A B\nE free_point at=2,5"
    assert first_words(MIDDLE, made, {"P": "E"}) == "E as P was chosen; M would be right."
    assert first_words(MIDDLE, made, {"P": "E"}, "conditions").startswith("E as P was chosen; another object")
    assert first_words(MIDDLE, made, {"P": "M"}) == "It is right, and it stays right wherever the figure is dragged."


def test_so_it_is_where_what_was_pointed_out_only_looks_right():
    made = "M midpoint A B\nE free_point at=4.001,1.5"
    assert first_words(MIDDLE, made, {"P": "E"}) == "E as P was chosen; M would be right."


def test_an_intersection_that_is_not_marked_is_to_be_marked_first():
    made = "c circle A B\nd circle B A\nE free_point at=9,9"
    assert first_words(CROWN, made).startswith("Mark the intersection of c and d: that would be right.")
    assert "not marked" in first_words(CROWN, made, level="conditions")
    found = verdict(CROWN, made)
    (step,) = found.report.unmarked
    assert verdict(CROWN, f"{made}\nC intersection c d pick={step.pick}").outcome == "sound"


def test_nothing_is_proposed_where_no_intersection_is_right():
    assert verdict(CROWN, "c circle A B\nl line A B").report.unmarked == ()


@pytest.mark.parametrize(
    ("helper", "said"),
    [
        ("H point_on s at=7,2.67", "as long as H is farther from A than half of AB."),
        ("l line A B\nH point_on l at=9,4", "as long as H is farther from A than half of AB."),
    ],
)
def test_a_work_that_is_fragile_only_by_a_helper_says_kindly_what_the_helper_must_be_like(helper, said):
    made = f"{helper}\nc circle A H\nd circle_radius B A H\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E"
    found = verdict(SILL, made)
    assert found.outcome == "fragile" and found.breaks.by == "own"
    assert said in explained(found, SILL)[0] and "The method is right" in explained(found, SILL)[0]
    assert score_for(found, None, {}) == 100


def test_the_distance_of_two_helpers_may_be_what_counts():
    made = (
        "l line A B\nH point_on l at=0,3\nK point_on l at=8,3\nc circle_radius A H K\nd circle_radius B H K\n"
        "D intersection c d pick=1\nE intersection c d pick=2\nm line D E"
    )
    found = verdict(SILL, made)
    assert found.outcome == "fragile" and [one.rel for one in found.report.provisos] == ["longer_than_half"]
    assert explained(found, SILL)[0].startswith("It is right as long as HK is longer than half of AB.")


def test_a_free_helper_gets_the_same_mark_and_proviso_as_one_that_slides():
    made = "H free_point at=6,5\nc circle A H\nd circle_radius B A H\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E"
    found = verdict(SILL, made)
    assert found.breaks.by == "given"
    assert "as long as H is farther from A than half of AB." in explained(found, SILL)[0]
    assert score_for(found, None, {}) == 100


def test_a_search_that_stopped_is_said_whatever_the_outcome(monkeypatch):
    monkeypatch.setattr(search, "MAX_LOOKS", 3)
    clutter = "\n".join(f"Q{n} free_point at={n},9" for n in range(9))
    found = verdict(MIDDLE, clutter)
    assert found.stopped and "Point it out on the board" in explained(found, MIDDLE)[0]


def test_a_point_by_eye_is_mended_by_curves_that_were_drawn_later():
    early = "C free_point at=4.482,7.494\nc circle A B\nd circle B A"
    late = "c circle A B\nd circle B A\nC free_point at=4.482,7.494"
    mends = [verdict(CROWN, made).report.mends for made in (early, late)]
    assert mends[0] == mends[1] and mends[0][0].steps[0].sources == ("c", "d")
