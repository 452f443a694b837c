"""What students are asked about why a correct work is right, and how much of the score that is."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "0019", "0018"


def upgrade() -> None:
    kinds = sa.Enum("none", "order", "choose", "fill", name="reasons")
    op.add_column("assignment", sa.Column("reasons", kinds, server_default="none", nullable=False))
    op.add_column("assignment", sa.Column("reasons_share", sa.Integer(), server_default="0", nullable=False))
    op.create_check_constraint(
        "ck_assignment_reasons_share", "assignment", "reasons_share >= 0 and reasons_share <= 100"
    )
    op.add_column("hand_in", sa.Column("reasoned", sa.Integer(), nullable=True))


def downgrade() -> None:
    op.drop_column("hand_in", "reasoned")
    op.drop_constraint("ck_assignment_reasons_share", "assignment", type_="check")
    op.drop_column("assignment", "reasons_share")
    op.drop_column("assignment", "reasons")
