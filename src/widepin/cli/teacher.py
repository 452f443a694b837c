"""``teacher``: people who teach, from the command line of whoever runs the school."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

import click

from .school import config_option, path_of
from .troubles import said_plainly

if TYPE_CHECKING:
    from sqlalchemy.orm import Session


@click.group()
def teacher() -> None:
    """Invite teachers, and help those who have lost their password."""


@teacher.command()
@config_option
@click.option("--administrator", is_flag=True, help="May also look after the school.")
@click.argument("name")
def invite(config: Path | None, name: str, administrator: bool) -> None:
    """Print a link by which NAME can make an account, once."""
    from ..school.people.accounts import invite as make_link

    _print_link(config, lambda session: make_link(session, None, name, administrator))


@teacher.command()
@config_option
@click.argument("login")
def reset(config: Path | None, login: str) -> None:
    """Print a link by which the teacher with this LOGIN can choose a new password, once."""
    from ..school.people.accounts import reset as make_link
    from ..school.people.accounts import teacher_named

    _print_link(config, lambda session: make_link(session, None, teacher_named(session, login)))


def _print_link(config: Path | None, make: Callable[[Session], str]) -> None:
    from ..running.school import opened
    from ..running.settings import read
    from ..school.database import make_engine, make_sessions
    from ..school.people.accounts import LINK_HOLDS

    with said_plainly():
        settings = read(path_of(config))
        with opened(settings) as url:
            engine = make_engine(url)
            with make_sessions(engine)() as session:
                token = make(session)
                session.commit()
            engine.dispose()
        click.echo(
            f"This link holds for {LINK_HOLDS.days} days and works once. Hand it over in person or by a safe way:\n"
        )
        click.echo(f"  {settings.address.rstrip('/')}/welcome/{token}")
