"""``bench``: how quick verdicts are."""

from __future__ import annotations

import click


@click.command()
def bench() -> None:
    """Measure verdicts against their floor, as ratios in one run."""
    from ..benchmark import run_benchmark

    run_benchmark(print)
