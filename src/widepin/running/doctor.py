"""What is wrong with a school, and what to do about it."""

from __future__ import annotations

import json
import os
import shutil
import stat
import urllib.error
import urllib.request
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from enum import StrEnum
from pathlib import Path

from sqlalchemy import Engine, text
from sqlalchemy.exc import ProgrammingError, SQLAlchemyError

from ..school.database import make_engine, make_sessions
from ..school.storage import last_backup
from .mariadb import DatabaseTrouble, server_program
from .migrate import newest_revision, revision_of
from .school import lock_of, opened
from .settings import BadSettings, Settings, keys, read
from .supervisor import is_served

NEEDED_SPACE = 1 << 30
"""Bytes that should be free where data live."""


ANSWERS_WITHIN = 20
"""Seconds in which a school at work answers, however busy the machine is."""

OLD_BACKUP = timedelta(days=2)
"""Age at which the last backup is worth a look: one is made every night."""


class State(StrEnum):
    """How a thing that was looked at stands."""

    GOOD = "good"
    WORTH_A_LOOK = "worth a look"
    WRONG = "wrong"


@dataclass(frozen=True)
class Diagnosis:
    """A thing that was looked at: how it stands, in words, and what to do where it is not good."""

    what: str
    state: State
    words: str
    remedy: str = ""


def examine(path: Path) -> Iterator[Diagnosis]:
    """Everything that can be told of a school from outside, one thing after the other. Nothing is changed."""
    try:
        settings = read(path)
    except BadSettings as wrong:
        yield Diagnosis("configuration", State.WRONG, str(wrong), "Correct it, or run bin/widepin setup.")
        return
    yield Diagnosis("configuration", State.GOOD, f"{path} can be used")
    yield from (check(settings) for check in (_data, _space, _keys, _programs))
    yield from _database(settings)
    yield _serving(settings)


def _data(settings: Settings) -> Diagnosis:
    folder = settings.folder
    if not folder.is_dir():
        return Diagnosis("data folder", State.WRONG, f"{folder} is not there", "Run bin/widepin setup.")
    if not os.access(folder, os.W_OK):
        return Diagnosis(
            "data folder", State.WRONG, f"{folder} cannot be written", f"Let this user own it: chown -R $USER {folder}"
        )
    if folder.stat().st_mode & (stat.S_IRWXG | stat.S_IRWXO):
        return Diagnosis(
            "data folder", State.WORTH_A_LOOK, f"{folder} is open to other users", f"Close it: chmod 700 {folder}"
        )
    return Diagnosis("data folder", State.GOOD, f"{folder} is there, and this user's alone")


def _space(settings: Settings) -> Diagnosis:
    at = settings.folder if settings.folder.is_dir() else Path("/")
    free = shutil.disk_usage(at).free
    words = f"{free / (1 << 30):.1f} GB are free where the data live"
    if free < NEEDED_SPACE // 10:
        return Diagnosis("space", State.WRONG, words, "Make room at once: a full disk stops every save.")
    if free < NEEDED_SPACE:
        return Diagnosis("space", State.WORTH_A_LOOK, words, "Make room before the disk is full.")
    return Diagnosis("space", State.GOOD, words)


def _keys(settings: Settings) -> Diagnosis:
    path = settings.folder / "keys.json"
    try:
        found = keys(settings.folder, make=False)
    except BadSettings as wrong:
        return Diagnosis("keys", State.WRONG, str(wrong), "Put keys.json back from a backup.")
    if not found:
        return Diagnosis(
            "keys", State.WORTH_A_LOOK, f"{path} is not there yet", "It is made by setup, or at the first start."
        )
    if path.stat().st_mode & (stat.S_IRWXG | stat.S_IRWXO):
        return Diagnosis("keys", State.WRONG, f"{path} can be read by other users", f"Close it: chmod 600 {path}")
    return Diagnosis("keys", State.GOOD, "there, and nobody else can read them")


