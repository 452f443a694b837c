"""credit, comments, handing back"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"

# What was handed in before gets what its outcome is worth by default.
WORTH = {"sound": 100, "fragile": 75, "switching": 50, "approximate": 25, "eyeballed": 25}


def upgrade() -> None:
    op.add_column("hand_in", sa.Column("credit", sa.Integer(), server_default="0", nullable=False))
    op.add_column("hand_in", sa.Column("credit_by_hand", sa.Integer()))
    op.add_column("hand_in", sa.Column("reason", sa.String(300), server_default="", nullable=False))
    for outcome, worth in WORTH.items():
        op.execute(
            sa.text("UPDATE hand_in SET credit = :worth WHERE outcome = :outcome").bindparams(
                worth=worth, outcome=outcome
            )
        )
    op.add_column("work", sa.Column("handed_back", sa.DateTime()))
    op.create_table(
        "comment",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("hand_in_id", sa.Integer(), nullable=False),
        sa.Column("author_id", sa.Integer(), nullable=False),
        sa.Column("step", sa.String(24), server_default="", nullable=False),
        sa.Column("text", sa.String(1000), nullable=False),
        sa.Column("written", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["hand_in_id"], ["hand_in.id"], "fk_comment_hand_in_id_hand_in", ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["author_id"], ["person.id"], "fk_comment_author_id_person", ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name="pk_comment"),
    )
    op.create_index("ix_comment_hand_in_id", "comment", ["hand_in_id"])


def downgrade() -> None:
    op.drop_table("comment")
    op.drop_column("work", "handed_back")
    for column in ("reason", "credit_by_hand", "credit"):
        op.drop_column("hand_in", column)
