"""A school: its database, brought up to date after a backup, and its web server."""

from __future__ import annotations

import json
import os
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path

from rich.console import Console
from sqlalchemy import inspect

from ..documents.reading import JsonObject
from ..school.database import make_engine
from . import ownership
from .backup import back_up, empty, restore
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


def cut_off(settings: Settings) -> Path:
    """What is there as long as an upgrade of the tables is not done: it names the backup that was made before."""
    return settings.folder / "migrating.json"


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


def bring_up_to_date(settings: Settings, url: str, console: Console, serving: bool = False) -> None:
    """Migrate the database; what is there already is backed up first, and a migration that was cut off is begun anew
    from that backup. ``serving``: whether it is this process that serves it. Raises BackupTrouble and CannotStart.
    """
    ownership.check_own(url, settings.folder)
    begun = cut_off(settings)
    before, newest = revision_of(url), newest_revision()
    if begun.exists() or before != newest:
        if not serving and (ownership.is_served(url) or is_served(lock_of(settings))):
            raise CannotStart("The school is being served; its tables are not changed under it. Stop it first.")
        _upgrade(settings, url, console, begun)
    ownership.claim(url, settings.folder)


def _upgrade(settings: Settings, url: str, console: Console, begun: Path) -> None:
    if begun.exists():
        _begin_anew(settings, url, console, begun)
    before, newest = revision_of(url), newest_revision()
    if before is not None and before > newest:
        raise CannotStart(
            f"The data are of a newer version ({before}) than this program ({newest}); use the newer program."
        )
    backup = None if before is None or is_empty(url) else _back_up_before(settings, url, console, before)
    _write(begun, {"backup": backup})
    with progress(console, "Bringing the tables up to date"):
        migrate(url)
    begun.unlink()


def _back_up_before(settings: Settings, url: str, console: Console, before: str) -> str:
    """The file of the backup that is made before an upgrade; the oldest ones are thrown away."""
    folder = settings.folder / "before-upgrades"
    folder.mkdir(parents=True, exist_ok=True)
    file = folder / f"{datetime.now(UTC):%Y-%m-%d-%H%M%S}-{before}.widepin"
    with progress(console, f"Backing up before the upgrade, to {file}") as say:
        back_up(settings, url, file, say)
    for old in sorted(folder.glob("*.widepin"))[:-KEPT_BEFORE_UPGRADES]:
        old.unlink()
    return str(file)


def _begin_anew(settings: Settings, url: str, console: Console, begun: Path) -> None:
    """Take back a migration that was cut off: the tables are again as they were backed up before it."""
    backup = json.loads(begun.read_text())["backup"]
    console.print("The last upgrade of the tables was cut off. What was backed up before it is put back first.")
    if backup is None:
        empty(url)  # there was nothing yet
    else:
        with progress(console, f"Restoring {backup}") as say:
            restore(settings, url, Path(backup), say)


def _write(file: Path, content: JsonObject) -> None:
    """Write a file so that it is there wholly, on the disk, or not at all."""
    file.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    half = file.with_name(f"{file.name}.new")
    with half.open("w") as out:
        json.dump(content, out)
        out.flush()
        os.fsync(out.fileno())
    half.replace(file)


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

        held: list[ownership.Serving] = []

        def prepare(url: str) -> WebServer:
            ownership.check_own(url, settings.folder)
            held.append(ownership.Serving(url))
            held[0].hold()
            bring_up_to_date(settings, url, console, serving=True)
            made = app_settings(settings, url)
            return WebServer(settings.folder, settings.port, made, host=settings.host, workers=settings.workers)

        def ready() -> None:
            console.print(f"{settings.name} is served on {settings.host}:{settings.port}, for {settings.address}")

        try:
            supervise(database_of(settings), prepare, ready, console, lambda: held[0].hold())
        finally:
            for one in held:
                one.release()
