"""Other systems of the school: learning platforms, the school's accounts, the lists of its office."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision, down_revision = "0028", "0027"

BYTES = "utf8mb4_bin"
ACTIONS = (
    *("invited", "joined", "reset link made", "password changed", "second factor set", "second factor removed"),
    *("sessions ended", "administrator made", "administrator unmade", "left", "came back", "erased", "exported"),
    *("class handed over", "colleagues changed", "class erased", "codes renewed", "retention set"),
    *("scale of marks set", "old data erased", "removed", "restored", "order of names set", "invitation withdrawn"),
    *("token made", "token ended"),
)
NEW = ("learning platform set", "learning platform removed", "key renewed", "account made", "accounts joined")
NEW += ("identity provider set", "lists taken over", "activity store set", "class brought in")


def upgrade() -> None:
    op.add_column(
        "browser_session",
        sa.Column("provider_session", sa.String(255, collation=BYTES), server_default="", nullable=False),
    )
    op.add_column("browser_session", sa.Column("id_token", sa.Text(), nullable=True))
    op.create_index(op.f("ix_browser_session_provider_session"), "browser_session", ["provider_session"])
    op.create_table(
        "identity_provider",
        sa.Column("only", sa.Integer(), autoincrement=False, nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("issuer", sa.String(255, collation=BYTES), nullable=False),
        sa.Column("client_id", sa.String(255, collation=BYTES), nullable=False),
        sa.Column("client_secret", sa.String(255, collation=BYTES), nullable=False),
        sa.Column("claim", sa.String(60, collation=BYTES), nullable=False),
        sa.Column("matches", sa.Boolean(), server_default=sa.text("0"), nullable=False),
        sa.Column("groups_claim", sa.String(60, collation=BYTES), server_default="", nullable=False),
        sa.Column("teacher_groups", sa.JSON(), nullable=False),
        sa.Column("student_groups", sa.JSON(), nullable=False),
        sa.Column("described", sa.JSON(), nullable=True),
        sa.PrimaryKeyConstraint("only", name=op.f("pk_identity_provider")),
    )
    op.create_table(
        "listed_class",
        sa.Column("listed", sa.String(255, collation=BYTES), nullable=False),
        sa.Column("class_id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["class_id"], ["school_class.id"], name=op.f("fk_listed_class_class_id_school_class"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("listed", name=op.f("pk_listed_class")),
    )
    op.create_index(op.f("ix_listed_class_class_id"), "listed_class", ["class_id"])
    op.create_table(
        "pending_list",
        sa.Column("person_id", sa.Integer(), nullable=False),
        sa.Column("content", mysql.MEDIUMBLOB(), nullable=False),
        sa.Column("made", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(
            ["person_id"], ["person.id"], name=op.f("fk_pending_list_person_id_person"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("person_id", name=op.f("pk_pending_list")),
    )
    op.create_table(
        "signing_key",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kid", sa.String(64, collation=BYTES), nullable=False),
        sa.Column("pem", sa.Text(), nullable=False),
        sa.Column("made", sa.DateTime(), nullable=False),
        sa.Column("retired", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_signing_key")),
        sa.UniqueConstraint("kid", name=op.f("uq_signing_key_kid")),
    )
    op.create_table(
        "platform",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("issuer", sa.String(255, collation=BYTES), nullable=False),
        sa.Column("client_id", sa.String(255, collation=BYTES), nullable=False),
        sa.Column("login_address", sa.String(500), nullable=False),
        sa.Column("token_address", sa.String(500), nullable=False),
        sa.Column("keys_address", sa.String(500), nullable=False),
        sa.Column("audience", sa.String(500), server_default="", nullable=False),
        sa.Column("deployments", sa.JSON(), nullable=False),
        sa.Column("keys", sa.JSON(), nullable=True),
        sa.Column("made", sa.DateTime(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_platform")),
        sa.UniqueConstraint("issuer", "client_id", name=op.f("uq_platform_issuer")),
    )
    op.create_table(
        "handshake",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("digest", sa.String(64, collation=BYTES), nullable=False),
        sa.Column(
            "question",
            sa.Enum("launch", "first visit", "choosing", "registering", "sign in", name="question"),
            nullable=False,
        ),
        sa.Column("kept", sa.JSON(), nullable=False),
        sa.Column("expires", sa.DateTime(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_handshake")),
        sa.UniqueConstraint("digest", name=op.f("uq_handshake_digest")),
    )
    op.create_index(op.f("ix_handshake_expires"), "handshake", ["expires"])
    op.create_table(
        "identity",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("person_id", sa.Integer(), nullable=False),
        sa.Column("source", sa.String(40, collation=BYTES), nullable=False),
        sa.Column("subject", sa.String(255, collation=BYTES), nullable=False),
        sa.Column("role", sa.Enum("teacher", "student", name="role"), nullable=False),
        sa.Column("seen", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(
            ["person_id"], ["person.id"], name=op.f("fk_identity_person_id_person"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_identity")),
        sa.UniqueConstraint("source", "subject", "role", name=op.f("uq_identity_source")),
    )
    op.create_index(op.f("ix_identity_person_id"), "identity", ["person_id"])
    op.create_table(
        "platform_course",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("platform_id", sa.Integer(), nullable=False),
        sa.Column("course", sa.String(255, collation=BYTES), nullable=False),
        sa.Column("title", sa.String(200), nullable=False),
        sa.Column("class_id", sa.Integer(), nullable=False),
        sa.Column("members_address", sa.String(500), server_default="", nullable=False),
        sa.Column("taken", sa.DateTime(), nullable=True),
        sa.Column("trouble", sa.String(300), server_default="", nullable=False),
        sa.ForeignKeyConstraint(
            ["platform_id"], ["platform.id"], name=op.f("fk_platform_course_platform_id_platform"), ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(
            ["class_id"], ["school_class.id"], name=op.f("fk_platform_course_class_id_school_class"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_platform_course")),
        sa.UniqueConstraint("platform_id", "course", name=op.f("uq_platform_course_platform_id")),
    )
    op.create_index(op.f("ix_platform_course_class_id"), "platform_course", ["class_id"])
    op.create_table(
        "platform_link",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("course_id", sa.Integer(), nullable=False),
        sa.Column("link", sa.String(255, collation=BYTES), nullable=False),
        sa.Column("assignment_id", sa.Integer(), nullable=False),
        sa.Column("line_item", sa.String(500), server_default="", nullable=False),
        sa.Column("due", sa.DateTime(), nullable=True),
        sa.Column("changed", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(
            ["course_id"],
            ["platform_course.id"],
            name=op.f("fk_platform_link_course_id_platform_course"),
            ondelete="CASCADE",
        ),
        sa.ForeignKeyConstraint(
            ["assignment_id"],
            ["assignment.id"],
            name=op.f("fk_platform_link_assignment_id_assignment"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_platform_link")),
        sa.UniqueConstraint("course_id", "link", name=op.f("uq_platform_link_course_id")),
    )
    op.create_index(op.f("ix_platform_link_assignment_id"), "platform_link", ["assignment_id"])
    op.create_index(op.f("ix_platform_link_changed"), "platform_link", ["changed"])
    op.create_table(
        "sent_score",
        sa.Column("link_id", sa.Integer(), nullable=False),
        sa.Column("person_id", sa.Integer(), nullable=False),
        sa.Column("sent", sa.JSON(), nullable=True),
        sa.Column("waiting", sa.JSON(), nullable=True),
        sa.Column("since", sa.DateTime(), nullable=True),
        sa.Column("next_try", sa.DateTime(), nullable=True),
        sa.Column("tries", sa.Integer(), server_default="0", nullable=False),
        sa.Column("trouble", sa.String(300), server_default="", nullable=False),
        sa.ForeignKeyConstraint(
            ["link_id"], ["platform_link.id"], name=op.f("fk_sent_score_link_id_platform_link"), ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(
            ["person_id"], ["person.id"], name=op.f("fk_sent_score_person_id_person"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("link_id", "person_id", name=op.f("pk_sent_score")),
    )
    op.create_index(op.f("ix_sent_score_person_id"), "sent_score", ["person_id"])
    op.create_index(op.f("ix_sent_score_next_try"), "sent_score", ["next_try"])
    _set_actions(*ACTIONS, *NEW)


def _set_actions(*actions: str) -> None:
    op.alter_column("audit_entry", "action", type_=sa.Enum(*actions, name="action"), existing_nullable=False)


def downgrade() -> None:
    named = ", ".join(f"'{action}'" for action in NEW)
    op.execute(f"DELETE FROM audit_entry WHERE action IN ({named})")
    _set_actions(*ACTIONS)
    for table in (
        *("sent_score", "platform_link", "platform_course"),
        *("identity", "handshake", "platform", "signing_key", "pending_list", "listed_class", "identity_provider"),
    ):
        op.drop_table(table)
    op.drop_index(op.f("ix_browser_session_provider_session"), "browser_session")
    op.drop_column("browser_session", "id_token")
    op.drop_column("browser_session", "provider_session")
