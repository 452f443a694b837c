"""``setup``, ``serve``, ``backup``, ``restore`` and ``doctor``: a school, for whoever runs it."""

from __future__ import annotations

import sys
from dataclasses import asdict, replace
from functools import partial
from pathlib import Path
from typing import Any

import click

from .troubles import said_plainly

config_option = click.option(
    "--config", type=click.Path(path_type=Path), envvar="WIDEPIN_CONFIG", help="The configuration file."
)


take_over_option = click.option(
    "--take-over", is_flag=True, help="The database belonged to another installation, which is gone for good."
)


def path_of(config: Path | None) -> Path:
    from ..running.settings import default_path

    return config or default_path()


@click.command()
@config_option
@click.option("--name", envvar="WIDEPIN_NAME", help="The name of the school.")
@click.option("--address", envvar="WIDEPIN_ADDRESS", help="Where browsers find it, as https://construct.example.org.")
@click.option("--time-zone", envvar="WIDEPIN_TIME_ZONE", help="As Europe/Berlin.")
@click.option("--data", envvar="WIDEPIN_DATA", help="The folder in which data live.")
@click.option(
    "--database", envvar="WIDEPIN_DATABASE", help="The address of an existing MariaDB; else it has one of its own."
)
@click.option("--host", envvar="WIDEPIN_HOST", help="The address of this machine on which it listens.")
@click.option("--port", type=int, envvar="WIDEPIN_PORT", help="The port on which it listens.")
@click.option("--proxies", type=int, envvar="WIDEPIN_PROXIES", help="How many proxies stand in front; 1 for nginx.")
@click.option("--together/--alone", default=None, help="Whether other servers serve this school too.")
@click.option("--queue", envvar="WIDEPIN_QUEUE", help="The address of a Redis, through which others do long work.")
@click.option("--reports", envvar="WIDEPIN_REPORTS", help="The address of a replica for large pages.")
@click.option(
    "--like", type=click.Path(path_type=Path), help="What another server of the school wrote with bin/widepin another."
)
@take_over_option
@click.option("--no-questions", is_flag=True, help="Ask nothing; what is not said stays as it is, or as proposed.")
def setup(config: Path | None, like: Path | None, no_questions: bool, take_over: bool, **said: Any) -> None:
    """Write the configuration, make the tables, and print a link for the first administrator.

    Run again, it changes only what is said anew.
    """
    from ..running.settings import BadSettings, Settings, default_data, keys, read, write

    path = path_of(config)
    with said_plainly():
        known = read(path) if path.exists() else None
        if like is not None:
            from ..running.another_server import settings_like

            known = settings_like(like, said.get("data") or str(default_data()))
        proposed = asdict(known) if known else asdict(Settings("", "", str(default_data()), local_time_zone()))
        chosen = proposed | {name: value for name, value in said.items() if value is not None}
        asking = not no_questions and sys.stdin.isatty()
        if asking:
            for field, words in QUESTIONS.items():
                if said.get(field) is None and (known is None or not chosen[field]):
                    proposal = chosen[field] or (None if field != "database" else "")
                    chosen[field] = click.prompt(
                        words, default=proposal, show_default=bool(proposal), value_proc=partial(usable, field)
                    )
        for field in ("name", "address"):
            if not chosen[field]:
                raise BadSettings(f"{field}: say it with --{field}, or run setup in a terminal, where it is asked for.")
        settings = Settings(**chosen).checked()
        settings.folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        keys(settings.folder)
        changed = write(path, settings)
        click.echo(f"{'Wrote' if changed else 'Nothing to change in'} {path}.")
        link = prepared(settings, take_over)
        if link is None:
            click.echo("There is an administrator already. Start the school with: bin/widepin serve")
            return
        click.echo("\nStart the school with: bin/widepin serve")
        click.echo("Then open this link once; it makes the first administrator, and holds for 7 days:\n")
        click.echo(f"  {settings.address.rstrip('/')}/welcome/{link}\n")


def usable(field: str, typed: str) -> str:
    """What was typed for a setting, if it can be used; else the question is asked again."""
    from ..running.settings import BadSettings, Settings

    fitting: dict[str, Any] = {"name": "A school", "address": "https://a.example", "data": "/var/lib/widepin"}
    try:
        Settings(**{**fitting, field: typed.strip()}).checked()
    except BadSettings as wrong:
        raise click.UsageError(str(wrong)) from None
    return typed.strip()


QUESTIONS = {
    "name": "The name of the school",
    "address": "The address under which browsers will find it, as https://construct.example.org",
    "time_zone": "Its time zone, as Europe/Berlin",
    "data": "The folder in which data live",
    "database": "The address of an existing MariaDB (Enter for one of its own)",
}
"""What is asked where nothing is said, in this order."""


def local_time_zone() -> str:
    """The time zone of this machine, or UTC."""
    try:
        return Path("/etc/timezone").read_text().strip() or "UTC"
    except OSError:
        return "UTC"


def prepared(settings: Any, take_over: bool) -> str | None:
    """Bring the tables up to date; the token of a link for the first administrator, None where there is one."""
    from rich.console import Console

    from ..running.ownership import claim
    from ..running.school import bring_up_to_date, opened
    from ..school.database import make_engine, make_sessions
    from ..school.people.accounts import first_administrator_link

    with opened(settings) as url:
        if take_over:
            claim(url, settings.folder)
        bring_up_to_date(settings, url, Console(highlight=False))
        engine = make_engine(url)
        with make_sessions(engine)() as session:
            link = first_administrator_link(session)
            session.commit()
        engine.dispose()
    return link


