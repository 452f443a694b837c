"""``bench``: how quick verdicts are, how far proofs go, and how quick the search for the fewest moves is."""

from __future__ import annotations

import click


@click.command()
@click.option("--proofs", is_flag=True, help="Prove the sample solutions of the library instead.")
@click.option("--fewest", is_flag=True, help="Search for the fewest moves of the library instead.")
@click.option("--aside", multiple=True, type=click.Path(exists=True), help="Works to report apart; a folder too.")
@click.argument("bundles", nargs=-1, type=click.Path(exists=True))
def bench(proofs: bool, fewest: bool, aside: tuple[str, ...], bundles: tuple[str, ...]) -> None:
    """Measure verdicts against their floor, as ratios in one run; or proofs, also of works in BUNDLES; or a search."""
    if proofs:
        from ..proof_benchmark import run_proofs

        run_proofs(bundles, aside, print)
        return
    if fewest:
        from ..fewest_benchmark import run_fewest

        run_fewest(print)
        return
    from ..benchmark import run_benchmark

    run_benchmark(print)
