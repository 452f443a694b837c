"""A school on several application servers: set up from the first, served together, behind a proxy, upgraded in turn."""

import io
import json
import re
import shutil
import subprocess
import threading
import time
import urllib.error
import urllib.request
from dataclasses import replace

import pytest
from rich.console import Console
from tools.serving import Browser, fill

from tests.running.a_school import ROOT, School
from tests.running.test_upgrades import ask, installation
from widepin.running import ownership, school
from widepin.running.backup import back_up, empty, restore
from widepin.running.mariadb import THROWAWAY, MariaDB, free_port
from widepin.running.migrate import migrate, newest_revision, oldest_working
from widepin.running.school import bring_up_to_date
from widepin.running.settings import BadSettings, read
from widepin.running.supervisor import CannotStart
from widepin.school.database import in_transaction, make_engine, make_sessions
from widepin.school.tables import set_oldest_program


@pytest.fixture(scope="module")
def database(tmp_path_factory):
    """The address of an existing server's empty database."""
    server = MariaDB(tmp_path_factory.mktemp("database"), THROWAWAY)
    try:
        yield server.start()
    finally:
        server.stop()


@pytest.fixture(scope="module")
def servers(database, tmp_path_factory):
    """Two servers of one school, both served; the second was set up from a file of the first."""
    folders = [tmp_path_factory.mktemp(name) for name in ("one", "two")]
    one = School(folders[0])
    one.setup("--database", database, "--together", "--proxies", "0")
    one.must("another", folders[0] / "another.json")
    two = School(folders[1], one.address)
    two.must("setup", "--like", folders[0] / "another.json", "--data", two.data, "--port", two.port, "--no-questions")
    fill(database, 4, 1)
    try:
        one.start()
        two.start()
        yield one, two
    finally:
        one.stop()
        two.stop()


def answer(served, path):
    """Status and text of an answer of a server, asked past any proxy."""
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{served.port}{path}", timeout=30) as found:
            return found.status, found.read().decode()
    except urllib.error.HTTPError as error:
        return error.code, error.read().decode()


def test_who_signed_in_at_one_server_works_at_the_other(servers):
    one, two = servers
    browser = Browser(one.port).sign_in("student0")
    browser.page("/tasks/1")
    step = {"op": "add", "step": {"id": "c1", "make": "circle", "from": ["A", "B"]}}
    assert browser.send("/tasks/1/operations", {"key": "12345678", "after": 0, "operation": step})[0] == 200
    browser.close()
    browser.port = two.port
    status, body = browser.ask("GET", "/tasks/1/operations")
    assert status == 200 and [found["number"] for found in json.loads(body)["operations"]] == [1]


def test_both_say_that_they_serve_it_and_nobody_else_may_alone(servers, database, tmp_path):
    assert len(ownership.servers(database)) == 2
    alone = ownership.Serving(database, tmp_path / "third")
    with pytest.raises(CannotStart, match="together = true"):
        alone.hold()
    assert len(ownership.servers(database)) == 2


def test_what_another_server_needs_is_private_and_written_once(servers):
    one, _two = servers
    file = one.folder / "another.json"
    assert file.stat().st_mode & 0o077 == 0
    assert "is there already" in one.run("another", file).stderr
    assert (one.data / "keys.json").read_text() == (servers[1].data / "keys.json").read_text()


def test_a_school_that_is_served_by_one_machine_has_no_file_for_another(tmp_path):
    one = School(tmp_path)
    one.setup()
    said = one.run("another", tmp_path / "file")
    assert said.returncode == 1 and "together = true" in said.stderr and not (tmp_path / "file").exists()
    assert "queue in its configuration is empty" in one.run("work").stderr


@pytest.mark.parametrize("text", ["", "{}", "[1]", '{"format": "widepin.server/1", "settings": 3}', '{"format": "x"}'])
def test_a_file_of_another_kind_is_refused_and_nothing_is_made(tmp_path, text):
    (tmp_path / "file.json").write_text(text)
    two = School(tmp_path)
    said = two.run("setup", "--like", tmp_path / "file.json", "--data", two.data, "--no-questions")
    assert said.returncode == 1 and "is not what bin/widepin another writes" in said.stderr
    assert not two.config.exists() and not (two.data / "keys.json").exists()


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("together = true", "servers share a database"),
        ('together = "yes"', "must be true or false"),
        ('queue = "http://here"', "write it as redis://"),
        ('reports = "somewhere"', "reports: write it as"),
        ('database = "mariadb+pymysql://a:b@c/d?also=e:f"', "database: write it as"),
    ],
)
def test_settings_for_several_machines_that_cannot_be_used_are_told(tmp_path, line, said):
    lines = ('name = "A"', 'address = "https://a.example"', f'data = "{tmp_path}"', line)
    (tmp_path / "widepin.toml").write_text("\n".join(lines))
    with pytest.raises(BadSettings, match=said):
        read(tmp_path / "widepin.toml")


def test_a_server_that_is_about_to_end_says_so_and_answers_all_the_same(servers):
    _one, two = servers
    assert answer(two, "/healthz") == (200, "ok\n")
    stopping = threading.Thread(target=two.stop)
    stopping.start()
    seen: set[int] = set()
    while stopping.is_alive() and not seen:
        try:
            if answer(two, "/healthz")[0] == 503:
                seen.add(answer(two, "/sign-in")[0])
                assert json.loads(answer(two, "/readyz")[1])["staying"] is False
        except OSError:
            break
        time.sleep(0.02)
    stopping.join()
    two.start()
    assert seen == {200}


