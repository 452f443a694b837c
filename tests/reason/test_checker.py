"""The checker passes what follows, and rejects a proof in which anything was changed."""

from __future__ import annotations

from dataclasses import replace

import pytest

from widepin.documents.formats.task import read_task
from widepin.judge.trials.examination import Examination
from widepin.plane.figure import is_defined
from widepin.reason.checker import check
from widepin.reason.drawing import columns_where_all_is, drawn_in
from widepin.reason.facts import Rel, fact
from widepin.reason.proof import Proof
from widepin.reason.proving import prove
from widepin.reason.rules import RuleName
from widepin.school.tasks.library import LIBRARY

MUTATED = (
    "bisect-an-angle",
    "circumcircle",
    "copy-an-angle",
    "double-compass",
    "foot-of-an-altitude",
    "hexagon-on-a-side",
    "midpoint-compass",
    "outer-tangents",
    "parallel-ruler-circle",
    "parallel-through-a-point",
    "perpendicular-bisector",
    "square-on-a-side",
    "tangent-at-a-point",
    "third-of-a-segment",
    "triangle-two-sides-median",
)

REASONS = (
    RuleName.SSS,
    RuleName.THALES,
    RuleName.RADII,
    RuleName.DIRECTIONS,
    RuleName.BY_CONSTRUCTION,
    RuleName.TRANSITIVE,
)


class Proved:
    """A task of the library with the proof of its sample solution."""

    def __init__(self, key):
        self.task = read_task(LIBRARY[key].document())
        self.answer = {one.name: one.name for one in self.task.wanted}
        self.proof = prove(self.task, self.task.model, self.answer)
        self.examined = Examination(self.task, self.task.model)
        self.numbers = [n for n in range(self.examined.last) if is_defined(self.examined.shapes[n])]
        self.points = sorted(
            step.id for step in (*self.task.given, *self.task.model) if len(step.id) == 1 and step.id.isupper()
        )

    def passes(self, *lines):
        return check(Proof(lines), self.examined, self.numbers, self.answer) is None

    def passes_with(self, number, line):
        """With another line in the place of one."""
        lines = list(self.proof.lines)
        lines[number - 1] = line
        return self.passes(*lines)


@pytest.fixture(params=MUTATED)
def proved(request):
    return Proved(request.param)


def test_a_line_without_one_that_it_cites_or_that_cites_itself_is_rejected(proved):
    assert proved.passes(*proved.proof.lines)
    for number, line in enumerate(proved.proof.lines, 1):
        assert not proved.passes_with(number, replace(line, because=(number,)))
        for cited in line.because:
            left = tuple(other for other in line.because if other != cited)
            assert not proved.passes_with(number, replace(line, because=left)), (line, cited)


def test_a_line_with_another_reason_is_rejected(proved):
    for number, line in enumerate(proved.proof.lines, 1):
        for rule in REASONS:
            if rule is not line.rule:
                assert not proved.passes_with(number, replace(line, rule=rule)), (line, rule)


def test_a_line_with_swapped_names_is_rejected_unless_it_says_the_same(proved):
    columns = columns_where_all_is(proved.examined, proved.numbers)
    drawn = drawn_in(proved.examined, proved.numbers, columns)
    for number, line in enumerate(proved.proof.lines, 1):
        for one, other in zip(proved.points, proved.points[1:], strict=False):
            said = line.fact.renamed({one: other, other: one})
            if drawn.normal(said) != drawn.normal(line.fact):  # D on AC: the angles BAD and BAC are one
                assert not proved.passes_with(number, replace(line, fact=said)), (line, said)


def test_a_false_line_never_passes():
    proved = Proved("perpendicular-bisector")
    false = fact(Rel.EQUAL_LENGTH, ("A", "B"), ("D", "E"))
    for rule in RuleName:
        line = replace(proved.proof.lines[0], fact=false, rule=rule)
        assert not proved.passes_with(1, line), rule
