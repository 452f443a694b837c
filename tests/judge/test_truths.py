"""What stays true: found, proven, not trivial, and at most a dozen."""

import pytest

from tests import zoo
from tests.judge.test_judging import AB, ALL, DEMO, TASKS_BY_NAME, task, verdict
from widepin.judge.board import Board
from widepin.judge.task import Condition
from widepin.judge.truths import MOST, is_proven
from widepin.school.shelf.notation import rel

TRIANGLE = "A free_point at=1,1\nB free_point at=7,2\nC free_point at=3,6"


def truths(given, made, wanted="point X"):
    """Truths of a work on these given objects, whatever is asked for."""
    one = task(
        given,
        [wanted],
        [rel("distinct", "X", "A")] if wanted == "point X" else [rel("parallel", "X", "X")],
        tools=[*ALL, "parallel", "perpendicular_bisector", "circle_through"],
    )
    found = verdict(one, made, {"X": made.split("\n")[-1].split()[0]})
    return {(truth.rel, *("".join(term) for term in truth.of)) for truth in found.report.truths}


def test_the_rhombus_behind_a_perpendicular_bisector():
    made = "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E\ns segment A B\nX intersection m s"
    found = truths(AB, made)
    assert ("equal_length", "AB", "AD", "BD", "AE", "BE") in found
    assert ("perpendicular", "m", "s") in found
    assert ("equal_length", "AX", "BX") not in found, "no way between them is drawn"


def test_points_on_a_circle_that_is_not_drawn():
    """The feet of two altitudes and the ends of the side lie on one circle (Thales)."""
    made = "a line B C\nb line A C\np perpendicular a A\nq perpendicular b B\nP intersection p a\nX intersection q b"
    assert ("concyclic", "A", "B", "P", "X") in truths(TRIANGLE, made)


def test_a_point_that_lies_on_a_line_by_a_theorem():
    """The third altitude passes through the crossing of the two others."""
    made = "a line B C\nb line A C\nc line A B\np perpendicular a A\nq perpendicular b B\nr perpendicular c C\nX intersection p q"
    assert ("on", "X", "r") in truths(TRIANGLE, made)


def test_the_midline_is_parallel_to_the_side():
    made = "M midpoint A B\nN midpoint A C\na line B C\nm line M N\nX midpoint M N"
    assert ("parallel", "a", "m") in truths(TRIANGLE, made)


@pytest.mark.parametrize(
    "made",
    [
        "l line A B\np perpendicular l A\nX point_on p at=2,9",
        "l line A B\nH free_point at=2,5\nm parallel l H\nX point_on m at=9,5",
        "l perpendicular_bisector A B\nX point_on l at=3,3",
        "c circle A B\nP point_on c at=1,9\nX point_on c at=2,9",
        "l line A B\nX midpoint A B",
    ],
)
def test_what_a_single_step_says_is_left_out(made):
    assert truths(AB, made) == set()


def test_what_is_true_only_as_drawn_is_not_told():
    made = "P free_point at=2,7\nQ free_point at=8,8\nl line A B\nm line P Q\nX intersection l m"
    assert truths("A free_point at=1,1\nB free_point at=7,2", made) == set()


def test_balls_tell_a_near_miss_from_an_equality():
    """Forty nested midpoints come within 1e-12 of a third of the way; doubles cannot tell the last third from the first."""
    lines, low, high = ["l line A B"], "A", "B"
    for n in range(20):
        lines += [f"M{n} midpoint {low} {high}", f"N{n} midpoint {low} M{n}"]
        low, high = f"N{n}", f"M{n}"
    lines += [f"c circle {high} A", "T intersection l c other_than=A"]
    board = Board(task(AB, ["point X"], [rel("distinct", "X", "A")]), zoo.steps("\n".join(lines)))
    assert not is_proven(board, Condition("equal_length", (("A", high), ("T", "B"))))
    assert is_proven(board, Condition("equal_length", (("A", high), (high, "T"))))


@pytest.mark.parametrize(("title", "expected", "made"), DEMO, ids=[f"{t}-{e}-{len(m)}" for t, e, m in DEMO])
def test_at_most_a_dozen_and_all_about_what_is_there(title, expected, made):
    found = verdict(TASKS_BY_NAME[title], made)
    if found.report:
        known = {step.id for step in (*TASKS_BY_NAME[title].done, *zoo.steps(made))}
        assert len(found.report.truths) <= MOST
        assert all(truth.names <= known for truth in found.report.truths)
