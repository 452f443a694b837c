"""accounts by one-time links, second factors, browser sessions, several teachers for a class, audit, choices"""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"

BYTES = "utf8mb4_bin"
PURPOSES = ("invitation", "reset")
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


OUTCOMES = ("failed", "succeeded", "put off")


def upgrade() -> None:
    with_halfway = sa.Enum(*OUTCOMES, "halfway", name="sign_in_outcome")
    op.alter_column("sign_in", "outcome", existing_type=sa.Enum(*OUTCOMES), type_=with_halfway, nullable=False)
    op.add_column("person", sa.Column("administrator", sa.Boolean(), server_default=sa.false(), nullable=False))
    op.add_column("person", sa.Column("left", sa.DateTime()))
    op.add_column("person", sa.Column("otp_secret", sa.String(64), server_default="", nullable=False))
    op.add_column("person", sa.Column("otp_step", sa.Integer(), server_default="0", nullable=False))
    op.add_column("task_sheet", sa.Column("shared", sa.Boolean(), server_default=sa.false(), nullable=False))
    op.create_table(
        "recovery_code",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="CASCADE"), nullable=False),
        sa.Column("digest", sa.String(64, BYTES), nullable=False),
        sa.UniqueConstraint("person_id", "digest", name="uq_recovery_code_person_id"),
    )
    op.create_table(
        "one_time_link",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("digest", sa.String(64, BYTES), nullable=False),
        sa.Column("purpose", sa.Enum(*PURPOSES, name="link_purpose"), nullable=False),
        sa.Column("name", sa.String(120), server_default="", nullable=False),
        sa.Column("administrator", sa.Boolean(), server_default=sa.false(), nullable=False),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="CASCADE")),
        sa.Column("made", sa.DateTime(), nullable=False),
        sa.Column("expires", sa.DateTime(), nullable=False),
        sa.UniqueConstraint("digest", name="uq_one_time_link_digest"),
    )
    op.create_index("ix_one_time_link_person_id", "one_time_link", ["person_id"])
    op.create_table(
        "browser_session",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("digest", sa.String(64, BYTES), nullable=False),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="CASCADE"), nullable=False),
        sa.Column("began", sa.DateTime(), nullable=False),
        sa.Column("seen", sa.DateTime(), nullable=False),
        sa.Column("address", sa.String(45), nullable=False),
        sa.Column("browser", sa.String(80), server_default="", nullable=False),
        sa.UniqueConstraint("digest", name="uq_browser_session_digest"),
    )
    op.create_index("ix_browser_session_person_id", "browser_session", ["person_id"])
    op.create_index("ix_browser_session_seen", "browser_session", ["seen"])
    op.create_table(
        "audit_entry",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("action", sa.Enum(*ACTIONS, name="action"), nullable=False),
        sa.Column("actor_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="SET NULL")),
        sa.Column("about", sa.Integer()),
        sa.Column("details", sa.JSON(), server_default="{}", nullable=False),
    )
    op.create_index("ix_audit_entry_at", "audit_entry", ["at"])
    op.create_index("ix_audit_entry_actor_id", "audit_entry", ["actor_id"])
    op.create_table(
        "choice",
        sa.Column("name", sa.String(40, BYTES), primary_key=True),
        sa.Column("value", sa.JSON(), nullable=False),
    )
    op.create_table(
        "colleague",
        sa.Column("class_id", sa.Integer(), sa.ForeignKey("school_class.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="CASCADE"), primary_key=True),
    )
    op.create_index("ix_colleague_person_id", "colleague", ["person_id"])


def downgrade() -> None:
    op.execute("DELETE FROM sign_in WHERE outcome = 'halfway'")
    without = sa.Enum(*OUTCOMES, name="sign_in_outcome")
    op.alter_column("sign_in", "outcome", existing_type=sa.Enum(*OUTCOMES, "halfway"), type_=without, nullable=False)
    for table in ("colleague", "choice", "audit_entry", "browser_session", "one_time_link", "recovery_code"):
        op.drop_table(table)
    op.drop_column("task_sheet", "shared")
    for column in ("otp_step", "otp_secret", "left", "administrator"):
        op.drop_column("person", column)
