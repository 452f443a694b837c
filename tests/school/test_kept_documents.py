"""What the school has stored fits the schemas that docs/formats.md names."""

import json

import pytest
from jsonschema import Draft202012Validator
from sqlalchemy import select

from widepin.documents.formats.schemas import FOLDER
from widepin.school.models import ClassTool, HandIn, Operation, TaskSheet
from widepin.school.works.autosave import state_of


@pytest.mark.parametrize(
    ("name", "column"),
    [
        ("operation", Operation.document),
        ("hand-in", HandIn.document),
        ("class-tool", ClassTool.document),
        ("policy", TaskSheet.policy),
    ],
)
def test_what_is_stored_fits_its_schema(session, name, column):
    validator = Draft202012Validator(json.loads((FOLDER / f"{name}.schema.json").read_text()))
    stored = session.scalars(select(column).limit(200)).all()
    assert stored
    for document in stored:
        validator.validate(document)


def test_a_board_is_a_figure(session):
    validator = Draft202012Validator(json.loads((FOLDER / "figure.schema.json").read_text()))
    for attempt in session.scalars(select(HandIn).limit(20)):
        validator.validate(state_of(attempt.work).figure)
