"""The class overview: who stands where at this moment."""

from datetime import timedelta

import pytest
from sqlalchemy import select

from tests.counting import queries
from widepin.school import overview
from widepin.school.history import replay
from widepin.school.models import SchoolClass, now
from widepin.school.overview import GroupedBy
from widepin.school.overview_groups import grouped
from widepin.school.works import store, task_of, work_of


@pytest.fixture
def assignment(session):
    return session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one().assignments[0]


def test_everybody_has_a_place(session, assignment):
    places = overview.overview_of(session, assignment)
    assert [one.student for one in places] == assignment.school_class.students
    groups = grouped(places, GroupedBy.TROUBLE)
    assert sum(len(group.places) for group in groups) == len(places)
    assert [len(group.places) for group in groups] == sorted((len(group.places) for group in groups), reverse=True)


def test_works_of_one_method_share_a_picture_of_what_their_answer_is_made_from(session, assignment):
    places = overview.overview_of(session, assignment)
    for group in grouped(places, GroupedBy.METHOD):
        assert len({place.method for place in group.places}) == 1
        assert (group.shown is not None) == bool(group.places[0].method)
        if group.shown:
            made = {step["id"] for step in group.shown["steps"]}
            assert set(group.shown["answer"]) <= made
            assert made <= {step["id"] for step in group.places[0].standing.best.document["steps"]}


def test_a_place_shows_the_board_as_it_stands_once_something_was_done_since(session, assignment):
    place = next(one for one in overview.overview_of(session, assignment) if one.standing.latest)
    assert "answer" in place.figure
    work = place.work
    step = {"op": "add", "step": {"id": "zz", "make": "circle", "from": ["A", "B"]}}
    store(session, work, "a-new-one", len(work.operations), step)
    work.touched = now() + timedelta(seconds=5)
    session.flush()
    session.expire_all()
    (after,) = overview.overview_of(session, assignment, since=now() + timedelta(seconds=4))
    assert after.student is work.student and "zz" in {step["id"] for step in after.figure["steps"]}


def test_presence_follows_what_the_board_says(session, assignment):
    student = assignment.school_class.students[0]
    work, at = work_of(session, assignment, student), now()
    for seen, touched, kind in [
        (None, 0, "offline"),
        (120, 0, "offline"),
        (10, 20, "working"),
        (10, 400, "inactive"),
    ]:
        work.seen = None if seen is None else at - timedelta(seconds=seen)
        work.touched = at - timedelta(seconds=touched)
        assert overview.presence_of(work, at)[0] == kind
    assert overview.presence_of(None, at)[0] == "new"
    assert set(overview.presences(session, assignment, at)) == {one.id for one in assignment.school_class.students}


def test_students_with_the_same_spots_are_marked_and_others_not(session, assignment):
    first, second, third = assignment.school_class.students[:3]
    put: dict = {"op": "add", "step": {"id": "zz", "make": "free_point", "at": [1.2345, 6.789]}}
    for student in (first, second, third):
        work = work_of(session, assignment, student)
        session.refresh(work, ["operations"])
        while replay(task_of(assignment), [one.document for one in work.operations]).done:
            store(session, work, f"back-{len(work.operations)}", len(work.operations), {"op": "undo"})
            session.refresh(work, ["operations"])
        own = put if student is not third else {"op": "add", "step": {**put["step"], "at": [2, 2]}}
        store(session, work, "the-spot", len(work.operations), own)
        work.touched = now() + timedelta(seconds=5)
    session.flush()
    session.expire_all()
    places = {one.student.id: one for one in overview.overview_of(session, assignment)}
    assert places[first.id].same_as == [second.name] and places[third.id].same_as == []


def test_the_wall_takes_the_same_number_of_queries_however_many_students(session, assignment):
    from widepin.school.roster import add_students

    def read():
        session.expire_all()
        return overview.overview_of(session, assignment)

    before = queries(session.bind, read)
    for student in add_students(session, assignment.school_class, [f"Student {n}" for n in range(6)]):
        work_of(session, assignment, student)
    assert queries(session.bind, read) <= before <= 12
