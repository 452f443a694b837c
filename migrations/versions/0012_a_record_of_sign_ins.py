"""a record of sign-ins, which is also what tries are counted in"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0012"
down_revision = "0011"


def upgrade() -> None:
    op.create_table(
        "sign_in",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("at", DATETIME(fsp=6), nullable=False),
        sa.Column("outcome", sa.Enum("failed", "succeeded", "put off", name="sign_in_outcome"), nullable=False),
        sa.Column("address", sa.String(length=45), nullable=False),
        sa.Column("person_id", sa.Integer(), nullable=True),
        sa.Column("class_id", sa.Integer(), nullable=True),
        sa.Column("unknown", sa.String(length=16), server_default="", nullable=False),
        sa.ForeignKeyConstraint(
            ["class_id"], ["school_class.id"], name="fk_sign_in_class_id_school_class", ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name="fk_sign_in_person_id_person", ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name="pk_sign_in"),
    )
    for column in ("at", "address", "person_id", "class_id", "unknown"):
        op.create_index(f"ix_sign_in_{column}", "sign_in", [column])


def downgrade() -> None:
    op.drop_table("sign_in")
