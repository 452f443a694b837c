"""which rung of a ladder an assignment is"""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    op.add_column("assignment", sa.Column("rung", sa.Integer()))
    op.add_column("assignment", sa.Column("rungs", sa.Integer()))


def downgrade() -> None:
    op.drop_column("assignment", "rungs")
    op.drop_column("assignment", "rung")
