"""A school: its database, brought up to date after a backup, and its web server."""

from __future__ import annotations

import json
import os
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path
from time import monotonic, sleep

from rich.console import Console
from sqlalchemy import inspect

from ..documents.reading import JsonObject
from ..school.database import make_engine, make_sessions
from ..school.tables import work_with
from . import ownership
from .backup import back_up, empty, restore
from .databases import Database, RunByOthers
from .mariadb import MariaDB
from .migrate import migrate, newest_revision, oldest_working, revision_of
from .settings import Settings, keys
from .supervisor import CannotStart, is_served, only_one, progress, require_free, supervise
from .web_server import WebServer

LEAVING = 5
"""Seconds before a server ends in which it still answers, so that the proxy in front finds out and sends others
elsewhere."""

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


LONGEST_CHANGE = 900
"""Seconds that a server waits for another one that brings the tables up to date."""


def bring_up_to_date(settings: Settings, url: str, console: Console, serving: bool = False) -> None:
    """Migrate the database; what is there already is backed up first, and a migration that was cut off is begun anew
    from that backup. ``serving``: whether it is this process that serves it. Raises BackupTrouble and CannotStart.

    Where several servers serve the school together, one changes the tables and the others wait; under those that go on
    serving they are only changed so that their program works with them.
    """
    ownership.check_own(url, settings.folder)
    if cut_off(settings).exists() or not _is_up_to_date(settings, url):
        others = [one for one in ownership.servers(url) if one != ownership.server_of(settings.folder)]
        if not serving and (others or is_served(lock_of(settings))):
            raise CannotStart("The school is being served; its tables are not changed under it. Stop it first.")
        with _changing_tables(settings, url, console):
            if cut_off(settings).exists() or not _is_up_to_date(settings, url):
                _upgrade(settings, url, console, others)
    ownership.claim(url, settings.folder)


def _is_up_to_date(settings: Settings, url: str) -> bool:
    """Whether this program works with the tables as they are."""
    before, newest = revision_of(url), newest_revision()
    if before is None or before <= newest or not settings.together:
        return before == newest
    engine = make_engine(url)
    try:
        with make_sessions(engine)() as session:
            return work_with(session, newest)
    finally:
        engine.dispose()


@contextmanager
def _changing_tables(settings: Settings, url: str, console: Console) -> Iterator[None]:
    """Be the one server that changes the tables; waits for another one that is at it. Raises CannotStart."""
    until = monotonic() + LONGEST_CHANGE
    while (by := ownership.begin_to_change(url, settings.folder)) is not None:
        if monotonic() > until:
            raise CannotStart(
                f"{by} was changing the tables, and has not ended. If it was stopped in the middle, start that server"
                " again: it has the backup, and begins anew from it."
            )
        with progress(console, f"Waiting for {by}, which brings the tables up to date"):
            sleep(2)
    yield
    ownership.end_changing(url, settings.folder)  # not where it failed: what is half done is for this server to mend


def _upgrade(settings: Settings, url: str, console: Console, others: list[str]) -> None:
    begun = cut_off(settings)
    if begun.exists():
        _begin_anew(settings, url, console, begun)
    before, newest = revision_of(url), newest_revision()
    if before is not None and before > newest:
        ownership.end_changing(url, settings.folder)
        raise CannotStart(
            f"The data are of a newer version ({before}) than this program ({newest}); use the newer program."
        )
    if others and (before is None or oldest_working(before) > before):
        ownership.end_changing(url, settings.folder)
        raise CannotStart(
            f"This version changes the tables so that the older program would not work with them, and that still serves"
            f" on {', '.join(others)}. Stop all servers, then start this one first."
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
        "QUEUE_URL": settings.queue,
        "REPORTS_URL": settings.reports,
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
            held.append(ownership.Serving(url, settings.folder, settings.together))
            held[0].hold()
            bring_up_to_date(settings, url, console, serving=True)
            made = app_settings(settings, url)
            return WebServer(
                settings.folder,
                settings.port,
                made,
                host=settings.host,
                workers=settings.workers,
                seconds_to_leave=LEAVING if settings.together else 0,
            )

        def ready() -> None:
            console.print(f"{settings.name} is served on {settings.host}:{settings.port}, for {settings.address}")

        try:
            supervise(database_of(settings), prepare, ready, console, lambda: held[0].hold())
        finally:
            for one in held:
                one.release()


def work(settings: Settings, at_once: int, console: Console) -> None:
    """Do long work that servers of the school hand to the queue. Raises CannotStart."""
    from ..web.jobs.worker import work as work_for

    if not settings.queue or not settings.database:
        raise CannotStart("This school does its long work where it is served: queue in its configuration is empty.")
    scratch = settings.folder / "work"
    scratch.mkdir(parents=True, exist_ok=True, mode=0o700)
    console.print(f"Long work of {settings.name} is done here, {at_once} at a time.")
    work_for({**app_settings(settings, settings.database), "SCRATCH": str(scratch)}, at_once)
