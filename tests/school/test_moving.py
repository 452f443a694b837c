"""A class that is taken along and brought in elsewhere: nothing of it is lost, and what is wrong is refused in words."""

from __future__ import annotations

import io
import json
import random
import zipfile

import pytest
from sqlalchemy import inspect, select

from tests.amount import many
from widepin.documents.reading import Unreadable
from widepin.school.models import (
    Assignment,
    ClassTool,
    Comment,
    EnteredResult,
    HandIn,
    HintTaken,
    MarkColumn,
    Operation,
    OtherMark,
    Person,
    SchoolClass,
    TaskSheet,
    Work,
)
from widepin.school.moving import archive, bringing_in, taking_out
from widepin.school.results import entering


@pytest.fixture
def first_year(session):
    """A class with a bit of everything."""
    found = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
    task, (student, *_others) = found.assignments[0], found.students
    entering.enter(session, task, student, "paper", "70", "on paper")
    column = MarkColumn(class_id=found.id, title="A model in stone", weight=2)
    session.add(column)
    session.flush()
    session.add(OtherMark(column_id=column.id, student_id=student.id, score=88))
    found.assignments[1].after_id = task.id
    found.assignments[1].chosen = [student]
    session.flush()
    session.expire_all()
    return found


@pytest.fixture
def newcomer(session):
    person = Person(login="new.teacher", name="New Teacher", role="teacher", password_hash="")
    session.add(person)
    session.flush()
    return person


def counted(session, school_class):
    """How many rows of each kind hang on a class."""
    tasks = select(Assignment.id).where(Assignment.class_id == school_class.id)
    works = select(Work.id).where(Work.assignment_id.in_(tasks))
    attempts = select(HandIn.id).where(HandIn.work_id.in_(works))
    queries = {
        "assignments": tasks,
        "works": works,
        "operations": select(Operation.number).where(Operation.work_id.in_(works)),
        "hints": select(HintTaken.number).where(HintTaken.work_id.in_(works)),
        "hand_ins": attempts,
        "comments": select(Comment.id).where(Comment.hand_in_id.in_(attempts)),
        "entered": select(EnteredResult.student_id).where(EnteredResult.assignment_id.in_(tasks)),
        "columns": select(MarkColumn.id).where(MarkColumn.class_id == school_class.id),
        "class_tools": select(ClassTool.id).where(ClassTool.class_id == school_class.id),
    }
    return {name: len(session.scalars(query).all()) for name, query in queries.items()}


def _entered(data):
    return [one for assignment in data["assignments"] for one in assignment["entered"]]


def data_of(content):
    with zipfile.ZipFile(io.BytesIO(content)) as packed:
        return json.loads(packed.read("class.json"))


def changed(content, change):
    """A file with its data changed."""
    with zipfile.ZipFile(io.BytesIO(content)) as packed:
        files = {name: packed.read(name) for name in packed.namelist()}
    data = json.loads(files["class.json"])
    change(data)
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w", zipfile.ZIP_DEFLATED) as packed:
        for name, inside in (files | {"class.json": json.dumps(data).encode()}).items():
            packed.writestr(name, inside)
    return made.getvalue()


def test_what_is_brought_in_and_taken_out_again_is_the_same(session, first_year, newcomer):
    content = taking_out.class_file(session, first_year, "1")
    made = bringing_in.bring_in(session, newcomer, content)
    session.expire_all()
    assert counted(session, made) == counted(session, first_year) and counted(session, made)["operations"] > 50
    again = data_of(taking_out.class_file(session, made, "1"))
    before = data_of(content)
    for one in (*again["tasks"], *before["tasks"]):
        one.pop("family"), one.pop("series_of")
    photos = [[one.pop("photo") is not None for one in _entered(data)] for data in (again, before)]
    assert photos[0] == photos[1] and any(photos[0]), "they are made anew, as those that are brought by hand"
    for name in before:
        if isinstance(before[name], list):
            for old, new in zip(before[name], again[name], strict=True):
                assert {key: (old[key], new[key]) for key in old if old[key] != new[key]} == {}, name
        assert again[name] == before[name], name
    assert made.teacher is newcomer and all(one.sheet.owner is newcomer for one in made.assignments)
    assert {one.name for one in made.students} == {one.name for one in first_year.students}
    assert not {one.id for one in made.students} & {one.id for one in first_year.students}


