"""Heavy work in processes of its own: with limits, in line, one at a time for a person; papers made once and kept."""

import os
import threading
import time
from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta
from pathlib import Path

import pytest
from sqlalchemy import delete, select

from tests.papers import paper_from
from widepin.documents.reading import Unreadable
from widepin.school import long_work
from widepin.school.database import in_transaction
from widepin.school.models import Job, Person, now
from widepin.school.parts import PART
from widepin.school.tasks.library import LIBRARY
from widepin.web.jobs import apart, results
from widepin.web.jobs.apart import Busy, JobQueue, TooHeavy
from widepin.web.printed import paper


@pytest.fixture
def jobs(tmp_path):
    return JobQueue(tmp_path, seconds=60, megabytes=300, waiting=4, waiting_each=2)


def process_of(number):
    return os.getpid(), os.nice(0), number * 2


def refused():
    raise Unreadable("a.b", "is wrong")


def hungry():
    return len(bytearray(2 << 30))


def endless():
    while True:
        pass


def dies():
    os._exit(9)


def leaves_a_mark(folder, name):
    """Says when it was at it."""
    begun = time.monotonic()
    time.sleep(2)
    (Path(folder) / f"mark-{name}").write_text(f"{begun} {time.monotonic()}")


def test_work_is_done_elsewhere_at_a_lower_priority(jobs):
    pid, niceness, result = jobs.do(1, process_of, 21)
    assert pid != os.getpid() and niceness > os.nice(0) and result == 42


def test_what_is_raised_there_is_raised_here(jobs):
    with pytest.raises(Unreadable) as wrong:
        jobs.do(1, refused)
    assert wrong.value.place == "a.b"


@pytest.mark.parametrize("job", [hungry, dies])
def test_a_job_that_takes_too_much_memory_or_dies_is_told_and_harms_nothing(jobs, job):
    with pytest.raises(TooHeavy, match="memory"):
        jobs.do(1, job)
    assert jobs.do(1, process_of, 1)[2] == 2


def test_a_job_that_takes_too_long_is_ended(tmp_path):
    jobs = JobQueue(tmp_path, seconds=5, megabytes=300, waiting=4, waiting_each=2)
    with pytest.raises(TooHeavy, match="5 seconds"):
        jobs.do(1, endless)
    assert jobs.do(1, process_of, 1)[2] == 2


def spans(folder):
    return sorted(tuple(map(float, one.read_text().split())) for one in folder.glob("mark-*"))


def test_a_person_has_one_job_at_a_time_whichever_process_of_the_server_takes_it(tmp_path, jobs):
    other = JobQueue(tmp_path, seconds=10, megabytes=300, waiting=4, waiting_each=2)
    with ThreadPoolExecutor(2) as threads:
        jobs = [
            threads.submit(one.do, 7, leaves_a_mark, str(tmp_path), name) for one, name in ((jobs, "a"), (other, "b"))
        ]
        for job in jobs:
            job.result()
    (_, first_end), (second_begin, _) = spans(tmp_path)
    assert second_begin >= first_end


def test_two_processes_of_the_server_work_for_two_persons_at_once(tmp_path, jobs):
    other = JobQueue(tmp_path, seconds=10, megabytes=300, waiting=4, waiting_each=2)
    jobs.do(1, process_of, 1)
    with ThreadPoolExecutor(2) as threads:
        jobs = [
            threads.submit(one.do, whose, leaves_a_mark, str(tmp_path), whose)
            for whose, one in enumerate((jobs, other))
        ]
        for job in jobs:
            job.result()
    (_, first_end), (second_begin, _) = spans(tmp_path)
    assert second_begin < first_end


def test_nobody_waits_in_a_line_that_is_too_long(jobs, tmp_path):
    with ThreadPoolExecutor(6) as threads:
        mine = [threads.submit(jobs.do, 1, leaves_a_mark, str(tmp_path), number) for number in range(4)]
        outcomes = [type(job.exception()) for job in mine]
        assert outcomes.count(Busy) == 2 and outcomes.count(type(None)) == 2
        all_of_us = [threads.submit(jobs.do, whose, leaves_a_mark, str(tmp_path), whose) for whose in range(6)]
        assert [type(job.exception()) for job in all_of_us].count(Busy) == 2
    assert not jobs.count


