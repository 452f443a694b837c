"""What a class takes off for works whose method is right, where it is not as usual."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "0021", "0020"


def upgrade() -> None:
    op.add_column("school_class", sa.Column("scoring", sa.JSON(), server_default="{}", nullable=False))


def downgrade() -> None:
    op.drop_column("school_class", "scoring")
