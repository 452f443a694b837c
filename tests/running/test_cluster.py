"""On a Galera cluster: what several servers write at once, what is read after it was written, a server that goes."""

import shutil
import tempfile
import threading
from pathlib import Path

import pytest
from sqlalchemy import delete, func, select
from sqlalchemy.engine import make_url
from tools.galera import nodes

from tests.conftest import CHEAP
from widepin.running.migrate import migrate
from widepin.school import leases
from widepin.school.database import in_transaction, make_engine, make_sessions
from widepin.school.demo.loading import load_demo
from widepin.school.models import Assignment, Choice, Operation, Person, Turn, Work, now
from widepin.school.turns import locked
from widepin.school.works import packing
from widepin.school.works.autosave import StaleLog, save, work_of


@pytest.fixture(scope="module")
def cluster():
    """Two nodes, and the address that names both."""
    folder = Path(tempfile.mkdtemp(prefix="widepin-test-"))
    folder.chmod(0o755)  # the server runs as a user of its own where this is root
    made = nodes(folder, 2)
    try:
        url = made[0].start()
        made[1].start()
        migrate(url)
        engine = make_engine(url)
        with make_sessions(engine)() as session:
            load_demo(session, passwords=CHEAP, most_per_class=2)
            session.commit()
        engine.dispose()
        yield made, url
    finally:
        for node in made:
            node.stop()
        shutil.rmtree(folder, ignore_errors=True)


@pytest.fixture(scope="module")
def both(cluster):
    """What makes sessions on the one node, and on the other."""
    made, url = cluster
    engines = [make_engine(make_url(url).set(port=node.port).render_as_string(hide_password=False)) for node in made]
    yield [make_sessions(engine) for engine in engines]
    for engine in engines:
        engine.dispose()


