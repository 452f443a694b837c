"""What is done on the pages, by what the database holds afterwards: these rows came, went or changed, and no others."""

from dataclasses import dataclass, field
from datetime import datetime

import pytest
from flask import g
from sqlalchemy import select

from widepin.school.models import (
    Assignment,
    Base,
    ClassTool,
    HandIn,
    MarkColumn,
    Person,
    Phrase,
    SchoolClass,
    TaskSheet,
    Work,
)
from widepin.school.results import practice
from widepin.school.tasks import class_tools, settings
from widepin.school.tasks.assigning import assign
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.sheets import from_library
from widepin.school.works import phrases

UNSEEN = ("browser_session", "sign_in")
"""Tables that every request may touch."""

TEACHER, COLLEAGUE, STUDENT = "corin.hale", "oda.finch", "bram.idris"


@dataclass
class Change:
    """What a deed did to a table: rows by their keys, as dictionaries."""

    added: list = field(default_factory=list)
    removed: list = field(default_factory=list)
    changed: list = field(default_factory=list)  # only the columns that differ


def everything(session):
    """All rows of all tables by their keys."""
    found = {}
    for table in Base.metadata.sorted_tables:
        if table.name not in UNSEEN:
            keys = [column.name for column in table.primary_key]
            rows = (dict(row._mapping) for row in session.execute(select(table)))
            found[table.name] = {tuple(row[key] for key in keys): row for row in rows}
    return found


def differences(before, after):
    """What differs between two states of the database, by table."""
    found = {}
    for table in before:
        old, new = before[table], after[table]
        change = Change(
            [new[key] for key in new.keys() - old.keys()],
            [old[key] for key in old.keys() - new.keys()],
            [
                {name: value for name, value in new[key].items() if old[key][name] != value}
                for key in new.keys() & old.keys()
                if new[key] != old[key]
            ],
        )
        if change.added or change.removed or change.changed:
            found[table] = change
    return found


class School:
    """The demo school with something of everything, and what is done in it taken back again."""

    def __init__(self, app, as_person):
        self.app, self.as_person = app, as_person
        with app.extensions["sessions"]() as session:
            self.made(session)
            session.commit()

    def made(self, session):
        by_login = {one.login: one for one in session.scalars(select(Person))}
        teacher, student = by_login[TEACHER], by_login[STUDENT]
        first = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
        attempt = session.scalars(select(HandIn).join(Work).where(Work.student_id == student.id)).first()
        sheet = from_library(session, teacher, LIBRARY["kite"])
        other = from_library(session, teacher, LIBRARY["rhombus"])
        shared = from_library(session, by_login[COLLEAGUE], LIBRARY["rectangle"])
        shared.shared = True
        session.flush()
        self.topics = set(practice.open_topics(session, first))
        practice.set_topics(session, first, set())
        self.last = max(one.position for one in first.assignments)
        new = assign(session, sheet, first, settings.proposed())
        tool = class_tools.give(session, first, f"Kite {new.id}", "one", class_tools.tool_of_sheet(sheet))
        phrases.keep(session, teacher, f"Said often {new.id}")
        phrase = next(one for one in phrases.of(session, teacher) if str(new.id) in one.text)
        self.ids = {
            "class_id": first.id,
            "other_class_id": session.scalars(select(SchoolClass.id).where(SchoolClass.name == "Second year")).one(),
            "assignment_id": attempt.work.assignment_id,
            "new_id": new.id,
            "hand_in_id": attempt.id,
            "work_id": attempt.work_id,
            "person_id": student.id,
            "sheet_id": other.id,
            "set_sheet_id": sheet.id,
            "shared_id": shared.id,
            "class_tool_id": tool.id,
            "phrase_id": phrase.id,
            "column_id": session.scalars(select(MarkColumn.id).where(MarkColumn.class_id == first.id)).first(),
            "colleague_id": by_login[COLLEAGUE].id,
        }

    def clear_away(self):
        """All that was made for these tests, so that others find the demo school as it was."""
        with self.app.extensions["sessions"]() as session:
            made = (
                *((Assignment, "new_id"), (ClassTool, "class_tool_id"), (Phrase, "phrase_id")),
                *((TaskSheet, name) for name in ("sheet_id", "set_sheet_id", "shared_id")),
            )
            for table, name in made:
                session.delete(session.get_one(table, self.ids[name]))
                session.flush()
            practice.set_topics(session, session.get_one(SchoolClass, self.ids["class_id"]), self.topics)
            session.commit()

    def do(self, monkeypatch, login, path, form=None, json=None):
        """Do it; the answer and what it changed. Nothing is kept."""
        client = self.as_person(login)
        seen = {}

        def finish(response):
            if "session" in g:
                g.session.flush()
                seen["after"] = everything(g.session)
                g.session.rollback()

        with self.app.extensions["sessions"]() as session:
            before = everything(session)
        with monkeypatch.context() as patched:
            patched.setattr("widepin.web.database.finish", finish)
            sent = {"json": json} if json is not None else {"data": self.filled(form or {})}
            answer = client.post(path.format(**self.ids), **sent)
        return answer, differences(before, seen.get("after", before))

    def filled(self, form):
        """A form with numbers of things in the place of their names in braces."""
        return {
            name.format(**self.ids): [one.format(**self.ids) for one in value]
            if isinstance(value, list)
            else value.format(**self.ids)
            for name, value in form.items()
        }


