"""Proofs by cases: where what is read off the figure is so in some positions and otherwise in others."""

from __future__ import annotations

from dataclasses import replace

import pytest

from tests.reason.figures import GIVEN
from widepin.documents.formats.construction import read_steps
from widepin.documents.reasons.proofs import explained_proof, proof_of, write_proof
from widepin.judge.judging import judge
from widepin.judge.task import TOOLS, Allowance, Condition, Task, Wanted, Work
from widepin.judge.trials.examination import Examination
from widepin.reason.checker import check
from widepin.reason.knowledge import Knowledge
from widepin.reason.proof import Case, Proof
from widepin.reason.proving import prove
from widepin.reason.rules import RuleName
from widepin.school.tasks.library.notation import steps

DONE = GIVEN + "\nline1 line C B\nh line A B\np parallel h C\nP point_on line1 at=2,9"
MADE = read_steps(steps("m line A P\nD intersection m p"))
TASK = Task(
    "",
    read_steps(steps(DONE)),
    tuple(map(Allowance, TOOLS)),
    (Wanted("D", "point"),),
    (Condition("equal_angle", (("P", "B", "A"), ("P", "C", "D"))),),
    model=MADE,
)
"""P slides on the line CB: between C and B the angles are alternate ones, elsewhere corresponding ones."""


@pytest.fixture(scope="module")
def proof():
    return prove(TASK, MADE, {"D": "D"})


def checked(proof):
    examined = Examination(TASK, MADE)
    return check(proof, examined, list(range(examined.last)), {"D": "D"})


def test_each_case_has_its_proof(proof):
    assert proof.is_whole and proof.open_case is None
    assert [(line.case.holds, line.rule) for line in proof.lines if line.condition == 0] == [
        (True, RuleName.CORRESPONDING),
        (False, RuleName.ALTERNATE),
    ]
    assert checked(proof) is None


def test_the_cases_are_said(proof):
    lines = explained_proof(proof, TASK)
    assert lines[0]["case"] == "where A and D lie on one side of BC"
    assert lines[-1]["case"] == "where A and D lie on different sides of BC"
    written = write_proof(proof)
    assert [line["n"] for line in written] == list(range(1, len(written) + 1))
    assert written[0]["case"] == {"reads": "same_side", "of": ["A", "D", "B", "C"], "holds": True}
    work = Work(MADE)
    assert proof_of(TASK, work, judge(TASK, work, report=False)) == proof


def test_a_proof_of_one_case_is_no_proof(proof):
    half = tuple(line for line in proof.lines if line.case.holds)
    assert checked(Proof(half)) is not None
    assert checked(Proof(half, (0,), open_case=Case("same_side", ("A", "D", "B", "C"), False))) is None
    assert checked(Proof(half, (0,), open_case=Case("same_side", ("A", "P", "B", "C"), False))) is not None


def test_the_lines_of_one_case_do_not_do_for_the_other(proof):
    turned = tuple(replace(line, case=replace(line.case, holds=not line.case.holds)) for line in proof.lines)
    assert checked(Proof(turned)) is not None
    first = len([line for line in proof.lines if line.case.holds])
    across = [*proof.lines]
    across[first + 1] = replace(across[first + 1], because=(1,))
    assert checked(Proof(tuple(across))) is not None


def test_a_case_without_a_proof_is_named_as_open(monkeypatch):
    conclusion = Knowledge.conclusion
    monkeypatch.setattr(
        Knowledge,
        "conclusion",
        lambda self, rule, bindings: None if rule.name is RuleName.ALTERNATE else conclusion(self, rule, bindings),
    )
    proof = prove(TASK, MADE, {"D": "D"})
    assert proof.open == (0,) and not proof.is_whole
    assert proof.open_case == Case("same_side", ("A", "D", "B", "C"), False)
    assert {line.case.holds for line in proof.lines} == {True}
