"""Hints: how many a student may take, what each takes off the score, those that were taken; and the fewest moves."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "0024", "0023"


def upgrade() -> None:
    for name in ("hints", "hint_cost"):
        op.add_column("assignment", sa.Column(name, sa.Integer(), server_default="0", nullable=False))
    op.create_check_constraint("hint_cost", "assignment", "hint_cost >= 0 and hint_cost <= 100")
    op.add_column("hand_in", sa.Column("hints", sa.Integer(), server_default="0", nullable=False))
    op.add_column("task_sheet", sa.Column("fewest", sa.JSON(), nullable=True))
    op.create_table(
        "hint_taken",
        sa.Column("work_id", sa.Integer(), sa.ForeignKey("work.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("number", sa.Integer(), primary_key=True, autoincrement=False),
        sa.Column("level", sa.Integer(), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("hint_taken")
    op.drop_column("task_sheet", "fewest")
    op.drop_column("hand_in", "hints")
    op.drop_constraint(op.f("ck_assignment_hint_cost"), "assignment", type_="check")
    for name in ("hints", "hint_cost"):
        op.drop_column("assignment", name)
