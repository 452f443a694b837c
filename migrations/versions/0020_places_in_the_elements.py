"""Whether a teacher's proofs name the places in the Elements."""

import sqlalchemy as sa
from alembic import op

revision, down_revision = "0020", "0019"


def upgrade() -> None:
    op.add_column("person", sa.Column("elements", sa.Boolean(), server_default=sa.true(), nullable=False))


def downgrade() -> None:
    op.drop_column("person", "elements")
