"""What a student believes of a board: that lengths or angles are equal, or an angle is right, in every position."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from ...plane.steps import Step
from ..conditions import RelationName
from ..task import Condition, Task
from ..trials.certifying import Certifier
from ..trials.examination import Examination

Claimed = Literal["equal_length", "equal_angle", "right_angle"]
"""Relations that can be claimed: of two pairs of points, of two triples or of one; vertices second."""


def condition(claimed: Claimed, of: Sequence[Sequence[str]]) -> Condition:
    """A claim as a condition on points.

    >>> condition("right_angle", [["A", "C", "B"]])
    Condition(rel=<RelationName.PERPENDICULAR: 'perpendicular'>, of=(('C', 'A'), ('C', 'B')), ratio=None)
    """
    if claimed == "right_angle":
        ((p, vertex, q),) = of
        return Condition(RelationName.PERPENDICULAR, ((vertex, p), (vertex, q)))
    return Condition(RelationName(claimed), tuple(tuple(term) for term in of))


def in_every_position(task: Task, steps: Sequence[Step], claims: Sequence[Condition]) -> tuple[bool, ...]:
    """Which claims about a board hold wherever its points are dragged: floats look in many positions, balls prove in
    several. A claim whose objects exist nowhere does not.

    >>> steps = constructed("c circle A B\\nd circle B A\\nC intersection c d pick=1")
    >>> claims = [condition("equal_length", [["A", "C"], ["B", "A"]]), condition("right_angle", [["A", "C", "B"]])]
    >>> in_every_position(apex, steps, claims)
    (True, False)
    """
    certifier = Certifier(Examination(task, steps))
    return tuple(certifier.is_proven(claim) for claim in claims)
