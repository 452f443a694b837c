"""What stays true of random figures is proved where it can be, and proving never breaks down."""

from __future__ import annotations

import pytest

from tests import zoo
from tests.amount import many
from widepin.documents.formats.task import read_task, read_work, to_be_shown, write_condition
from widepin.judge.judging import judge
from widepin.plane.makes import MAKES
from widepin.reason.extraction import MOST_CITED
from widepin.reason.proving import prove
from widepin.school.tasks.library.notation import steps as from_lines

GIVEN = 4
"""Free points with which a random figure begins."""


FIGURES = {
    "perpendicular of a bisector": """
P0 free_point at=4.652,-4.883
P1 free_point at=2.36,-3.42
P2 free_point at=4.863,-4.831
P3 free_point at=3.795,1.814
c4 perpendicular_bisector P1 P0
c5 parallel c4 P2
P6 midpoint P3 P1
c7 perpendicular_bisector P1 P2
c8 perpendicular_bisector P2 P1
c9 perpendicular c8 P1
P10 reflection P3 c8
c11 line P3 P10
""",
    "a case that hardly ever is": """
P0 free_point at=-3.213,1.032
P1 free_point at=-0.72,-1.731
P2 free_point at=-4.649,2.436
P3 free_point at=4.419,-2.101
c4 circle_radius P1 P3 P0
P5 translation P0 P1 P3
c6 ray P0 P2
P7 midpoint P5 P1
P8 translation P5 P7 P1
c9 parallel c6 P8
""",
    "bisector of a half": """
P0 free_point at=-4.574,0.897
P1 free_point at=-4.807,0.141
P2 free_point at=4.766,-2.098
P3 free_point at=4.742,1.36
c4 angle_bisector P0 P3 P1
c5 perpendicular_bisector P3 P1
c6 ray P3 P2
P7 midpoint P1 P3
c8 segment P1 P7
c9 segment P7 P3
c10 circle P7 P3
c11 perpendicular_bisector P7 P1
""",
    "midpoint on a bisector": """
P0 free_point at=-0.492,-0.634
P1 free_point at=-4.584,2.676
P2 free_point at=1.735,1.709
P3 free_point at=-0.273,1.727
c4 perpendicular_bisector P0 P3
c5 parallel c4 P2
P6 midpoint P3 P2
c7 perpendicular_bisector P6 P3
P8 midpoint P3 P0
c9 angle_bisector P6 P8 P3
c10 circle_radius P1 P2 P3
c11 perpendicular c9 P6
""",
    "rhombus by moving": """
P0 free_point at=4.014,4.191
P1 free_point at=-2.831,-4.603
P2 free_point at=-0.257,0.885
P3 free_point at=1.209,-1.967
c4 circle_radius P1 P0 P3
c5 ray P0 P1
P6 reflection P3 c5
c7 circle_radius P3 P1 P0
P8 translation P6 P1 P3
c9 line P3 P6
c10 circle_radius P2 P6 P8
c11 line P1 P6
P12 point_on c5 at=-3.928,0.641
c13 circle P2 P8
""",
    "parallel through the line's own point": """
P0 free_point at=-2.835,-1.731
P1 free_point at=1.039,-2.659
P2 free_point at=3.943,-0.973
P3 free_point at=-2.905,-4.89
c4 ray P1 P0
c5 perpendicular_bisector P2 P3
c6 parallel c4 P0
P7 intersection c6 c5
c8 circle_radius P7 P1 P0
c9 line P0 P2
P10 midpoint P0 P1
c11 parallel c5 P2
c12 perpendicular_bisector P10 P2
c13 segment P7 P3
""",
}
"""Figures that came up by chance, of which something was hard to prove."""


def truths_and_proofs(steps):
    """What stays true of a figure, each with what is proved of it."""
    given, own = steps[:GIVEN], steps[GIVEN:]
    last = own[-1]["id"]
    task = read_task(
        {
            "format": "widepin.task/1",
            "given": given,
            "tools": [make for make in MAKES if make != "intersection"],
            "wanted": [{"name": last, "kind": MAKES[own[-1]["make"]].gives.value}],
            "conditions": [{"rel": "same", "of": [last, f"model:{last}"]}],
            "model": own,
        }
    )
    work = read_work({"steps": own, "answer": {last: last}})
    report = judge(task, work).report
    for truth in report.truths if report else ():
        # No task asks for the first; of the others, feet and intersections that nobody drew would have to be named.
        if truth.rel not in ("concyclic", "equidistant", "concurrent"):
            shown = to_be_shown(task, [write_condition(truth)])
            yield truth, prove(shown, work.steps, {one.name: one.name for one in shown.wanted})


OPEN = {
    "parallel through the line's own point": [("P10", "c6")],
    "a case that hardly ever is": [("P7", "c9")],
}
"""What is left open of these figures."""


@pytest.mark.parametrize("name", FIGURES)
def test_what_stays_true_is_proved(name):
    proofs = dict(truths_and_proofs(from_lines(FIGURES[name])))
    assert proofs
    # A point that was found on a line makes one of two lines only then; what follows from that for others is left.
    open_ = [truth for truth, proof in proofs.items() if not proof.is_whole]
    assert [truth.of for truth in open_] == OPEN.get(name, [])


@pytest.mark.parametrize("seed", range(500, 500 + many(12, 300)))
def test_no_figure_breaks_it_down(seed):
    for _truth, proof in truths_and_proofs(zoo.random_construction(seed, 14)):
        assert all(len(line.because) <= MOST_CITED for line in proof.lines)
        assert proof.is_whole or proof.open
