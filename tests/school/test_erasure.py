"""Who is erased is gone from every table, and what is old from the school."""

import json
from datetime import timedelta

import pyotp
import pytest
from sqlalchemy import inspect, select, text

from tests.counting import queries
from widepin.school.lessons.demonstrations import demonstration_for
from widepin.school.models import (
    AuditEntry,
    Comment,
    HandIn,
    Person,
    Recording,
    Removal,
    SchoolClass,
    SignIn,
    TaskSheet,
    Work,
    now,
)
from widepin.school.people import (
    accounts,
    browser_sessions,
    personal_data,
    removing,
    retention,
    second_factor,
)
from widepin.school.refused import Refused
from widepin.school.states import Action, Role, SignInOutcome
from widepin.school.tasks import recordings


def traces(session, *words):
    """Every table and row in which one of the words stands, in whatever column."""
    found = []
    session.flush()
    for table in inspect(session.connection()).get_table_names():
        for row in session.execute(text(f"SELECT * FROM `{table}`")):
            said = " ".join(json.dumps(value, default=str, ensure_ascii=False) for value in row).lower()
            found += [(table, word) for word in words if word.lower() in said]
    return found


def rows_of(session, person_id):
    """Tables with rows that hang on a person by a foreign key."""
    found = []
    inspector = inspect(session.connection())
    for table in inspector.get_table_names():
        for key in inspector.get_foreign_keys(table):
            if key["referred_table"] == "person":
                (column,) = key["constrained_columns"]
                asked = text(f"SELECT COUNT(*) FROM `{table}` WHERE `{column}` = :id")
                found += [table] if session.scalar(asked, {"id": person_id}) else []
    return found


@pytest.fixture
def administrator(session):
    return accounts.teacher_named(session, "oda.finch")


@pytest.fixture
def corin(session):
    return accounts.teacher_named(session, "corin.hale")


def comment_by(session, person):
    hand_in = session.scalars(select(HandIn)).first()
    session.add(Comment(hand_in_id=hand_in.id, author_id=person.id, text="Look at the second circle."))
    session.flush()


def test_a_student_who_is_removed_is_gone_from_every_table(session, corin):
    student = session.scalars(select(Person).where(Person.login == "bram.idris")).one()
    browser_sessions.begin(session, student, "127.0.0.1", "")
    session.add(SignIn(person_id=student.id, address="127.0.0.1", outcome=SignInOutcome.SUCCEEDED))
    hand_in = session.scalars(select(HandIn).join(Work).where(Work.student_id == student.id)).first()
    session.add(Comment(hand_in_id=hand_in.id, author_id=student.id, text="written by the student"))
    session.flush()
    number = student.id
    assert {"membership", "work", "sign_in", "browser_session", "comment"} <= set(rows_of(session, number))
    assert traces(session, "bram.idris", "Bram Idris", "written by the student")
    removing.erase_soon(session, corin, removing.remove_student(session, corin, student.classes[0], student))
    removing.erase_outdated(session)
    assert traces(session, "bram.idris", "Bram Idris", "written by the student") == []
    assert rows_of(session, number) == []


def test_a_teacher_who_is_erased_is_gone_from_every_table_and_the_classes_go_on(session, administrator, corin):
    works = len(list(session.scalars(select(Work.id))))
    tasks = len(list(session.scalars(select(TaskSheet.id))))
    of_corin = set(session.scalars(select(SchoolClass.id).where(SchoolClass.teacher_id == corin.id)))
    secret = second_factor.new_secret()
    second_factor.begin(session, corin, secret, pyotp.TOTP(secret).now())
    browser_sessions.begin(session, corin, "127.0.0.1", "")
    accounts.reset(session, administrator, corin)
    comment_by(session, corin)
    number = corin.id
    assert {"comment", "recovery_code", "one_time_link", "browser_session"} <= set(rows_of(session, number))
    accounts.erase_teacher(session, administrator, corin, administrator)
    assert traces(session, "corin.hale", "Corin Hale") == []
    assert rows_of(session, number) == []
    assert len(list(session.scalars(select(Work.id)))) == works
    assert len(list(session.scalars(select(TaskSheet.id)))) == tasks
    of_heir = set(session.scalars(select(SchoolClass.id).where(SchoolClass.teacher_id == administrator.id)))
    assert of_corin and of_corin <= of_heir
    done = session.scalars(select(AuditEntry).order_by(AuditEntry.id.desc())).first()
    assert (done.action, done.actor, done.about) == (Action.ERASED, administrator, number)


def test_classes_of_one_name_stay_apart_when_they_are_taken_over(session, administrator, corin):
    session.add(SchoolClass(name="First year", teacher=administrator))
    session.flush()
    accounts.erase_teacher(session, administrator, corin, administrator)
    mine = select(SchoolClass.name).where(SchoolClass.teacher_id == administrator.id)
    assert {"First year", "First year (2)"} <= set(session.scalars(mine))


def test_what_a_teacher_who_is_erased_has_in_the_bin_goes_to_the_heir_and_comes_back(session, administrator, corin):
    removed = session.scalars(select(SchoolClass).where(SchoolClass.teacher_id == corin.id)).first()
    sheet = next(one for one in session.scalars(select(TaskSheet).where(TaskSheet.owner_id == corin.id)))
    number, name, removal = removed.id, removed.name, removing.remove_class(session, corin, removed)
    accounts.erase_teacher(session, administrator, corin, administrator)
    session.expire_all()
    assert session.scalar(select(SchoolClass).where(SchoolClass.id == number)) is None
    removing.restore(session, administrator, session.get_one(Removal, removal.id))
    session.expire_all()
    back = session.get_one(SchoolClass, number)
    assert back.teacher is administrator and name in back.name
    assert session.get_one(TaskSheet, sheet.id).owner is administrator


