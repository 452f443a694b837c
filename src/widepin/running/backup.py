"""Backups: all data and the keys of a school in one file, read back before it counts as made.

A backup is a zip archive: ``backup.json`` (what it is, and the digests of the rest), ``database.sql`` (a consistent
snapshot by mariadb-dump), ``keys.json`` and ``widepin.toml``. To check one, its snapshot is loaded into a database of
its own, for the moment, and its rows are counted there.
"""

from __future__ import annotations

import hashlib
import json
import os
import shutil
import subprocess
import tempfile
import zipfile
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path
from typing import IO, Any

from sqlalchemy import inspect
from sqlalchemy.engine import URL, make_url

from ..documents.reading import JsonObject
from ..school.database import make_engine
from ..school.servers import answering
from . import settings as configuration
from .mariadb import THROWAWAY, MariaDB
from .migrate import revision_of
from .settings import Settings

FORMAT = "widepin.backup/1"
OF_THE_MOMENT = ("lease",)
"""Tables that say who is at work at this moment: no backup holds them, and whoever holds a lease keeps it meanwhile."""
PARTS = ("database.sql", "keys.json", "widepin.toml")

Say = Callable[[str], None]


class BackupTrouble(Exception):
    """A backup cannot be made or used; the message says why, and what to do."""


def back_up(settings: Settings, url: str, file: Path, say: Say) -> JsonObject:
    """Write a backup and read it back; what it holds. Raises BackupTrouble, and then leaves no file behind."""
    if file.exists():
        raise BackupTrouble(f"{file} is there already; choose another name, so that no older backup is lost.")
    if not file.parent.is_dir():
        raise BackupTrouble(f"{file.parent} is no folder; make it first.")
    half = file.with_name(f"{file.name}.{os.getpid()}.half")
    with tempfile.TemporaryDirectory(prefix="widepin-backup-") as name:
        folder = Path(name)
        say("Taking a snapshot of the database")
        dump(url, folder / "database.sql")
        (folder / "keys.json").write_text(json.dumps(configuration.keys(settings.folder)))
        configuration.write(folder / "widepin.toml", settings)
        say("Reading the snapshot back, in a database of its own")
        about: JsonObject = {
            "format": FORMAT,
            "made": datetime.now(UTC).isoformat(timespec="seconds"),
            "revision": revision_of(url),
            "rows": rows_in_dump(folder / "database.sql"),
            "digests": {part: digest(folder / part) for part in PARTS},
        }
        say("Writing the file")
        try:
            half.touch(mode=0o600)
            with zipfile.ZipFile(half, "w", zipfile.ZIP_DEFLATED) as archive:
                archive.writestr("backup.json", json.dumps(about, indent=1))
                for part in PARTS:
                    archive.write(folder / part, part)
            with half.open("rb") as written:
                os.fsync(written.fileno())
            say("Reading the file back")
            if read_about(half) != about:
                raise BackupTrouble(f"{half} does not hold what was written; try another disk.")
            half.replace(file)
        except OSError as wrong:
            raise BackupTrouble(f"{file} could not be written: {wrong}") from None
        finally:
            half.unlink(missing_ok=True)
    return about


def restore(settings: Settings, url: str, file: Path, say: Say) -> JsonObject:
    """Put a backup in the place of what is in a database, and its keys into the data folder; what it held.

    The whole file is checked before anything is touched. Raises BackupTrouble.
    """
    say("Checking the file")
    about = read_about(file)
    with tempfile.TemporaryDirectory(prefix="widepin-restore-") as name, zipfile.ZipFile(file) as archive:
        folder = Path(name)
        for part in PARTS:
            archive.extract(part, folder)
        say("Loading the data")
        empty(url)
        load(url, folder / "database.sql")
        say("Counting what is there")
        found = rows(url)
        if found != about["rows"]:
            wrong = sorted(table for table in about["rows"] if found.get(table) != about["rows"][table])
            raise BackupTrouble(f"After loading, these tables do not hold what they should: {', '.join(wrong)}.")
        configuration.write_keys(settings.folder, json.loads((folder / "keys.json").read_text()))
    return about


