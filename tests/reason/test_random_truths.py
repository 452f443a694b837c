"""What stays true of random figures is proved where it can be, and proving never breaks down."""

from __future__ import annotations

import pytest

from tests import zoo
from widepin.documents.task import read_task, read_work, to_be_shown, write_condition
from widepin.judge.judging import judge
from widepin.plane.makes import MAKES
from widepin.reason.extraction import MOST_CITED
from widepin.reason.proving import prove

GIVEN = 4
"""Free points with which a random figure begins."""


def truths_and_proofs(seed, size):
    """What stays true of a random figure, each with what is proved of it."""
    steps = zoo.random_construction(seed, size)
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
        if truth.rel != "concyclic":  # no condition of a task
            shown = to_be_shown(task, [write_condition(truth)])
            yield truth, prove(shown, work.steps, {one.name: one.name for one in shown.wanted})


OPEN = {411: [("P10", "c6")], 166: [("P7", "c9")]}
"""What is left open of these figures, by their seeds."""


@pytest.mark.parametrize(
    ("seed", "size"),
    [
        pytest.param(15, 12, id="perpendicular-of-a-bisector"),
        pytest.param(166, 10, id="a-case-that-hardly-ever-is"),
        pytest.param(57, 12, id="bisector-of-a-half"),
        pytest.param(75, 12, id="midpoint-on-a-bisector"),
        pytest.param(277, 14, id="rhombus-by-moving"),
        pytest.param(411, 14, id="parallel-through-the-lines-own-point"),
    ],
)
def test_what_stays_true_is_proved(seed, size):
    proofs = dict(truths_and_proofs(seed, size))
    assert proofs
    # A point that was found on a line makes one of two lines only then; what follows from that for others is left.
    open_ = [truth for truth, proof in proofs.items() if not proof.is_whole]
    assert [truth.of for truth in open_] == OPEN.get(seed, [])


@pytest.mark.parametrize("seed", range(500, 520))
def test_no_figure_breaks_it_down(seed):
    for _truth, proof in truths_and_proofs(seed, 14):
        assert all(len(line.because) <= MOST_CITED for line in proof.lines)
        assert proof.is_whole or proof.open
