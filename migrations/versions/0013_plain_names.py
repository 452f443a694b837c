"""plain names: class tools, graded series, scores, feedback; and in stored documents undo, redo and class_tool"""

import json

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"

TABLES = (("class_instrument", "class_tool"), ("lent_instrument", "allowed_tool"))
COLUMNS = (
    ("allowed_tool", "instrument_id", "tool_id", sa.Integer(), False),
    ("task_sheet", "ladder_of", "series_of", sa.Integer(), True),
    ("assignment", "rung", "level", sa.Integer(), True),
    ("assignment", "rungs", "levels", sa.Integer(), True),
    ("assignment", "place", "position", sa.Integer(), False),
    ("assignment", "credit", "scoring", sa.JSON(), False),
    ("hand_in", "credit", "score", sa.Integer(), False),
    ("hand_in", "credit_by_hand", "score_override", sa.Integer(), True),
    ("work", "handed_back", "returned", sa.DateTime(), True),
)
INDEXES = (
    ("allowed_tool", "ix_lent_instrument_instrument_id", "ix_allowed_tool_tool_id"),
    ("class_tool", "uq_class_instrument_class_id", "uq_class_tool_class_id"),
)
DEFAULTS = {("assignment", "credit"): "'{}'", ("hand_in", "credit"): "0"}
OPS = (("take back", "undo"), ("bring back", "redo"))
LOOKS = (
    ('"hue": "graphite"', '"hue": "grey"'),
    ('"hue": "sea"', '"hue": "blue"'),
    ('"hue": "plum"', '"hue": "purple"'),
    ('"hue": "pine"', '"hue": "green"'),
    ('"weight": "heavy"', '"weight": "thick"'),
)
WITH_STEPS = ("operation", "hand_in", "class_tool", "task_sheet")
FEEDBACK = (("seals", "result"),)


def upgrade() -> None:
    for old, new in TABLES:
        op.rename_table(old, new)
    for table, old, new, kind, nullable in COLUMNS:
        rename_column(table, old, new, kind, nullable, DEFAULTS.get((table, old)))
    for table, old, new in INDEXES:
        op.execute(f"ALTER TABLE {table} RENAME INDEX {old} TO {new}")
    feedback("help", "feedback", FEEDBACK)
    documents(OPS, ("instrument", "class_tool"), ("credit", "scoring"), ("help", "feedback"), FEEDBACK)
    presentation(LOOKS)


def downgrade() -> None:
    def back(pairs):
        return tuple((new, old) for old, new in pairs)

    presentation(back(LOOKS))
    documents(back(OPS), ("class_tool", "instrument"), ("scoring", "credit"), ("feedback", "help"), back(FEEDBACK))
    feedback("feedback", "help", back(FEEDBACK))
    for table, old, new in INDEXES:
        op.execute(f"ALTER TABLE {table} RENAME INDEX {new} TO {old}")
    for table, old, new, kind, nullable in reversed(COLUMNS):
        rename_column(table, new, old, kind, nullable, DEFAULTS.get((table, old)))
    for old, new in TABLES:
        op.rename_table(new, old)


def rename_column(table: str, old: str, new: str, kind: sa.types.TypeEngine, nullable: bool, default: str | None):
    op.alter_column(
        table,
        old,
        new_column_name=new,
        existing_type=kind,
        existing_nullable=nullable,
        existing_server_default=sa.text(default) if default else None,
    )


def feedback(old: str, new: str, words: tuple) -> None:
    """The column and the members of its enumeration, by way of one that has both."""
    before = ("result" if words[0][0] == "result" else "seals", "conditions", "break")
    after = tuple(dict(words).get(word, word) for word in before)
    both = sa.Enum(*before, *(word for word in after if word not in before), name=new)
    common = {"existing_nullable": False, "server_default": "break", "existing_server_default": sa.text("'break'")}
    op.alter_column("assignment", old, new_column_name=new, type_=both, existing_type=sa.Enum(*before), **common)
    for word, other in words:
        op.execute(
            sa.text(f"UPDATE assignment SET `{new}` = :other WHERE `{new}` = :word").bindparams(other=other, word=word)
        )
    op.alter_column("assignment", new, type_=sa.Enum(*after, name=new), existing_type=both, **common)


def documents(ops: tuple, tool: tuple, scoring: tuple, level: tuple, words: tuple) -> None:
    """The same names in stored JSON: operations, hand-ins with their uses, and how tasks are to be set."""
    connection = op.get_bind()
    for word, other in ops:
        connection.execute(
            sa.text(
                "UPDATE operation SET document = JSON_SET(document, '$.op', :other) WHERE JSON_VALUE(document, '$.op') = :word"
            ),
            {"word": word, "other": other},
        )
    old, new = tool
    connection.execute(
        sa.text(
            f"UPDATE operation SET document = JSON_REMOVE(JSON_SET(document, '$.{new}', JSON_VALUE(document, '$.{old}')), '$.{old}') "
            "WHERE JSON_VALUE(document, '$.op') = 'use'"
        )
    )
    for id_, text in connection.execute(
        sa.text("SELECT id, document FROM hand_in WHERE document LIKE '%\"uses\"%'")
    ).all():
        document = json.loads(text)
        for use in document.get("uses", []):
            if old in use:
                use[new] = use.pop(old)
        store(connection, "hand_in", "document", id_, document)
    for id_, text in connection.execute(sa.text("SELECT id, policy FROM task_sheet")).all():
        policy = json.loads(text)
        for before, after in (scoring, level):
            if before in policy:
                policy[after] = policy.pop(before)
        if level[1] in policy:
            policy[level[1]] = dict(words).get(policy[level[1]], policy[level[1]])
        store(connection, "task_sheet", "policy", id_, policy)


def presentation(looks: tuple) -> None:
    """How objects are shown, wherever steps are kept."""
    for table in WITH_STEPS:
        for old, new in looks:
            op.get_bind().execute(
                sa.text(f"UPDATE {table} SET document = REPLACE(document, :old, :new) WHERE document LIKE :with_old"),
                {"old": old, "new": new, "with_old": f"%{old}%"},
            )


def store(connection, table: str, column: str, id_: int, document: dict) -> None:
    connection.execute(
        sa.text(f"UPDATE {table} SET {column} = :document WHERE id = :id"),
        {"document": json.dumps(document), "id": id_},
    )
