"""A school on the command line: set up, served, backed up, restored, upgraded, and told what is wrong with it."""

import json
import os
import re
import signal
import stat
import time
import urllib.error
import urllib.request
import zipfile
from pathlib import Path

import pytest
from alembic import command

from tests.running.a_school import School, link_in
from widepin.running.backup import rows
from widepin.running.mariadb import THROWAWAY, MariaDB
from widepin.running.migrate import config_for, newest_revision
from widepin.running.school import opened
from widepin.running.settings import read
from widepin.school.database import make_engine


def do(url, statement):
    engine = make_engine(url)
    with engine.begin() as connection:
        connection.exec_driver_sql(statement)
    engine.dispose()


def page(school, path):
    with urllib.request.urlopen(f"http://127.0.0.1:{school.port}{path}", timeout=20) as answer:
        return answer.read().decode()


@pytest.fixture(scope="module")
def school(tmp_path_factory):
    """A school that was set up; what that said is its ``first_said``."""
    made = School(tmp_path_factory.mktemp("school"))
    made.setup()
    with opened(read(made.config)) as url:
        do(url, "INSERT INTO person (login, name, role, password_hash) VALUES ('tam', 'Tam', 'teacher', '')")
    yield made
    made.stop()


@pytest.fixture
def stopped(school):
    school.stop()
    return school


@pytest.fixture
def running(school):
    if school.process is None or school.process.poll() is not None:
        school.start()
    return school


def counted(school):
    with opened(read(school.config)) as url:
        return rows(url)


def test_setup_writes_a_configuration_that_explains_itself_and_a_first_link(school):
    assert link_in(school.first_said)
    text = school.config.read_text()
    assert 'time_zone = "Europe/Berlin"' in text and text.count("# ") > 8
    for secret in (school.data / "keys.json", school.data):
        assert not secret.stat().st_mode & (stat.S_IRWXG | stat.S_IRWXO), secret


def test_setup_asks_again_where_an_answer_cannot_be_used(tmp_path):
    fresh = School(tmp_path)
    said = fresh.answer(["The school", "http://construct.example.org", fresh.address, "Nowhere", "UTC", ""])
    assert "must begin with https://" in said and "Nowhere is no time zone" in said
    assert link_in(said) and 'time_zone = "UTC"' in fresh.config.read_text()


def test_what_is_needed_and_not_said_is_asked_for(tmp_path):
    fresh = School(tmp_path)
    done = fresh.run("setup", "--no-questions")
    assert done.returncode and "--name" in done.stderr and not fresh.config.exists()
    for command_without in ("serve", "doctor", "teacher invite Ada", "backup x.widepin"):
        done = fresh.run(*command_without.split())
        assert done.returncode and "setup" in done.stdout + done.stderr, command_without
        assert "Traceback" not in done.stderr


def web_server_of(school):
    """The number of the web server's main process."""
    tasks = Path(f"/proc/{school.process.pid}/task").glob("*/children")
    children = [int(number) for task in tasks for number in task.read_text().split()]
    found = [one for one in children if b"gunicorn" in Path(f"/proc/{one}/cmdline").read_bytes()]
    return found[0] if found else None


def changed(school, before):
    """Whether another web server answers within a while."""
    for _ in range(150):
        now = web_server_of(school)
        if now not in (None, before):
            try:
                return page(school, "/healthz") == "ok\n"
            except OSError:
                pass
        time.sleep(0.2)
    return False


