"""Migrations lead to the tables of the models, and back."""

import pytest
from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import inspect

from widepin.running.mariadb import THROWAWAY, MariaDB
from widepin.running.migrate import config_for, migrate
from widepin.school.models import Base
from widepin.school.store import make_engine


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