@click.command()
@config_option
def serve(config: Path | None) -> None:
    """Serve the school until it is stopped. SIGHUP starts the web server again, gracefully."""
    from rich.console import Console

    from ..running.school import serve as serve_school
    from ..running.settings import read

    with said_plainly():
        serve_school(read(path_of(config)), Console(highlight=False))


@click.command()
@config_option
@click.argument("file", type=click.Path(path_type=Path))
def another(config: Path | None, file: Path) -> None:
    """Write to FILE what another server of this school needs to serve it too: `bin/widepin setup --like FILE` there.

    It holds the keys of the school and the password of its database. Take it there safely, and delete it then.
    """
    from ..running.another_server import write_for_another
    from ..running.settings import read

    with said_plainly():
        write_for_another(read(path_of(config)), file)
        click.echo(f"{file}: take it to the other machine, say bin/widepin setup --like {file.name} there, delete it.")


@click.command()
@config_option
@click.option("--at-once", type=click.IntRange(1, 64), help="How many jobs at a time.")
def work(config: Path | None, at_once: int | None) -> None:
    """Do the long work of the school that comes through its queue, until it is stopped."""
    import os

    from rich.console import Console

    from ..running.school import work as work_for_school
    from ..running.settings import read

    with said_plainly():
        work_for_school(read(path_of(config)), at_once or os.cpu_count() or 1, Console(highlight=False))


@click.command()
@config_option
@click.argument("file", type=click.Path(path_type=Path))
def backup(config: Path | None, file: Path) -> None:
    """Back all data and the keys up into FILE, and read it back. The school may be served meanwhile."""
    from ..running.backup import back_up
    from ..running.school import opened
    from ..running.settings import read
    from ..school.database import in_transaction, make_engine, make_sessions
    from ..school.storage import note_backup

    with said_plainly():
        settings = read(path_of(config))
        with opened(settings) as url:
            about = back_up(settings, url, file.resolve(), lambda words: click.echo(f"{words} …"))
            made, kept_in = about["made"], str(file.resolve())
            engine = make_engine(url)
            in_transaction(make_sessions(engine), lambda session: note_backup(session, made, kept_in))
            engine.dispose()
        click.echo(f"{file}: {told(about)}, read back and the same.")


def told(about: dict[str, Any]) -> str:
    """What a backup holds, in words."""
    counted = about["rows"]
    people, works, steps = (counted.get(table, 0) for table in ("person", "work", "operation"))
    return f"{people} people, {works} works, {steps} steps; {sum(counted.values())} rows in {len(counted)} tables"


@click.command()
@config_option
@click.option("--replace", "replacing", is_flag=True, help="Replace what is there; it is backed up first.")
@click.option("--data", help="Where data live, if it is not where they were.")
@click.option("--database", help="The address of an existing MariaDB; else it has one of its own.")
@take_over_option
@click.argument("file", type=click.Path(path_type=Path))
def restore(
    config: Path | None, replacing: bool, data: str | None, database: str | None, take_over: bool, file: Path
) -> None:
    """Restore a school from FILE. On a new machine, this writes the configuration too."""
    import tempfile
    import zipfile
    from datetime import UTC, datetime

    from rich.console import Console

    from ..running.backup import BackupTrouble, back_up, read_about
    from ..running.backup import restore as put_back
    from ..running.ownership import check_own, claim, server_of, servers
    from ..running.school import bring_up_to_date, cut_off, is_empty, lock_of, opened
    from ..running.settings import read, write
    from ..running.supervisor import is_served

    path = path_of(config)
    with said_plainly():
        if not path.exists():
            read_about(file)
            with tempfile.TemporaryDirectory() as folder, zipfile.ZipFile(file) as archive:
                settings = read(Path(archive.extract("widepin.toml", folder)))
            # Never the database that the backup came from: what runs there may still be at work.
            settings = replace(settings, data=data or settings.data, database=database or "").checked()
            write(path, settings)
            click.echo(f"Wrote {path}, as it was in the backup. See whether the address in it is right here.")
            click.echo("The data go into the database that was named." if database else "It has a database of its own.")
        settings = read(path)
        settings.folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        if is_served(lock_of(settings)):
            raise BackupTrouble("The school is being served; stop it first.")
        say = lambda words: click.echo(f"{words} …")  # noqa: E731
        with opened(settings) as url:
            if take_over:
                claim(url, settings.folder)
            check_own(url, settings.folder)
            if any(one != server_of(settings.folder) for one in servers(url)):
                raise BackupTrouble("This database is being served; stop that first. Nothing was changed.")
            if not is_empty(url):
                if not replacing:
                    raise BackupTrouble(
                        "There are data already. To replace them, say --replace; they are backed up first."
                    )
                before = settings.folder / f"before-restore-{datetime.now(UTC):%Y-%m-%d-%H%M%S}.widepin"
                back_up(settings, url, before, say)
                click.echo(f"What was there is in {before}.")
            about = put_back(settings, url, file, say)
            claim(url, settings.folder)  # the backup names the installation that it came from
            cut_off(settings).unlink(missing_ok=True)
            bring_up_to_date(settings, url, Console(highlight=False))
        click.echo(f"Restored: {told(about)}. Start the school with: bin/widepin serve")


@click.command()
@config_option
def doctor(config: Path | None) -> None:
    """Say what is wrong with the school, and what to do. Exit code 1 where something is wrong."""
    from ..running.doctor import examine, tell

    sys.exit(0 if tell(examine(path_of(config)), click.echo) else 1)
