"""What stays true: found, proven, not trivial, and at most a dozen."""

import pytest

from tests import zoo
from tests.judge.test_judging import AB, ALL, DEMO, TASKS_BY_NAME, task, verdict
from widepin.judge.reports.truths import MOST
from widepin.judge.task import Condition
from widepin.judge.trials.certifying import Certifier
from widepin.judge.trials.examination import Examination
from widepin.school.tasks.library.notation import rel

TRIANGLE = "A free_point at=1,1\nB free_point at=7,2\nC free_point at=3,6"


def truths(given, made, wanted="point X"):
    """Truths of a work on these given objects, whatever is asked for."""
    one = task(
        given,
        [wanted],
        [rel("distinct", "X", "A")] if wanted == "point X" else [rel("parallel", "X", "X")],
        tools=[*ALL, "parallel", "perpendicular_bisector", "angle_bisector", "circle_through"],
    )
    found = verdict(one, made, {"X": made.split("\n")[-1].split()[0]})
    return {(truth.rel, *("".join(term) for term in truth.of)) for truth in found.report.truths}


def test_the_rhombus_behind_a_perpendicular_bisector():
    made = "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E\ns segment A B\nX intersection m s"
    found = truths(AB, made)
    assert ("equal_length", "AB", "AD", "BD", "AE", "BE") in found
    assert ("perpendicular", "m", "s") in found or ("perpendicular", "s", "m") in found
    assert ("equal_length", "AX", "BX") not in found, "no way between them is drawn"


def test_points_on_a_circle_that_is_not_drawn():
    """The feet of two altitudes and the ends of the side lie on one circle (Thales)."""
    made = "a line B C\nb line A C\np perpendicular a A\nq perpendicular b B\nP intersection p a\nX intersection q b"
    assert ("concyclic", "A", "B", "X", "P") in truths(TRIANGLE, made)


def test_a_point_that_lies_on_a_line_by_a_theorem():
    """The third altitude passes through the intersection of the two others."""
    made = "a line B C\nb line A C\nc line A B\np perpendicular a A\nq perpendicular b B\nr perpendicular c C\nX intersection p q"
    assert ("on", "X", "r") in truths(TRIANGLE, made)


def test_the_midline_is_parallel_to_the_side():
    made = "M midpoint A B\nN midpoint A C\na line B C\nm line M N\nX midpoint M N"
    assert ("parallel", "a", "m") in truths(TRIANGLE, made)


def test_the_base_angles_of_an_isosceles_triangle():
    """The apex is as far from A as from B; the angle there is another."""
    made = "m perpendicular_bisector A B\nT point_on m at=3,9\na line A T\nb line B T\nX line A B"
    angles = [one[1:] for one in truths(AB, made, "line X") if one[0] == "equal_angle"]
    assert [{frozenset(one) for one in group} for group in angles] == [{frozenset("ABT")}], angles
    assert {one[1] for one in angles[0]} == {"A", "B"}, "the vertices of the base"


@pytest.mark.parametrize(
    "made",
    [
        "l line A B\np perpendicular l A\nX point_on p at=2,9",
        "l line A B\nH free_point at=2,5\nm parallel l H\nX point_on m at=9,5",
        "l perpendicular_bisector A B\nX point_on l at=3,3",
        "c circle A B\nP point_on c at=1,9\nX point_on c at=2,9",
        "l line A B\nX midpoint A B",
        "H free_point at=2,5\nl line A B\nm line A H\nt angle_bisector B A H\nX point_on t at=3,4",
    ],
)
def test_what_a_single_step_says_is_left_out(made):
    assert truths(AB, made) == set()


def test_the_foot_of_an_altitude_is_not_said_to_lie_on_the_side():
    made = "s segment A B\nl line A B\nr perpendicular s C\nX intersection r l"
    found = truths(TRIANGLE, made)
    assert not any(rel_ == "on" and "s" in terms for rel_, *terms in found)
    assert not any("AB" in terms for _, *terms in found), "that X is on l, which is AB, was made so"


def test_a_point_that_stays_within_a_segment_is_told_to_lie_on_it():
    made = "s segment A B\nu angle_bisector A C B\nl line A B\nX intersection u l"
    found = truths(TRIANGLE, made)
    assert ("on", "X", "s") in found and ("on", "X", "AB") not in found


def test_what_holds_only_while_the_rest_of_the_figure_exists_is_not_told():
    """The foot of B lies on the side b in acute triangles only; D, E and the parallel through D exist there alone."""
    made = (
        "b segment A C\nq perpendicular b B\nE intersection q b\nc line A B\nr parallel c E\n"
        "h perpendicular r E\nX midpoint A B"
    )
    assert ("perpendicular", "c", "h") in truths(TRIANGLE, made)
    given = "A free_point at=7.7,1.69\nB free_point at=4.53,4.28\nC free_point at=6.35,7.85\ng line C A"
    jumping = (
        "p perpendicular g C\nk circle_through C B A\nD intersection k p pick=2\nh line D B\nr ray C D\nX midpoint A B"
    )
    assert not any(rel_ == "perpendicular" and "h" in terms for rel_, *terms in truths(given, jumping)), (
        "D may be C itself"
    )


def test_circles_that_touch_and_lengths_of_which_one_is_twice_the_other():
    touching = "M midpoint A B\nc circle A M\nd circle B M\nX midpoint A M"
    assert ("tangent", "c", "d") in truths(AB, touching)
    centroid = "D midpoint B C\nE midpoint A C\na segment A D\nb segment B E\nG intersection a b\ns segment A G\nt segment G D\nX midpoint A G"
    found = truths(TRIANGLE, centroid)
    assert ("ratio", "AG", "DG") in found


def test_inscribed_angles_over_one_chord():
    given = "O free_point at=4,4\nA free_point at=7,4\nk circle O A"
    made = (
        "B point_on k at=1,5\nm line O B\nC intersection m k other_than=B\nD point_on k at=4,9\n"
        "c segment A D\nd segment C D\ne segment A B\nf segment B C\ng segment A C\nX midpoint A C"
    )
    found = truths(given, made)
    assert any(rel_ == "perpendicular" for rel_, *_ in found), "Thales"


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
    examined = Examination(task(AB, ["point X"], [rel("distinct", "X", "A")]), zoo.steps("\n".join(lines)))
    certifier = Certifier(examined)
    assert not certifier.is_proven(Condition("equal_length", (("A", high), ("T", "B"))))
    assert certifier.is_proven(Condition("equal_length", (("A", high), (high, "T"))))


@pytest.mark.parametrize(("title", "expected", "made"), DEMO, ids=[f"{t}-{e}-{len(m)}" for t, e, m in DEMO])
def test_at_most_a_dozen_and_all_about_what_is_there(title, expected, made):
    found = verdict(TASKS_BY_NAME[title], made)
    if found.report:
        known = {step.id for step in (*TASKS_BY_NAME[title].done, *zoo.steps(made))}
        assert len(found.report.truths) <= MOST
        assert all(truth.names <= known for truth in found.report.truths)
