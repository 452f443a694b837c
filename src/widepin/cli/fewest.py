"""``fewest``: the fewest moves of a task, found without a server."""

from __future__ import annotations

import json
import sys
from pathlib import Path

import click


@click.command()
@click.option("--most", default=6, show_default=True, type=click.IntRange(0, 12), help="Up to so many moves.")
@click.option("--seconds", default=60.0, show_default=True, type=click.FloatRange(0.1), help="Stop after so long.")
@click.argument("task", type=click.Path(path_type=Path))
def fewest(task: Path, most: int, seconds: float) -> None:
    """Search for the fewest moves of a task: what was found, and up to where every construction is excluded."""
    from ..documents.formats.construction import write_step
    from ..documents.formats.task import read_task
    from ..documents.reading import Unreadable, parse_json
    from ..economy.fewest import fewest as search

    try:
        try:
            value = parse_json(task.read_bytes())
        except OSError as wrong:
            raise Unreadable("", f"cannot be read; {wrong.strerror}") from None
        read = read_task(value["task"] if isinstance(value, dict) and "task" in value else value)
    except Unreadable as wrong:
        print(" ".join(f"{task}: {wrong}".split()), file=sys.stderr)
        sys.exit(2)
    found = search(read, most, seconds)
    print(
        json.dumps(
            {
                "moves": found.moves,
                "steps": [write_step(step) for step in found.steps],
                "excluded": found.excluded,
                "arbitrary": found.arbitrary,
                "states": found.states,
                "stopped": found.stopped,
            }
        )
    )
