"""Proofs of sample solutions and of works: found, short, believed only once they are checked, never claimed in vain."""

from __future__ import annotations

import json
import subprocess
import sys
from dataclasses import replace
from pathlib import Path

import pytest

from widepin.documents.construction import read_steps
from widepin.documents.proofs import REASON_WORDS, explained_proof, proof_of, write_proof
from widepin.documents.task import read_task
from widepin.judge.examination import Examination
from widepin.judge.judging import judge
from widepin.judge.task import TOOLS, Allowance, Condition, Work
from widepin.plane.figure import is_defined
from widepin.reason.checker import check
from widepin.reason.extraction import MOST_CITED
from widepin.reason.facts import Fact, Rel, fact
from widepin.reason.proof import Proof
from widepin.reason.proving import prove
from widepin.reason.rules import RULES, RuleName
from widepin.school.library import LIBRARY
from widepin.school.library.notation import steps

ROOT = Path(__file__).parents[2]
CASES = ROOT / "tests" / "cases"

OPEN = {"radical-axis", "pentagon-in-a-circle", "pentagon-on-a-side", "harmonic-conjugate"}
"""Tasks of the library whose sample solutions have no proof by these rules."""

ELEMENTS = {  # the proposition, and how many lines a proof may take: as in the Elements, or shorter
    "equilateral-triangle": ("I.1", 1),
    "bisect-an-angle": ("I.9", 6),
    "midpoint": ("I.10", 2),
    "perpendicular-bisector": ("I.10", 2),
    "perpendicular-at-a-point": ("I.11", 4),
    "perpendicular-through-a-point": ("I.12", 4),
    "triangle-sss": ("I.22", 2),
    "copy-an-angle": ("I.23", 4),
    "parallel-through-a-point": ("I.31", 4),
    "lost-centre": ("III.1", 3),
    "tangent-from-a-point": ("III.17", 6),
    "incircle": ("IV.4", 6),
    "circumcircle": ("IV.5", 8),
    "hexagon-in-a-circle": ("IV.15", 11),
}
MOST_LINES, MOST_AT_FIRST = 16, 12
"""Lines of a proof, and of one of the first three levels."""


def of_library(key):
    task = read_task(LIBRARY[key].document())
    return task, prove(task, task.model, {one.name: one.name for one in task.wanted})


def checked(task, made, answer, proof):
    examined = Examination(task, made)
    numbers = [n for n in range(examined.last) if is_defined(examined.shapes[n])]
    return check(proof, examined, numbers, answer)


@pytest.mark.parametrize("key", LIBRARY)
def test_the_library_is_proved_but_for_what_is_known_to_be_open(key):
    task, proof = of_library(key)
    assert proof.is_whole is (key not in OPEN)
    if not proof.is_whole:
        return
    reached = {line.condition for line in proof.lines if line.condition is not None}
    read_off = ("distinct", "same_side", "opposite_side", "inside_angle")
    assert reached == {place for place, one in enumerate(task.conditions) if one.rel not in read_off}
    assert all(cited < number for number, line in enumerate(proof.lines, 1) for cited in line.because)
    most = MOST_AT_FIRST if LIBRARY[key].level <= 3 else MOST_LINES
    assert len(proof.lines) <= ELEMENTS.get(key, ("", most))[1]
    assert all(len(line.because) <= MOST_CITED for line in proof.lines)
    for line in explained_proof(proof, task):
        assert line["words"] and line["reason"] and "{" not in line["words"] + line["reason"]


MUTATED = (
    "perpendicular-bisector",
    "circumcircle",
    "parallel-through-a-point",
    "tangent-from-a-point",
    "third-of-a-segment",
)


@pytest.mark.parametrize("key", MUTATED)
def test_the_checker_rejects_a_proof_in_which_anything_was_changed(key):
    task, proof = of_library(key)
    answer = {one.name: one.name for one in task.wanted}
    assert checked(task, task.model, answer, proof) is None
    points = sorted({step.id for step in (*task.given, *task.model) if len(step.id) == 1 and step.id.isupper()})
    for number, line in enumerate(proof.lines, 1):
        changed = [replace(line, because=(number,))]  # itself
        changed += [replace(line, because=tuple(n for n in line.because if n != cited)) for cited in line.because]
        rules = [RuleName.SSS, RuleName.THALES, RuleName.RADII, RuleName.DIRECTIONS, RuleName.BY_CONSTRUCTION]
        changed += [replace(line, rule=rule) for rule in rules if rule is not line.rule]
        for old, new in zip(points, points[1:], strict=False):
            other = line.fact.renamed({old: new, new: old})
            if other != line.fact:
                changed.append(replace(line, fact=other))
        wrong = 0
        for one in changed:
            lines = list(proof.lines)
            lines[number - 1] = one
            wrong += checked(task, task.model, answer, Proof(tuple(lines))) is not None
        # What is changed may be true and follow all the same: a radius more, a name for a name in a symmetric figure.
        assert wrong >= len(changed) * 0.6, (line, wrong, len(changed))


def test_a_false_line_never_passes():
    task, proof = of_library("perpendicular-bisector")
    answer = {"m": "m"}
    false = fact(Rel.EQUAL_LENGTH, ("A", "B"), ("D", "E"))
    for rule in RuleName:
        line = replace(proof.lines[0], fact=false, rule=rule)
        assert checked(task, task.model, answer, Proof((line, *proof.lines[1:]))) is not None, rule


