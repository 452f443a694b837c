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

from ..joining.standins import office as office_standin
from ..joining.standins import platform
from ..joining.standins import provider as provider_standin
from ..joining.standins import store as store_standin
from ..school.database import make_engine, make_sessions
from ..school.demo.accounts import DEMO_PASSWORD, SHOWN_ACCOUNTS
from ..school.joining import activity, office_lists, platforms, provider
from .mariadb import MariaDB, end_with_parent
from .migrate import ROOT, migrate
from .supervisor import only_one, progress, require_free, supervise
from .web_server import WebServer, address

VAR = Path(os.environ.get("WIDEPIN_VAR", ROOT / "var"))


def run_demo(port: int, reset: bool, console: Console, with_platform: bool = False) -> None:
    """Serve the demo until it is stopped. Raises CannotStart, DatabaseTrouble and WebTrouble.

    ``with_platform``: with pretend systems of a school beside it (``STANDINS``), on the ports after.
    """
    with only_one(VAR / "demo.lock", "The demo", address(port)):
        if reset and (VAR / "demo").exists():
            shutil.rmtree(VAR / "demo")
            console.print("Started over: the old demo data are gone.")
        require_free("127.0.0.1", port, "choose another one with --port")
        for number in range(len(STANDINS)) if with_platform else ():
            require_free("127.0.0.1", port + 1 + number, "choose another one with --port")

        def prepare(url: str) -> WebServer:
            with progress(console, "Bringing the tables up to date"):
                migrate(url)
            load(url, console)
            if with_platform:
                register_standins(url, port)
            return WebServer(VAR / "demo", port, app_settings(url, port))

        with standins_beside(port) if with_platform else nullcontext():
            supervise(MariaDB(VAR / "demo"), prepare, lambda: announce(port, console, with_platform), console)


STANDINS = ("platform", "provider", "office", "store")
"""Pretend systems that are served beside the demo, each on the next port."""


@contextmanager
def standins_beside(port: int) -> Iterator[None]:
    """Serve the pretend systems meanwhile, in processes of their own that end with this one."""
    folder = VAR / "demo"
    folder.mkdir(parents=True, exist_ok=True)
    served = []
    with (folder / "standins.log").open("ab") as log:
        for number, name in enumerate(STANDINS, 1):
            command = [sys.executable, "-m", "widepin.joining.standins", name, str(port + number), address(port)]
            served.append(
                subprocess.Popen(
                    [*command, str(folder)],
                    stdout=log,
                    stderr=log,
                    start_new_session=True,  # Ctrl-C is for this process, which ends the others
                    preexec_fn=end_with_parent,
                )
            )
    try:
        yield
    finally:
        for one in served:
            one.terminate()
        for one in served:
            one.wait()


def standin_address(name: str, port: int) -> str:
    """Where a pretend system is; another site than the demo, as a real one is."""
    return f"http://localhost:{port + 1 + STANDINS.index(name)}"


def register_standins(url: str, port: int) -> None:
    """Make the pretend systems known to the demo school, those that are not yet."""
    there, accounts, office, activities = (standin_address(name, port) for name in STANDINS)
    engine = make_engine(url)
    with make_sessions(engine)() as session:
        if platforms.named(session, there, platform.CLIENT_ID) is None:
            platforms.store(session, None, platform_described(there))
        if provider.present(session) is None:
            provider.store(session, None, provider_fields(accounts), provider_standin.described(accounts), unsafe=True)
        if office_lists.source(session) is None:
            office_lists.set_source(session, None, office, office_standin.CLIENT_ID, office_standin.CLIENT_SECRET, True)
        if activity.store(session) is None:
            activity.set_store(
                session, None, f"{activities}/xapi", store_standin.KEY, store_standin.SECRET, unsafe=True
            )
        session.commit()
    engine.dispose()


def platform_described(there: str) -> platforms.Described:
    """The pretend platform, as an administrator would fill it in."""
    return platforms.Described(
        name="The pretend platform",
        issuer=there,
        client_id=platform.CLIENT_ID,
        login_address=f"{there}/auth",
        token_address=f"{there}/token",
        keys_address=f"{there}/keys",
        audience="",
        deployments=(platform.DEPLOYMENT,),
    )


def provider_fields(there: str) -> dict[str, str]:
    """The pretend identity provider, as an administrator would fill it in."""
    return {
        "name": "Pretend school account",
        "issuer": there,
        "client_id": provider_standin.CLIENT_ID,
        "client_secret": provider_standin.CLIENT_SECRET,
        "claim": "preferred_username",
        "matches": "yes",
        "groups_claim": "groups",
        "teacher_groups": "staff",
        "student_groups": "pupils",
    }


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
        for words, name in (
            ("A pretend learning platform with two courses", "platform"),
            ("Pretend school accounts", "provider"),
            ("A pretend school office", "office"),
            ("A pretend store of activity", "store"),
        ):
            console.print(f"{words}: [bold]{standin_address(name, port)}[/bold]")
        console.print()
    for login, who in SHOWN_ACCOUNTS:
        console.print(f"  {login:<14} {who}")
    console.print(f"\nThe password of every demo account is [bold]{DEMO_PASSWORD}[/bold]. Ctrl-C stops the demo.\n")
