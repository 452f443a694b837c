"""``check``: works judged without a server."""

from __future__ import annotations

import json
import sys
from pathlib import Path

import click


@click.command()
@click.argument("bundles", nargs=-1, required=True, type=click.Path(path_type=Path))
def check(bundles: tuple[Path, ...]) -> None:
    """Judge the works of bundles: one verdict per work, each a JSON object on one line."""
    from ..documents.bundle import read_bundle
    from ..documents.reading import Unreadable
    from ..documents.verdict import judge_document, write_verdict

    read = []
    for path in bundles:
        try:
            read.append(read_bundle(path))
        except Unreadable as wrong:
            print(" ".join(f"{path}: {wrong}".split()), file=sys.stderr)
            sys.exit(2)
    for bundle in read:
        for name, work in bundle.works:
            print(json.dumps({"name": name, **write_verdict(judge_document(bundle.task, work))}))
