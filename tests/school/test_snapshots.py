"""Boards in memory: always what the log in the database says, whatever other processes and transactions do."""

from functools import partial

import pytest
from sqlalchemy import delete, event, select

from tests.counting import queries
from tests.school.test_works import add, an_assignment
from widepin.school.database import make_sessions
from widepin.school.models import Operation, Person, Work
from widepin.school.works import autosave, snapshots
from widepin.school.works.history import History, OperationRefused
from widepin.school.works.snapshots import Snapshot, Snapshots


@pytest.fixture
def kept(monkeypatch):
    """The snapshots of this process, empty at first."""
    found = Snapshots()
    monkeypatch.setattr(autosave, "SNAPSHOTS", found)
    monkeypatch.setattr(snapshots, "SNAPSHOTS", found)
    return found


@pytest.fixture
def work_id(school, fresh_student, request):
    login = fresh_student(f"snap-{abs(hash(request.node.name)) % 10**8}")
    with make_sessions(school)() as session:
        student = session.scalars(select(Person).where(Person.login == login)).one()
        made = autosave.work_of(session, an_assignment(session), student)
        session.commit()
        return made.id


@pytest.fixture
def save(school, work_id):
    """Saves an operation in a transaction of its own, as a request does."""

    def do(after, operation, key=None):
        with make_sessions(school)() as session:
            work = session.get(Work, work_id)
            stored = autosave.save(session, work.assignment, work.student, key or f"key-{after:06}", after, operation)
            session.commit()
            return stored.number

    return do


def circle(number):
    return add(f"c{number}", "circle", "A", "O")


def test_a_board_in_memory_is_what_the_whole_log_says(kept, save, school, work_id):
    operations = [circle(0), circle(1), {"op": "move", "points": {"A": [1.5, 2.5]}}, {"op": "undo"}, circle(2)]
    operations += [
        {"op": "remove", "id": "c0"},
        {"op": "undo"},
        {"op": "redo"},
        {"op": "undo"},
        circle(3),
    ]
    for number, operation in enumerate(operations):
        assert save(number, operation) == number + 1
        with make_sessions(school)() as session:
            work = session.get(Work, work_id)
            board = snapshots.current(session, work, autosave.task_of(work.assignment))
            kept.keep(snapshots.of(work), board)
            assert board.state.figure == autosave.state_of(work).figure and board.number == number + 1


def test_only_what_came_since_is_read(kept, save, school):
    read = []
    for number in range(12):
        save(number, circle(number))

    def count(_connection, cursor, statement, *_):
        if "operation.number" in statement and statement.startswith("SELECT"):
            read.append(cursor.rowcount)

    event.listen(school, "after_cursor_execute", count)
    try:
        save(12, circle(12))
    finally:
        event.remove(school, "after_cursor_execute", count)
    assert read == [2], "the last one that is known, and the one after it"  # with the work, in one query


def test_a_save_asks_as_often_however_long_the_log_is(kept, save, school):
    counts = [queries(school, partial(save, number, circle(number))) for number in range(20)]
    assert set(counts[1:]) == {counts[1]}


def test_what_another_process_stored_is_caught_up_with(save, monkeypatch):
    here, there = Snapshots(), Snapshots()
    for number in range(8):
        for module in (autosave, snapshots):
            monkeypatch.setattr(module, "SNAPSHOTS", (here, there)[number % 2])
        assert save(number, circle(number)) == number + 1
    with pytest.raises(OperationRefused):
        save(8, circle(3))  # the id is taken, by a step that the other process stored


def test_another_log_in_the_place_of_the_known_one_is_read_anew(kept, save, school, work_id):
    """As after a backup was restored."""
    for number in range(3):
        save(number, circle(number))
    with make_sessions(school)() as session:
        session.execute(delete(Operation).where(Operation.work_id == work_id, Operation.number >= 2))
        session.add(Operation(work_id=work_id, number=2, key="another", document=add("z", "circle", "O", "A")))
        session.commit()
    assert save(2, circle(1)) == 3, "c1 is free again"
    with pytest.raises(OperationRefused):
        save(3, add("z", "circle", "O", "A"))


def test_what_was_not_committed_is_not_known(kept, save, school, work_id):
    save(0, circle(0))
    with make_sessions(school)() as session:
        autosave.store(session, session.get(Work, work_id), "lost-key", 1, circle(1))
        session.rollback()
    assert save(1, circle(1), "other-key") == 2


def test_what_is_brought_in_and_taken_back_is_not_known(kept, save, school, work_id):
    save(0, circle(0))
    steps = [circle(1)["step"], add("bad", "midpoint", "A", "O")["step"]]
    with make_sessions(school)() as session:
        with pytest.raises(OperationRefused):
            autosave.import_steps(session, session.get(Work, work_id), 1, {"steps": steps})
        session.rollback()
    assert save(1, circle(1)) == 2


def test_a_key_that_is_known_is_answered_with_what_was_stored(kept, save):
    assert [save(0, circle(0), "same-key"), save(1, circle(1)), save(2, circle(2), "same-key")] == [1, 2, 1]


def test_those_used_longest_ago_go_first():
    held = Snapshots(most=10)
    for work_id in range(4):
        held.keep((1, work_id), Snapshot(History(None), number=3))
    assert list(held.kept) == [(1, 1), (1, 2), (1, 3)] and held.count == 9
    taken = held.take((1, 2))
    assert taken is not None and held.take((1, 2)) is None and held.count == 6
    held.keep((1, 2), taken)
    held.keep((1, 2), Snapshot(History(None), number=4))
    assert held.count == 10 and list(held.kept) == [(1, 1), (1, 3), (1, 2)]
