"""What is removed can be had back; hand-ins know their version and their key; browsers are told apart at signing in."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "0022", "0021"

REMOVABLE = ("person", "school_class", "task_sheet", "assignment", "work", "comment")
OUTCOMES = ("failed", "succeeded", "put off", "halfway")
ACTIONS = (
    *("invited", "joined", "reset link made", "password changed", "second factor set", "second factor removed"),
    *("sessions ended", "administrator made", "administrator unmade", "left", "came back", "erased", "exported"),
    *("class handed over", "colleagues changed", "class erased", "codes renewed", "retention set"),
    *("scale of marks set", "old data erased"),
)
REMOVED = ("class", "assignment", "task", "member", "student", "demonstration", "comment", "old data")


def bytewise(length: int) -> sa.String:
    return sa.String(length, "utf8mb4_bin")


def upgrade() -> None:
    for table in REMOVABLE:
        op.add_column(table, sa.Column("removal", sa.Integer(), server_default="0", nullable=False))
        op.create_index(f"ix_{table}_removal", table, ["removal"])
    op.create_unique_constraint("uq_school_class_name", "school_class", ["teacher_id", "name", "removal"])
    op.drop_constraint("uq_school_class_teacher_id", "school_class", type_="unique")
    op.create_unique_constraint("uq_assignment_sheet", "assignment", ["class_id", "sheet_id", "removal"])
    op.drop_constraint("uq_assignment_class_id", "assignment", type_="unique")

    op.create_table(
        "removal",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("kind", sa.Enum(*REMOVED, name="removed"), nullable=False),
        sa.Column("about", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(240), nullable=False),
        sa.Column("actor_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="CASCADE")),
        sa.Column("class_id", sa.Integer()),
        sa.Column("kept", sa.JSON(), server_default="{}", nullable=False),
    )
    for column in ("at", "actor_id", "class_id"):
        op.create_index(f"ix_removal_{column}", "removal", [column])
    op.create_table(
        "judging_again",
        sa.Column(
            "assignment_id",
            sa.Integer(),
            sa.ForeignKey("assignment.id", ondelete="CASCADE"),
            primary_key=True,
            autoincrement=False,
        ),
        sa.Column("after", sa.Integer(), server_default="0", nullable=False),
        sa.Column("alive", sa.DateTime(), nullable=False),
    )

    if not sa.inspect(op.get_bind()).has_table("installation"):  # made where a database is claimed, too
        op.create_table(
            "installation",
            sa.Column("only", sa.Integer(), primary_key=True, autoincrement=False),
            sa.Column("id", bytewise(40), nullable=False),
            sa.Column("host", sa.String(120), nullable=False),
            sa.Column("folder", sa.String(400), nullable=False),
            sa.Column("since", sa.DateTime(), nullable=False),
        )

    op.add_column("hand_in", sa.Column("key", bytewise(40)))
    op.create_unique_constraint("uq_hand_in_key", "hand_in", ["work_id", "key"])
    op.add_column("hand_in", sa.Column("sheet_id", sa.Integer()))
    op.create_index("ix_hand_in_sheet_id", "hand_in", ["sheet_id"])
    op.create_foreign_key(
        "fk_hand_in_sheet_id_task_sheet", "hand_in", "task_sheet", ["sheet_id"], ["id"], ondelete="SET NULL"
    )
    op.execute(
        "UPDATE hand_in JOIN work ON work.id = hand_in.work_id JOIN assignment ON assignment.id = work.assignment_id"
        " SET hand_in.sheet_id = assignment.sheet_id"
    )
    op.add_column("comment", sa.Column("key", bytewise(40)))
    op.create_unique_constraint("uq_comment_key", "comment", ["hand_in_id", "key"])

    op.add_column("sign_in", sa.Column("device", bytewise(16), server_default="", nullable=False))
    set_outcomes(*OUTCOMES, "confirmed")
    set_actions(*ACTIONS, "removed", "restored")
    op.add_column("browser_session", sa.Column("otp_secret", sa.String(64), server_default="", nullable=False))


def downgrade() -> None:
    op.drop_column("browser_session", "otp_secret")
    op.execute("DELETE FROM audit_entry WHERE action IN ('removed', 'restored')")
    set_actions(*ACTIONS)
    op.execute("UPDATE sign_in SET outcome = 'succeeded' WHERE outcome = 'confirmed'")
    set_outcomes(*OUTCOMES)
    op.drop_column("sign_in", "device")
    op.drop_constraint("uq_comment_key", "comment", type_="unique")
    op.drop_column("comment", "key")
    op.drop_constraint("fk_hand_in_sheet_id_task_sheet", "hand_in", type_="foreignkey")
    op.drop_index("ix_hand_in_sheet_id", "hand_in")
    op.drop_column("hand_in", "sheet_id")
    op.drop_constraint("uq_hand_in_key", "hand_in", type_="unique")
    op.drop_column("hand_in", "key")
    op.drop_table("installation")
    op.drop_table("judging_again")
    # What lies in the bin cannot be told apart by an older program, so it is thrown away.
    op.execute("DELETE FROM comment WHERE removal <> 0")
    op.execute("DELETE FROM work WHERE removal <> 0")
    op.execute("DELETE FROM assignment WHERE removal <> 0")
    op.execute("DELETE FROM school_class WHERE removal <> 0")
    op.execute("DELETE FROM person WHERE removal <> 0")
    op.execute("DELETE FROM task_sheet WHERE removal <> 0 AND id NOT IN (SELECT sheet_id FROM assignment)")
    op.drop_table("removal")
    op.create_unique_constraint("uq_assignment_class_id", "assignment", ["class_id", "sheet_id"])
    op.drop_constraint("uq_assignment_sheet", "assignment", type_="unique")
    op.create_unique_constraint("uq_school_class_teacher_id", "school_class", ["teacher_id", "name"])
    op.drop_constraint("uq_school_class_name", "school_class", type_="unique")
    for table in reversed(REMOVABLE):
        op.drop_index(f"ix_{table}_removal", table)
        op.drop_column(table, "removal")


def set_outcomes(*outcomes: str) -> None:
    op.alter_column(
        "sign_in",
        "outcome",
        type_=sa.Enum(*outcomes, name="sign_in_outcome"),
        existing_type=sa.Enum(*OUTCOMES, name="sign_in_outcome"),
        nullable=False,
    )


def set_actions(*actions: str) -> None:
    op.alter_column("audit_entry", "action", type_=sa.Enum(*actions, name="action"), existing_nullable=False)
