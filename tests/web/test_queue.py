"""Long work through the queue: done by a worker, with its limits; by this machine while the queue is away."""

import os
import secrets
import shutil
import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
from itsdangerous import BadData
from redis import Redis

from tests.papers import paper_from
from tests.web.test_apart import hungry, leaves_a_mark, nothing_else, process_of, refused, spans  # noqa: F401
from widepin.documents.reading import Unreadable
from widepin.running.mariadb import free_port
from widepin.school.tasks.library import LIBRARY
from widepin.web.jobs import apart, background, queue
from widepin.web.jobs.apart import Busy, TooHeavy
from widepin.web.jobs.queue import SharedQueue, Signed

SECRET = "for tests"  # as the application of the tests has it
ROOT = Path(__file__).parents[2]


class Redises:
    """A Redis that can be stopped and started again at its address."""

    def __init__(self, folder):
        self.folder, self.port, self.process = folder, free_port(), None
        self.url = f"redis://127.0.0.1:{self.port}/0"

    def start(self):
        program = shutil.which("redis-server")
        assert program, "redis-server is not installed; bin/widepin test installs it"
        command = [program, "--port", str(self.port), "--bind", "127.0.0.1", "--save", "", "--dir", str(self.folder)]
        self.process = subprocess.Popen(command, stdout=subprocess.DEVNULL)
        for _ in range(200):
            try:
                return Redis.from_url(self.url).ping()
            except OSError:
                time.sleep(0.05)
            except Exception:
                time.sleep(0.05)
        raise AssertionError("Redis does not start")

    def stop(self):
        self.process.kill()
        self.process.wait()


@pytest.fixture(scope="module")
def redis(tmp_path_factory):
    made = Redises(tmp_path_factory.mktemp("redis"))
    made.start()
    yield made
    made.stop()


WORKER = "import json, sys; from widepin.web.jobs.worker import work; work(json.loads(sys.argv[1]), 2)"


@pytest.fixture(scope="module")
def worker(redis, school, database_url, tmp_path_factory):
    """The id of the process of a worker."""
    import json

    folder = tmp_path_factory.mktemp("worker")
    settings = {"DATABASE_URL": database_url, "SECRET_KEY": SECRET, "QUEUE_URL": redis.url, "SCRATCH": str(folder)}
    environment = {**os.environ, "PYTHONPATH": f"{ROOT / 'src'}:{ROOT}"}
    with (folder / "log").open("w") as log:
        process = subprocess.Popen(
            [sys.executable, "-c", WORKER, json.dumps(settings)], env=environment, cwd=ROOT, stdout=log, stderr=log
        )
    asked = Redis.from_url(redis.url)
    for _ in range(1200):
        if asked.exists(queue.ALIVE) or process.poll() is not None:
            break
        time.sleep(0.05)
    assert process.poll() is None, (folder / "log").read_text()
    yield process.pid
    process.terminate()
    process.wait(60)


def shared(folder, redis, secret=SECRET):
    folder.mkdir(exist_ok=True)
    return SharedQueue(folder, redis.url, secret)


@pytest.fixture
def jobs(tmp_path, redis, worker):
    return shared(tmp_path / "server", redis)


def parent_of(number):
    return os.getppid(), number * 2


def test_a_worker_does_it_and_what_is_raised_there_is_raised_here(jobs, monkeypatch):
    monkeypatch.setattr(apart, "begin", lambda *_: pytest.fail("it was done here"))
    pid, _niceness, result = jobs.do(1, process_of, 21)
    assert pid != os.getpid() and result == 42
    with pytest.raises(Unreadable) as wrong:
        jobs.do(1, refused)
    assert wrong.value.place == "a.b"
    with pytest.raises(TooHeavy, match="memory"):
        jobs.do(1, hungry)


def test_a_person_has_one_job_at_a_time_whichever_server_takes_it(tmp_path, redis, worker):
    servers = [shared(tmp_path / name, redis) for name in ("one", "two")]
    with ThreadPoolExecutor(2) as threads:
        begun = [
            threads.submit(one.do, 7, leaves_a_mark, str(tmp_path), name)
            for one, name in zip(servers, "ab", strict=True)
        ]
        for job in begun:
            job.result()
    (_, first_end), (second_begin, _) = spans(tmp_path)
    assert second_begin >= first_end


