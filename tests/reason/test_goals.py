"""Conditions that are proved in a way of their own: of lines through one point, of distances from lines, of areas."""

import pytest

from tests.judge.test_judging import ALL, task
from widepin.documents.formats.construction import read_steps
from widepin.documents.reasons.proofs import proof_in_part_of
from widepin.documents.reasons.shown_proofs import shown
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.judge.verdict import Outcome
from widepin.reason.proving import prove
from widepin.reason.rules import RuleName
from widepin.school.tasks.library.notation import steps

TOOLS = list(dict.fromkeys([*ALL, "parallel", "angle_bisector", "translation", "perpendicular_bisector", "midpoint"]))
ABC = "A free_point at=0,0\nB free_point at=8,1\nC free_point at=3,6"
MEDIANS = "M midpoint B C\nN midpoint C A\na line A M\nb line B N\nG intersection a b"


def relation(rel, *of):
    """``AB``: a pair of points, and so on."""
    return {"rel": rel, "of": [list(one) if one.isupper() and len(one) > 1 else one for one in of]}


WAYS = {
    "a third line through where two meet": (
        [*("line a", "line b", "line c")],
        relation("concurrent", "a", "b", "c"),
        f"{MEDIANS}\nc line C G",
        RuleName.ONE_POINT,
    ),
    "on an inner and an outer bisector": (
        ["point J"],
        relation("equidistant", "J", "AB", "AC", "BC"),
        "t angle_bisector B A C\nu angle_bisector A B C\nx perpendicular u B\nJ intersection t x",
        RuleName.EQUALLY_FAR,
    ),
    "halfway between parallels": (
        ["point M", "point D"],
        relation("equidistant", "M", "AB", "CD"),
        "D translation C A B\nM midpoint A C",
        RuleName.EQUALLY_FAR,
    ),
    "areas beside two medians": (
        ["point G"],
        relation("equal_area", "ABG", "BCG", "CAG"),
        MEDIANS,
        RuleName.AREA_ON_MEDIAN,
    ),
    "areas between parallels": (
        ["point D"],
        relation("equal_area", "ABC", "ABD"),
        "l line A B\np parallel l C\nk circle C B\nD intersection p k pick=1",
        RuleName.AREA_BETWEEN_PARALLELS,
    ),
    "halves of a parallelogram": (
        ["point D"],
        relation("equal_area", "ABC", "CDA"),
        "l line A B\nm line B C\np parallel l C\nq parallel m A\nD intersection p q",
        RuleName.AREA_BETWEEN_PARALLELS,
    ),
}


@pytest.mark.parametrize("way", WAYS)
def test_a_condition_is_proved(way):
    wanted, condition, lines, rule = WAYS[way]
    asked = task(ABC, wanted, [condition], lines, TOOLS)
    work = Work(read_steps(steps(lines)))
    verdict = judge(asked, work)
    assert verdict.outcome is Outcome.SOUND
    proof = prove(asked, work.steps, verdict.answer)
    assert not proof.open and rule in {line.rule for line in proof.lines}


def test_lengths_that_are_known_to_be_equal_are_not_proved_in_another_way():
    """Of a rhombus in a triangle three equalities are enough."""
    lines = """
        t angle_bisector B A C\ns line B C\nD intersection t s\nm perpendicular_bisector A D
        u line A B\nv line A C\nE intersection m u\nF intersection m v""".replace("        ", "").strip()
    condition = relation("equal_length", "AE", "ED", "DF", "FA")
    asked = task(ABC, ["point E", "point F", "point D"], [condition], lines, TOOLS)
    work = Work(read_steps(steps(lines)))
    proof = prove(asked, work.steps, judge(asked, work).answer)
    assert not proof.open and len(proof.lines) <= 9


def test_a_line_that_nobody_drew_is_no_point():
    lines = "M midpoint A B\nm perpendicular_bisector A B\nc circle M A\nP intersection m c pick=1\nQ intersection m c pick=2"
    wanted = [relation("equal_length", *("AP", "PB", "BQ", "QA"))]
    asked = task(ABC, ["point P", "point Q"], wanted, lines, TOOLS)
    work = Work(read_steps(steps(lines)))
    verdict = judge(asked, work)
    said = shown(proof_in_part_of(asked, work, verdict), asked, work.steps, {})
    assert said["lines"] and not any("A B" in line["reason"] for line in said["lines"])


def test_points_of_one_line_lie_in_a_row_by_their_making():
    lines = "l line A C\nk circle A B\nP intersection l k pick=1\nQ intersection l k pick=2"
    wanted = [
        relation("collinear", "P", "C", "Q"),
        relation("equal_length", "AP", "AQ"),
        relation("distinct", "P", "Q"),
    ]
    asked = task(ABC, ["point P", "point Q"], wanted, lines, TOOLS)
    work = Work(read_steps(steps(lines)))
    verdict = judge(asked, work)
    proof = proof_in_part_of(asked, work, verdict)
    assert not proof.open and all(line.because or line.steps for line in proof.lines)
    reasons = {line["reason"] for line in shown(proof, asked, work.steps, {})["lines"]}
    assert reasons == {"all of them lie on l", "radii of k"}