def test_a_hand_in_that_cannot_be_taken_now_says_so_and_keeps_the_board(app, as_person, fresh_student, monkeypatch):
    client = as_person(fresh_student("waits-for-the-judge"))
    page = next(path for path in ("/tasks",))
    number = client.get(page).text.split('href="/tasks/')[1].split('"')[0]
    step = {"op": "add", "step": {"id": "z1", "make": "circle", "from": ["A", "B"]}}
    sent = {"key": "12345678", "after": 0, "operation": step}
    assert client.post(f"/tasks/{number}/operations", json=sent).status_code == 200

    class Full:
        def do(self, *_):
            raise Busy("Many works are being checked at the moment. Wait some seconds, then try again.")

    monkeypatch.setitem(app.extensions, "jobs", Full())
    answer = client.post(f"/tasks/{number}/hand-in", headers={"Accept": "application/json"})
    assert answer.status_code == 429 and "Wait some seconds" in answer.json["error"]
    assert len(client.get(f"/tasks/{number}/operations").json["operations"]) == 1


# --- papers


KEYS = iter(LIBRARY)


@pytest.fixture
def handout(as_person):
    """The address of the handout of a task of one's own, of which no paper is kept yet."""
    return as_person("corin.hale").post(f"/library/{next(KEYS)}/take").location + "/handout.pdf"


def nothing_begun(*_arguments):
    pytest.fail("it was begun again")


def test_a_paper_is_made_once_and_kept(app, as_person, handout, monkeypatch):
    client = as_person("corin.hale")
    assert paper_from(client, handout).data.startswith(b"%PDF")
    monkeypatch.setattr(apart, "begin", nothing_begun)
    assert paper_from(client, handout).data.startswith(b"%PDF")


def test_while_a_paper_is_made_a_page_says_how_far_it_is(as_person, handout, monkeypatch):
    client = as_person("corin.hale")
    monkeypatch.setattr(results, "AT_ONCE", 0.0)
    answer = client.get(f"{handout}?arcs=1")
    assert answer.status_code == 200 and "<progress" in answer.text and answer.headers["Refresh"] == "1"
    assert paper_from(client, f"{handout}?arcs=1").data.startswith(b"%PDF")


class NeverDone:
    """In the place of what does jobs: takes them, and they stay as they are."""

    def __init__(self, folder):
        self.folder, self.begun = folder, []

    def start(self, _function, arguments, _limits, _failed):
        self.begun.append(arguments)
        return lambda _seconds: None


@pytest.fixture
def nothing_else(app):
    """No work of other tests is under way."""
    in_transaction(app.extensions["sessions"], lambda session: session.execute(delete(Job)))


@pytest.fixture
def never_done(app, nothing_else, monkeypatch, tmp_path):
    jobs = NeverDone(tmp_path)
    monkeypatch.setitem(app.extensions, "jobs", jobs)
    return jobs


@pytest.fixture
def other_handout(as_person):
    return as_person("corin.hale").post(f"/library/{next(KEYS)}/take").location + "/handout.pdf"


def test_a_paper_of_the_same_person_waits_for_the_one_before(as_person, handout, other_handout, never_done):
    client = as_person("corin.hale")
    client.get(handout)
    assert "Waiting for its turn" in client.get(other_handout).text
    assert [len(never_done.begun)] == [1]
    as_person("corin.hale").post(f"/waiting/{never_done.begun[0][1]}/stop")


def test_whoever_asks_for_the_same_paper_waits_with_the_others(app, as_person, handout, never_done):
    """A process that has died says nothing any more; what it was at is begun again, so often."""
    client = as_person("corin.hale")
    for _ in range(3):
        assert client.get(handout).status_code == 200
    assert len(never_done.begun) == 1
    key = never_done.begun[0][1]
    for tries in range(2, long_work.MAX_TRIES + 1):
        grown_silent(app, key)
        assert client.get(handout).status_code == 200 and len(never_done.begun) == tries
    grown_silent(app, key)
    assert client.get(handout).status_code == 422 and len(never_done.begun) == long_work.MAX_TRIES
    assert client.get(f"{handout}?again=1").status_code == 200 and len(never_done.begun) == long_work.MAX_TRIES + 1
    client.post(f"/waiting/{key}/stop")


def grown_silent(app, key):
    with app.extensions["sessions"]() as session:
        session.get(Job, key).alive -= 2 * long_work.SILENCE
        session.commit()


