"""Serves a pretend system: ``python -m widepin.joining.standins NAME PORT TOOL FOLDER``."""

from __future__ import annotations

import sys
from pathlib import Path

from flask import Flask
from werkzeug.serving import make_server

from .office import create_office
from .platform import create_platform
from .provider import create_provider
from .store import create_store


def app_of(name: str, address: str, tool: str, folder: Path) -> Flask:
    """A pretend system by its name. ``tool``: where this program is; ``folder``: for what is kept between starts."""
    match name:
        case "platform":
            return create_platform(address, tool, file=folder / "platform.json")
        case "provider":
            app = create_provider(address)
            app.extensions["provider"].logout = f"{tool.rstrip('/')}/single-sign-on/signed-out"
            return app
        case "office":
            return create_office(address)
        case "store":
            return create_store(address)
    raise SystemExit(f"there is no pretend system {name}")


def main(name: str, port: int, tool: str, folder: Path) -> None:
    """Serve until it is ended."""
    app = app_of(name, f"http://localhost:{port}", tool, folder)
    make_server("127.0.0.1", port, app, threaded=True).serve_forever()


if __name__ == "__main__":
    main(sys.argv[1], int(sys.argv[2]), sys.argv[3], Path(sys.argv[4]))
