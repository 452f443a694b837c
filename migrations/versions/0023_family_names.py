"""Family names apart, by which lists go, at first what is written last; and since when a board has been open."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "0023", "0022"

ACTIONS = (
    *("invited", "joined", "reset link made", "password changed", "second factor set", "second factor removed"),
    *("sessions ended", "administrator made", "administrator unmade", "left", "came back", "erased", "exported"),
    *("class handed over", "colleagues changed", "class erased", "codes renewed", "retention set"),
    *("scale of marks set", "old data erased", "removed", "restored"),
)


def upgrade() -> None:
    op.add_column("person", sa.Column("family_name", sa.String(120), server_default="", nullable=False))
    op.execute("UPDATE person SET family_name = SUBSTRING_INDEX(name, ' ', -1) WHERE name LIKE '% %'")
    set_actions(*ACTIONS, "order of names set")
    op.add_column("work", sa.Column("opened", sa.DateTime(), nullable=True))


def downgrade() -> None:
    op.drop_column("work", "opened")
    op.execute("DELETE FROM audit_entry WHERE action = 'order of names set'")
    set_actions(*ACTIONS)
    op.drop_column("person", "family_name")


def set_actions(*actions: str) -> None:
    op.alter_column("audit_entry", "action", type_=sa.Enum(*actions, name="action"), existing_nullable=False)
