"""``prove``: proofs of works, found without a server."""

from __future__ import annotations

import json
from pathlib import Path

import click


@click.command()
@click.argument("bundles", nargs=-1, required=True, type=click.Path(path_type=Path))
def prove(bundles: tuple[Path, ...]) -> None:
    """Prove the works of bundles: one JSON object per work and line; what has no proof in it is named as open."""
    from ..documents.formats.task import read_work
    from ..documents.formats.verdict import judge_document
    from ..documents.reading import Unreadable
    from ..documents.reasons.proofs import proof_in_part_of, write_proof
    from .bundles import read_all

    for bundle in read_all(bundles):
        for name, value in bundle.works:
            verdict = judge_document(bundle.task, value)
            try:
                proof = proof_in_part_of(bundle.task, read_work(value), verdict)
            except Unreadable:
                proof = None  # it was refused, and has none
            said = {"name": name, "outcome": verdict.outcome.value, "answer": verdict.answer}
            is_said = proof is not None and (proof.is_whole or proof.lines)
            lines = write_proof(proof) if proof is not None and is_said else None
            still_open = list(proof.open) if proof is not None else []
            print(json.dumps({**said, "proof": lines, "open": still_open}))
