"""proven constructions as instruments of a class, and for which of its tasks they are lent"""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    op.create_table(
        "class_instrument",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("class_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(40), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.Column("moves", sa.Integer(), nullable=False),
        sa.CheckConstraint("moves >= 0", name=op.f("ck_class_instrument_moves")),
        sa.ForeignKeyConstraint(
            ["class_id"],
            ["school_class.id"],
            name=op.f("fk_class_instrument_class_id_school_class"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_class_instrument")),
        sa.UniqueConstraint("class_id", "name", name=op.f("uq_class_instrument_class_id")),
    )
    op.create_table(
        "lent_instrument",
        sa.Column("assignment_id", sa.Integer(), nullable=False),
        sa.Column("instrument_id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["assignment_id"],
            ["assignment.id"],
            name=op.f("fk_lent_instrument_assignment_id_assignment"),
            ondelete="CASCADE",
        ),
        sa.ForeignKeyConstraint(
            ["instrument_id"],
            ["class_instrument.id"],
            name=op.f("fk_lent_instrument_instrument_id_class_instrument"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("assignment_id", "instrument_id", name=op.f("pk_lent_instrument")),
    )
    op.create_index(op.f("ix_lent_instrument_instrument_id"), "lent_instrument", ["instrument_id"])


def downgrade() -> None:
    op.drop_table("lent_instrument")
    op.drop_table("class_instrument")
