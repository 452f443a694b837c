"""Logs of works that nobody has touched for long are packed; whoever reads or goes on finds all of it."""

import json
from datetime import timedelta

import pytest
from sqlalchemy import func, select
from sqlalchemy.orm.attributes import set_committed_value

from widepin.school.database import make_sessions
from widepin.school.models import Choice, Operation, PackedLog, Work, now
from widepin.school.people.personal_data import of_student
from widepin.school.works import autosave, packing
from widepin.school.works.board_standing import board_standing
from widepin.school.works.snapshots import SNAPSHOTS, of


@pytest.fixture
def old(session):
    """A work of the demo with a long log, not touched for a year."""
    counted = select(Operation.work_id).group_by(Operation.work_id).order_by(func.count().desc()).limit(1)
    work = session.get_one(Work, session.scalar(counted))
    work.touched = now() - timedelta(days=365)
    session.flush()
    return work


def log_of(work):
    return [(one.number, one.key, one.document, one.stored) for one in work.operations]


def rows_of(session, work):
    return session.scalar(select(func.count()).select_from(Operation).where(Operation.work_id == work.id))


def test_a_packed_log_reads_as_before_and_is_smaller(session, old):
    before = log_of(old)
    assert len(before) > 5
    packing.pack(session, [old])
    assert rows_of(session, old) == 0 and log_of(old) == before
    assert len(old.packed.content) < len(json.dumps([one[:3] for one in before])) / 2
    packing.unpack(session, old)
    assert log_of(old) == before and session.get(PackedLog, old.id) is None


def test_what_looks_at_many_works_sees_packed_ones_too(session, old):
    before = of_student(session, old.student)
    standing = board_standing(session, old.assignment, old.student)
    packing.pack(session, [old])
    session.expire_all()
    assert of_student(session, old.student) == before
    assert board_standing(session, old.assignment, old.student) == standing and standing.operations == len(log_of(old))


@pytest.mark.parametrize("is_in_memory", [True, False])
def test_who_goes_on_with_a_packed_work_finds_all_of_it(session, old, is_in_memory):
    """Whether or not a process of the server still has its board in memory."""
    before = log_of(old)
    SNAPSHOTS.take(of(old))
    if is_in_memory:
        autosave.store(session, old, "last-before", len(before), {"op": "move", "points": {"A": [1, 1]}})
        session.expire(old)
        before = log_of(old)
    packing.pack(session, [old])
    key = before[0][1]
    assert autosave.save(session, old.assignment, old.student, key, 0, before[0][2]).number == 1, "it is known"
    packing.pack(session, [old])
    with pytest.raises(autosave.StaleLog) as behind:
        autosave.save(session, old.assignment, old.student, "tab-2", 1, {"op": "move", "points": {"A": [0, 1]}})
    assert [one.number for one in behind.value.missed] == list(range(2, len(before) + 1))
    packing.pack(session, [old])
    step = {"op": "move", "points": {"A": [0, 0.5]}}
    assert autosave.save(session, old.assignment, old.student, "goes-on", len(before), step).number == len(before) + 1
    session.expire(old)
    assert log_of(old)[:-1] == before and rows_of(session, old) == len(before) + 1
    SNAPSHOTS.take(of(old))


def test_a_log_that_is_packed_or_unpacked_while_it_is_read_is_whole(session, old):
    """A page reads the work first, then its operations; another transaction may come in between."""
    before = log_of(old)
    packing.pack(session, [old])
    set_committed_value(old, "packed_operations", 0)
    assert log_of(old) == before, "packed after the work was read"
    session.expire(old)
    assert old.operation_rows == []
    packing.unpack(session, old)
    for name, value in (("operation_rows", []), ("packed", None), ("packed_operations", len(before))):
        set_committed_value(old, name, value)
    assert log_of(old) == before, "unpacked after it was seen that there are no rows"


def test_an_empty_log_and_one_that_is_packed_stay_as_they_are(session, old):
    packing.pack(session, [old])
    content = old.packed.content
    packing.pack(session, [old])
    assert old.packed.content == content
    work = Work(assignment=old.assignment, student=old.student)
    assert work.operations == []


def test_in_the_background_what_is_old_is_packed_bit_by_bit(school, session):
    """And what is not, is left alone; after the last work it begins anew."""
    sessions = make_sessions(school)
    with sessions() as mine:
        works = list(mine.scalars(select(Work).order_by(Work.id)))
        chosen = [one for one in works if one.operations][:3]
        was = {one.id: one.touched for one in chosen}
        logs = {one.id: log_of(one) for one in chosen}
        for one in chosen[:2]:
            one.touched = now() - packing.UNTOUCHED - timedelta(days=1)
        mine.commit()
    try:
        looked = 0
        while found := packing.pack_old(sessions, most=7):
            looked += found
            if found < 7:
                break
        assert looked == len(works)
        with sessions() as mine:
            assert set(mine.scalars(select(PackedLog.work_id))) == {one.id for one in chosen[:2]}
            assert mine.get(Choice, packing.PLACE).value == {"work": 0}
            for id_, log in logs.items():
                assert log_of(mine.get(Work, id_)) == log
    finally:
        with sessions() as mine:
            for id_, touched in was.items():
                work = mine.get(Work, id_)
                if work.packed_operations:
                    packing.unpack(mine, work)
                work.touched = touched
            mine.delete(mine.get(Choice, packing.PLACE))
            mine.commit()
