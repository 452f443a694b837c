"""What ships with the library: it is of the tasks as they are, contradicts no sample solution, and comes out again."""

import json

import pytest
from tools.ship_library import fewest_of, proof_of

from tests.amount import many
from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.task import read_task
from widepin.judge.costs.counts import moves_within
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.judge.verdict import Outcome
from widepin.school.tasks import proofs
from widepin.school.tasks.library import LIBRARY, shipped

ENTRIES = json.loads(shipped.FILE.read_text())
QUICK = [key for key, one in ENTRIES.items() if one["fewest"]["moves"] and one["fewest"]["states"] <= 300]
"""Tasks whose search is over in much less than a second."""


@pytest.mark.parametrize("key", LIBRARY)
def test_it_is_of_the_task_as_it_is(key):
    known = LIBRARY[key]
    advice = "run bin/widepin tool ship_library"
    assert shipped.proof_of(proofs.of_known(known)) == ENTRIES[key]["proof"]["shown"], advice
    assert shipped.fewest_of(known.document())["moves"] == ENTRIES[key]["fewest"]["moves"], advice


@pytest.mark.parametrize("key", LIBRARY)
def test_no_sample_solution_is_excluded_and_what_was_found_is_sound(key):
    task, found = read_task(LIBRARY[key].document()), ENTRIES[key]["fewest"]
    arbitrary = sum(step.make in ("free_point", "point_on") for step in task.model)
    assert arbitrary > found["arbitrary"] or moves_within(task.model, task.tools) > found["excluded"]
    if found["moves"] is not None:
        verdict = judge(task, Work(read_steps(found["steps"])), report=False)
        assert (verdict.outcome, verdict.counts.moves) == (Outcome.SOUND, found["moves"])
        assert found["excluded"] == found["moves"] - 1


@pytest.mark.parametrize("key", QUICK[:: many(6, 1)])
def test_the_same_is_found_again(key):
    assert fewest_of(LIBRARY[key], 600) == ENTRIES[key]["fewest"]


@pytest.mark.parametrize("key", list(LIBRARY)[:: many(16, 4)])
def test_the_same_proof_is_found_again(key):
    assert json.loads(json.dumps(proof_of(LIBRARY[key]))) == ENTRIES[key]["proof"]