def _programs(settings: Settings) -> Diagnosis:
    missing = [name for name in ("mariadb", "mariadb-dump") if shutil.which(name) is None]
    if not settings.database:
        try:
            server_program()
        except DatabaseTrouble:
            missing.append("mariadbd")
    if missing:
        return Diagnosis(
            "programs",
            State.WRONG,
            f"{', '.join(missing)}: not installed",
            "Run bin/widepin setup, which installs them.",
        )
    return Diagnosis("programs", State.GOOD, "what the database and backups need is installed")


def _database(settings: Settings) -> Iterator[Diagnosis]:
    try:
        with opened(settings) as url:
            engine = make_engine(url)
            with engine.connect() as connection:
                version = connection.execute(text("SELECT VERSION()")).scalar()
                connection.execute(text("CREATE TEMPORARY TABLE doctor (n INT)"))
                connection.execute(text("INSERT INTO doctor VALUES (1)"))
            yield Diagnosis("database", State.GOOD, f"MariaDB {version} answers and writes")
            found, newest = revision_of(url), newest_revision()
            yield _backups(engine)
            engine.dispose()
    except (DatabaseTrouble, SQLAlchemyError, OSError) as wrong:
        remedy = (
            "See whether that server runs, and whether address and password in the configuration are right."
            if settings.database
            else f"See {settings.folder / 'database' / 'db.log'}; if the data are damaged, restore a backup."
        )
        yield Diagnosis("database", State.WRONG, str(wrong).splitlines()[0], remedy)
        return
    if found == newest:
        yield Diagnosis("tables", State.GOOD, f"up to date ({newest})")
    elif found is None:
        yield Diagnosis("tables", State.WORTH_A_LOOK, "not made yet", "bin/widepin setup makes them.")
    elif found > newest:
        yield Diagnosis(
            "tables",
            State.WRONG,
            f"of a newer version ({found}) than this program ({newest})",
            "Use the newer program.",
        )
    else:
        yield Diagnosis(
            "tables",
            State.WORTH_A_LOOK,
            f"of an older version ({found}, now {newest})",
            "serve upgrades them, after a backup.",
        )


def _serving(settings: Settings) -> Diagnosis:
    if not is_served(lock_of(settings)):
        return Diagnosis(
            "serving", State.WORTH_A_LOOK, "the school is not served", "Start bin/widepin serve, or its systemd unit."
        )
    host = f"[{settings.host}]" if ":" in settings.host else settings.host
    try:
        with urllib.request.urlopen(f"http://{host}:{settings.port}/readyz", timeout=ANSWERS_WITHIN) as answer:
            ready = json.load(answer)
    except urllib.error.HTTPError as wrong:
        return Diagnosis(
            "serving",
            State.WRONG,
            f"served, but not ready: {wrong.read().decode(errors='replace')[:200]}",
            "See its log.",
        )
    except (OSError, ValueError) as wrong:
        return Diagnosis(
            "serving",
            State.WRONG,
            f"it does not answer on {host}:{settings.port} ({wrong})",
            "See its log; start it again.",
        )
    return Diagnosis("serving", State.GOOD, f"ready on {host}:{settings.port} ({', '.join(ready)})")


def _backups(engine: Engine) -> Diagnosis:
    remedy = "Make one every night with bin/widepin backup FILE (docs/running.md)."
    try:
        with make_sessions(engine)() as session:
            found = last_backup(session)
    except ProgrammingError:  # there are no tables yet
        found = None
    if found is None:
        return Diagnosis("backup", State.WORTH_A_LOOK, "none was made yet", remedy)
    made, file = found
    words = f"the last one was made {made}, to {file}"
    is_old = datetime.now(UTC) - datetime.fromisoformat(made).replace(tzinfo=UTC) > OLD_BACKUP
    return Diagnosis("backup", State.WORTH_A_LOOK if is_old else State.GOOD, words, remedy if is_old else "")


SIGNS: dict[State, str] = {State.GOOD: "ok  ", State.WORTH_A_LOOK: "look", State.WRONG: "!!  "}


def tell(findings: Iterator[Diagnosis], say: Callable[[str], None]) -> bool:
    """Say what was found; whether nothing is wrong."""
    good = True
    for finding in findings:
        say(
            f"{SIGNS[finding.state]} {finding.what}: {finding.words}"
            + (f". {finding.remedy}" if finding.remedy else "")
        )
        good = good and finding.state is not State.WRONG
    return good
