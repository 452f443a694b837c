"""What a student believes of the board, put to the server; and what an open board is told of its task."""

import itertools

import pytest
from sqlalchemy import select

from widepin.school.database import make_sessions
from widepin.school.models import Assignment, Membership, Person, TaskSheet

numbers = itertools.count()
CIRCLES = [
    {"id": "c", "make": "circle", "from": ["A", "B"]},
    {"id": "d", "make": "circle", "from": ["B", "A"]},
    {"id": "M", "make": "intersection", "from": ["c", "d"], "pick": 1},
]


@pytest.fixture
def board(school, as_person, fresh_student):
    """The address of a board with two circles, and the student before it."""
    with make_sessions(school)() as session:
        own = select(Assignment.id).join(TaskSheet).join(Membership, Membership.class_id == Assignment.class_id)
        of_veteran = own.join(Person, Person.id == Membership.person_id).where(Person.login == "ilse.marran")
        number = session.scalars(of_veteran.where(TaskSheet.title.startswith("Splitting a gable"))).first()
    student = as_person(fresh_student(f"believer-{next(numbers)}"))
    for after, step in enumerate(CIRCLES):
        sent = {"key": f"claims-{after:03}", "after": after, "operation": {"op": "add", "step": step}}
        assert student.post(f"/tasks/{number}/operations", json=sent).status_code == 200
    return student, f"/tasks/{number}"


def claim(rel, *of):
    return {"rel": rel, "of": [list(term) for term in of]}


def test_what_holds_in_every_position_is_told_from_what_does_not(board):
    student, address = board
    claims = [
        claim("equal_length", "AM", "BM"),
        claim("equal_length", "AM", "AC"),
        claim("equal_angle", "AMB", "MBA"),
        claim("right_angle", "AMB"),
    ]
    answer = student.post(f"{address}/claims", json={"claims": claims})
    assert answer.json == {"holds": [True, False, True, False]}


@pytest.mark.parametrize(
    "one",
    [
        claim("equal_length", "AM", "BZ"),
        claim("equal_length", "AM"),
        claim("equal_length", "AMB", "ABM"),
        claim("right_angle", "AMB", "ABM"),
        claim("equal_length", "Ac", "AB"),
        claim("parallel", "AM", "BM"),
    ],
)
def test_what_cannot_be_claimed_is_said(board, one):
    student, address = board
    answer = student.post(f"{address}/claims", json={"claims": [one]})
    assert answer.status_code == 422 and answer.json["error"]


def test_nothing_is_told_where_nothing_is_to_be_measured(board, school):
    student, address = board
    number = int(address.rsplit("/", 1)[1])
    with make_sessions(school)() as session:
        session.get_one(Assignment, number).measuring = False
        session.commit()
    try:
        answer = student.post(f"{address}/claims", json={"claims": [claim("equal_length", "AM", "BM")]})
        assert answer.status_code == 422
    finally:
        with make_sessions(school)() as session:
            session.get_one(Assignment, number).measuring = True
            session.commit()


def test_an_open_board_hears_of_attempts_dates_and_another_version(board, school):
    student, address = board
    number = int(address.rsplit("/", 1)[1])
    before = student.post(f"{address}/here").json
    assert before["attempts_left"] is None and before["comments"] == [] and before["comment_url"] is None
    with make_sessions(school)() as session:
        assignment = session.get_one(Assignment, number)
        assignment.attempts, assignment.loci = 2, not assignment.loci
        session.commit()
    try:
        student.post(f"{address}/hand-in", data={"answer": []}, headers={"Accept": "application/json"})
        after = student.post(f"{address}/here").json
        assert after["attempts_left"] == 1 and after["comment_url"]
        assert after["version"] != before["version"]
        answered = student.post(after["comment_url"], data={"text": "Why?"}, headers={"Accept": "application/json"})
        assert answered.json == {}
        (said,) = student.post(f"{address}/here").json["comments"]
        assert said["is_own"] and said["text"] == "Why?"
        empty = student.post(after["comment_url"], data={"text": " "}, headers={"Accept": "application/json"})
        assert empty.status_code == 422 and "Write something" in empty.json["error"]
    finally:
        with make_sessions(school)() as session:
            assignment = session.get_one(Assignment, number)
            assignment.attempts, assignment.loci = None, not assignment.loci
            session.commit()
