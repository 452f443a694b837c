"""``demo``: the demo school."""

from __future__ import annotations

import click

from .troubles import said_plainly


@click.command()
@click.option("--port", default=8317, show_default=True, help="Where to serve, on 127.0.0.1.")
@click.option("--reset", is_flag=True, help="Throw the demo data away and start over.")
@click.option("--with-platform", is_flag=True, help="Serve a pretend learning platform beside it, on the port after.")
@click.option("--yes", is_flag=True, help="Do not ask before throwing data away.")
def demo(port: int, reset: bool, with_platform: bool, yes: bool) -> None:
    """Serve the demo school, with its own database."""
    from rich.console import Console

    from ..running.demo import run_demo

    if reset and not yes:
        click.confirm("This throws all work done in the demo away. Start over?", abort=True)
    with said_plainly():
        run_demo(port, reset, Console(highlight=False), with_platform)
