"""Whether the compiled search was compiled as it is, found out without loading numba, which takes a second."""

from __future__ import annotations

import os
from contextlib import suppress
from hashlib import sha256
from importlib.metadata import version
from pathlib import Path

SOURCES = Path(__file__).parent / "kernel"


def is_compiled() -> bool:
    """Whether this kernel was compiled, by this numba, and kept where this process finds it."""
    return _marker().exists()


def mark_as_compiled() -> None:
    """Note it, where anything can be written there."""
    with suppress(OSError):
        _marker().parent.mkdir(parents=True, exist_ok=True)
        for other in _marker().parent.glob("kernel-*.compiled"):
            other.unlink(missing_ok=True)
        _marker().touch()


def _marker() -> Path:
    """A file beside what numba keeps, named for all that was compiled."""
    text = b"".join(path.read_bytes() for path in sorted(SOURCES.glob("*.py"))) + version("numba").encode()
    folder = os.environ.get("NUMBA_CACHE_DIR") or SOURCES / "__pycache__"
    return Path(folder) / f"kernel-{sha256(text).hexdigest()[:16]}.compiled"
