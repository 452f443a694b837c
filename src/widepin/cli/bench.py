"""``bench``: how quick verdicts are, and how far proofs go."""

from __future__ import annotations

import click


@click.command()
@click.option("--proofs", is_flag=True, help="Prove the sample solutions of the library instead.")
@click.option("--aside", multiple=True, type=click.Path(exists=True), help="Works to report apart; a folder too.")
@click.argument("bundles", nargs=-1, type=click.Path(exists=True))
def bench(proofs: bool, aside: tuple[str, ...], bundles: tuple[str, ...]) -> None:
    """Measure verdicts against their floor, as ratios in one run; or proofs, also those of works in BUNDLES."""
    if proofs:
        from ..proof_benchmark import run_proofs

        run_proofs(bundles, aside, print)
        return
    from ..benchmark import run_benchmark

    run_benchmark(print)