@pytest.mark.parametrize(
    "key", ["perpendicular-bisector", "circumcircle", "bisect-an-angle", "parallel-through-a-point"]
)
def test_without_an_object_that_is_needed_there_is_no_proof(key):
    task, proof = of_library(key)
    wanted = {one.name for one in task.wanted}
    cited = {step for line in proof.lines for step in line.steps}
    assert cited
    for hidden in cited - wanted:
        ids, left = {step.id for step in task.given}, []
        for step in task.model:
            if step.id != hidden and set(step.parents) <= ids:
                ids.add(step.id)
                left.append(step)
        if wanted <= ids:
            assert not prove(task, left, {name: name for name in wanted}).is_whole, hidden


def test_a_work_that_is_not_sound_has_no_proof():
    task = read_task(LIBRARY["midpoint"].document())
    for lines in ("M free_point at=5,3.5", "M point_on s at=5,3.5"):
        work = Work(read_steps(steps(lines)))
        assert proof_of(task, work, judge(task, work, report=False)) is None


def test_a_students_own_way_is_proved():
    task = read_task(LIBRARY["midpoint"].document())
    task = replace(task, tools=tuple(map(Allowance, TOOLS)))
    ways = (
        "M midpoint A B",
        "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\ng line D E\nM intersection g s",
        "m perpendicular_bisector A B\nM intersection m s",
        "P free_point at=5,8\nu segment A P\nk parallel u B\nv segment B P\nl parallel v A\nQ intersection k l\n"
        "g line P Q\nM intersection g s",
    )
    for lines in ways:
        work = Work(read_steps(steps(lines)))
        verdict = judge(task, work, report=False)
        proof = proof_of(task, work, verdict)
        assert proof is not None, lines
        assert write_proof(proof)[-1]["fact"] == {"rel": "midpoint", "of": ["M", "A", "B"]}


def test_every_rule_has_its_words_and_what_it_reads_off_is_known():
    assert set(REASON_WORDS) == {rule.value for rule in RuleName}
    known = {"apart", "distinct", "between", "opposite", "same_side", "same_way", "centre", "inside"}
    assert {word for rule in RULES.values() for word, _names in rule.figure_patterns} <= known


def test_facts_that_say_the_same_are_equal():
    assert fact(Rel.EQUAL_ANGLE, ("A", "B", "C"), ("D", "E", "F")) == fact(
        Rel.EQUAL_ANGLE, ("F", "E", "D"), ("C", "B", "A")
    )
    assert fact(Rel.MIDPOINT, "M", "A", "B") == fact(Rel.MIDPOINT, "M", "B", "A")
    assert fact(Rel.MIDPOINT, "M", "A", "B") != fact(Rel.MIDPOINT, "A", "M", "B")
    turned = fact(Rel.CONGRUENT, ("A", "B", "C"), ("D", "E", "F"))
    assert turned == fact(Rel.CONGRUENT, ("F", "D", "E"), ("C", "A", "B"))
    assert turned != fact(Rel.CONGRUENT, ("A", "B", "C"), ("E", "D", "F"))
    assert str(Fact(Rel.ON, ("P", ("A", "B")))) == "on P AB"


def run(*arguments):
    command = [sys.executable, "-m", "widepin.cli", "prove", *map(str, arguments)]
    return subprocess.run(
        command, capture_output=True, text=True, cwd=ROOT, env={"PYTHONPATH": "src", "PATH": "/usr/bin:/bin"}
    )


def test_the_command_says_a_line_for_every_work():
    done = run(CASES / "perpendicular-bisector.json")
    assert done.returncode == 0, done.stderr
    said = [json.loads(line) for line in done.stdout.splitlines()]
    works = json.loads((CASES / "perpendicular-bisector.json").read_text())["works"]
    assert [one["name"] for one in said] == [work["name"] for work in works]
    for one, work in zip(said, works, strict=True):
        assert one["outcome"] == work["expect"]["outcome"]
        assert (one["proof"] is not None) == (one["outcome"] == "sound")
        for number, line in enumerate(one["proof"] or [], 1):
            assert line["n"] == number and all(cited < number for cited in line["because"])
            assert line["fact"]["rel"] in [rel.value for rel in Rel]


def test_the_command_says_what_is_wrong_with_a_file(tmp_path):
    (tmp_path / "none.json").write_text("{")
    for path in (tmp_path / "none.json", tmp_path / "missing.json"):
        done = run(path)
        assert (done.returncode, done.stdout) == (2, "") and str(path) in done.stderr


def test_a_condition_that_proofs_do_not_speak_of_stays_open():
    task = read_task(LIBRARY["midpoint"].document())
    given = read_steps(steps("A free_point at=2,3\nB free_point at=8,4\nC free_point at=4,8\ns segment A B"))
    area = Condition("equal_area", (("A", "M", "C"), ("M", "B", "C")))
    task = replace(task, given=given, conditions=(*task.conditions, area))
    proof = prove(task, task.model, {"M": "M"})
    assert proof.open == (1,) and not proof.is_whole
    assert [line.condition for line in proof.lines if line.condition is not None] == [0]
