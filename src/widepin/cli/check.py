"""``check``: works judged without a server."""

from __future__ import annotations

import json
from pathlib import Path

import click


@click.command()
@click.argument("bundles", nargs=-1, required=True, type=click.Path(path_type=Path))
def check(bundles: tuple[Path, ...]) -> None:
    """Judge the works of bundles: one verdict per work, each a JSON object on one line."""
    from ..documents.verdict import judge_document, write_verdict
    from .bundles import read_all

    for bundle in read_all(bundles):
        for name, work in bundle.works:
            print(json.dumps({"name": name, **write_verdict(judge_document(bundle.task, work))}))