def test_an_existing_server_is_used_if_it_is_named(tmp_path):
    server, school = MariaDB(tmp_path / "theirs", THROWAWAY), School(tmp_path)
    try:
        url = server.start()
        assert link_in(school.setup("--database", url))
        assert not (school.data / "database").exists()
        school.start()
        assert json.loads(page(school, "/readyz"))["database"]
        file = tmp_path / "b.widepin"
        assert "the same" in school.must("backup", file)
        before = rows(url)
        for more in ((), ("--database", url)):  # a rehearsal while it is served, as well meant as can be
            rehearsal = School(tmp_path / f"rehearsal{len(more)}")
            rehearsal.folder.mkdir()
            done = rehearsal.run("restore", "--data", rehearsal.data, *more, "--replace", file)
            assert (done.returncode == 0) is not bool(more), done.stderr
            assert "belongs to another installation" in done.stderr or not more
            assert url not in rehearsal.config.read_text() or more
        assert rows(url) == before and json.loads(page(school, "/readyz"))["database"]
        school.stop()
        assert rows(url)["one_time_link"] == 1
    finally:
        school.stop()
        server.stop()
    done = school.run("doctor")
    assert done.returncode and "!!   database" in done.stdout


class TestServed:
    """A school at work. Tests of a class run one after the other, so that it is started once."""

    def test_the_school_is_served_without_demo_accounts(self, running):
        text = page(running, "/sign-in")
        assert "The tracery school" in text and "Corin" not in text and "demo" not in text.lower()
        assert page(running, "/healthz") == "ok\n"
        assert json.loads(page(running, "/readyz")) == {"database": True, "migrations": True, "staying": True}
        assert re.search(r'^widepin_answers_total\{.*"signin.form".*"200"\} [1-9]', page(running, "/metrics"), re.M)

    def test_a_second_serve_says_that_it_is_served(self, running):
        done = running.run("serve")
        assert done.returncode and "running already" in done.stderr

    def test_the_doctor_finds_a_school_at_work_well(self, running):
        said = running.must("doctor")
        assert "!!" not in said and "ready on" in said

    def test_links_are_made_while_the_school_is_served(self, running):
        path = link_in(running.must("teacher", "invite", "Tam Reed"))
        assert "Make your account" in page(running, path)
        done = running.run("teacher", "reset", "nobody")
        assert done.returncode and "nobody" in done.stderr

    def test_a_web_server_that_is_killed_is_started_again_and_one_that_is_asked_to_starts_anew(self, running):
        before = web_server_of(running)
        running.process.send_signal(signal.SIGHUP)
        assert changed(running, before)
        again = web_server_of(running)
        os.kill(again, signal.SIGKILL)
        assert changed(running, again)
        assert page(running, "/healthz") == "ok\n"

    def test_the_log_is_json_and_holds_no_names_and_no_secrets(self, running):
        path = link_in(running.must("teacher", "invite", "Undine Quill"))
        page(running, path)
        with pytest.raises(urllib.error.HTTPError) as missing:
            page(running, "/no-such-page")
        number = missing.value.headers["X-Request-ID"]
        lines = [json.loads(line) for line in running.log.read_text().splitlines() if line.startswith("{")]
        assert [line for line in lines if line.get("request") == number and line["status"] == 404]
        assert all(isinstance(line["ms"], float) for line in lines if line["what"] == "request")
        text = running.log.read_text()
        assert "Undine" not in text and path.rsplit("/", 1)[1] not in text

    def test_a_backup_is_read_back_and_restored_elsewhere_as_it_was(self, running, tmp_path):
        file = tmp_path / "school.widepin"
        said = running.must("backup", file)
        assert "read back and the same" in said
        assert not file.stat().st_mode & (stat.S_IRWXG | stat.S_IRWXO)
        elsewhere = School(tmp_path / "elsewhere")
        elsewhere.folder.mkdir()
        assert "Restored" in elsewhere.must("restore", "--data", elsewhere.data, file)
        here = counted(running)
        assert counted(elsewhere) == here | {"choice": here["choice"] - 1}  # that there is a backup, since
        assert (elsewhere.data / "keys.json").read_text() == (running.data / "keys.json").read_text()
        assert "backup" in running.must("doctor") and "none was made" not in running.must("doctor")


