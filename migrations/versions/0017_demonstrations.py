"""Demonstrations as their teachers have changed them, and when students may go through them."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "0017", "0016"


def upgrade() -> None:
    op.add_column("task_sheet", sa.Column("demonstration", sa.JSON(), nullable=True))
    showing = sa.Enum("never", "before", "after", name="showing")
    op.add_column("assignment", sa.Column("demonstration", showing, server_default="never", nullable=False))


def downgrade() -> None:
    op.drop_column("assignment", "demonstration")
    op.drop_column("task_sheet", "demonstration")
