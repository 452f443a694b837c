"""Wide Pin: construction tasks for geometry classes, and the judge that checks them."""

import hashlib
from functools import cache
from pathlib import Path

VERSION = "0.12.0"


def version() -> str:
    """The version of this program."""
    return VERSION


@cache
def program_digest() -> str:
    """What the program is known by to other processes that run exactly the same: a digest of its Python files."""
    here, contents = Path(__file__).parent, hashlib.sha256()
    for path in sorted(here.rglob("*.py")):
        contents.update(f"{path.relative_to(here)}\n".encode())
        contents.update(hashlib.sha256(path.read_bytes()).digest())
    return contents.hexdigest()[:12]
