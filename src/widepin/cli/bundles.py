"""Bundles as commands take them: all are read before anything is said."""

from __future__ import annotations

import sys
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from ..documents.formats.bundle import Bundle


def read_all(paths: Sequence[Path]) -> list[Bundle]:
    """The bundles of these files. Ends the program with what is wrong with the first that cannot be read."""
    from ..documents.formats.bundle import read_bundle
    from ..documents.reading import Unreadable

    read = []
    for path in paths:
        try:
            read.append(read_bundle(path))
        except Unreadable as wrong:
            print(" ".join(f"{path}: {wrong}".split()), file=sys.stderr)
            sys.exit(2)
    return read