@pytest.fixture(scope="module")
def school_of_deeds(app):
    def as_person(login):
        client = app.test_client()
        assert client.post("/sign-in", data={"login": login, "password": "tracery"}).status_code == 302
        return client

    made = School(app, as_person)
    yield made
    made.clear_away()


SHOWN_ONCE = {"a token is made"}
"""Deeds that answer with a page, since what it shows is never shown again."""

ADDED, REMOVED, CHANGED = "added", "removed", "changed"

# deed: (who, address, form, what it did: table, how, how many rows, values that one of them has)
DEEDS: dict[str, tuple] = {
    "a class is made": (TEACHER, "/classes", {"name": "Vault 7"}, [("school_class", ADDED, 1, {"name": "Vault 7"})]),
    "a class is renamed": (
        TEACHER,
        "/classes/{class_id}/rename",
        {"name": "Vault 8"},
        [("school_class", CHANGED, 1, {"name": "Vault 8"})],
    ),
    "scores of a class are set": (
        TEACHER,
        "/classes/{class_id}/scoring",
        {"row-0": "90", "row-1": ""},
        [("school_class", CHANGED, 1, {"scoring": {"own helper": 90}})],
    ),
    "a student is renamed": (
        TEACHER,
        "/classes/{class_id}/students/{person_id}/rename",
        {"given_name": "Bram", "family_name": "the Younger"},
        [("person", CHANGED, 1, {"name": "Bram the Younger", "family_name": "the Younger"})],
    ),
    "a token is made": (
        TEACHER,
        "/account/programs",
        {"name": "Marks", "scope": ["works:read", "check"], "days": "30"},
        [
            ("access_token", ADDED, 1, {"name": "Marks", "scopes": ["works:read", "check"]}),
            ("audit_entry", ADDED, 1, {}),
        ],
    ),
    "a calendar gets an address": (STUDENT, "/calendar", {}, [("person", CHANGED, 1, {"calendar_number": 1})]),
    "a student gets a new code": (
        TEACHER,
        "/classes/{class_id}/students/{person_id}/renew",
        {},
        [("person", CHANGED, 1, {"code_number": 2, "stamp": 2}), ("audit_entry", ADDED, 1, {})],
    ),
    "a task is moved down": (
        TEACHER,
        "/assignments/{assignment_id}/place",
        {"way": "after"},
        [("assignment", CHANGED, 2, {"position": 1})],
    ),
    "the last task is moved up": (
        TEACHER,
        "/assignments/{new_id}/place",
        {"way": "before"},
        [("assignment", CHANGED, 2, {})],
    ),
    "a task is taken away from its class": (
        TEACHER,
        "/assignments/{new_id}/remove",
        {},
        [
            ("assignment", CHANGED, 1, {}),
            ("removal", ADDED, 1, {"kind": "assignment"}),
            ("audit_entry", ADDED, 1, {"action": "removed"}),
        ],
    ),
    "a comment is written": (
        TEACHER,
        "/hand-ins/{hand_in_id}/comments",
        {"text": "Look at the apex.", "step": ""},
        [("comment", ADDED, 1, {"text": "Look at the apex."})],
    ),
    "a comment is kept as a phrase": (
        TEACHER,
        "/hand-ins/{hand_in_id}/comments",
        {"text": "Why this one?", "step": "", "keep": "yes"},
        [("comment", ADDED, 1, {"text": "Why this one?"}), ("phrase", ADDED, 1, {"text": "Why this one?"})],
    ),
    "a student answers": (
        STUDENT,
        "/hand-ins/{hand_in_id}/comments",
        {"text": "I see.", "step": "", "keep": "yes"},
        [("comment", ADDED, 1, {"text": "I see."})],
    ),
    "a score is overridden": (
        TEACHER,
        "/hand-ins/{hand_in_id}/score",
        {"score": "64", "reason": "neatly done"},
        [("hand_in", CHANGED, 1, {"score_override": 64, "reason": "neatly done"})],
    ),
    "a work is returned": (
        TEACHER,
        "/hand-ins/{hand_in_id}/hand-back",
        {},
        [("work", CHANGED, 1, {"returned": datetime})],
    ),
    "a phrase is removed": (TEACHER, "/account/phrases/{phrase_id}/remove", {}, [("phrase", REMOVED, 1, {})]),
    "a class tool is removed": (TEACHER, "/class-tools/{class_tool_id}/remove", {}, [("class_tool", REMOVED, 1, {})]),
    "a class tool is given": (
        TEACHER,
        "/sheets/{sheet_id}/class-tool",
        {"class": "{class_id}", "name": "Rhombus", "price": "one"},
        [("class_tool", ADDED, 1, {"name": "Rhombus", "moves": 1})],
    ),
    "a task is assigned": (
        TEACHER,
        "/sheets/{sheet_id}/assign",
        {"class": ["{class_id}"], "attempts": "2"},
        [("assignment", ADDED, 1, {"attempts": 2})],
    ),
    "a task of the library is taken": (
        TEACHER,
        "/library/kite/take",
        {},
        [("task_sheet", ADDED, 1, {"library_key": "kite", "version": 1})],
    ),
    "a task is copied": (TEACHER, "/sheets/{sheet_id}/copy", {}, [("task_sheet", ADDED, 1, {"version": 1})]),
    "a task is deleted": (
        TEACHER,
        "/sheets/{sheet_id}/remove",
        {},
        [
            ("task_sheet", CHANGED, 1, {}),
            ("removal", ADDED, 1, {"kind": "task"}),
            ("audit_entry", ADDED, 1, {"action": "removed"}),
        ],
    ),
    "a student is taken out of a class": (
        TEACHER,
        "/classes/{class_id}/students/{person_id}/remove",
        {},
        [
            ("membership", REMOVED, 1, {}),
            ("removal", ADDED, 1, {"kind": "member"}),
            ("audit_entry", ADDED, 1, {"action": "removed"}),
        ],
    ),
    "a class is deleted": (
        TEACHER,
        "/classes/{class_id}/remove",
        {},
        [
            ("school_class", CHANGED, 1, {}),
            ("assignment", CHANGED, None, {}),
            ("work", CHANGED, None, {}),
            ("person", CHANGED, None, {}),
            ("removal", ADDED, 1, {"kind": "class"}),
            ("audit_entry", ADDED, 2, {"action": "removed"}),
        ],
    ),
    "a task is shared": (
        TEACHER,
        "/sheets/{sheet_id}/share",
        {"shared": "yes"},
        [("task_sheet", CHANGED, 1, {"shared": True})],
    ),
    "a shared task is taken": (
        TEACHER,
        "/library/school/{shared_id}/take",
        {},
        [("task_sheet", ADDED, 1, {"shared": False})],
    ),
    "settings are changed": (
        TEACHER,
        "/assignments/{new_id}/terms",
        {"attempts": "3", "late": "refused", "weight": "2", "student": ["{person_id}"]},
        [
            ("assignment", CHANGED, 1, {"attempts": 3, "late": "refused", "weight": 2}),
            ("chosen_student", ADDED, 1, {}),
        ],
    ),
    "settings of several tasks are changed": (
        TEACHER,
        "/classes/{class_id}/terms",
        {"assignment": ["{new_id}", "{assignment_id}"], "weight": "7"},
        [("assignment", CHANGED, 2, {"weight": 7})],
    ),
    "feedback is chosen": (
        TEACHER,
        "/assignments/{new_id}/feedback",
        {"feedback": "result", "may": ["measure"]},
        [("assignment", CHANGED, 1, {"feedback": "result", "finding": False, "loci": False})],
    ),
    "a result is entered": (
        TEACHER,
        "/assignments/{new_id}/results",
        {"kind-{person_id}": "paper", "score-{person_id}": "81", "note-{person_id}": "on paper"},
        [("entered_result", ADDED, 1, {"score": 81, "note": "on paper"})],
    ),
    "a column of marks is added": (
        TEACHER,
        "/classes/{class_id}/columns",
        {"title": "A capital in stone", "weight": "2"},
        [("mark_column", ADDED, 1, {"title": "A capital in stone", "weight": 2})],
    ),
    "practice is opened": (
        TEACHER,
        "/classes/{class_id}/practice",
        {"topic": ["Polygons"]},
        [("practice_topic", ADDED, 1, {"topic": "Polygons"})],
    ),
    "colleagues are chosen": (
        TEACHER,
        "/classes/{class_id}/colleagues",
        {"colleague": ["{colleague_id}"]},
        [("colleague", ADDED, 1, {}), ("audit_entry", ADDED, 1, {})],
    ),
    "proofs no longer name places in the Elements": (
        TEACHER,
        "/account/proofs",
        {},
        [("person", CHANGED, 1, {"elements": False})],
    ),
}


