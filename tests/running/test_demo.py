"""The demo command: starts, starts again, says what is wrong, stops cleanly, survives being killed."""

import contextlib
import os
import re
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.parse
import urllib.request
from pathlib import Path

import pytest

from widepin.running.mariadb import DURABLE, MariaDB, free_port

ROOT = Path(__file__).parents[2]


class Demo:
    """A demo with a data folder of its own."""

    def __init__(self, folder):
        self.folder = folder
        self.port = free_port()
        self.process = None
        self.said_first = None

    def launch(self, *options):
        return subprocess.Popen(
            [sys.executable, "-m", "widepin.cli", "demo", "--port", str(self.port), *options],
            env={**os.environ, "PYTHONPATH": str(ROOT / "src"), "WIDEPIN_VAR": str(self.folder)},
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
        )

    def start(self, *options):
        self.process = self.launch(*options)
        said = []
        for line in self.process.stdout:
            said.append(line)
            if "Ctrl-C stops" in line:
                return "".join(said)
        raise AssertionError("".join(said))

    @property
    def is_running(self):
        return self.process is not None and self.process.poll() is None

    def stop(self, how=signal.SIGTERM):
        self.process.send_signal(how)
        said, _ = self.process.communicate(timeout=60)
        return said

    def page_soon(self, path="/sign-in"):
        """A page, within the seconds that a server takes to listen again."""
        for _ in range(100):
            with contextlib.suppress(OSError):
                return self.page(path)
            time.sleep(0.1)
        return self.page(path)

    def page(self, path="/sign-in"):
        with urllib.request.urlopen(f"http://127.0.0.1:{self.port}{path}", timeout=20) as answer:
            return answer.read().decode()

    def database_process(self):
        return int((self.folder / "demo" / "db.pid").read_text())


@pytest.fixture(scope="module")
def demo(tmp_path_factory):
    made = Demo(tmp_path_factory.mktemp("var"))
    made.said_first = made.start()
    yield made
    if made.is_running:
        made.stop()


@pytest.fixture
def running(demo):
    """The demo, running, whatever the test before has done to it."""
    if not demo.is_running:
        demo.start()
    return demo


@pytest.fixture
def stopped(demo):
    """The demo, loaded and not running."""
    if demo.is_running:
        demo.stop()
    return demo


def alive(pid):
    try:
        return Path(f"/proc/{pid}/stat").read_text().split()[2] != "Z"
    except OSError:
        return False


def gone(pid):
    """Whether a process ends within a while."""
    for _ in range(200):
        if not alive(pid):
            return True
        time.sleep(0.1)
    return False


def test_a_first_start_serves_the_demo_school(running):
    said = running.said_first
    assert f"http://127.0.0.1:{running.port}/" in said and "corin.hale" in said and "tracery" in said
    assert "Master Corin Hale" in running.page()


def test_a_second_instance_is_told_where_the_first_one_is(running):
    said, _ = running.launch().communicate(timeout=60)
    assert "running already" in said and str(running.port) in said


def test_sigterm_stops_both_servers(running):
    database = running.database_process()
    said = running.stop()
    assert "All data are kept" in said and running.process.returncode == 0
    assert gone(database)
    with pytest.raises(OSError):
        running.page()


def test_ctrl_c_stops_a_second_start_that_loaded_nothing_anew(stopped):
    said = stopped.start()
    assert "Loading" not in said and "Starting the database" in said
    assert "stopped" not in stopped.stop(signal.SIGINT).splitlines()[0] and stopped.process.returncode == 0


def test_a_taken_port_is_said(stopped):
    with socket.socket() as other:
        other.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        other.bind(("127.0.0.1", stopped.port))
        other.listen()
        said, _ = stopped.launch().communicate(timeout=60)
    assert "taken" in said and "--port" in said


def said_until(demo, words):
    """What the demo says, until it says these words."""
    said = []
    for line in demo.process.stdout:
        said.append(line)
        if words in line:
            return "".join(said)
    raise AssertionError("".join(said))


def status(demo, path="/sign-in"):
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{demo.port}{path}", timeout=60) as answer:
            return answer.status
    except urllib.error.HTTPError as error:
        return error.code
    except OSError:
        return None


