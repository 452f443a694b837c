"""Lists of the office that wait are kept in parts: a database takes no statement of 15 MB."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision, down_revision = "0031", "0030"


def upgrade() -> None:
    op.create_table(
        "pending_list_part",
        sa.Column("person_id", sa.Integer(), nullable=False),
        sa.Column("number", sa.Integer(), autoincrement=False, nullable=False),
        sa.Column("content", mysql.MEDIUMBLOB(), nullable=False),
        sa.ForeignKeyConstraint(
            ["person_id"],
            ["pending_list.person_id"],
            name=op.f("fk_pending_list_part_person_id_pending_list"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("person_id", "number", name=op.f("pk_pending_list_part")),
    )
    op.execute(
        "INSERT INTO pending_list_part (person_id, number, content) SELECT person_id, 0, content FROM pending_list"
    )
    op.drop_column("pending_list", "content")


def downgrade() -> None:
    op.execute("DELETE FROM pending_list")
    op.drop_table("pending_list_part")
    op.add_column("pending_list", sa.Column("content", mysql.MEDIUMBLOB(), nullable=False))