def read_about(file: Path) -> JsonObject:
    """What a backup says of itself, where all of it is whole. Raises BackupTrouble."""
    try:
        with zipfile.ZipFile(file) as archive:
            about = json.loads(archive.read("backup.json"))
            if about.get("format") != FORMAT:
                raise BackupTrouble(f"{file} is a backup of another kind ({about.get('format')}); this reads {FORMAT}.")
            for part in PARTS:
                with archive.open(part) as opened:
                    if digest_of(opened) != about["digests"][part]:
                        raise BackupTrouble(f"{file} is damaged: {part} is not what was written. Use another backup.")
    except FileNotFoundError:
        raise BackupTrouble(f"{file} is not there.") from None
    except (zipfile.BadZipFile, KeyError, ValueError, OSError, EOFError) as wrong:
        raise BackupTrouble(f"{file} is no whole backup of Wide Pin ({wrong}). Use another one.") from None
    return about  # type: ignore[no-any-return]


def digest(path: Path) -> str:
    """The SHA-256 of a file, in hexadecimal."""
    with path.open("rb") as opened:
        return digest_of(opened)


def digest_of(opened: IO[bytes]) -> str:
    """The SHA-256 of what is read from a file."""
    made = hashlib.sha256()
    while block := opened.read(1 << 20):
        made.update(block)
    return made.hexdigest()


def dump(url: str, file: Path) -> None:
    """A consistent snapshot of a database as SQL."""
    options = ["--single-transaction", "--quick", "--hex-blob", "--skip-comments"]
    options += [f"--ignore-table={make_url(url).database}.{table}" for table in OF_THE_MOMENT]
    with file.open("wb") as out:
        _client("mariadb-dump", url, options, stdout=out)


def load(url: str, file: Path) -> None:
    """Put a snapshot into an empty database."""
    with file.open("rb") as snapshot:
        _client("mariadb", url, [], stdin=snapshot)


def _client(program: str, url: str, options: list[str], **streams: Any) -> None:
    found = shutil.which(program)
    if found is None:
        raise BackupTrouble(f"{program} is not installed; install Debian's package mariadb-client.")
    address = make_url(answering(url))
    with tempfile.NamedTemporaryFile(
        "w", prefix="widepin-client-"
    ) as secret:  # a password shows in no list of processes
        secret.write(_defaults(address))
        secret.flush()
        command = [found, f"--defaults-extra-file={secret.name}", *options, str(address.database)]
        done = subprocess.run(command, stderr=subprocess.PIPE, **streams)
    if done.returncode:
        raise BackupTrouble(f"{program} failed: {done.stderr.decode(errors='replace').strip()[-400:]}")


def _defaults(address: URL) -> str:
    password = str(address.password or "").replace("\\", "\\\\").replace('"', '\\"')
    return (
        f'[client]\nhost="{address.host}"\nport={address.port or 3306}\nuser="{address.username}"\n'
        f'password="{password}"\nprotocol=TCP\ndefault-character-set=utf8mb4\n'
    )


def rows_in_dump(file: Path) -> dict[str, int]:
    """How many rows a snapshot holds, by table: it is loaded into a database of its own, for the moment."""
    with tempfile.TemporaryDirectory(prefix="widepin-check-") as name:
        server = MariaDB(Path(name), THROWAWAY)
        try:
            url = server.start()
            load(url, file)
            return rows(url)
        finally:
            server.stop()


def rows(url: str) -> dict[str, int]:
    """How many rows each table of a database holds that belongs into a backup."""
    engine = make_engine(url)
    try:
        with engine.connect() as connection:
            count = "SELECT COUNT(*) FROM `{}`"
            tables = sorted(set(inspect(connection).get_table_names()) - set(OF_THE_MOMENT))
            return {table: int(connection.exec_driver_sql(count.format(table)).scalar() or 0) for table in tables}
    finally:
        engine.dispose()


def empty(url: str) -> None:
    """Drop all tables of a database that belong into a backup."""
    engine = make_engine(url)
    try:
        with engine.begin() as connection:
            connection.exec_driver_sql("SET FOREIGN_KEY_CHECKS = 0")
            for table in set(inspect(connection).get_table_names()) - set(OF_THE_MOMENT):
                connection.exec_driver_sql(f"DROP TABLE `{table}`")
    finally:
        engine.dispose()