@pytest.mark.parametrize("deed", DEEDS)
def test_a_deed_does_what_it_says_and_nothing_else(school_of_deeds, monkeypatch, deed):
    login, path, form, expected = DEEDS[deed]
    answer, found = school_of_deeds.do(monkeypatch, login, path, form)
    assert answer.status_code == (200 if deed in SHOWN_ONCE else 302), answer.text[:500]
    assert set(found) == {table for table, *_ in expected}, found
    for table, how, count, values in expected:
        change = found[table]
        rows = getattr(change, how)
        others = [name for name in (ADDED, REMOVED, CHANGED) if name != how and getattr(change, name)]
        assert (rows and count is None) or len(rows) == count, (table, rows)
        assert not others, (table, others)
        assert any(all(fits(row.get(name), value) for name, value in values.items()) for row in rows), rows


def fits(found, value):
    return isinstance(found, value) if isinstance(value, type) else found == value


def test_a_new_task_comes_last(school_of_deeds, monkeypatch):
    form = {"class": ["{class_id}"]}
    _, found = school_of_deeds.do(monkeypatch, TEACHER, "/sheets/{sheet_id}/assign", form)
    (made,) = found["assignment"].added
    assert made["position"] == school_of_deeds.last + 2  # after the one that was given before


def test_a_task_is_moved_by_one_place(school_of_deeds, monkeypatch):
    """The one that was last and the one before it have changed places; all others are where they were."""
    _, found = school_of_deeds.do(monkeypatch, TEACHER, "/assignments/{new_id}/place", {"way": "before"})
    places = sorted(row["position"] for row in found["assignment"].changed)
    assert places == [school_of_deeds.last, school_of_deeds.last + 1]