def at_once(both, work, times=1):
    """Do work on both nodes at once, so many times; what each returned."""
    barrier = threading.Barrier(2)
    found: dict[int, list] = {0: [], 1: []}

    def go(number):
        for turn in range(times):
            barrier.wait(30)
            found[number].append(work(both[number], number, turn))

    threads = [threading.Thread(target=go, args=(number,)) for number in range(2)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return found


def test_what_one_node_has_stored_the_other_reads_at_once(both):
    for number in range(60):
        with both[number % 2]() as session:
            session.merge(Choice(name="said", value={"n": number}))
            session.commit()
        with both[1 - number % 2]() as session:
            assert session.get(Choice, "said").value == {"n": number}


def test_a_lock_holds_on_both_nodes_though_the_row_itself_is_not_written(both):
    """Each counts what is there and adds one: without a lock both would count the same."""

    def add(session):
        locked(session, session.scalars(select(Person).order_by(Person.id)).first())
        count = session.scalar(select(func.count()).select_from(Choice).where(Choice.name.startswith("counted ")))
        session.add(Choice(name=f"counted {count}", value={}))

    found = at_once(both, lambda sessions, _number, _turn: in_transaction(sessions, add), times=8)
    assert [len(one) for one in found.values()] == [8, 8]
    with both[0]() as session:
        names = set(session.scalars(select(Choice.name).where(Choice.name.startswith("counted "))))
        assert names == {f"counted {number}" for number in range(16)}
        assert session.scalar(select(func.count()).select_from(Turn)) == 0


def test_a_lease_is_had_on_one_node_alone(both):
    def take(sessions, number, turn):
        return in_transaction(sessions, lambda session: leases.take(session, f"lease {turn}", f"node {number}"))

    found = at_once(both, take, times=6)
    assert [sum(pair) for pair in zip(*found.values(), strict=True)] == [1] * 6


def test_steps_of_one_work_saved_through_both_nodes_come_one_after_the_other(both):
    """Two tabs of one student, each at another server: every step is stored once, and none is lost."""
    with both[0]() as session:
        every = session.scalars(select(Assignment).where(Assignment.practice_key.is_(None)))
        assignment = next(one for one in every if one.school_class.students)
        student, assignment_id = assignment.school_class.students[0].id, assignment.id

    def save_one(sessions, number, turn):
        key, after = f"tab-{number}-{turn:04}", 0
        operation = {"op": "move", "points": {"A": [turn / 10, number]}}

        def store(session):
            found = session.get(Assignment, assignment_id)
            return save(session, found, session.get(Person, student), key, after, operation).number

        while True:
            try:
                return in_transaction(sessions, store)
            except StaleLog as behind:
                after += len(behind.missed)

    found = at_once(both, save_one, times=8)
    with both[1]() as session:
        work = work_of(session, session.get(Assignment, assignment_id), session.get(Person, student))
        log = list(session.scalars(select(Operation).where(Operation.work_id == work.id).order_by(Operation.number)))
        assert [one.number for one in log] == list(range(1, len(log) + 1))
        mine = {one.key: one.number for one in log if one.key.startswith("tab-")}
        assert mine == {f"tab-{n}-{turn:04}": number for n, one in found.items() for turn, number in enumerate(one)}


def test_a_work_that_is_begun_through_both_nodes_is_one(both):
    with both[0]() as session:
        every = session.scalars(select(Assignment).order_by(Assignment.id.desc()))
        assignment = next(one for one in every if one.school_class.students)
        student, assignment_id = assignment.school_class.students[-1].id, assignment.id
        session.execute(delete(Work).where(Work.assignment_id == assignment_id, Work.student_id == student))
        session.commit()

    def begin(sessions, _number, _turn):
        def work(session):
            return work_of(session, session.get(Assignment, assignment_id), session.get(Person, student)).id

        return in_transaction(sessions, work)

    found = at_once(both, begin)
    assert found[0] == found[1]
    with both[0]() as session:
        wanted = select(func.count()).select_from(Work)
        assert session.scalar(wanted.where(Work.assignment_id == assignment_id, Work.student_id == student)) == 1


def test_a_log_that_is_packed_while_somebody_saves_at_the_other_node_stays_whole(both):
    """Somebody comes back to a work of long ago just when it is packed, again and again."""
    with both[0]() as session:
        counted = select(Operation.work_id).group_by(Operation.work_id).order_by(func.count().desc()).limit(1)
        work_id = session.scalar(counted)

    def grow_old(session):
        session.get(Work, work_id).touched = now() - 2 * packing.UNTOUCHED

    def save_or_pack(sessions, number, turn):
        def store(session):
            work = session.get(Work, work_id)
            operation = {"op": "move", "points": {"A": [turn, 1]}}
            key, after = f"meanwhile-{turn}", len(work.operations)
            return save(session, work.assignment, work.student, key, after, operation).number

        if number:
            return packing.pack_old(sessions, most=10_000)
        saved = in_transaction(sessions, store)
        in_transaction(sessions, grow_old)
        return saved

    in_transaction(both[0], grow_old)
    saved = at_once(both, save_or_pack, times=12)[0]
    assert saved == list(range(saved[0], saved[0] + 12))
    with both[1]() as session:
        work = session.get(Work, work_id)
        assert [one.number for one in work.operations] == list(range(1, saved[-1] + 1))
        rows = session.scalar(select(func.count()).select_from(Operation).where(Operation.work_id == work_id))
        assert rows == (0 if work.packed_operations else saved[-1])


def test_where_a_node_is_stopped_the_other_goes_on_and_is_joined_again(cluster):
    made, url = cluster
    also = make_url(url).update_query_dict({"also": f"127.0.0.1:{made[1].port}"})
    engine = make_engine(also.render_as_string(hide_password=False))
    sessions = make_sessions(engine)

    def where(session):
        session.merge(Choice(name="where", value={}))
        return session.connection().info["server"][1]

    assert in_transaction(sessions, where) == made[0].port
    made[0].stop()
    assert in_transaction(sessions, where) == made[1].port
    made[0].start()
    assert made[0].state()["wsrep_cluster_size"] == "2"
    engine.dispose()
