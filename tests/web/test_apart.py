"""Heavy work in processes of its own: with limits, in line, one at a time for a person; papers made once and kept."""

import os
import threading
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest

from tests.papers import paper_from
from widepin.documents.reading import Unreadable
from widepin.school.tasks.library import LIBRARY
from widepin.web.jobs import apart
from widepin.web.jobs.apart import Busy, JobQueue, TooHeavy
from widepin.web.printed import paper, printing


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
def handout(app, as_person, monkeypatch, tmp_path):
    """The address of the handout of a task of one's own; no paper is kept yet, whatever other tests have printed."""
    monkeypatch.setitem(app.extensions, "papers", tmp_path)
    return as_person("corin.hale").post(f"/library/{next(KEYS)}/take").location + "/handout.pdf"


def test_a_paper_is_made_once_and_kept(app, as_person, handout, monkeypatch):
    client = as_person("corin.hale")
    assert paper_from(client, handout).data.startswith(b"%PDF")
    monkeypatch.setattr(apart, "begin", lambda *_: pytest.fail("it was made again"))
    assert paper_from(client, handout).data.startswith(b"%PDF")


def test_while_a_paper_is_made_a_page_says_how_far_it_is(app, as_person, handout, monkeypatch):
    client = as_person("corin.hale")
    monkeypatch.setattr(printing, "AT_ONCE", 0.0)
    answer = client.get(f"{handout}?arcs=1")
    assert answer.status_code == 200 and "<progress" in answer.text and answer.headers["Refresh"] == "1"
    assert paper_from(client, f"{handout}?arcs=1").data.startswith(b"%PDF")


def test_a_paper_of_the_same_person_waits_for_the_one_before(app, as_person, handout, monkeypatch):
    client = as_person("corin.hale")
    with (app.extensions["papers"] / f"person-{number_of(app, 'corin.hale')}").open("a") as held:
        assert apart.take(held)
        monkeypatch.setattr(apart, "begin", lambda *_: pytest.fail("two at a time"))
        answer = client.get(handout)
    assert answer.status_code == 200 and "Waiting for other papers" in answer.text


def test_who_waits_for_a_paper_can_hand_in(app, as_person, fresh_student):
    login = fresh_student("prints-and-hands-in")
    client = as_person(login)
    number = client.get("/tasks").text.split('href="/tasks/')[1].split('"')[0]
    step = {"op": "add", "step": {"id": "z1", "make": "circle", "from": ["A", "B"]}}
    client.post(f"/tasks/{number}/operations", json={"key": "12345678", "after": 0, "operation": step})
    with (app.extensions["papers"] / f"person-{number_of(app, login)}").open("a") as held:
        assert apart.take(held)
        assert client.post(f"/tasks/{number}/hand-in").status_code == 302


def number_of(app, login):
    from sqlalchemy import select

    from widepin.school.models import Person

    with app.extensions["sessions"]() as session:
        return session.scalar(select(Person.id).where(Person.login == login))


def test_a_paper_that_somebody_else_is_waiting_for_is_no_trouble(app, as_person, handout, monkeypatch):
    client, jobs = as_person("corin.hale"), []

    class Begun:
        def __init__(self, _make, arguments, *_limits):
            jobs.append(arguments[0])

        def join(self, _seconds):
            """The process takes longer."""

    monkeypatch.setattr(apart, "begin", Begun)
    client.get(handout)
    with jobs[0].begin():  # for somebody else: nothing of this person's is being made
        answer = client.get(handout)
        assert answer.status_code == 200 and "<progress" in answer.text
        jobs[0].made.write_bytes(b"%PDF")
        assert client.get(handout).data == b"%PDF"
        jobs[0].made.unlink()
    assert not jobs[0].has_failed(), "it was done and is forgotten, so it is made again"
    with pytest.raises(MemoryError), jobs[0].begin():
        raise MemoryError
    assert client.get(handout).status_code == 422


def test_a_paper_that_takes_too_much_is_told_and_can_be_tried_again(app, as_person, handout, monkeypatch):
    client = as_person("corin.hale")
    monkeypatch.setattr(printing, "MEGABYTES", 1)
    answer = paper_from(client, handout)
    assert answer.status_code == 422 and "could not be made" in answer.text and "Refresh" not in answer.headers
    assert client.get(handout).status_code == 422
    monkeypatch.setattr(printing, "MEGABYTES", 400)
    assert paper_from(client, f"{handout}?again=1").data.startswith(b"%PDF")


def test_only_so_many_papers_are_kept(tmp_path, monkeypatch):
    monkeypatch.setattr(printing, "MAX_KEPT", 3)
    for number in range(6):
        (tmp_path / f"{number}.pdf").write_bytes(b"x")
        os.utime(tmp_path / f"{number}.pdf", (number, number))
    printing.clear_away(tmp_path)
    assert sorted(path.name for path in tmp_path.glob("*.pdf")) == ["3.pdf", "4.pdf", "5.pdf"]


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
