"""Logs of works that nobody has touched for long are packed."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision, down_revision = "0030", "0029"
# An older program would find the boards of packed works empty: none goes on beside these tables.


def upgrade() -> None:
    op.add_column("work", sa.Column("packed_operations", sa.Integer(), server_default="0", nullable=False))
    op.create_table(
        "packed_log",
        sa.Column("work_id", sa.Integer(), autoincrement=False, nullable=False),
        sa.Column("content", mysql.MEDIUMBLOB(), nullable=False),
        sa.ForeignKeyConstraint(["work_id"], ["work.id"], name=op.f("fk_packed_log_work_id_work"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("work_id", name=op.f("pk_packed_log")),
    )


def downgrade() -> None:
    op.drop_table("packed_log")
    op.drop_column("work", "packed_operations")