def test_a_database_that_dies_is_started_again_and_the_site_goes_on(running):
    known = running.database_process()
    os.kill(known, signal.SIGKILL)
    assert "nothing that was saved is lost" in said_until(running, "The database runs again")
    assert running.database_process() != known
    assert "Master Corin Hale" in running.page() and running.process.poll() is None


def sign_in(demo):
    """Somebody signs in, which needs the database."""
    jar = urllib.request.HTTPCookieProcessor()
    opener = urllib.request.build_opener(jar)
    address = f"http://127.0.0.1:{demo.port}/sign-in"
    try:
        page = opener.open(address, timeout=60).read().decode()
        token = re.search('name="csrf_token"[^>]* value="([^"]+)"', page)[1]
        fields = urllib.parse.urlencode({"csrf_token": token, "login": "corin.hale", "password": "tracery"}).encode()
        return opener.open(address, fields, timeout=60).status
    except urllib.error.HTTPError as error:
        assert "Nothing can be stored" in error.read().decode()
        return error.code


def test_a_database_that_hangs_is_noticed(running):
    known = running.database_process()
    os.kill(known, signal.SIGSTOP)
    begun = time.monotonic()
    assert sign_in(running) == 503 and time.monotonic() - begun < 30
    said_until(running, "The database runs again")
    assert running.database_process() != known and sign_in(running) == 200


def children(pid):
    return [int(one) for one in Path(f"/proc/{pid}/task/{pid}/children").read_text().split()]


def main_of_web_server(demo):
    return next(pid for pid in children(demo.process.pid) if b"gunicorn" in Path(f"/proc/{pid}/cmdline").read_bytes())


def test_workers_end_with_the_main_process_of_the_web_server_and_it_is_started_again(running):
    main = main_of_web_server(running)
    for _ in range(100):
        if len(workers := children(main)) >= 2:
            break
        time.sleep(0.1)
    assert len(workers) >= 2
    os.kill(main, signal.SIGKILL)
    said_until(running, "The web server runs again")
    assert all(gone(worker) for worker in workers)
    assert "Master Corin Hale" in running.page_soon()


def test_after_the_demo_itself_is_killed_the_next_start_works(running):
    database = running.database_process()
    running.process.kill()
    running.process.wait()
    running.process.stdout.close()
    assert gone(database), "the database ends with its parent"
    for _ in range(100):
        with contextlib.suppress(OSError), socket.create_connection(("127.0.0.1", running.port), 1):
            time.sleep(0.1)
            continue
        break
    running.start()
    assert "Master Corin Hale" in running.page()


def test_starting_over_asks_first(stopped):
    process = subprocess.run(
        [sys.executable, "-m", "widepin.cli", "demo", "--reset"],
        input="n\n",
        capture_output=True,
        text=True,
        env={**os.environ, "PYTHONPATH": str(ROOT / "src"), "WIDEPIN_VAR": str(stopped.folder)},
    )
    assert process.returncode == 1 and re.search("Start over", process.stdout)
    assert (stopped.folder / "demo" / "made").exists()


def test_rows_committed_before_a_kill_are_there_afterwards(tmp_path):
    import pymysql

    database = MariaDB(tmp_path / "db", DURABLE)
    database.start()

    def connect():
        password = (database.folder / "password").read_text()
        return pymysql.connect(host="127.0.0.1", port=database.port, user="app", password=password, database="widepin")

    with connect() as connection, connection.cursor() as cursor:
        cursor.execute("CREATE TABLE kept (n INT PRIMARY KEY)")
        for n in range(200):
            cursor.execute("INSERT INTO kept VALUES (%s)", (n,))
            connection.commit()
        database.process.kill()
    database.process.wait()
    database.start()
    try:
        with connect() as connection, connection.cursor() as cursor:
            cursor.execute("SELECT COUNT(*) FROM kept")
            assert cursor.fetchone() == (200,)
    finally:
        database.stop()


def test_a_first_start_that_was_cut_off_is_begun_again(tmp_path):
    database = MariaDB(tmp_path / "db", DURABLE)
    database.data.mkdir(parents=True)
    (database.data / "ibdata1").write_bytes(b"half")
    try:
        assert database.start().startswith("mariadb+pymysql://app:")
    finally:
        database.stop()
