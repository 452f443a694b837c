"""When a teacher looked at the first page last, and the time before."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "0016", "0015"


def upgrade() -> None:
    op.add_column("person", sa.Column("visited", sa.DateTime(), nullable=True))
    op.add_column("person", sa.Column("visited_before", sa.DateTime(), nullable=True))


def downgrade() -> None:
    op.drop_column("person", "visited_before")
    op.drop_column("person", "visited")
