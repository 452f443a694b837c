"""whether students may measure, and leave the answer to be found"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.add_column("assignment", sa.Column("measuring", sa.Boolean(), server_default=sa.true(), nullable=False))
    op.add_column("assignment", sa.Column("finding", sa.Boolean(), server_default=sa.true(), nullable=False))


def downgrade() -> None:
    op.drop_column("assignment", "finding")
    op.drop_column("assignment", "measuring")
