"""Figures over three free points, and what is known of them."""

from __future__ import annotations

from widepin.documents.formats.construction import read_steps
from widepin.judge.task import Allowance, Condition, Task, Wanted
from widepin.judge.trials.examination import Examination
from widepin.reason.drawing import columns_where_all_is, drawn_in
from widepin.reason.engine import saturate
from widepin.reason.facts import Fact
from widepin.reason.knowledge import Knowledge
from widepin.reason.proving import said_by_making
from widepin.reason.rules import RuleName
from widepin.school.tasks.library.notation import steps

GIVEN = "A free_point at=1,1\nB free_point at=9,2\nC free_point at=4,7"
FEWEST = 6
"""Positions in which a figure must be there as a whole."""


def known_of(lines: str, without: frozenset[RuleName] = frozenset(), *wanted: Fact):
    """All that follows in a figure that is made from A, B and C, or what leads to something that is wanted; None where
    the figure is nearly nowhere there as a whole.
    """
    task = Task(
        "",
        read_steps(steps(GIVEN)),
        (Allowance("line"),),
        (Wanted("X", "point"),),
        (Condition("distinct", ("X", "A")),),
    )
    examined = Examination(task, read_steps(steps(lines)))
    numbers = list(range(examined.last))
    columns = columns_where_all_is(examined, numbers)
    if len(columns) < FEWEST:
        return None, None, None
    drawn = drawn_in(examined, numbers, columns)
    known = Knowledge(drawn, said_by_making(drawn, examined, numbers), without)
    saturate(known, wanted)
    return known, examined, numbers
