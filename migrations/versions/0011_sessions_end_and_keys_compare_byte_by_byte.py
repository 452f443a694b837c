"""sessions that can be ended; logins, codes and keys that compare byte by byte"""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"

COLUMNS = (("person", "login", 64), ("school_class", "code", 8), ("operation", "key", 40))


def collate(collation: str) -> None:
    for table, column, length in COLUMNS:
        op.alter_column(
            table,
            column,
            type_=sa.String(length, collation),
            existing_type=sa.String(length),
            existing_nullable=False,
        )


def upgrade() -> None:
    op.add_column("person", sa.Column("stamp", sa.Integer(), server_default="1", nullable=False))
    collate("utf8mb4_bin")


def downgrade() -> None:
    collate("utf8mb4_unicode_ci")
    op.drop_column("person", "stamp")
