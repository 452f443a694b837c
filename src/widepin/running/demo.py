"""The demo: database, tables, demo school and web server, started and stopped together."""

from __future__ import annotations

import os
import secrets
import shutil
from pathlib import Path

from rich.console import Console
from sqlalchemy import text

from ..school.database import make_engine, make_sessions
from ..school.demo.accounts import DEMO_PASSWORD, SHOWN_ACCOUNTS
from .mariadb import MariaDB
from .migrate import ROOT, migrate
from .supervisor import only_one, progress, require_free, supervise
from .web_server import WebServer, address

VAR = Path(os.environ.get("WIDEPIN_VAR", ROOT / "var"))


def run_demo(port: int, reset: bool, console: Console) -> None:
    """Serve the demo until it is stopped. Raises CannotStart, DatabaseTrouble and WebTrouble."""
    with only_one(VAR / "demo.lock", "The demo", address(port)):
        if reset and (VAR / "demo").exists():
            shutil.rmtree(VAR / "demo")
            console.print("Started over: the old demo data are gone.")
        require_free("127.0.0.1", port, "choose another one with --port")

        def prepare(url: str) -> WebServer:
            with progress(console, "Bringing the tables up to date"):
                migrate(url)
            load(url, console)
            return WebServer(VAR / "demo", port, app_settings(url, port))

        supervise(MariaDB(VAR / "demo"), prepare, lambda: announce(port, console), console)


def load(url: str, console: Console) -> None:
    """Load the demo school into an empty database."""
    engine = make_engine(url)
    with engine.connect() as connection:
        is_empty = connection.scalar(text("SELECT COUNT(*) FROM person")) == 0
    if is_empty:
        # Only a first start needs the judge and all that comes with it.
        from ..school.demo.loading import load_demo

        with progress(console, "Loading the demo school") as say, make_sessions(engine)() as session:
            load_demo(session, lambda words: say(f"Loading the demo school: {words}"))
            session.commit()
    engine.dispose()


def app_settings(url: str, port: int) -> dict[str, object]:
    """The settings of the app; its secret is made once and kept."""
    key = VAR / "demo" / "secret"
    if not key.exists():
        key.touch(mode=0o600)
        key.write_text(secrets.token_urlsafe(32))
    return {"DATABASE_URL": url, "SECRET_KEY": key.read_text(), "DEMO": True, "ADDRESS": address(port)}


def announce(port: int, console: Console) -> None:
    """Print where to go and who can sign in."""
    console.print(f"\n[bold]Wide Pin[/bold] is ready: [bold]{address(port)}[/bold]\n")
    for login, who in SHOWN_ACCOUNTS:
        console.print(f"  {login:<14} {who}")
    console.print(f"\nThe password of every demo account is [bold]{DEMO_PASSWORD}[/bold]. Ctrl-C stops the demo.\n")
