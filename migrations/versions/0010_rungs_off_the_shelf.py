"""of which task a rung of a ladder was made"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"


def upgrade() -> None:
    op.add_column("task_sheet", sa.Column("ladder_of", sa.Integer()))


def downgrade() -> None:
    op.drop_column("task_sheet", "ladder_of")
