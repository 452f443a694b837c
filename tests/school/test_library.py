"""The tasks that come with the product: every model is sound within its own tools and budget."""

from dataclasses import replace

import pytest

from widepin.documents.task import read_task
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.judge.verdict import Outcome
from widepin.school.library import LIBRARY, TOPICS


@pytest.fixture(params=LIBRARY.values(), ids=LIBRARY)
def library_task(request):
    return request.param


def test_a_model_is_sound_and_within_its_budget(library_task):
    task = read_task(library_task.document())
    verdict = judge(task, Work(task.model), report=False)
    assert (verdict.outcome, verdict.counts.moves) == (Outcome.SOUND, library_task.moves)
    assert verdict.counts.idle == ()


def test_an_empty_work_is_wrong(library_task):
    task = read_task(library_task.document())
    verdict = judge(replace(task, budget=None), Work(()), report=False)
    assert verdict.outcome is Outcome.WRONG


def test_what_should_be_known_before_is_on_the_library(library_task):
    assert set(library_task.before) <= set(LIBRARY) - {library_task.key}


def test_the_library_covers_its_topics():
    assert len(LIBRARY) >= 30
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
