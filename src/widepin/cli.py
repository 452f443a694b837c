"""The command line. Commands import what they need when they run: ``check`` must start quickly."""

from __future__ import annotations

import json
import sys
from pathlib import Path

import click


@click.group()
def main() -> None:
    """Wide Pin: construction tasks for geometry classes."""


@main.command()
@click.argument("bundles", nargs=-1, required=True, type=click.Path(path_type=Path))
def check(bundles: tuple[Path, ...]) -> None:
    """Judge the works of bundles: one verdict per work, each a JSON object on one line."""
    from .documents.bundle import read_bundle
    from .documents.reading import Unreadable
    from .documents.verdict import judge_document, write_verdict

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


@main.command()
def bench() -> None:
    """Measure verdicts against their floor, as ratios in one run."""
    from .benchmark import run_benchmark

    run_benchmark(print)


@main.command()
@click.option("--port", default=8317, show_default=True, help="Where to serve, on 127.0.0.1.")
@click.option("--reset", is_flag=True, help="Throw the demo data away and start over.")
@click.option("--yes", is_flag=True, help="Do not ask before throwing data away.")
def demo(port: int, reset: bool, yes: bool) -> None:
    """Serve the demo school, with its own database."""
    from rich.console import Console

    from .running.demo import CannotStart, run_demo
    from .running.mariadb import DatabaseTrouble
    from .running.web_server import WebTrouble

    if reset and not yes:
        click.confirm("This throws all work done in the demo away. Start over?", abort=True)
    try:
        run_demo(port, reset, Console(highlight=False))
    except (CannotStart, DatabaseTrouble, WebTrouble) as trouble:
        print(trouble, file=sys.stderr)
        sys.exit(1)


if __name__ == "__main__":
    main()
