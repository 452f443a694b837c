"""Proofs of sample solutions and of works: found, short, believed only once they are checked, never claimed in vain."""

from __future__ import annotations

import json
import subprocess
import sys
from dataclasses import replace
from pathlib import Path

import pytest

from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.task import read_task, to_be_shown
from widepin.documents.reasons.proof_words import REASON_WORDS
from widepin.documents.reasons.proofs import explained_proof, proof_of, write_proof
from widepin.judge.conditions import RelationName
from widepin.judge.judging import judge
from widepin.judge.task import TOOLS, Allowance, Condition, Work
from widepin.reason.extraction import MOST_CITED
from widepin.reason.facts import Fact, Rel, fact
from widepin.reason.goals import READ_OFF
from widepin.reason.proving import prove
from widepin.reason.rules import RULES, RuleName
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.library.notation import steps

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
NOTHING_TO_PROVE = {
    "apollonius",
    "excircle",
    "fermat-point",
    "golden-section",
    "inverse",
    "nine-point-circle",
    "orthocentre",
}
"""Tasks that ask for what their sample solutions make, and whose property these rules do not reach."""

MOST_LINES, MOST_AT_FIRST = 16, 12
"""Lines of a proof, and of one of the first three levels."""


def of_library(key):
    task = to_be_shown(read_task(LIBRARY[key].document()), LIBRARY[key].shows)
    return task, prove(task, task.model, {one.name: one.name for one in task.wanted})


@pytest.mark.parametrize("key", LIBRARY)
def test_the_library_is_proved_but_for_what_is_known_to_be_open(key):
    task, proof = of_library(key)
    assert proof.is_whole is (key not in OPEN)
    assert proof.trivial is (key in NOTHING_TO_PROVE)
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
    known = {"bisector", "apart", "distinct", "between", "opposite", "same_side", "same_way", "centre", "inside"}
    known |= {"turned_alike", "turned_together", "bisects", "unequal", "radius"}
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


def test_proofs_speak_of_every_condition_that_is_not_read_off_the_figure():
    assert set(RelationName) - READ_OFF <= set(Rel)


def test_a_condition_that_is_put_beside_is_proved_too():
    task = read_task(LIBRARY["midpoint"].document())
    given = read_steps(steps("A free_point at=2,3\nB free_point at=8,4\nC free_point at=4,8\ns segment A B"))
    area = Condition("equal_area", (("A", "M", "C"), ("M", "B", "C")))
    task = replace(task, given=given, conditions=(*task.conditions, area))
    assert prove(task, task.model, {"M": "M"}).is_whole
