"""What goes wrong in a command is said in one sentence, with exit code 1."""

from __future__ import annotations

import sys
from collections.abc import Iterator
from contextlib import contextmanager


@contextmanager
def said_plainly() -> Iterator[None]:
    """Say what went wrong, and end with exit code 1."""
    from ..plane.errors import CoreError
    from ..running.backup import BackupTrouble
    from ..running.mariadb import DatabaseTrouble
    from ..running.settings import BadSettings
    from ..running.supervisor import CannotStart
    from ..running.web_server import WebTrouble

    try:
        yield
    except (CannotStart, DatabaseTrouble, WebTrouble, BadSettings, BackupTrouble, CoreError) as trouble:
        print(trouble, file=sys.stderr)
        sys.exit(1)
    except PermissionError as trouble:
        print(f"{trouble.filename} may not be used by this user: {trouble.strerror}.", file=sys.stderr)
        sys.exit(1)
