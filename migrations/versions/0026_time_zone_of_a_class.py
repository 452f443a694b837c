"""A class elsewhere has a time zone of its own."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "0026", "0025"


def upgrade() -> None:
    op.add_column("school_class", sa.Column("time_zone", sa.String(64), nullable=True))


def downgrade() -> None:
    op.drop_column("school_class", "time_zone")
