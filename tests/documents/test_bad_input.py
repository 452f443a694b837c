"""No input makes readers or judge raise anything but their own errors."""

import copy

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.amount import many
from tests.judge.test_judging import TASKS_BY_NAME
from widepin.documents.formats.construction import read_step
from widepin.documents.formats.task import read_task
from widepin.documents.formats.verdict import judge_document, write_verdict
from widepin.documents.reading import Unreadable
from widepin.plane.steps import Step
from widepin.school.demo.tasks import TASKS
from widepin.school.tasks.library.notation import steps as from_lines

JSON = st.recursive(
    st.none()
    | st.booleans()
    | st.integers()
    | st.floats()
    | st.text(max_size=8)
    | st.sampled_from(["A", "B", "s", "m", "line", "circle", "model:m", "free_point", 1e308, float("nan"), -0.0]),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=6), inner, max_size=4),
    max_leaves=12,
)


def places(value, path=()):
    """All places inside a JSON value."""
    yield path
    items = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, inner in items:
        yield from places(inner, (*path, key))


def spoilt(document, path, value):
    """The document with another value at a place."""
    if not path:
        return value
    changed = copy.deepcopy(document)
    inner = changed
    for key in path[:-1]:
        inner = inner[key]
    inner[path[-1]] = value
    return changed


@settings(max_examples=many(70, 1500))
@given(st.sampled_from(TASKS), st.data(), JSON)
def test_a_spoilt_task_is_read_or_said_to_be_unreadable(task, data, value):
    document = task.document()
    path = data.draw(st.sampled_from(list(places(document))))
    try:
        read_task(spoilt(document, path, value))
    except Unreadable as wrong:
        assert wrong.remedy and "\n" not in str(wrong)


def test_what_is_quoted_from_a_document_stays_in_one_line():
    with pytest.raises(Unreadable) as wrong:
        read_task({"format": "one\nother\t\u2028"})
    assert str(wrong.value) == r"format: one\nother\t\u2028 cannot be read; this reads widepin.task/1"


@settings(max_examples=many(70, 1500))
@given(st.sampled_from([(task, made) for task in TASKS for _, made in task.solutions]), st.data(), JSON)
def test_a_spoilt_work_gets_a_verdict(solution, data, value):
    task, made = solution
    work = {"steps": from_lines(made), "answer": None}
    path = data.draw(st.sampled_from(list(places(work))))
    verdict = judge_document(TASKS_BY_NAME[task.title], spoilt(work, path, value))
    assert write_verdict(verdict)["outcome"] == verdict.outcome.value
    assert (verdict.outcome == "refused") == (verdict.refusal is not None)


def test_an_intersection_takes_one_choice_and_no_other_step_minds_any():
    both = {"id": "X", "make": "intersection", "from": ["c", "d"], "pick": 2, "other_than": "P"}
    with pytest.raises(Unreadable, match="at most one of"):
        read_step(both)
    assert read_step({**both, "make": "segment"}) == Step("X", "segment", ("c", "d"))
    assert read_step({**both, "other_than": None}).pick == 2


def test_a_step_without_a_place_is_named_where_it_stands():
    first = {"id": "A", "make": "free_point", "at": [0, 0]}
    task = {**TASKS[0].document(), "given": [first, {"id": "B", "make": "free_point"}]}
    with pytest.raises(Unreadable) as wrong:
        read_task(task)
    assert wrong.value.place == "given[1].at"


def test_ids_of_steps_that_cannot_be_read_are_cut_to_the_longest_there_may_be():
    verdict = judge_document(
        TASKS_BY_NAME["Centre line of a sill"], {"steps": [{"id": "x" * 30, "make": "line", "at": "no"}]}
    )
    assert verdict.counts.idle == ("x" * 24,)
