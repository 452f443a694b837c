"""What the school's data take, and when they were last backed up."""

from __future__ import annotations

import json
from pathlib import Path

from sqlalchemy import text
from sqlalchemy.orm import Session

LAST_BACKUP = "last-backup.json"


def size_of_tables(session: Session) -> int:
    """How many bytes the tables and their indexes take, as MariaDB estimates it."""
    asked = "SELECT SUM(data_length + index_length) FROM information_schema.tables WHERE table_schema = DATABASE()"
    return int(session.scalar(text(asked)) or 0)


def note_backup(folder: Path, made: str, file: Path) -> None:
    """Keep in the data folder when a backup was made, and where it went."""
    (folder / LAST_BACKUP).write_text(json.dumps({"made": made, "file": str(file)}), encoding="utf-8")


def last_backup(folder: Path) -> tuple[str, str] | None:
    """When the last backup was made (ISO 8601), and to which file; None where none was made, or it is not known."""
    try:
        about = json.loads((folder / LAST_BACKUP).read_text(encoding="utf-8"))
        return str(about["made"]), str(about["file"])
    except (OSError, ValueError, KeyError, TypeError):
        return None
