"""Migrations lead to the tables of the models, and back."""

import json

import pytest
from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import inspect

from widepin.running.mariadb import THROWAWAY, MariaDB
from widepin.running.migrate import config_for, migrate
from widepin.school.database import make_engine
from widepin.school.models import Base


@pytest.fixture
def fresh(tmp_path):
    """The address of an empty database on a server of its own."""
    server = MariaDB(tmp_path / "db", THROWAWAY)
    try:
        yield server.start()
    finally:
        server.stop()


def differences(url):
    engine = make_engine(url)
    with engine.connect() as connection:
        found = compare_metadata(MigrationContext.configure(connection, opts={"compare_type": True}), Base.metadata)
    engine.dispose()
    return found


def test_the_tables_are_those_of_the_models_also_after_going_back_to_nothing(fresh):
    migrate(fresh)
    assert differences(fresh) == []
    command.downgrade(config_for(fresh), "base")
    engine = make_engine(fresh)
    assert inspect(engine).get_table_names() == ["alembic_version"]
    engine.dispose()
    migrate(fresh)
    assert differences(fresh) == []


OLD = [
    "INSERT INTO person (id, login, name, role, password_hash) VALUES (1, 't', 'T', 'teacher', ''), (2, 's', 'S', 'student', '')",
    "INSERT INTO school_class (id, name, teacher_id, code) VALUES (1, 'Old', 1, 'AAAAA')",
    "INSERT INTO task_sheet (id, owner_id, title, document, family, policy) VALUES "
    """(1, 1, 'T', '{}', 1, '{"help": "seals", "credit": {"sound": 90}}')""",
    "INSERT INTO assignment (id, class_id, sheet_id, place, help, credit) VALUES (1, 1, 1, 4, 'seals', '{\"sound\": 90}')",
    "INSERT INTO work (id, assignment_id, student_id, started, touched) VALUES (1, 1, 2, NOW(), NOW())",
    "INSERT INTO operation (work_id, number, `key`, document, stored) VALUES "
    """(1, 1, 'a', '{"op": "use", "instrument": "Centre line"}', NOW()), (1, 2, 'b', '{"op": "take back"}', NOW()), """
    """(1, 3, 'c', '{"op": "dress", "id": "c", "dress": {"hue": "sea", "weight": "heavy"}}', NOW())""",
    "INSERT INTO hand_in (id, work_id, attempt, outcome, moves, document, verdict, handed_in, credit) VALUES "
    """(1, 1, 1, 'sound', 3, '{"uses": [{"instrument": "Centre line", "ids": ["m"]}]}', '{}', NOW(), 88)""",
]
NEW = {
    "operation": [
        {"op": "use", "class_tool": "Centre line"},
        {"op": "undo"},
        {"op": "dress", "id": "c", "dress": {"hue": "blue", "weight": "thick"}},
    ],
    "hand_in": [{"uses": [{"ids": ["m"], "class_tool": "Centre line"}]}],
}


def test_what_was_stored_under_older_names_is_found_under_the_new_ones(fresh):
    command.upgrade(config_for(fresh), "0012")
    engine = make_engine(fresh)
    with engine.begin() as connection:
        for statement in OLD:
            connection.exec_driver_sql(statement.replace("%", "%%"))
        before = kept(connection)
    migrate(fresh)
    with engine.connect() as connection:
        assert {table: kept(connection)[table] for table in NEW} == NEW
        assert connection.exec_driver_sql("SELECT position, feedback, scoring FROM assignment").one()[:2] == (
            4,
            "result",
        )
        assert connection.exec_driver_sql("SELECT score FROM hand_in").scalar() == 88
        policy = json.loads(connection.exec_driver_sql("SELECT policy FROM task_sheet").scalar())
        assert policy == {"feedback": "result", "scoring": {"sound": 90}}
    command.downgrade(config_for(fresh), "0012")
    with engine.connect() as connection:
        assert kept(connection) == before
    engine.dispose()


def kept(connection):
    """The documents of operations and hand-ins."""
    return {
        table: [json.loads(text) for (text,) in connection.exec_driver_sql(f"SELECT document FROM {table}").all()]
        for table in NEW
    }
