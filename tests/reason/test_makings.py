"""What each make gives to proofs, and conditions on several lines."""

import pytest

from tests.judge.test_judging import task
from widepin.documents.formats.construction import read_steps
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.reason.makings import MAKINGS
from widepin.reason.proving import prove
from widepin.school.tasks.library.notation import rel, steps

TRIANGLE = "A free_point at=0,0\nB free_point at=8,1\nC free_point at=3,6"
SIDES = f"{TRIANGLE}\nc segment A B\na segment B C\nb segment C A"
BISECTORS = f"{TRIANGLE}\nm perpendicular_bisector A B\nn perpendicular_bisector A C"
TOOLS = [make for make in MAKINGS if make != "intersection"]

PROVED = {
    "incentre, on two bisectors": (
        SIDES,
        "point I",
        [rel("equidistant", "I", "a", "b", "c"), rel("inside_angle", "I", ["B", "A", "C"])],
        "",
        "u angle_bisector B A C\nv angle_bisector A B C\nI intersection u v",
        {"I": "I"},
        "as far from each line",
    ),
    "as far from two lines, by the feet of perpendiculars": (
        "V free_point at=0,0\nA free_point at=6,0\nB free_point at=4,5\ng line V A\nh line V B\nw angle_bisector A V B\n"
        "W point_on w at=4,2",
        "point F",
        [rel("equidistant", "W", "g", "h"), rel("on", "F", "g")],
        "",
        "p perpendicular g W\nF intersection p g",
        {"F": "F"},
        "as far from each line",
    ),
    "the third perpendicular bisector": (
        BISECTORS,
        "line l",
        [rel("concurrent", "m", "n", "l"), rel("perpendicular", "l", ["B", "C"])],
        "",
        "l perpendicular_bisector B C\nO intersection m n",
        {"l": "l"},
        "one point of all lines",
    ),
    "a rotation, carried over with the compass": (
        TRIANGLE,
        "point X",
        [rel("same", "X", "model:X")],
        "X rotation B A B A C",
        "k circle A B\nr ray A C\nX intersection r k pick=2",
        {"X": "X"},
        "there is only one",
    ),
    "a rotation with its tool": (
        TRIANGLE,
        "point X",
        [rel("equal_length", ["A", "B"], ["A", "X"]), rel("equal_angle", ["B", "A", "X"], ["A", "C", "B"])],
        "",
        "X rotation B A A C B",
        {"X": "X"},
        "by construction",
    ),
}


@pytest.mark.parametrize(
    ("given", "wanted", "conditions", "model", "made", "answer", "rule"), PROVED.values(), ids=PROVED
)
def test_it_is_proved(given, wanted, conditions, model, made, answer, rule):
    asked = task(given, [wanted], conditions, model, TOOLS)
    work = read_steps(steps(made))
    assert judge(asked, Work(work, answer)).outcome == "sound"
    proof = prove(asked, work, answer)
    assert proof.is_whole and rule in {line.rule for line in proof.lines}


def test_lines_that_meet_in_no_point_are_not_concurrent():
    """A parallel to one of two lines meets the other elsewhere; three parallels meet nowhere."""
    for made in ("l perpendicular m A", "l parallel m C"):
        found = judge(
            task(BISECTORS, ["line l"], [rel("concurrent", "m", "n", "l")], "", TOOLS),
            Work(read_steps(steps(made)), {"l": "l"}),
        )
        assert found.outcome == "wrong"


def test_what_is_open_is_said_where_no_common_point_is_drawn():
    asked = task(BISECTORS, ["line l"], [rel("concurrent", "m", "n", "l")], "", TOOLS)
    proof = prove(asked, read_steps(steps("l perpendicular_bisector B C")), {"l": "l"})
    assert proof.open == (0,) and not proof.lines
