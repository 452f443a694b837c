"""Autosave on the real database: once, in order, nothing lost."""

import threading

import pytest
from sqlalchemy import func, select
from sqlalchemy.exc import IntegrityError

from tests.zoo import JUMPING_GABLE
from widepin.school.database import make_sessions
from widepin.school.models import Assignment, HandIn, Operation, Person, TaskSheet, Work
from widepin.school.results.progress import best_of
from widepin.school.works.autosave import StaleLog, state_of, store, work_of
from widepin.school.works.handins import BoardHasChanged, NothingToHandIn, hand_in, mend_on_board, shortest_sound
from widepin.school.works.history import OperationRefused


def an_assignment(session, title="Six-petal rose"):
    return session.scalars(
        select(Assignment).join(TaskSheet).where(TaskSheet.title.startswith(title)).order_by(Assignment.id.desc())
    ).first()


@pytest.fixture
def work(session, fresh_student, request):
    login = fresh_student(f"works-{abs(hash(request.node.name)) % 10**8}")
    student = session.scalars(select(Person).where(Person.login == login)).one()
    return work_of(session, an_assignment(session), student)


def add(id_, make, *sources, **fields):
    return {"op": "add", "step": {"id": id_, "make": make, **({"from": list(sources)} if sources else {}), **fields}}


def test_an_operation_sent_twice_is_stored_once(session, work):
    first = store(session, work, "key-one-1", 0, add("a", "circle", "A", "O"))
    again = store(session, work, "key-one-1", 0, add("a", "circle", "A", "O"))
    assert first.number == again.number == 1
    assert session.scalar(select(func.count()).where(Operation.work_id == work.id)) == 1


def test_who_is_behind_is_told_what_was_missed(session, work):
    store(session, work, "key-one-1", 0, add("a", "circle", "A", "O"))
    with pytest.raises(StaleLog) as caught:
        store(session, work, "key-two-2", 0, add("b", "circle", "O", "A"))
    assert [one.key for one in caught.value.missed] == ["key-one-1"]


def test_what_is_refused_is_not_stored(session, work):
    with pytest.raises(OperationRefused):
        store(session, work, "key-one-1", 0, add("m", "midpoint", "A", "O"))
    assert session.scalar(select(func.count()).where(Operation.work_id == work.id)) == 0


def test_a_intersection_beyond_a_known_common_point_is_stored_as_the_other_one(session, work):
    for number, operation in enumerate(
        [add("a", "circle", "A", "O"), add("B", "intersection", "a", "k", pick=1), add("b", "circle", "B", "O")]
    ):
        store(session, work, f"key-{number:05}", number, operation)
    stored = store(session, work, "key-other", 3, add("C", "intersection", "b", "k", pick=1))
    # A lies on b by theorem only; that is looked at too.
    assert stored.document["step"] == {
        "id": "C",
        "make": "intersection",
        "from": ["b", "k"],
        "other_than": "A",
    }
    store(session, work, "key-line", 4, add("l", "line", "A", "O"))
    other = store(session, work, "key-last", 5, add("D", "intersection", "l", "k", pick=2))
    assert other.document["step"]["other_than"] == "A" and "pick" not in other.document["step"]


def test_a_intersection_beside_a_point_that_was_put_there_by_eye_stays_a_pick(session, work):
    for number, operation in enumerate([add("a", "circle", "A", "O"), add("Q", "point_on", "k", at=[6, 8.5])]):
        store(session, work, f"key-{number:05}", number, operation)
    stored = store(session, work, "key-cross", 2, add("B", "intersection", "a", "k", pick=2))
    assert stored.document["step"]["pick"] == 2


def test_presentation_survives_the_server(session, work):
    stored = store(session, work, "key-one-1", 0, add("a", "circle", "A", "O", label="rim", hidden=True))
    assert stored.document["step"] == {
        "id": "a",
        "make": "circle",
        "from": ["A", "O"],
        "label": "rim",
        "hidden": True,
    }


