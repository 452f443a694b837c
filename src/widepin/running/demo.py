"""The demo: database, tables, demo school and web server, started and stopped together."""

from __future__ import annotations

import contextlib
import fcntl
import os
import secrets
import shutil
import signal
import socket
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from types import FrameType

from rich.console import Console
from sqlalchemy import text

from ..school.demo_accounts import DEMO_PASSWORD, SHOWN_ACCOUNTS
from ..school.store import make_engine, make_sessions
from .mariadb import MariaDB
from .migrate import ROOT, migrate
from .watching import Watch
from .web_server import WebServer, address

VAR = Path(os.environ.get("WIDEPIN_VAR", ROOT / "var"))


class CannotStart(Exception):
    """The demo cannot start; the message says why and what to do."""


class Stopped(Exception):
    """Somebody asked the demo to stop."""


def run_demo(port: int, reset: bool, console: Console) -> None:
    """Serve the demo until it is stopped. Raises CannotStart, DatabaseTrouble and WebTrouble."""
    VAR.mkdir(parents=True, exist_ok=True)
    with only_one(VAR / "demo.lock", port):
        if reset and (VAR / "demo").exists():
            shutil.rmtree(VAR / "demo")
            console.print("Started over: the old demo data are gone.")
        require_free(port)
        signal.signal(signal.SIGTERM, _stop)
        signal.signal(signal.SIGINT, _stop)
        database = MariaDB(VAR / "demo")
        web: WebServer | None = None
        try:
            with progress(console, "Starting the database"):
                url = database.start()
            with progress(console, "Bringing the tables up to date"):
                migrate(url)
            load(url, console)
            with progress(console, "Starting the web server"):
                web = WebServer(VAR / "demo", port, app_settings(url, port))
                web.start()
            announce(port, console)
            watch(database, web, console)
        except Stopped:
            pass
        finally:
            signal.signal(signal.SIGTERM, signal.SIG_IGN)
            signal.signal(signal.SIGINT, signal.SIG_IGN)
            console.print("Stopping …")
            if web is not None:
                web.stop()
            database.stop()
            console.print("Stopped. All data are kept for the next start.")


@contextlib.contextmanager
def progress(console: Console, words: str) -> Iterator[Callable[[str], None]]:
    """Show what is going on, as a line that changes on a terminal and as lines elsewhere."""
    if not console.is_terminal:
        console.print(f"{words} …")
        yield lambda more: console.print(f"{more} …")
        return
    with console.status(words) as status:
        yield status.update


@contextlib.contextmanager
def only_one(path: Path, port: int) -> Iterator[None]:
    """Hold the lock of the running demo. Raises CannotStart where another one holds it."""
    with path.open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            lock.seek(0)
            raise CannotStart(
                f"The demo is running already: {lock.read().strip()}. Open that, or stop it with Ctrl-C first."
            ) from None
        lock.truncate(0)
        lock.write(address(port))
        lock.flush()
        yield


def require_free(port: int) -> None:
    """Raise CannotStart where something else listens on the port."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            raise CannotStart(f"Port {port} is taken by another program; choose one with --port.") from None


def load(url: str, console: Console) -> None:
    """Load the demo school into an empty database."""
    engine = make_engine(url)
    with engine.connect() as connection:
        is_empty = connection.scalar(text("SELECT COUNT(*) FROM person")) == 0
    if is_empty:
        # Only a first start needs the judge and all that comes with it.
        from ..school.demo import load_demo

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


def watch(database: MariaDB, web: WebServer, console: Console) -> None:
    """Keep both servers going until somebody asks to stop."""
    watched = Watch(database, web, console.print)
    while True:
        watched.look()
        time.sleep(0.3)


def _stop(number: int, frame: FrameType | None) -> None:
    raise Stopped
