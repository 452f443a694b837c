"""The class overview: who stands where at this moment."""

import itertools
from dataclasses import replace
from datetime import timedelta

import pytest
from sqlalchemy import select

from tests.counting import queries
from widepin.documents.formats.roster import Name
from widepin.school.lessons import lesson, overview
from widepin.school.lessons.overview import GroupedBy
from widepin.school.lessons.overview_groups import SortedBy, grouped, ordered
from widepin.school.models import Operation, SchoolClass, now
from widepin.school.refused import Refused
from widepin.school.works import reviewing
from widepin.school.works.autosave import store, task_of, work_of
from widepin.school.works.history import replay


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
    handed_in = [one for one in overview.overview_of(session, assignment) if one.standing.latest]
    place = next(one for one in handed_in if "answer" in one.figure)  # the board is as it was handed in
    work = place.work
    step = {"op": "add", "step": {"id": "zz", "make": "circle", "from": ["A", "B"]}}
    store(session, work, "a-new-one", len(work.operations), step)
    work.touched = now() + timedelta(seconds=5)
    session.flush()
    session.expire_all()
    (after,) = overview.overview_of(session, assignment, since=work.touched - timedelta(seconds=1))
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
        assert overview.presence_of(work, at, False)[0] == kind
    assert overview.presence_of(None, at, False)[0] == "new"
    work.seen = None
    assert overview.presence_of(work, at, True) == ("done", "handed in"), "nobody who has handed in is called offline"
    work.seen, work.touched, work.opened = at, at - timedelta(days=1), at - timedelta(seconds=20)
    assert overview.presence_of(work, at, False)[0] == "working", "the board was opened just now"
    assert set(overview.presences(session, assignment, at)) == {one.id for one in assignment.school_class.students}


def test_students_with_the_same_spots_are_marked_and_others_not(session, assignment):
    first, second, third = assignment.school_class.students[:3]
    put: dict = {"op": "add", "step": {"id": "zz", "make": "free_point", "at": [1.2345, 6.789]}}
    for student in (first, second, third):
        work = work_of(session, assignment, student)
        session.refresh(work, ["operation_rows"])
        while replay(task_of(assignment), [one.document for one in work.operations]).done:
            store(session, work, f"back-{len(work.operations)}", len(work.operations), {"op": "undo"})
            session.refresh(work, ["operation_rows"])
        own = put if student is not third else {"op": "add", "step": {**put["step"], "at": [2, 2]}}
        store(session, work, "the-spot", len(work.operations), own)
        work.touched = now() + timedelta(seconds=5)
    session.flush()
    session.expire_all()
    places = {one.student.id: one for one in overview.overview_of(session, assignment)}
    assert places[first.id].same_as == [second.name] and places[third.id].same_as == []


def test_the_wall_takes_the_same_number_of_queries_however_many_students(session, assignment):
    from widepin.school.people.roster import add_students

    def read():
        session.expire_all()
        return overview.overview_of(session, assignment)

    before = queries(session.bind, read)
    for student in add_students(session, assignment.school_class, [Name("Student", str(n)) for n in range(6)]):
        work_of(session, assignment, student)
    assert queries(session.bind, read) <= before <= 12


class TestALesson:
    @pytest.fixture
    def places(self, session, assignment):
        return overview.overview_of(session, assignment)

    @pytest.mark.parametrize("order", SortedBy)
    def test_every_order_holds_everybody(self, places, order):
        assert {id(one) for one in ordered(places, order)} == {id(one) for one in places}

    def test_the_quickest_and_the_shortest_come_first_and_who_has_nothing_last(self, places):
        by_time = [one.took for one in ordered(places, SortedBy.TIME) if one.took is not None]
        assert by_time == sorted(by_time) and ordered(places, SortedBy.TIME)[len(by_time) - 1].took is not None
        moves = [one.standing.best.moves for one in ordered(places, SortedBy.MOVES) if one.is_handed_in]
        assert moves == sorted(moves)

    def test_a_mistake_is_shown_once_with_a_sentence(self, places):
        for group in grouped(places, GroupedBy.TROUBLE):
            assert (group.shown is not None) == (group.state in ("half", "bad", "plain"))
            assert bool(group.words) == (group.shown is not None)

    def test_the_timeline_only_grows_and_ends_with_all_that_is(self, places):
        moments = lesson.timeline(places)
        assert len(moments) == lesson.PARTS
        for before, after in itertools.pairwise(moments):
            assert before.begun <= after.begun and before.solved <= after.solved
            assert after.solved <= after.handed_in <= after.begun
        assert moments[-1].handed_in == sum(one.is_handed_in for one in places)
        assert lesson.timeline([]) == []

    def test_who_sits_still_and_who_tries_in_vain_needs_help(self, session, places):
        place = next(one for one in places if one.work is not None)
        place.standing = replace(place.standing, best=None)
        place.work.seen, place.work.touched = now(), now() - timedelta(minutes=9)
        found = {one.student.id: words for one, words in lesson.needing_help(places, now())}
        assert "inactive for 9 minutes" in found[place.student.id]

    def test_who_takes_back_what_is_drawn_needs_help(self, session, places):
        place = next(one for one in places if one.work is not None)
        place.standing = replace(place.standing, best=None)
        place.work.seen = place.work.touched = now()
        said = "5 steps taken back in 6 minutes"
        for back, drawn, is_stuck in ((4, 0, False), (5, 5, True), (5, 6, False)):
            done = [*["add"] * drawn, *["undo"] * (back - 1), "remove"]
            place.work.operation_rows = [
                Operation(number=number, key=f"k{number}", document={"op": op}, stored=now())
                for number, op in enumerate(done, 1)
            ]
            found = {one.student.id: words for one, words in lesson.needing_help(places, now())}
            assert (found.get(place.student.id) == said) == is_stuck
            later = {one.student.id: words for one, words in lesson.needing_help(places, now() + timedelta(minutes=7))}
            assert later.get(place.student.id) != said
        session.rollback()


class TestSeveral:
    @pytest.fixture
    def attempts(self, session, assignment):
        students = [student.id for student in assignment.school_class.students]
        return reviewing.latest_attempts(session, assignment, students)

    def test_one_comment_goes_to_all_or_to_none(self, session, assignment, attempts):
        teacher = assignment.school_class.teacher
        before = [len(one.comments) for one in attempts]
        assert len(attempts) > 1
        with pytest.raises(Refused, match="Write something"):
            reviewing.comment_on_all(session, attempts, teacher, " ")
        reviewing.comment_on_all(session, attempts, teacher, "Look at F.")
        session.expire_all()
        assert [len(one.comments) for one in attempts] == [count + 1 for count in before]

    def test_scores_and_returns_go_to_all(self, attempts):
        reviewing.score_all(attempts, "70", "as agreed")
        reviewing.return_all(attempts)
        assert {one.score_override for one in attempts} == {70}
        assert all(one.work.returned for one in attempts)

    def test_nothing_selected_is_said(self, session, assignment):
        with pytest.raises(Refused, match="Select works"):
            reviewing.return_all(reviewing.latest_attempts(session, assignment, [0]))
