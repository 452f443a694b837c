"""Tokens for programs, and addresses of calendars."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "0027", "0026"

ACTIONS = (
    *("invited", "joined", "reset link made", "password changed", "second factor set", "second factor removed"),
    *("sessions ended", "administrator made", "administrator unmade", "left", "came back", "erased", "exported"),
    *("class handed over", "colleagues changed", "class erased", "codes renewed", "retention set"),
    *("scale of marks set", "old data erased", "removed", "restored", "order of names set", "invitation withdrawn"),
)
NEW = ("token made", "token ended")


def upgrade() -> None:
    op.add_column("person", sa.Column("calendar_number", sa.Integer(), server_default="0", nullable=False))
    op.create_table(
        "access_token",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("person_id", sa.Integer(), nullable=False),
        sa.Column("digest", sa.String(64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("scopes", sa.JSON(), nullable=False),
        sa.Column("made", sa.DateTime(), nullable=False),
        sa.Column("expires", sa.DateTime(), nullable=False),
        sa.Column("used", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(
            ["person_id"], ["person.id"], name=op.f("fk_access_token_person_id_person"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_access_token")),
        sa.UniqueConstraint("digest", name=op.f("uq_access_token_digest")),
    )
    op.create_index(op.f("ix_access_token_person_id"), "access_token", ["person_id"])
    _set_actions(*ACTIONS, *NEW)


def _set_actions(*actions: str) -> None:
    op.alter_column("audit_entry", "action", type_=sa.Enum(*actions, name="action"), existing_nullable=False)


def downgrade() -> None:
    op.execute("DELETE FROM audit_entry WHERE action IN ('token made', 'token ended')")
    _set_actions(*ACTIONS)
    op.drop_table("access_token")
    op.drop_column("person", "calendar_number")