class TestStopped:
    """A school that is set up and not served."""

    def test_setup_again_changes_nothing_that_is_right_and_what_is_said_anew(self, stopped):
        before, keys = stopped.config.read_text(), (stopped.data / "keys.json").read_text()
        assert "Nothing to change" in stopped.must("setup", "--no-questions")
        assert stopped.config.read_text() == before
        assert "Wrote" in stopped.must("setup", "--no-questions", "--name", "The other school")
        assert 'name = "The other school"' in stopped.config.read_text()
        stopped.must("setup", "--no-questions", "--name", "The tracery school")
        assert stopped.config.read_text() == before
        assert (stopped.data / "keys.json").read_text() == keys

    @pytest.mark.parametrize(
        ("option", "value", "said"),
        [
            ("--address", "http://construct.example.org", "https://"),
            ("--address", "construct", "address"),
            ("--time-zone", "Middle/Earth", "time_zone"),
            ("--data", "some/where", "whole path"),
            ("--port", "99999", "port"),
            ("--database", "postgres://x/y", "database"),
            ("--proxies", "9", "proxies"),
            ("--name", " ", "name"),
        ],
    )
    def test_a_wrong_setting_is_said_and_nothing_is_written(self, stopped, option, value, said):
        before = stopped.config.read_text()
        done = stopped.run("setup", "--no-questions", option, value)
        assert done.returncode and said in done.stderr and "Traceback" not in done.stderr
        assert stopped.config.read_text() == before

    def test_restoring_over_data_asks_first_and_keeps_what_was_there(self, stopped, tmp_path):
        file = tmp_path / "school.widepin"
        stopped.must("backup", file)
        stopped.must("teacher", "invite", "Somebody since")
        before = counted(stopped)
        done = stopped.run("restore", file)
        assert done.returncode and "--replace" in done.stderr and counted(stopped) == before
        said = stopped.must("restore", "--replace", file)
        assert counted(stopped)["one_time_link"] == before["one_time_link"] - 1
        assert "Restored" in said

    def test_a_backup_that_is_damaged_is_refused_and_nothing_changes(self, stopped, tmp_path):
        good, cut, changed, other = (tmp_path / name for name in ("good", "cut", "changed", "other"))
        stopped.must("backup", good)
        cut.write_bytes(good.read_bytes()[:-400])
        with zipfile.ZipFile(good) as archive, zipfile.ZipFile(changed, "w") as spoilt:
            for name in archive.namelist():
                data = archive.read(name)
                spoilt.writestr(name, data.replace(b"INSERT", b"insert", 1) if name.endswith(".sql") else data)
        other.write_text("a shopping list")
        before = counted(stopped)
        for file in (cut, changed, other, tmp_path / "not-there"):
            done = stopped.run("restore", "--replace", file)
            assert done.returncode and "Traceback" not in done.stderr and done.stderr.strip(), file.name
        assert counted(stopped) == before

    def test_a_backup_does_not_go_over_a_file(self, stopped, tmp_path):
        file = tmp_path / "there"
        file.write_text("mine")
        done = stopped.run("backup", file)
        assert done.returncode and file.read_text() == "mine"
        done = stopped.run("backup", tmp_path / "no" / "such" / "folder")
        assert done.returncode and "Traceback" not in done.stderr

    def test_an_upgrade_is_made_after_a_backup(self, stopped):
        with opened(read(stopped.config)) as url:
            command.downgrade(config_for(url), "0013")
        assert "older version" in stopped.must("doctor")
        said = stopped.start()
        assert "Backing up before the upgrade" in said
        (kept,) = (stopped.data / "before-upgrades").glob("*.widepin")
        assert re.search(r"-0013\.widepin$", kept.name)
        assert json.loads(page(stopped, "/readyz")) == {"database": True, "migrations": True, "staying": True}
        stopped.stop()

    def test_data_of_a_newer_program_are_left_alone(self, stopped):
        with opened(read(stopped.config)) as url:
            do(url, "UPDATE alembic_version SET version_num = '9999'")
        try:
            done = stopped.run("serve")
            assert done.returncode and "newer" in done.stderr
            assert stopped.run("doctor").returncode
        finally:
            with opened(read(stopped.config)) as url:
                do(url, f"UPDATE alembic_version SET version_num = '{newest_revision()}'")
