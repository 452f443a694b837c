"""What the school's data take, and when they were last backed up."""

from __future__ import annotations

from sqlalchemy import text
from sqlalchemy.orm import Session

from .models import Choice

LAST_BACKUP = "last backup"


def size_of_tables(session: Session) -> int:
    """How many bytes the tables and their indexes take, as MariaDB estimates it."""
    asked = "SELECT SUM(data_length + index_length) FROM information_schema.tables WHERE table_schema = DATABASE()"
    return int(session.scalar(text(asked)) or 0)


def rows_about(session: Session, table: str) -> int:
    """About how many rows a table has, as MariaDB estimates it."""
    asked = "SELECT table_rows FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = :table"
    return int(session.scalar(text(asked), {"table": table}) or 0)


def note_backup(session: Session, made: str, file: str) -> None:
    """Keep when a backup was made, and where it went, for all servers of the school."""
    session.merge(Choice(name=LAST_BACKUP, value={"made": made, "file": file}))


def last_backup(session: Session) -> tuple[str, str] | None:
    """When the last backup was made (ISO 8601), and to which file; None where none was made."""
    kept = session.get(Choice, LAST_BACKUP)
    return (str(kept.value["made"]), str(kept.value["file"])) if kept is not None else None