def test_the_voice_of_a_teacher_who_is_erased_goes_and_the_words_stay(session, administrator, corin):
    sheet = session.scalars(select(TaskSheet).where(TaskSheet.owner_id == corin.id)).first()
    spoken, number = recordings.keep(session, corin, b"OggS and what is said"), corin.id
    document = demonstration_for(sheet)
    document["frames"][0] |= {"voice": spoken.digest, "words": "The opening.", "own": True}
    sheet.demonstration = document
    session.flush()
    accounts.erase_teacher(session, administrator, corin, administrator)
    session.expire_all()
    frame = session.get_one(TaskSheet, sheet.id).demonstration["frames"][0]
    assert frame["words"] == "The opening." and "voice" not in frame
    assert session.scalars(select(Recording).where(Recording.owner_id == number)).all() == []


def test_nobody_inherits_from_themselves_or_after_leaving(session, administrator, corin):
    with pytest.raises(Refused, match="somebody else"):
        accounts.erase_teacher(session, administrator, corin, corin)


def test_the_data_of_a_teacher_hold_what_the_tables_do(session, corin):
    browser_sessions.begin(session, corin, "127.0.0.7", "")
    session.add(SignIn(person_id=corin.id, address="127.0.0.7", outcome=SignInOutcome.SUCCEEDED))
    comment_by(session, corin)
    data = personal_data.of_teacher(session, corin)
    assert json.loads(json.dumps(data)) == data
    assert data["login"] == "corin.hale" and {"First year", "Second year"} <= {one["name"] for one in data["classes"]}
    assert data["tasks"] and data["comments"] and data["tasks"][0]["document"]["given"]
    assert data["sign_ins"][-1]["address"] == data["sessions"][0]["address"] == "127.0.0.7"
    assert "password" not in json.dumps(data) and corin.password_hash not in json.dumps(data)


def test_what_is_older_than_the_school_keeps_is_shown_and_then_erased(session, administrator):
    retention.set_months(session, administrator, "6")
    before = retention.outdated(session)
    names = {"Quillon Marsh", "Sefa Dunmore"}
    students = [Person(login=name, name=name, role=Role.STUDENT, password_hash="") for name in names]
    long_ago = now() - timedelta(days=200)
    old = SchoolClass(name="Class of old", teacher=administrator, students=students, archived=long_ago)
    session.add(old)
    session.flush()
    session.add(SignIn(person_id=students[0].id, address="127.0.0.1", outcome=SignInOutcome.SUCCEEDED, at=long_ago))
    session.flush()
    found = retention.outdated(session)
    assert set(found.classes) - set(before.classes) == {old} and found.sign_ins == before.sign_ins + 1
    assert {one.name for one in set(found.students) - set(before.students)} == names
    retention.erase(session, administrator, found)
    assert not {old} & set(retention.outdated(session).classes), "it is seen no more at once"
    removing.erase_outdated(session)
    assert traces(session, "Class of old", *names) == []
    assert retention.outdated(session).is_empty
    assert session.scalars(select(SchoolClass).where(SchoolClass.name == "Second year")).first().students


@pytest.mark.parametrize("count", [2, 40])
def test_erasing_what_is_old_asks_no_query_for_each_student(session, school, administrator, count):
    students = [Person(login=f"old {n}", name=f"Old {n}", role=Role.STUDENT, password_hash="") for n in range(count)]
    long_ago = now() - timedelta(days=900)
    session.add(SchoolClass(name="Of old", teacher=administrator, students=students, archived=long_ago))
    session.flush()
    found = retention.outdated(session)
    assert len(found.students) >= count
    assert queries(school, lambda: retention.erase(session, administrator, found)) < 30


def test_who_is_in_another_class_too_or_has_worked_lately_is_kept(session, administrator):
    retention.set_months(session, administrator, "6")
    classes = {one.name: one for one in session.scalars(select(SchoolClass))}
    first, second = classes["First year"], classes["Second year"]
    both, active = first.students[:2]
    second.students.append(both)
    first.archived = now() - timedelta(days=200)
    for work in session.scalars(select(Work)):
        work.touched = now() if work.student_id == active.id else now() - timedelta(days=200)
    session.flush()
    kept = {both.name, active.name}
    assert not kept & {one.name for one in retention.outdated(session).students}


def test_who_was_taken_out_and_may_be_put_back_is_kept(session, administrator, corin):
    first = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
    student = Person(login="una.reeve", name="Una Reeve", role=Role.STUDENT, password_hash="", classes=[first])
    session.add(student)
    session.flush()
    removal = removing.take_out(session, corin, first, student)
    assert student not in retention.outdated(session).students
    session.delete(removal)
    session.flush()
    assert student in retention.outdated(session).students


@pytest.mark.parametrize("months", ["0", "121", "-3", "six", ""])
def test_a_number_of_months_is_a_number(session, administrator, months):
    with pytest.raises(Refused, match="1 to 120"):
        retention.set_months(session, administrator, months)
