"""Whether students may draw the locus of a point."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "0015", "0014"


def upgrade() -> None:
    op.add_column("assignment", sa.Column("loci", sa.Boolean(), server_default=sa.true(), nullable=False))


def downgrade() -> None:
    op.drop_column("assignment", "loci")
