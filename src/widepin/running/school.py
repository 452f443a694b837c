"""A school: its database, brought up to date after a backup, and its web server."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path

from rich.console import Console
from sqlalchemy import inspect

from ..school.database import make_engine
from .backup import back_up
from .databases import Database, RunByOthers
from .mariadb import MariaDB
from .migrate import migrate, newest_revision, revision_of
from .settings import Settings, keys
from .supervisor import CannotStart, is_served, only_one, progress, require_free, supervise
from .web_server import WebServer

KEPT_BEFORE_UPGRADES = 5
"""Backups that are kept of those made before an upgrade."""


def lock_of(settings: Settings) -> Path:
    """The lock of a school that is served."""
    return settings.folder / "served.lock"


def database_of(settings: Settings) -> Database:
    """The database server of a school."""
    return RunByOthers(settings.database) if settings.database else MariaDB(settings.folder / "database")


@contextmanager
def opened(settings: Settings) -> Iterator[str]:
    """The address of the school's database: that of the school as it is served, or of one started for the moment."""
    if settings.database:
        yield settings.database
        return
    server = MariaDB(settings.folder / "database")
    if is_served(lock_of(settings)):
        yield server.address_while_served()
        return
    try:
        yield server.start()
    finally:
        server.stop()


def bring_up_to_date(settings: Settings, url: str, console: Console) -> None:
    """Migrate the database; what is there already is backed up first. Raises BackupTrouble and CannotStart."""
    before, newest = revision_of(url), newest_revision()
    if before == newest:
        return
    if before is not None and before > newest:
        raise CannotStart(
            f"The data are of a newer version ({before}) than this program ({newest}); use the newer program."
        )
    if before is not None and not is_empty(url):
        folder = settings.folder / "before-upgrades"
        folder.mkdir(parents=True, exist_ok=True)
        file = folder / f"{datetime.now(UTC):%Y-%m-%d-%H%M%S}-{before}.widepin"
        with progress(console, f"Backing up before the upgrade, to {file}") as say:
            back_up(settings, url, file, say)
        for old in sorted(folder.glob("*.widepin"))[:-KEPT_BEFORE_UPGRADES]:
            old.unlink()
    with progress(console, "Bringing the tables up to date"):
        migrate(url)


def is_empty(url: str) -> bool:
    """Whether a database holds no people."""
    engine = make_engine(url)
    try:
        with engine.connect() as connection:
            if not inspect(connection).has_table("person"):
                return True
            return connection.exec_driver_sql("SELECT COUNT(*) FROM person").scalar() == 0
    finally:
        engine.dispose()


def app_settings(settings: Settings, url: str) -> dict[str, object]:
    """What the application is made with."""
    made = keys(settings.folder)
    return {
        "DATABASE_URL": url,
        "SECRET_KEY": made["session_key"],
        "CODES_KEY": made["codes_key"],
        "SCHOOL_NAME": settings.name,
        "ADDRESS": settings.address,
        "HTTPS": settings.is_https,
        "PROXIES": settings.proxies,
        "TIME_ZONE": settings.time_zone,
        "DATA": settings.data,
        "REVISION": newest_revision(),
        "JSON_LOGS": True,
    }


def serve(settings: Settings, console: Console) -> None:
    """Serve a school until it is stopped. Raises CannotStart, BackupTrouble, DatabaseTrouble and WebTrouble."""
    settings.folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    with only_one(lock_of(settings), "The school", settings.address):
        require_free(settings.host, settings.port, "choose another one with bin/widepin setup --port")

        def prepare(url: str) -> WebServer:
            bring_up_to_date(settings, url, console)
            made = app_settings(settings, url)
            return WebServer(settings.folder, settings.port, made, host=settings.host, workers=settings.workers)

        def ready() -> None:
            console.print(f"{settings.name} is served on {settings.host}:{settings.port}, for {settings.address}")

        supervise(database_of(settings), prepare, ready, console)
