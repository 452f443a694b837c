"""Marks besides works, release of solutions, practice, folders of tasks, phrases, and the path of the first week."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision, down_revision = "0018", "0017"

RELEASE = sa.Enum("never", "due", "correct", name="release")
ENTERED = sa.Enum("paper", "absent", "excused", name="entered")
BYTES = "utf8mb4_bin"
ACTIONS = (
    "invited",
    "joined",
    "reset link made",
    "password changed",
    "second factor set",
    "second factor removed",
    "sessions ended",
    "administrator made",
    "administrator unmade",
    "left",
    "came back",
    "erased",
    "exported",
    "class handed over",
    "colleagues changed",
    "class erased",
    "codes renewed",
    "retention set",
    "old data erased",
)


def set_actions(*actions):
    """Let the audit log have these actions."""
    op.alter_column("audit_entry", "action", type_=sa.Enum(*actions, name="action"), existing_nullable=False)


def upgrade() -> None:
    set_actions(*ACTIONS, "scale of marks set")
    op.add_column("person", sa.Column("first_week", sa.Boolean(), server_default=sa.true(), nullable=False))
    op.add_column("task_sheet", sa.Column("folder", sa.String(60), server_default="", nullable=False))
    op.add_column("task_sheet", sa.Column("archived", sa.DateTime(), nullable=True))
    op.add_column("task_sheet", sa.Column("library_key", sa.String(60, BYTES), nullable=True))
    op.add_column("task_sheet", sa.Column("practice", sa.Boolean(), server_default=sa.false(), nullable=False))
    for name in ("solution", "shortest"):
        op.add_column("assignment", sa.Column(name, RELEASE, server_default="never", nullable=False))
    op.add_column("assignment", sa.Column("weight", sa.Integer(), server_default="1", nullable=False))
    op.add_column("assignment", sa.Column("practice_key", sa.String(60, BYTES), nullable=True))
    op.create_unique_constraint("uq_assignment_practice", "assignment", ["class_id", "practice_key"])
    op.create_check_constraint("ck_assignment_weight", "assignment", "weight >= 0")
    op.create_table(
        "entered_result",
        sa.Column("assignment_id", sa.Integer(), nullable=False),
        sa.Column("student_id", sa.Integer(), nullable=False),
        sa.Column("kind", ENTERED, nullable=False),
        sa.Column("score", sa.Integer(), nullable=True),
        sa.Column("note", sa.String(300), server_default="", nullable=False),
        sa.Column("photo", mysql.MEDIUMBLOB(), nullable=True),
        sa.Column("photo_type", sa.String(20), server_default="", nullable=False),
        sa.Column("entered", sa.DateTime(), nullable=False),
        sa.CheckConstraint("score >= 0 and score <= 100", name="ck_entered_result_score"),
        sa.ForeignKeyConstraint(
            ["assignment_id"],
            ["assignment.id"],
            name="fk_entered_result_assignment_id_assignment",
            ondelete="CASCADE",
        ),
        sa.ForeignKeyConstraint(
            ["student_id"], ["person.id"], name="fk_entered_result_student_id_person", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("assignment_id", "student_id", name="pk_entered_result"),
    )
    op.create_index("ix_entered_result_student_id", "entered_result", ["student_id"])
    op.create_table(
        "mark_column",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("class_id", sa.Integer(), nullable=False),
        sa.Column("title", sa.String(60), nullable=False),
        sa.Column("weight", sa.Integer(), server_default="1", nullable=False),
        sa.CheckConstraint("weight >= 0", name="ck_mark_column_weight"),
        sa.ForeignKeyConstraint(
            ["class_id"], ["school_class.id"], name="fk_mark_column_class_id_school_class", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_mark_column"),
        sa.UniqueConstraint("class_id", "title", name="uq_mark_column_class_id"),
    )
    op.create_table(
        "other_mark",
        sa.Column("column_id", sa.Integer(), nullable=False),
        sa.Column("student_id", sa.Integer(), nullable=False),
        sa.Column("score", sa.Integer(), nullable=False),
        sa.CheckConstraint("score >= 0 and score <= 100", name="ck_other_mark_score"),
        sa.ForeignKeyConstraint(
            ["column_id"], ["mark_column.id"], name="fk_other_mark_column_id_mark_column", ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(
            ["student_id"], ["person.id"], name="fk_other_mark_student_id_person", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("column_id", "student_id", name="pk_other_mark"),
    )
    op.create_index("ix_other_mark_student_id", "other_mark", ["student_id"])
    op.create_table(
        "phrase",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("owner_id", sa.Integer(), nullable=False),
        sa.Column("text", sa.String(1000), nullable=False),
        sa.ForeignKeyConstraint(["owner_id"], ["person.id"], name="fk_phrase_owner_id_person", ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name="pk_phrase"),
    )
    op.create_index("ix_phrase_owner_id", "phrase", ["owner_id"])
    op.create_table(
        "practice_topic",
        sa.Column("class_id", sa.Integer(), nullable=False),
        sa.Column("topic", sa.String(60, BYTES), nullable=False),
        sa.ForeignKeyConstraint(
            ["class_id"], ["school_class.id"], name="fk_practice_topic_class_id_school_class", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("class_id", "topic", name="pk_practice_topic"),
    )


def downgrade() -> None:
    op.execute("DELETE FROM audit_entry WHERE action = 'scale of marks set'")
    set_actions(*ACTIONS)
    for table in ("practice_topic", "phrase", "other_mark", "mark_column", "entered_result"):
        op.drop_table(table)
    op.drop_constraint("ck_assignment_weight", "assignment", type_="check")
    # the foreign key of class_id keeps the index of another constraint that begins with it
    op.drop_constraint("uq_assignment_practice", "assignment", type_="unique")
    for name in ("practice_key", "weight", "shortest", "solution"):
        op.drop_column("assignment", name)
    for name in ("practice", "library_key", "archived", "folder"):
        op.drop_column("task_sheet", name)
    op.drop_column("person", "first_week")
