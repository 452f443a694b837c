"""versions of tasks, how they are graded, and when they are open"""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"

LATE = sa.Enum("taken", "refused", name="late")


def upgrade() -> None:
    op.add_column("task_sheet", sa.Column("family", sa.Integer(), server_default="0", nullable=False))
    op.add_column("task_sheet", sa.Column("version", sa.Integer(), server_default="1", nullable=False))
    op.add_column("task_sheet", sa.Column("topic", sa.String(60), server_default="", nullable=False))
    op.add_column("task_sheet", sa.Column("policy", sa.JSON(), server_default="{}", nullable=False))
    op.execute("UPDATE task_sheet SET family = id")
    op.create_unique_constraint("uq_task_sheet_family", "task_sheet", ["family", "version"])
    op.add_column("assignment", sa.Column("opens", sa.DateTime()))
    op.add_column("assignment", sa.Column("late", LATE, server_default="taken", nullable=False))
    op.add_column("assignment", sa.Column("attempts", sa.Integer()))
    op.add_column("assignment", sa.Column("credit", sa.JSON(), server_default="{}", nullable=False))
    op.add_column("assignment", sa.Column("after_id", sa.Integer()))
    op.create_foreign_key(
        "fk_assignment_after_id_assignment", "assignment", "assignment", ["after_id"], ["id"], ondelete="SET NULL"
    )
    op.create_table(
        "chosen_student",
        sa.Column("assignment_id", sa.Integer(), nullable=False),
        sa.Column("person_id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["assignment_id"], ["assignment.id"], "fk_chosen_student_assignment_id_assignment", ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], "fk_chosen_student_person_id_person", ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("assignment_id", "person_id", name="pk_chosen_student"),
    )
    op.create_index("ix_chosen_student_person_id", "chosen_student", ["person_id"])


def downgrade() -> None:
    op.drop_table("chosen_student")
    op.drop_constraint("fk_assignment_after_id_assignment", "assignment", type_="foreignkey")
    for column in ("after_id", "credit", "attempts", "late", "opens"):
        op.drop_column("assignment", column)
    op.drop_constraint("uq_task_sheet_family", "task_sheet", type_="unique")
    for column in ("policy", "topic", "version", "family"):
        op.drop_column("task_sheet", column)