def test_every_column_is_taken_along_or_left_on_purpose():
    """A column that is added to a table has to be thought of here."""
    left = {
        TaskSheet: {"id", "owner_id", "document", "family", "shared", "archived", "practice", "copied_from", "copied", "removal"},
        Assignment: {"id", "class_id", "sheet_id", "after_id", "removal"},
        ClassTool: {"id", "class_id"},
        Work: {"id", "assignment_id", "student_id", "seen", "opened", "looked", "packed_operations", "removal"},
        Operation: {"work_id"},
        HintTaken: {"work_id"},
        HandIn: {"id", "work_id", "sheet_id"},
        Comment: {"id", "hand_in_id", "author_id", "removal"},
        EnteredResult: {"assignment_id", "student_id", "photo"},
        MarkColumn: {"id", "class_id"},
    }  # fmt: skip
    taken = {
        TaskSheet: archive.SHEET,
        Assignment: archive.ASSIGNMENT,
        ClassTool: archive.CLASS_TOOL,
        Work: archive.WORK,
        Operation: archive.OPERATION,
        HintTaken: archive.HINT,
        HandIn: archive.HAND_IN,
        Comment: archive.COMMENT,
        EnteredResult: archive.ENTERED,
        MarkColumn: archive.MARK_COLUMN,
    }
    for kind, names in taken.items():
        assert set(inspect(kind).columns.keys()) == set(names) | left[kind], kind.__name__


def test_codes_and_passwords_are_not_in_the_file(session, first_year):
    text = json.dumps(data_of(taking_out.class_file(session, first_year, "1")))
    assert first_year.code not in text and "password" not in text and "login" not in text


def test_tables_are_there_to_be_read(session, first_year):
    with zipfile.ZipFile(io.BytesIO(taking_out.class_file(session, first_year, "1"))) as packed:
        roster, scores = (packed.read(name).decode() for name in ("roster.csv", "scores.csv"))
        assert {"manifest.json", "class.json", "tasks/0.json"} <= set(packed.namelist())
    assert "Idris,Bram" in roster and first_year.assignments[0].sheet.title in scores.splitlines()[0]


def number_of_a_student_that_is_none(data):
    data["works"][0]["student"] = 999


def an_outcome_that_there_is_not(data):
    data["works"][0]["hand_ins"][0]["outcome"] = "splendid"


def steps_out_of_order(data):
    work = next(one for one in data["works"] if len(one["operations"]) > 2)
    work["operations"][1]["number"] = 7


def a_work_twice(data):
    data["works"].append(data["works"][0])


def an_operation_that_is_none(data):
    data["works"][0]["operations"][0]["document"] = {"op": "dance"}


def a_list_that_is_none(data):
    data["assignments"] = "all of them"


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (number_of_a_student_that_is_none, r"works\[0\].student"),
        (an_outcome_that_there_is_not, r"hand_ins\[0\].outcome"),
        (steps_out_of_order, "number"),
        (a_work_twice, "twice"),
        (an_operation_that_is_none, "op"),
        (a_list_that_is_none, "assignments"),
    ],
)
def test_what_is_wrong_is_refused_with_its_place_and_nothing_is_kept(session, first_year, newcomer, change, words):
    content = changed(taking_out.class_file(session, first_year, "1"), change)
    with pytest.raises(Unreadable, match=words):
        bringing_in.bring_in(session, newcomer, content)
    assert session.scalars(select(SchoolClass).where(SchoolClass.teacher_id == newcomer.id)).all() == []


def mutated(value, chance):
    """A JSON value with something in it replaced by something else."""
    if isinstance(value, dict) and value and chance.random() < 0.9:
        name = chance.choice(list(value))
        return value | {name: mutated(value[name], chance)}
    if isinstance(value, list) and value and chance.random() < 0.9:
        place = chance.randrange(len(value))
        return [*value[:place], mutated(value[place], chance), *value[place + 1 :]]
    return chance.choice([None, True, -1, 10**30, 1.5, "", "x" * 5000, "\ud800", [], {}, [{}], {"a": []}, "2026-13-45"])


@pytest.mark.parametrize("seed", range(many(8, 300)))
def test_whatever_is_changed_in_a_file_is_taken_or_refused(session, first_year, newcomer, seed):
    chance = random.Random(seed)

    def change(data):
        name = chance.choice(list(data))
        data[name] = mutated(data[name], chance)

    content = changed(taking_out.class_file(session, first_year, "1"), change)
    try:
        bringing_in.bring_in(session, newcomer, content)
    except Unreadable as wrong:
        assert str(wrong)


@pytest.mark.parametrize("content", [b"", b"no zip", b"PK\x03\x04"])
def test_what_is_no_file_of_a_class_is_refused(session, newcomer, content):
    with pytest.raises(Unreadable):
        bringing_in.bring_in(session, newcomer, content)
