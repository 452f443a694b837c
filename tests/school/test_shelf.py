"""The tasks that come with the product: every model is sound within its own tools and budget."""

from dataclasses import replace

import pytest

from widepin.documents.task import read_task
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.judge.verdict import Outcome
from widepin.school.shelf import SHELF, TOPICS


@pytest.fixture(params=SHELF.values(), ids=SHELF)
def on_shelf(request):
    return request.param


def test_a_model_is_sound_and_within_its_budget(on_shelf):
    task = read_task(on_shelf.document())
    verdict = judge(task, Work(task.model), report=False)
    assert (verdict.outcome, verdict.counts.moves) == (Outcome.SOUND, on_shelf.moves)
    assert verdict.counts.idle == ()


def test_an_empty_work_is_wrong(on_shelf):
    task = read_task(on_shelf.document())
    verdict = judge(replace(task, budget=None), Work(()), report=False)
    assert verdict.outcome is Outcome.WRONG


def test_what_should_be_known_before_is_on_the_shelf(on_shelf):
    assert set(on_shelf.before) <= set(SHELF) - {on_shelf.key}


def test_the_shelf_covers_its_topics():
    assert len(SHELF) >= 30
    assert set(TOPICS) == {
        "Segments",
        "Angles",
        "Perpendiculars",
        "Parallels",
        "Equal division",
        "Triangle centres",
        "Circles and tangents",
        "Polygons",
    }
