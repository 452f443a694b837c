"""An open board hears why nothing can be done at it any more, and why nothing is taken."""

import pytest
from sqlalchemy import select

from widepin.school.models import Assignment, Person, SchoolClass, Work, now


@pytest.fixture
def board(app, as_person, fresh_student):
    """A student who has begun a task of the second year: the client, and the number of the assignment."""

    def begin(login):
        student = as_person(fresh_student(login))
        with app.extensions["sessions"]() as session:
            wanted = select(Assignment).join(SchoolClass).where(SchoolClass.name == "Second year")
            number = next(
                one.id for one in session.scalars(wanted) if not one.after_id and not one.opens and not one.chosen
            )
        sent = {
            "key": "a-key-of-a-test",
            "after": 0,
            "operation": {"op": "note", "note": "n", "text": "hi", "at": [1, 1]},
        }
        assert student.post(f"/tasks/{number}/operations", json=sent).status_code == 200
        return student, number

    return begin


def changed(app, number, **fields):
    with app.extensions["sessions"]() as session:
        found = session.get_one(Assignment, number)
        before = {name: getattr(found, name) for name in fields}
        for name, value in fields.items():
            setattr(found, name, value)
        session.commit()
        return before


def test_a_board_hears_how_long_the_log_is_that_other_windows_have_written(board):
    student, number = board("two.windows")
    assert student.post(f"/tasks/{number}/here").json["operations"] == 1


def test_used_up_attempts_are_told_before_anything_is_handed_in(app, board):
    student, number = board("used.up")
    assert student.post(f"/tasks/{number}/here").json["not_taken"] is None
    before = changed(app, number, attempts=0)
    try:
        assert "used up" in student.post(f"/tasks/{number}/here").json["not_taken"]
    finally:
        changed(app, number, **before)


def test_a_class_that_is_put_away_says_so_on_its_open_boards(app, board):
    student, number = board("put.away")
    with app.extensions["sessions"]() as session:
        session.get_one(Assignment, number).school_class.archived = now()
        session.commit()
    try:
        answer = student.post(f"/tasks/{number}/here", headers={"Accept": "application/json"})
        assert answer.status_code == 403 and "This class is closed" in answer.json["error"]
    finally:
        with app.extensions["sessions"]() as session:
            session.get_one(Assignment, number).school_class.archived = None
            session.commit()


def test_who_was_taken_out_of_the_class_hears_it_and_a_stranger_nothing(app, board, as_person):
    student, number = board("taken.out")
    with app.extensions["sessions"]() as session:
        person = session.scalars(select(Person).where(Person.login == "taken.out")).one()
        school_class = session.get_one(Assignment, number).school_class
        school_class.students.remove(person)
        session.commit()
    ask = {"Accept": "application/json"}
    answer = student.post(f"/tasks/{number}/here", headers=ask)
    assert answer.status_code == 403 and "not among yours any more" in answer.json["error"]
    assert as_person("bram.idris").post(f"/tasks/{number}/here", headers=ask).status_code == 404
    with app.extensions["sessions"]() as session:
        session.delete(session.scalars(select(Work).where(Work.student_id == person.id)).one())
        session.commit()
