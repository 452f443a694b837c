"""``hint``: what a student who is stuck can do next, found without a server."""

from __future__ import annotations

import json
from pathlib import Path

import click


@click.command()
@click.argument("bundles", nargs=-1, required=True, type=click.Path(path_type=Path))
def hint(bundles: tuple[Path, ...]) -> None:
    """Hints for the works of bundles: one JSON object per work and line.

    Ways that are known: the sample solution, and the other works of the bundle.
    """
    from ..documents.formats.construction import write_step
    from ..documents.formats.task import read_work
    from ..documents.reading import Unreadable
    from ..documents.wording.hint_words import Hint, hint_for
    from ..judge.judging import ill_formed
    from ..judge.task import Work
    from .bundles import read_all

    for bundle in read_all(bundles):
        works: list[tuple[str, Work | None]] = []
        for name, value in bundle.works:
            try:
                work = read_work(value)
                works.append((name, None if ill_formed(bundle.task, work) else work))
            except Unreadable:
                works.append((name, None))
        for number, (name, work) in enumerate(works):  # type: ignore[assignment]
            methods = [Work(bundle.task.model)]
            methods += [one for place, (_name, one) in enumerate(works) if one is not None and place != number]
            found = hint_for(bundle.task, work, methods) if work is not None else Hint(None, ("", "", ""))
            said = {"name": name, "moves_left": found.moves_left, "hints": list(found.levels)}
            print(json.dumps({**said, "step": write_step(found.step) if found.step else None}))
