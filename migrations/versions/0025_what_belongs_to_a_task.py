"""What belongs to a task besides: wrong solutions, when it was changed, of which it is a copy; spoken words; and what
students have seen of it.

The words of demonstrations that teachers have changed are their own from here on; words that are nobody's follow the
construction.
"""

from json import dumps, loads

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import MEDIUMBLOB

revision, down_revision = "0025", "0024"

ACTIONS = (
    *("invited", "joined", "reset link made", "password changed", "second factor set", "second factor removed"),
    *("sessions ended", "administrator made", "administrator unmade", "left", "came back", "erased", "exported"),
    *("class handed over", "colleagues changed", "class erased", "codes renewed", "retention set"),
    *("scale of marks set", "old data erased", "removed", "restored", "order of names set"),
)


def upgrade() -> None:
    op.add_column("task_sheet", sa.Column("wrong", sa.JSON(), server_default="[]", nullable=False))
    for name in ("changed", "copied"):
        op.add_column("task_sheet", sa.Column(name, sa.DateTime(), nullable=True))
    op.add_column("task_sheet", sa.Column("copied_from", sa.Integer(), nullable=True))
    op.add_column("work", sa.Column("looked", sa.JSON(), nullable=True))
    op.add_column("hint_taken", sa.Column("sent", sa.Boolean(), server_default=sa.false(), nullable=False))
    for name, kinds, usual in (
        ("possible", sa.Enum("never", "before", "after", name="showing"), "never"),
        ("how_far", sa.Enum("no", "yes", name="how_far"), "no"),
    ):
        op.add_column("assignment", sa.Column(name, kinds, server_default=usual, nullable=False))
    op.create_table(
        "recording",
        sa.Column("owner_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("digest", sa.String(64, collation="utf8mb4_bin"), primary_key=True),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("sound", MEDIUMBLOB(), nullable=False),
        sa.Column("made", sa.DateTime(), nullable=False),
    )
    _set_actions(*ACTIONS, "invitation withdrawn")
    connection = op.get_bind()
    kept = connection.execute(sa.text("SELECT id, demonstration FROM task_sheet WHERE demonstration IS NOT NULL"))
    for number, text in list(kept):
        _set(connection, "UPDATE task_sheet SET demonstration = :value WHERE id = :number", number, _own(loads(text)))
    bin_ = connection.execute(sa.text("SELECT id, kept FROM removal WHERE kind = 'demonstration'"))
    for number, text in list(bin_):
        removed = loads(text)
        removed["demonstration"] = _own(removed["demonstration"])
        _set(connection, "UPDATE removal SET kept = :value WHERE id = :number", number, removed)


def _own(document):
    return document and {**document, "frames": [{"own": True, **frame} for frame in document["frames"]]}


def _set(connection, statement, number, value):
    connection.execute(sa.text(statement), {"number": number, "value": dumps(value)})


def _set_actions(*actions: str) -> None:
    op.alter_column("audit_entry", "action", type_=sa.Enum(*actions, name="action"), existing_nullable=False)


def downgrade() -> None:
    op.execute("DELETE FROM audit_entry WHERE action = 'invitation withdrawn'")
    _set_actions(*ACTIONS)
    op.drop_table("recording")
    for name in ("how_far", "possible"):
        op.drop_column("assignment", name)
    op.drop_column("hint_taken", "sent")
    op.drop_column("work", "looked")
    for name in ("copied_from", "copied", "changed", "wrong"):
        op.drop_column("task_sheet", name)
