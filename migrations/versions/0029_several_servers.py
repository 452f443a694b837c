"""Several servers: leases, turns, and long work that any of them can begin and fetch."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision, down_revision = "0029", "0028"
works_with = "0028"

BYTES = "utf8mb4_bin"


def upgrade() -> None:
    op.create_table(
        "lease",
        sa.Column("name", sa.String(64, collation=BYTES), nullable=False),
        sa.Column("holder", sa.String(200, collation=BYTES), nullable=False),
        sa.Column("until", mysql.DATETIME(fsp=6), nullable=False),
        sa.PrimaryKeyConstraint("name", name=op.f("pk_lease")),
        if_not_exists=True,  # whoever serves takes one before the tables are brought up to date
    )
    op.create_table(
        "turn",
        sa.Column("name", sa.String(64, collation=BYTES), nullable=False),
        sa.PrimaryKeyConstraint("name", name=op.f("pk_turn")),
    )
    op.create_table(
        "job",
        sa.Column("key", sa.String(32, collation=BYTES), nullable=False),
        sa.Column("person_id", sa.Integer(), nullable=False),
        sa.Column("state", sa.Enum("waiting", "running", "done", "failed", name="job_state"), nullable=False),
        sa.Column("told", sa.JSON(), nullable=True),
        sa.Column("alive", mysql.DATETIME(fsp=6), nullable=False),
        sa.Column("tries", sa.Integer(), server_default="0", nullable=False),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name=op.f("fk_job_person_id_person"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("key", name=op.f("pk_job")),
    )
    op.create_index(op.f("ix_job_person_id"), "job", ["person_id"])
    op.create_index(op.f("ix_job_alive"), "job", ["alive"])
    op.create_table(
        "job_part",
        sa.Column("job_key", sa.String(32, collation=BYTES), nullable=False),
        sa.Column("number", sa.Integer(), autoincrement=False, nullable=False),
        sa.Column("content", mysql.MEDIUMBLOB(), nullable=False),
        sa.ForeignKeyConstraint(["job_key"], ["job.key"], name=op.f("fk_job_part_job_key_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("job_key", "number", name=op.f("pk_job_part")),
    )


def downgrade() -> None:
    for table in ("job_part", "job", "turn", "lease"):
        op.drop_table(table)
