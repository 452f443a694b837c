"""The command line, one module per command.

Commands import what they need when they run: ``check`` must start quickly.
"""

from __future__ import annotations

import click

from .bench import bench
from .check import check
from .demo import demo
from .fewest import fewest
from .hint import hint
from .prove import prove
from .schemas import schemas
from .school import another, backup, doctor, restore, serve, setup, work
from .teacher import teacher


@click.group()
def main() -> None:
    """Wide Pin: construction tasks for geometry classes."""


RUNNING = (demo, setup, serve, another, work, backup, restore, doctor, teacher)

for command in (check, prove, fewest, hint, bench, schemas, *RUNNING):
    main.add_command(command)
