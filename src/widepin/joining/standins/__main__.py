"""Serves a pretend platform: ``python -m widepin.joining.standins PORT TOOL FILE``."""

from __future__ import annotations

import sys
from pathlib import Path

from werkzeug.serving import make_server

from .platform import create_platform


def main(port: int, tool: str, file: Path) -> None:
    """Serve until it is ended."""
    app = create_platform(f"http://localhost:{port}", tool, file=file)
    make_server("127.0.0.1", port, app, threaded=True).serve_forever()


if __name__ == "__main__":
    main(int(sys.argv[1]), sys.argv[2], Path(sys.argv[3]))