def test_who_waits_for_a_paper_can_hand_in(app, as_person, fresh_student):
    login = fresh_student("prints-and-hands-in")
    client, whose = as_person(login), number_of(app, login)
    number = client.get("/tasks").text.split('href="/tasks/')[1].split('"')[0]
    step = {"op": "add", "step": {"id": "z1", "make": "circle", "from": ["A", "B"]}}
    client.post(f"/tasks/{number}/operations", json={"key": "12345678", "after": 0, "operation": step})
    in_transaction(app.extensions["sessions"], lambda session: long_work.ask(session, "a long paper", whose))
    assert client.post(f"/tasks/{number}/hand-in").status_code == 302


def test_a_paper_is_stopped_by_who_has_begun_it_alone(app, as_person, handout, never_done):
    client = as_person("corin.hale")
    client.get(handout)
    key = never_done.begun[0][1]
    as_person("oda.finch").post(f"/waiting/{key}/stop")
    assert is_known(app, key)
    client.post(f"/waiting/{key}/stop")
    assert not is_known(app, key)


def is_known(app, key):
    with app.extensions["sessions"]() as session:
        return session.get(Job, key) is not None


def test_what_was_stopped_ends_when_it_says_how_far_it_is(app, nothing_else):
    sessions, went_on = app.extensions["sessions"], []

    def work(tell):
        in_transaction(sessions, lambda session: long_work.forget(session, "stopped"))
        tell("Drawing", 1, 2)
        went_on.append(1)
        return b"done"

    begun(app, "stopped")
    long_work.do(sessions, "stopped", work)
    assert went_on == [] and not is_known(app, "stopped")


def begun(app, key):
    whose = number_of(app, "corin.hale")
    assert in_transaction(
        app.extensions["sessions"], lambda session: long_work.ask(session, key, whose)
    ).is_mine_to_start


def number_of(app, login):
    with app.extensions["sessions"]() as session:
        return session.scalar(select(Person.id).where(Person.login == login))


def test_what_is_large_is_kept_in_small_parts_and_comes_back_whole(app, nothing_else):
    sessions, content = app.extensions["sessions"], os.urandom(PART * 2 + 12345)
    begun(app, "large")
    long_work.do(sessions, "large", lambda tell: content)
    with sessions() as session:
        assert long_work.result(session, "large") == content
        sizes = [len(part.content) for part in session.get(Job, "large").parts]
        assert len(sizes) == 3 and max(sizes) == PART


def test_a_paper_that_takes_too_much_is_told_and_can_be_tried_again(as_person, handout, monkeypatch):
    client = as_person("corin.hale")
    monkeypatch.setattr(results, "LIMITS", apart.Limits(60, 1))
    answer = paper_from(client, handout)
    assert answer.status_code == 422 and "could not be made" in answer.text and "Refresh" not in answer.headers
    assert client.get(handout).status_code == 422
    monkeypatch.setattr(results, "LIMITS", apart.Limits(60, 400))
    assert paper_from(client, f"{handout}?again=1").data.startswith(b"%PDF")


def test_what_was_fetched_long_ago_is_forgotten(app, nothing_else):
    sessions = app.extensions["sessions"]
    for key in ("old", "new"):
        begun(app, key)
        long_work.do(sessions, key, lambda tell: b"content")
    grown_old = now() - long_work.KEPT - timedelta(minutes=1)
    with sessions() as session:
        session.get(Job, "old").alive = grown_old
        session.commit()
        long_work.clear_away(session)
    assert (is_known(app, "old"), is_known(app, "new")) == (False, True)


def test_a_paper_reads_no_file_and_asks_no_server():
    """What stands in a task is text; and the printing library is given nothing but the paper's own pictures."""
    cards = {
        "class_name": '<img src="file:///etc/hostname">',
        "class_code": "X",
        "address": "x",
        "students": [{"name": '<img src="http://127.0.0.1:9/">', "code": "Y"}],
    }
    told = []
    assert paper.typeset("name cards", cards, lambda *what: told.append(what)).startswith(b"%PDF")
    assert [what for what, _, _ in told] == ["Setting the pages", "Drawing the pages"]


def test_several_threads_may_begin_at_once(jobs):
    barrier = threading.Barrier(3)

    def go(whose):
        barrier.wait()
        return jobs.do(whose, process_of, whose)[2]

    with ThreadPoolExecutor(3) as threads:
        assert list(threads.map(go, range(3))) == [0, 2, 4]
