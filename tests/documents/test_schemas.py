"""The schemas in docs/ are those of the models, and say of documents what the readers say."""

import copy
import json

import pytest
from jsonschema import Draft202012Validator

from tests.judge.test_cases import CASES
from widepin.documents.formats.bundle import read_bundle
from widepin.documents.formats.construction import read_steps, write_step
from widepin.documents.formats.schemas import FOLDER, as_text, schemas
from widepin.documents.formats.task import read_task
from widepin.documents.formats.verdict import judge_document, read_verdict, write_verdict
from widepin.documents.reading import Unreadable
from widepin.school.demo.tasks import TASKS


def validator(name):
    return Draft202012Validator(json.loads((FOLDER / f"{name}.schema.json").read_text()))


@pytest.mark.parametrize("name", schemas())
def test_the_schema_in_docs_is_that_of_the_model(name):
    assert (FOLDER / name).read_text() == as_text(schemas()[name]), "run bin/widepin schemas"


@pytest.mark.parametrize("task", [one.document() for one in TASKS], ids=[one.title for one in TASKS])
def test_tasks_fit_the_schema(task):
    validator("task").validate(task)
    for part in ("given", "model"):
        validator("construction").validate(task[part])


@pytest.mark.parametrize("path", CASES, ids=[path.stem for path in CASES])
def test_verdicts_fit_the_schema_and_can_be_read_again(path):
    bundle = read_bundle(path)
    for _, work in bundle.works:
        written = json.loads(json.dumps(write_verdict(judge_document(bundle.task, work))))
        validator("verdict").validate(written)
        assert write_verdict(read_verdict(written)) == written


@pytest.mark.parametrize(
    "spoil",
    [
        lambda t: t.pop("given"),
        lambda t: t.update(format="widepin.task/9"),
        lambda t: t.update(extra=1),
        lambda t: t["tools"].append({"tool": "line", "mots": 1}),
        lambda t: t["wanted"][0].update(kind="polygon"),
        lambda t: t["conditions"][0].update(of="m"),
        lambda t: t["given"][0].update(at=[1]),
        lambda t: t["given"][0].update(id=7),
    ],
)
def test_schema_and_reader_refuse_the_same(spoil):
    task = copy.deepcopy(TASKS[0].document())
    spoil(task)
    assert not validator("task").is_valid(task)
    with pytest.raises(Unreadable):
        read_task(task)


def test_steps_written_and_read_again_are_the_same():
    for task in TASKS:
        steps = read_steps(task.document()["given"] + task.document()["model"])
        assert read_steps([write_step(step) for step in steps]) == steps


def test_presentation_fields_do_not_change_a_step():
    plain, *_ = read_steps([{"id": "A", "make": "free_point", "at": [1, 2]}])
    dressed, *_ = read_steps([{"id": "A", "make": "free_point", "at": [1, 2], "label": "A1", "hidden": True, "hue": 3}])
    assert plain == dressed
