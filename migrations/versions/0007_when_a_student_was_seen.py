"""when a student was last seen at a board"""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    op.add_column("work", sa.Column("seen", sa.DateTime()))


def downgrade() -> None:
    op.drop_column("work", "seen")
