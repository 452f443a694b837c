"""``check``: works judged without a server."""

from __future__ import annotations

import json
from pathlib import Path

import click


@click.command()
@click.option("--words", is_flag=True, help="With what the screens say: the conditions, and sentences on each work.")
@click.argument("bundles", nargs=-1, required=True, type=click.Path(path_type=Path))
def check(bundles: tuple[Path, ...], words: bool) -> None:
    """Judge the works of bundles: one verdict per work, each a JSON object on one line."""
    from ..documents.formats.verdict import judge_document, write_verdict
    from ..documents.wording.explaining import said_of
    from .bundles import read_all

    for bundle in read_all(bundles):
        for name, work in bundle.works:
            verdict = judge_document(bundle.task, work)
            said = {"words": said_of(verdict, bundle.task)} if words else {}
            print(json.dumps({"name": name, **write_verdict(verdict), **said}))
