"""Alembic's entry: runs migrations on the database that the caller names."""

from alembic import context
from sqlalchemy import create_engine

from widepin.school.models import Base

with create_engine(context.config.attributes["url"]).connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata, compare_type=True)
    with context.begin_transaction():
        context.run_migrations()