def test_several_works_get_what_one_gets(school_of_deeds, monkeypatch):
    path, form = "/assignments/{assignment_id}/several", {"student": ["{person_id}"]}
    _, found = school_of_deeds.do(monkeypatch, TEACHER, path, form | {"what": "comment", "text": "All of you: look."})
    assert [row["text"] for row in found["comment"].added] == ["All of you: look."] and set(found) == {"comment"}
    _, found = school_of_deeds.do(monkeypatch, TEACHER, path, form | {"what": "score", "score": "50", "reason": "r"})
    assert [row["score_override"] for row in found["hand_in"].changed] == [50]


def test_a_step_is_stored_once_and_the_board_counts_as_touched(school_of_deeds, monkeypatch):
    """The work was begun by the demo; its log grows by the one operation."""
    with school_of_deeds.app.extensions["sessions"]() as session:
        work = session.get(Work, school_of_deeds.ids["work_id"])
        after = len(work.operations)
    step = {"op": "add", "step": {"id": "zz", "make": "circle", "from": ["A", "B"]}}
    sent = {"key": "once and no more", "after": after, "operation": step}
    answer, found = school_of_deeds.do(monkeypatch, STUDENT, "/tasks/{assignment_id}/operations", json=sent)
    assert answer.status_code == 200, answer.text
    assert [row["number"] for row in found["operation"].added] == [after + 1] and not found["operation"].removed
    assert set(found) <= {"operation", "work"}


@pytest.mark.parametrize(
    ("login", "path", "form", "status"),
    [
        (TEACHER, "/classes", {"name": " "}, 422),
        (TEACHER, "/hand-ins/{hand_in_id}/comments", {"text": " "}, 422),
        (TEACHER, "/hand-ins/{hand_in_id}/score", {"score": "101"}, 422),
        (TEACHER, "/assignments/{new_id}/terms", {"attempts": "0"}, 422),
        (TEACHER, "/sheets/{set_sheet_id}/assign", {"class": ["{class_id}"]}, 422),
        (STUDENT, "/hand-ins/{hand_in_id}/score", {"score": "100"}, 404),
        (COLLEAGUE, "/sheets/{sheet_id}/remove", {}, 404),
    ],
)
def test_what_is_refused_changes_nothing(school_of_deeds, monkeypatch, login, path, form, status):
    answer, found = school_of_deeds.do(monkeypatch, login, path, form)
    assert answer.status_code == status and found == {}


def test_every_assignment_has_a_place_of_its_own(app):
    with app.extensions["sessions"]() as session:
        for school_class in session.scalars(select(SchoolClass)):
            places = [one.position for one in school_class.assignments]
            assert places == sorted(set(places)), school_class.name


def test_a_task_that_is_deleted_is_gone_and_its_class_keeps_the_others(school_of_deeds, monkeypatch):
    _, found = school_of_deeds.do(monkeypatch, TEACHER, "/assignments/{new_id}/remove")
    (made,) = found["removal"].added
    assert found["assignment"].changed == [{"removal": made["id"]}] and made["about"] == school_of_deeds.ids["new_id"]
    assert set(found) == {"assignment", "removal", "audit_entry"}
