"""Random works on random tasks: every one gets a verdict that can be written, read again and put into words."""

import json
import random
import warnings

import pytest

from tests import zoo
from tests.amount import many
from widepin.documents.formats.task import read_task
from widepin.documents.formats.verdict import judge_document, read_verdict, write_verdict
from widepin.documents.wording.explaining import Feedback, explained, what_stays_true
from widepin.plane.makes import MAKES
from widepin.plane.shapes import LINES, Kind

POINT: list[dict] = [
    {"rel": "equal_length", "of": [["X", "P0"], ["X", "P1"]]},
    {"rel": "equal_angle", "of": [["X", "P0", "P1"], ["P1", "P0", "X"]]},
    {"rel": "midpoint", "of": ["X", "P0", "P1"]},
    {"rel": "inside_angle", "of": ["X", ["P0", "P1", "P2"]]},
]
LINE: list[dict] = [
    {"rel": "perpendicular", "of": ["X", ["P0", "P1"]]},
    {"rel": "on", "of": ["P0", "X"]},
    {"rel": "opposite_side", "of": ["X", "P0", "P1"]},
]
CIRCLE: list[dict] = [{"rel": "tangent", "of": ["X", ["P0", "P1"]]}, {"rel": "on", "of": ["P2", "X"]}]


def random_case(seed):
    """A task and a work: a construction whose model is itself, itself nudged, or that should fulfil any condition."""
    rng = random.Random(seed)
    steps = zoo.random_construction(seed, rng.choice([6, 10, 14, 25, 60]))
    given, own = steps[:4], steps[4:]
    target = rng.choice(own)
    kind = MAKES[target["make"]].gives
    if rng.random() < 0.6:
        model, conditions = own, [{"rel": "same", "of": ["X", f"model:{target['id']}"]}]
    else:
        fitting = POINT if kind is Kind.POINT else LINE if kind in LINES else CIRCLE
        model, conditions = [], [rng.choice(fitting)]
    if rng.random() < 0.4:
        own = [nudged(step, rng) for step in own]
    task = {
        "format": "widepin.task/1",
        "given": given,
        "tools": [make for make in MAKES if make != "intersection"],
        "wanted": [{"name": "X", "kind": kind.value}],
        "conditions": conditions,
        "model": model,
    }
    return read_task(task), {"steps": own, "answer": {"X": target["id"]} if rng.random() < 0.5 else None}


def nudged(step, rng):
    if "at" in step and rng.random() < 0.4:
        return {**step, "at": [step["at"][0] + rng.choice([0, 1e-3, 0.02]), step["at"][1]]}
    return {**step, "pick": 3 - step["pick"]} if "pick" in step and rng.random() < 0.4 else step


@pytest.mark.parametrize("seed", range(many(50, 2000)))
def test_any_work_gets_a_verdict_that_can_be_written_read_and_said(seed):
    task, work = random_case(seed)
    with warnings.catch_warnings():
        warnings.simplefilter("error")
        verdict = judge_document(task, work)
    document = write_verdict(verdict)
    json.dumps(document, allow_nan=False)
    assert write_verdict(read_verdict(document)) == document
    for level in Feedback:
        assert all(sentence.endswith(".") for sentence in explained(verdict, task, level))
    if verdict.report is not None:
        what_stays_true(verdict.report, task)
        assert verdict.report.costs.moves == verdict.counts.moves
    same_again = judge_document(task, work)
    assert write_verdict(same_again) == document