def test_writers_at_the_same_moment_lose_nothing(school, fresh_student):
    sessions = make_sessions(school)
    login = fresh_student("at.the.same.moment")
    with sessions() as session:
        student = session.scalars(select(Person).where(Person.login == login)).one()
        work = work_of(session, student.classes[0].assignments[0], student)
        session.commit()
    behind = []

    def write(name):
        with sessions() as own:
            mine = own.get(Work, work.id)
            after = 0
            for _ in range(20):
                try:
                    store(own, mine, f"key-of-{name}", after, add(f"P{name}", "free_point", at=[name, 1]))
                    own.commit()
                    return
                except StaleLog as missed:
                    own.rollback()
                    behind.append(name)
                    after += len(missed.missed)

    threads = [threading.Thread(target=write, args=(n,)) for n in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    with sessions() as fresh:
        numbers = list(
            fresh.scalars(select(Operation.number).where(Operation.work_id == work.id).order_by(Operation.number))
        )
        assert numbers == [1, 2, 3, 4, 5, 6]
        assert {step.id for step in state_of(fresh.get(Work, work.id)).steps} == {f"P{n}" for n in range(6)}


def test_two_tabs_that_begin_at_once_get_one_work(session, work):
    assert work_of(session, work.assignment, work.student).id == work.id


def test_an_empty_board_cannot_be_handed_in(session, work):
    with pytest.raises(NothingToHandIn):
        hand_in(session, work)


def test_every_attempt_is_kept_and_the_best_counts(session, work):
    steps = [
        add("l", "line", "A", "O"),
        add("D", "intersection", "l", "k", pick=2),
        add("a", "circle", "A", "O"),
        add("B", "intersection", "a", "k", pick=1),
        add("F", "intersection", "a", "k", pick=2),
        add("d", "circle", "D", "O"),
        add("C", "intersection", "d", "k", pick=2),
        add("E", "intersection", "d", "k", pick=1),
    ]
    for number, operation in enumerate(steps[:5]):
        store(session, work, f"key-{number:05}", number, operation)
    session.refresh(work)
    poor = hand_in(session, work)
    for number, operation in enumerate(steps[5:], start=5):
        store(session, work, f"key-{number:05}", number, operation)
    session.refresh(work)
    good = hand_in(session, work)
    assert (poor.attempt, poor.outcome.value, good.attempt, good.outcome.value) == (1, "wrong", 2, "sound")
    assert best_of([poor, good]) is good


def test_a_work_is_judged_as_the_figure_lies(session, work):
    """A point by eye fits the dragged figure, not the one in the task."""
    store(session, work, "key-00000", 0, {"op": "move", "points": {"A": [5, 8]}})
    store(session, work, "key-00001", 1, add("B", "point_on", "k", at=[7.598, 6.5]))
    session.refresh(work)
    assert hand_in(session, work).document["given"][1]["at"] == [5, 8]


class TestMending:
    """The gable's bisector with an intersection that jumps."""

    @pytest.fixture
    def attempt(self, session, fresh_student, request):
        login = fresh_student(f"mends-{abs(hash(request.node.name)) % 10**8}")
        student = session.scalars(select(Person).where(Person.login == login)).one()
        work = work_of(session, an_assignment(session, "Splitting a gable"), student)
        for number, step in enumerate(JUMPING_GABLE):
            store(session, work, f"key-{number:05}", number, {"op": "add", "step": step})
        session.refresh(work)
        attempt = hand_in(session, work)
        assert attempt.outcome.value == "switching"
        return attempt

    def test_a_mend_makes_the_board_sound(self, session, attempt):
        mend = mend_on_board(session, attempt, 0)
        session.refresh(attempt.work)
        assert attempt.work.operations[-1].document["step"]["id"] == mend.steps[0].id
        assert hand_in(session, attempt.work).outcome.value == "sound"

    def test_the_same_mend_twice_is_made_once(self, session, attempt):
        mend_on_board(session, attempt, 0)
        session.refresh(attempt.work)
        before = len(attempt.work.operations)
        mend_on_board(session, attempt, 0)
        session.refresh(attempt.work)
        assert len(attempt.work.operations) == before

    def test_a_board_that_has_changed_is_left_alone(self, session, attempt):
        for number in range(2):
            store(session, attempt.work, f"back-{number:05}", len(JUMPING_GABLE) + number, {"op": "undo"})
        session.refresh(attempt.work)
        with pytest.raises(BoardHasChanged):
            mend_on_board(session, attempt, 0)

    def test_there_is_no_other_mend(self, session, attempt):
        with pytest.raises(IndexError):
            mend_on_board(session, attempt, 7)

    def test_the_shortest_sound_work_of_the_class_is_known(self, session, attempt):
        shortest = shortest_sound(session, attempt.work.assignment)
        mend_on_board(session, attempt, 0)
        session.refresh(attempt.work)
        hand_in(session, attempt.work)
        assert shortest_sound(session, attempt.work.assignment) == min(shortest or 99, 4)


class TestConstraints:
    def test_one_work_per_student_and_assignment(self, session, work):
        session.add(Work(assignment_id=work.assignment_id, student_id=work.student_id))
        with pytest.raises(IntegrityError):
            session.flush()

    def test_attempts_have_different_numbers(self, session, work):
        for _ in range(2):
            session.add(HandIn(work_id=work.id, attempt=1, outcome="wrong", moves=0, document={}, verdict={}))
        with pytest.raises(IntegrityError):
            session.flush()

    def test_logins_are_unique(self, session):
        session.add(Person(login="corin.hale", name="Another", role="teacher", password_hash="x"))
        with pytest.raises(IntegrityError):
            session.flush()


def test_the_demo_has_hand_ins_of_every_outcome_and_every_kind_of_task():
    from widepin.judge.verdict import Outcome
    from widepin.school.demo.loading import SET_TASKS, who_does_what
    from widepin.school.demo.tasks import PEOPLE, TASKS

    handed_in = {
        outcome
        for names, numbers in zip(PEOPLE.values(), SET_TASKS, strict=True)
        for place, number in enumerate(numbers)
        for _, attempts, half in who_does_what(names, TASKS[number], place, len(numbers))
        for outcome, _ in attempts
        if not half
    }
    assert handed_in == {outcome.value for outcome in Outcome}
    assert len(TASKS) == 10 and 28 <= sum(map(len, PEOPLE.values())) <= 34


def test_passwords_are_argon2_and_wrong_ones_are_refused(session):
    from tests.conftest import CHEAP

    person = session.scalars(select(Person).where(Person.login == "corin.hale")).one()
    assert person.password_hash.startswith("$argon2id$")
    assert CHEAP.fits(person, "tracery")
    assert not CHEAP.fits(person, "Tracery") and not CHEAP.fits(None, "tracery")
