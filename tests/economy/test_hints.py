"""Hints: followed blindly they lead to a sound work, and nobody is sent to another way who is on one."""

import json

import pytest
from click.testing import CliRunner
from tools.hint_trial import beginnings, follow

from widepin.cli import main
from widepin.documents.formats.task import read_task
from widepin.documents.wording.hint_words import hint_for
from widepin.judge.task import Work
from widepin.plane.intersections import Choice
from widepin.plane.steps import Step
from widepin.school.tasks.library import LIBRARY

KEYS = [
    "perpendicular-bisector",
    "midpoint",
    "bisect-an-angle",
    "perpendicular-through-a-point",
    "circumcircle",
    "kite",
]


def task_of(key):
    return read_task(LIBRARY[key].document())


@pytest.mark.parametrize("key", KEYS)
def test_hints_that_are_followed_blindly_lead_to_a_sound_work_within_the_moves_they_promised(key):
    task = task_of(key)
    for name, steps in beginnings(task):
        end, _moves, _slowest = follow(task, steps)
        assert end == "right", name


def test_who_is_on_a_way_of_the_own_is_not_sent_to_another():
    """The perpendicular by a rhombus, where the sample solution takes two circles about given points."""
    task = task_of("perpendicular-through-a-point")
    begun = (
        Step("k", "circle", ("P", "A")),
        Step("R", "intersection", ("g", "k"), choice=Choice.OTHER_THAN, reference="A"),
        Step("n", "circle", ("A", "P")),
        Step("o", "circle", ("R", "P")),
    )
    hint = hint_for(task, Work(begun), [Work(task.model)])
    assert hint.moves_left == 1 and set(hint.step.sources) <= {"n", "o"}


def test_objects_are_known_by_what_they_are_and_not_by_their_names():
    task = task_of("perpendicular-through-a-point")
    named = {step.id: f"x{number}" for number, step in enumerate(task.model)}
    begun = tuple(step.renamed(named) for step in task.model[:1])
    hint = hint_for(task, Work(begun), [Work(task.model)])
    assert hint.step.id not in {step.id for step in begun} and hint.step.sources != begun[0].sources
    assert hint.moves_left == hint_for(task, Work(()), [Work(task.model)]).moves_left - 1


def test_a_work_that_is_right_needs_no_hint_and_one_without_a_known_way_gets_none():
    task = task_of("midpoint")
    assert hint_for(task, Work(task.model), []).moves_left == 0
    document = LIBRARY["centroid"].document()
    document["tools"] = ["line"]
    hint = hint_for(read_task(document), Work(()), [])
    assert hint.moves_left is None and hint.step is None and "No way on" in hint.levels[0]


def test_the_command_says_for_each_work_what_is_left(tmp_path):
    document = LIBRARY["perpendicular-through-a-point"].document()
    works = [{"name": "begun", "steps": [{"id": "k", "make": "circle", "from": ["A", "P"]}]}, {"name": "broken"}]
    file = tmp_path / "bundle.json"
    file.write_text(json.dumps({"task": document, "works": works}))
    said = CliRunner().invoke(main, ["hint", str(file)])
    first, second = map(json.loads, said.output.splitlines())
    assert first["name"] == "begun" and first["moves_left"] == 2 and len(first["hints"]) == 3
    assert first["step"] == {"id": "c", "make": "circle", "from": ["B", "P"]}
    assert second["moves_left"] is None and second["step"] is None


def test_the_command_for_the_fewest_moves_reads_a_task_and_tells_faults(tmp_path):
    file = tmp_path / "task.json"
    file.write_text(json.dumps(LIBRARY["equilateral-triangle"].document()))
    said = json.loads(CliRunner().invoke(main, ["fewest", str(file), "--most", "3"]).output)
    assert (said["moves"], said["excluded"], said["stopped"]) == (2, 1, False)
    assert {step["make"] for step in said["steps"]} == {"circle", "intersection"}
    file.write_text("{}")
    wrong = CliRunner().invoke(main, ["fewest", str(file)])
    assert wrong.exit_code == 2 and str(file) in wrong.output