def test_behind_the_proxy_that_ships_no_page_is_missed_while_a_server_is_started_again(servers, tmp_path):
    """With the configuration of deploy/, but for addresses and HTTPS."""
    one, two = servers
    port = free_port()
    text = (ROOT / "deploy/haproxy.cfg").read_text()
    text = re.sub(r"    bind :80\n    bind :443.*\n    http-request redirect.*\n", f"    bind 127.0.0.1:{port}\n", text)
    text = re.sub(r"10\.0\.0\.11:8318", f"127.0.0.1:{one.port}", text)
    text = re.sub(r"10\.0\.0\.12:8318", f"127.0.0.1:{two.port}", text)
    text = text.replace(" httponly secure", " httponly").replace("X-Forwarded-Proto https", "X-Forwarded-Proto http")
    (tmp_path / "haproxy.cfg").write_text(text)
    program = shutil.which("haproxy") or "/usr/sbin/haproxy"
    proxy = subprocess.Popen([program, "-db", "-f", str(tmp_path / "haproxy.cfg")])
    try:
        until = time.monotonic() + 60
        while True:
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/sign-in", timeout=10).close()
                break
            except OSError:
                assert proxy.poll() is None and time.monotonic() < until
                time.sleep(0.1)
        stop, answers = threading.Event(), []

        def read_on():
            browser = Browser(port).sign_in("student1")
            while not stop.is_set():
                answers.append(browser.ask("GET", "/tasks")[0])
                time.sleep(0.05)

        readers = [threading.Thread(target=read_on) for _ in range(3)]
        for reader in readers:
            reader.start()
        for served in (one, two):
            served.stop()
            served.start()
        stop.set()
        for reader in readers:
            reader.join()
        assert len(answers) > 10 and set(answers) == {200}
        assert answer(type("Proxy", (), {"port": port}), "/metrics")[0] == 404
    finally:
        proxy.terminate()
        proxy.wait()


# --- upgrades


@pytest.fixture(scope="module")
def other_database(tmp_path_factory):
    server = MariaDB(tmp_path_factory.mktemp("other"), THROWAWAY)
    try:
        yield server.start()
    finally:
        server.stop()


@pytest.fixture
def own(other_database, tmp_path):
    """A database with the newest tables, and the settings of two servers that share it."""
    url = other_database
    empty(url)
    migrate(url)
    settings = [replace(installation(tmp_path / name, url), together=True) for name in ("one", "two")]
    ownership.set_id(settings[0].folder, "the same")
    ownership.set_id(settings[1].folder, "the same")
    ownership.claim(url, settings[0].folder)
    return url, *settings


def up_to_date(settings, url):
    said = io.StringIO()
    bring_up_to_date(settings, url, Console(file=said, width=200), serving=True)
    return said.getvalue()


def seen(url, revision, oldest):
    """Let a newer program have brought the tables up to date."""
    ask(url, f"UPDATE alembic_version SET version_num = '{revision}'")
    engine = make_engine(url)
    in_transaction(make_sessions(engine), lambda session: set_oldest_program(session, oldest))
    engine.dispose()


def as_before(url):
    """Tables as they were before there were several servers."""
    seen(url, "0028", "0028")
    ask(url, "DROP TABLE job_part, job, turn, packed_log, pending_list_part")
    ask(url, "ALTER TABLE work DROP packed_operations")
    ask(url, "ALTER TABLE pending_list ADD content MEDIUMBLOB NOT NULL")


class TestUpgradesInTurn:
    """The program is newer on one server than on another for a while."""

    def test_an_older_program_goes_on_beside_tables_that_it_works_with(self, own):
        url, one, _two = own
        seen(url, "9999", newest_revision())
        assert up_to_date(one, url) == ""
        seen(url, "9999", "9998")
        with pytest.raises(CannotStart, match="of a newer version"):
            up_to_date(one, url)

    def test_one_changes_the_tables_and_the_others_wait(self, own, monkeypatch):
        url, one, two = own
        monkeypatch.setattr(school, "LONGEST_CHANGE", -1)
        as_before(url)
        assert ownership.begin_to_change(url, two.folder) is None
        assert ownership.begin_to_change(url, one.folder) == ownership.server_of(two.folder)
        with pytest.raises(CannotStart, match="was changing the tables"):
            up_to_date(one, url)
        ownership.end_changing(url, two.folder)
        up_to_date(one, url)
        assert up_to_date(two, url) == ""

    def test_tables_are_changed_under_another_server_only_where_its_program_works_with_them(self, own, monkeypatch):
        url, one, two = own
        serving = ownership.Serving(url, two.folder, together=True)
        serving.hold()
        as_before(url)
        with pytest.raises(CannotStart, match="Stop all servers"):
            up_to_date(one, url)
        monkeypatch.setattr(school, "oldest_working", lambda before: before)
        up_to_date(one, url)
        serving.release()

    def test_whoever_changes_the_tables_has_them_alone_while_a_backup_is_put_back(self, own, tmp_path):
        """And whoever it was when that backup was made has not, wherever it is restored."""
        url, one, two = own
        assert ownership.begin_to_change(url, two.folder) is None
        back_up(two, url, tmp_path / "before.widepin", lambda _words: None)
        restore(two, url, tmp_path / "before.widepin", lambda _words: None)
        assert ownership.begin_to_change(url, one.folder) == ownership.server_of(two.folder)
        ownership.end_changing(url, two.folder)
        restore(one, url, tmp_path / "before.widepin", lambda _words: None)
        assert ownership.begin_to_change(url, one.folder) is None

    def test_what_a_migration_says_of_older_programs_is_heeded(self):
        assert oldest_working("0029") >= "0030", "an older program would find boards of packed works empty"
        assert oldest_working(newest_revision()) <= newest_revision()
