"""``schemas``: the JSON Schemas of the open documents, written anew."""

from __future__ import annotations

import click


@click.command()
def schemas() -> None:
    """Write the JSON Schemas of the open documents into docs/schemas."""
    from ..documents.formats.schemas import FOLDER, write

    click.echo(f"{len(write())} schemas written to {FOLDER}")
