"""The sample bundles get the outcomes and moves they expect, through the command line too."""

import json
import subprocess
import sys
from pathlib import Path

import pytest

from widepin.documents.formats.bundle import read_bundle
from widepin.documents.formats.verdict import judge_document

CASES = sorted((Path(__file__).parents[1] / "cases").glob("*.json"))
WORKS = [(path, number) for path in CASES for number in range(len(read_bundle(path).works))]


@pytest.mark.parametrize(("path", "number"), WORKS, ids=[f"{path.stem}-{number}" for path, number in WORKS])
def test_a_sample_gets_the_verdict_it_must_get(path, number):
    bundle = read_bundle(path)
    _, work = bundle.works[number]
    verdict = judge_document(bundle.task, work)
    assert (verdict.outcome.value, verdict.counts.moves) == (work["expect"]["outcome"], work["expect"]["moves"])
    assert verdict.counts.needed + len(verdict.counts.idle) == verdict.counts.moves


def check(*paths):
    return subprocess.run(
        [sys.executable, "-m", "widepin.cli", "check", *map(str, paths)],
        capture_output=True,
        text=True,
        env={"PYTHONPATH": "src"},
        cwd=Path(__file__).parents[2],
    )


def test_the_command_prints_one_verdict_per_work_with_the_name_first():
    done = check(*CASES[:2])
    assert done.returncode == 0 and done.stderr == ""
    lines = [json.loads(line) for line in done.stdout.splitlines()]
    assert len(lines) == sum(len(read_bundle(path).works) for path in CASES[:2])
    assert all(next(iter(line)) == "name" and line["format"] == "widepin.verdict/1" for line in lines)


@pytest.mark.parametrize(
    ("spoil", "place"),
    [
        (lambda b: b["task"]["given"][2]["from"].__setitem__(0, "Z"), "task.given[2].from[0]"),
        (lambda b: b["task"].pop("wanted"), "task.wanted"),
        (lambda b: b["task"].update(format="widepin.task/2"), "task.format"),
        (lambda b: b["task"]["given"][0].update(at=["2", 3]), "task.given[0].at[0]"),
        (lambda b: b["task"]["given"][0].update(at=[1e308, 3]), "task.given[0].at[0]"),
        (lambda b: b["task"]["conditions"][0].update(of=["m"]), "task.conditions[0].of"),
        (lambda b: b["task"]["conditions"][0].update(rel="alike"), "task.conditions[0].rel"),
        (lambda b: b["task"]["tools"].append("protractor"), "task.tools[6]"),
        (lambda b: b["task"]["tools"].append({"tool": "midpoint", "most": "2"}), "task.tools[6].most"),
        (lambda b: b["task"].update(conditons=[]), "task.conditons"),
        (lambda b: b["works"].append([]), "works[10]"),
        (lambda b: b.pop("works"), "works"),
    ],
)
def test_a_bundle_that_cannot_be_read_says_where_and_exits_with_2(tmp_path, spoil, place):
    bundle = json.loads(CASES[-1].read_text())
    spoil(bundle)
    path = tmp_path / "spoilt.json"
    path.write_text(json.dumps(bundle))
    done = check(path)
    assert (done.returncode, done.stdout) == (2, "")
    assert done.stderr.count("\n") == 1
    assert str(path) in done.stderr and f" {place}: " in done.stderr


@pytest.mark.parametrize("text", ["", "{", "[1, 2]", "[" * 100_000, '{"task": 1' + "0" * 5000 + "}", "\xff"])
def test_what_is_no_json_is_said_in_one_line(tmp_path, text):
    path = tmp_path / "spoilt.json"
    path.write_bytes(text.encode("latin-1"))
    done = check(path)
    assert (done.returncode, done.stdout) == (2, "") and done.stderr.count("\n") == 1
