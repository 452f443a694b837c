"""class codes, personal codes, archived classes"""

import secrets

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"

LETTERS = "23456789ABCDEFGHJKMNPQRSTUVWXYZ"


def upgrade() -> None:
    op.add_column("person", sa.Column("code_number", sa.Integer(), server_default="1", nullable=False))
    op.add_column("school_class", sa.Column("archived", sa.DateTime()))
    op.add_column("school_class", sa.Column("code", sa.String(8)))
    classes = sa.table("school_class", sa.column("id", sa.Integer), sa.column("code", sa.String))
    for (id_,) in op.get_bind().execute(sa.select(classes.c.id)).all():
        code = "".join(secrets.choice(LETTERS) for _ in range(5))
        op.execute(classes.update().where(classes.c.id == id_).values(code=code))
    op.alter_column("school_class", "code", existing_type=sa.String(8), nullable=False)
    op.create_unique_constraint("uq_school_class_code", "school_class", ["code"])


def downgrade() -> None:
    op.drop_constraint("uq_school_class_code", "school_class", type_="unique")
    op.drop_column("school_class", "code")
    op.drop_column("school_class", "archived")
    op.drop_column("person", "code_number")
