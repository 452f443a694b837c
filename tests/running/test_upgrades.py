"""A migration that is cut off anywhere is begun anew from what was backed up before it."""

import io
from random import Random

import pytest
from alembic import command
from rich.console import Console
from sqlalchemy import event
from sqlalchemy.engine import Engine

from tests.amount import many
from tests.running.test_migrate import OLD, differences
from widepin.running import ownership
from widepin.running.backup import empty
from widepin.running.mariadb import THROWAWAY, MariaDB
from widepin.running.migrate import config_for, newest_revision, revision_of
from widepin.running.school import bring_up_to_date
from widepin.running.settings import Settings
from widepin.running.supervisor import CannotStart
from widepin.school.database import make_engine

CHANGING = ("ALTER", "CREATE", "DROP", "UPDATE", "INSERT", "DELETE", "RENAME")


class Cut(BaseException):
    """What stands in for the end of a process."""


@pytest.fixture(scope="module")
def theirs(tmp_path_factory):
    """The address of an existing server's empty database."""
    server = MariaDB(tmp_path_factory.mktemp("theirs"), THROWAWAY)
    try:
        yield server.start()
    finally:
        server.stop()


def installation(folder, url):
    return Settings("The tracery school", "http://127.0.0.1:8318", str(folder), database=url)


def ask(url, statement):
    engine = make_engine(url)
    with engine.begin() as connection:
        found = connection.exec_driver_sql(statement)
        rows = found.fetchall() if found.returns_rows else []
    engine.dispose()
    return rows


def upgrade(settings, url, cut_at=None):
    """Bring the tables up to date; how many statements changed something, and what was said."""
    said, counted = io.StringIO(), 0

    def count(connection, cursor, statement, parameters, context, executemany):
        nonlocal counted
        if statement.lstrip().upper().startswith(CHANGING):
            counted += 1
            if counted == cut_at:
                raise Cut

    event.listen(Engine, "before_cursor_execute", count)
    try:
        bring_up_to_date(settings, url, Console(file=said, width=200))
    finally:
        event.remove(Engine, "before_cursor_execute", count)
    return counted, said.getvalue()


@pytest.fixture
def old_school(theirs, tmp_path):
    """Makes the tables as they were long ago, with something in them."""

    def make():
        empty(theirs)
        command.upgrade(config_for(theirs), "0012")
        for statement in OLD:
            ask(theirs, statement)
        return installation(tmp_path, theirs)

    return make


def test_an_upgrade_that_is_cut_off_after_any_statement_is_begun_anew(old_school, theirs):
    whole, _said = upgrade(old_school(), theirs)
    assert whole > 80
    for cut_at in sorted(Random(5).sample(range(1, whole), min(whole - 1, many(2, 1000)))):
        settings = old_school()
        with pytest.raises(Cut):
            upgrade(settings, theirs, cut_at)
        _count, said = upgrade(settings, theirs)
        begun = cut_at > 1 or "cut off" in said
        assert begun and revision_of(theirs) == newest_revision(), cut_at
        assert ask(theirs, "SELECT login FROM person ORDER BY id") == [("t",), ("s",)], cut_at
        assert ask(theirs, "SELECT score FROM hand_in") == [(88,)], cut_at
    assert differences(theirs) == []
    assert upgrade(settings, theirs) == (0, ""), "there is nothing to do any more"


def test_first_tables_that_are_cut_off_are_begun_anew_too(theirs, tmp_path):
    empty(theirs)
    with pytest.raises(Cut):
        upgrade(installation(tmp_path, theirs), theirs, 20)
    _count, said = upgrade(installation(tmp_path, theirs), theirs)
    assert "cut off" in said and differences(theirs) == []


def test_a_database_of_another_installation_is_left_alone(theirs, tmp_path):
    empty(theirs)
    upgrade(installation(tmp_path / "one", theirs), theirs)
    with pytest.raises(CannotStart, match=f"{tmp_path}/one .*--take-over"):
        upgrade(installation(tmp_path / "two", theirs), theirs)
    ownership.claim(theirs, tmp_path / "two")
    upgrade(installation(tmp_path / "two", theirs), theirs)
    with pytest.raises(CannotStart, match="another installation"):
        ownership.check_own(theirs, tmp_path / "one")


def test_tables_are_not_changed_under_a_school_that_is_served(theirs, tmp_path):
    empty(theirs)
    settings = installation(tmp_path, theirs)
    upgrade(settings, theirs)
    command.downgrade(config_for(theirs), "0021")
    serving, other = (ownership.Serving(theirs, tmp_path / name) for name in ("one", "two"))
    serving.hold()
    serving.hold()
    assert ownership.servers(theirs) == [ownership.server_of(tmp_path / "one")]
    with pytest.raises(CannotStart, match="being served"):
        upgrade(settings, theirs)
    with pytest.raises(CannotStart, match="Another program serves"):
        other.hold()
    assert revision_of(theirs) == "0021"
    serving.release()
    assert ownership.servers(theirs) == []
    upgrade(settings, theirs)
    assert revision_of(theirs) == newest_revision()