def leave_a_file(path):
    Path(path).write_text("done")


def test_what_was_not_signed_with_the_schools_key_is_not_done(tmp_path, redis, worker, monkeypatch):
    forged = shared(tmp_path / "forged", redis, "another key")
    monkeypatch.setattr(forged, "seconds", 2)
    monkeypatch.setattr(queue, "UNTAKEN", 60)
    with pytest.raises(Busy):
        forged.do(1, leave_a_file, str(tmp_path / "mark"))
    assert not (tmp_path / "mark").exists()
    with pytest.raises(BadData):
        Signed(SECRET).read(Signed("another key").write(1))


def test_while_the_queue_is_away_this_machine_does_it(tmp_path):
    away = Redises(tmp_path)
    jobs = shared(tmp_path / "server", away)
    begun = time.monotonic()
    assert jobs.do(1, process_of, 4)[2] == 8
    assert not jobs.has_workers() and not jobs.send("background", ("name", print, ()))
    first = time.monotonic() - begun
    assert jobs.do(1, process_of, 5)[2] == 10 and first < 60


def test_while_no_worker_of_this_version_is_there_this_machine_does_it(tmp_path):
    alone = Redises(tmp_path)
    alone.start()
    Redis.from_url(alone.url).set("widepin:an older one:workers", "1")
    try:
        assert shared(tmp_path / "server", alone).do(1, process_of, 4)[2] == 8
    finally:
        alone.stop()


def test_a_queue_that_goes_while_somebody_waits_is_no_trouble(tmp_path):
    gone = Redises(tmp_path)
    gone.start()
    Redis.from_url(gone.url).set(queue.ALIVE, "1")  # a worker that has just died
    jobs = shared(tmp_path / "server", gone)
    with ThreadPoolExecutor(1) as threads:
        waiting = threads.submit(jobs.do, 1, process_of, 4)
        time.sleep(1)
        gone.stop()
        assert waiting.result()[2] == 8


def add_a_line(path):
    with Path(path).open("a") as file:
        file.write("done\n")


def test_what_no_worker_takes_is_done_here(tmp_path, monkeypatch):
    """Workers that say that they are there, and do not come to it."""
    idle = Redises(tmp_path)
    idle.start()
    try:
        Redis.from_url(idle.url).set(queue.ALIVE, "1")
        monkeypatch.setattr(queue, "UNTAKEN", 0.5)
        assert shared(tmp_path / "server", idle).do(1, process_of, 4)[2] == 8
    finally:
        idle.stop()


def test_a_worker_leaves_alone_what_somebody_else_has_taken(tmp_path, redis, jobs, monkeypatch):
    other = shared(tmp_path / "other", redis)
    addresses = iter(["the-address", "another"])
    monkeypatch.setattr(secrets, "token_hex", lambda _count: next(addresses))
    assert queue.take(other.redis, f"{queue.OURS}:answer:the-address", "somebody who has died")
    jobs.do(1, add_a_line, str(tmp_path / "mark"))
    assert other.do(2, parent_of, 1)[1] == 2  # by the same worker, which has looked at what was sent before
    assert (tmp_path / "mark").read_text() == "done\n"


def test_a_paper_is_made_by_a_worker(app, as_person, jobs, nothing_else, monkeypatch):  # noqa: F811
    monkeypatch.setitem(app.extensions, "jobs", jobs)
    monkeypatch.setattr(apart, "begin", lambda *_: pytest.fail("it was made here"))
    client = as_person("corin.hale")
    handout = client.post(f"/library/{list(LIBRARY)[-1]}/take").location + "/handout.pdf"
    assert paper_from(client, handout).data.startswith(b"%PDF")


def test_work_in_the_background_is_done_by_a_worker(app, jobs, tmp_path, monkeypatch):
    monkeypatch.setitem(app.extensions, "jobs", jobs)
    with app.app_context():
        background.begin("leave a file", leave_a_file, str(tmp_path / "mark"))
    for _ in range(600):
        if (tmp_path / "mark").exists():
            break
        time.sleep(0.05)
    assert (tmp_path / "mark").read_text() == "done"
