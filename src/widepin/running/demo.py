"""The demo: database, tables, demo school and web server, started and stopped together."""

from __future__ import annotations

import os
import secrets
import shutil
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager, nullcontext
from pathlib import Path

from rich.console import Console
from sqlalchemy import text

from ..joining.standins.platform import CLIENT_ID, DEPLOYMENT
from ..school.database import make_engine, make_sessions
from ..school.demo.accounts import DEMO_PASSWORD, SHOWN_ACCOUNTS
from ..school.joining import platforms
from .mariadb import MariaDB, end_with_parent
from .migrate import ROOT, migrate
from .supervisor import only_one, progress, require_free, supervise
from .web_server import WebServer, address

VAR = Path(os.environ.get("WIDEPIN_VAR", ROOT / "var"))


def run_demo(port: int, reset: bool, console: Console, with_platform: bool = False) -> None:
    """Serve the demo until it is stopped. Raises CannotStart, DatabaseTrouble and WebTrouble.

    ``with_platform``: with a pretend learning platform beside it, on the port after.
    """
    with only_one(VAR / "demo.lock", "The demo", address(port)):
        if reset and (VAR / "demo").exists():
            shutil.rmtree(VAR / "demo")
            console.print("Started over: the old demo data are gone.")
        require_free("127.0.0.1", port, "choose another one with --port")
        if with_platform:
            require_free("127.0.0.1", port + 1, "choose another one with --port")

        def prepare(url: str) -> WebServer:
            with progress(console, "Bringing the tables up to date"):
                migrate(url)
            load(url, console)
            if with_platform:
                register_platform(url, port)
            return WebServer(VAR / "demo", port, app_settings(url, port))

        with platform_beside(port) if with_platform else nullcontext():
            supervise(MariaDB(VAR / "demo"), prepare, lambda: announce(port, console, with_platform), console)


@contextmanager
def platform_beside(port: int) -> Iterator[None]:
    """Serve the pretend platform meanwhile, in a process of its own that ends with this one."""
    (VAR / "demo").mkdir(parents=True, exist_ok=True)
    command = [sys.executable, "-m", "widepin.joining.standins", str(port + 1), address(port)]
    with (VAR / "demo" / "platform.log").open("ab") as log:
        served = subprocess.Popen(
            [*command, str(VAR / "demo" / "platform.json")],
            stdout=log,
            stderr=log,
            start_new_session=True,  # Ctrl-C is for this process, which ends the other
            preexec_fn=end_with_parent,
        )
    try:
        yield
    finally:
        served.terminate()
        served.wait()


def platform_address(port: int) -> str:
    """Where the pretend platform is; another site than the demo, as a real one is."""
    return f"http://localhost:{port + 1}"


def register_platform(url: str, port: int) -> None:
    """Make the pretend platform known to the demo school, if it is not yet."""
    there = platform_address(port)
    engine = make_engine(url)
    with make_sessions(engine)() as session:
        if platforms.named(session, there, CLIENT_ID) is None:
            described = platforms.Described(
                name="The pretend platform",
                issuer=there,
                client_id=CLIENT_ID,
                login_address=f"{there}/auth",
                token_address=f"{there}/token",
                keys_address=f"{there}/keys",
                audience="",
                deployments=(DEPLOYMENT,),
            )
            platforms.store(session, None, described)
            session.commit()
    engine.dispose()


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


def announce(port: int, console: Console, with_platform: bool = False) -> None:
    """Print where to go and who can sign in."""
    console.print(f"\n[bold]Wide Pin[/bold] is ready: [bold]{address(port)}[/bold]\n")
    if with_platform:
        console.print(f"A pretend learning platform with two courses: [bold]{platform_address(port)}[/bold]\n")
    for login, who in SHOWN_ACCOUNTS:
        console.print(f"  {login:<14} {who}")
    console.print(f"\nThe password of every demo account is [bold]{DEMO_PASSWORD}[/bold]. Ctrl-C stops the demo.\n")
