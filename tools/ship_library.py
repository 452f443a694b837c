"""What is computed once of every task of the library and shipped with it: ``bin/widepin tool ship_library``.

The proof of each sample solution as it is shown, and what a search of so many seconds found of the fewest moves. A test
says when it has to be run again.
"""

from __future__ import annotations

import argparse
import json

from widepin.documents.formats.construction import write_step
from widepin.documents.formats.task import read_task
from widepin.documents.reasons.shown_proofs import shown
from widepin.economy.fewest import fewest
from widepin.reason.proving import prove
from widepin.school.tasks import proofs
from widepin.school.tasks.library import LIBRARY, shipped
from widepin.school.tasks.library.notation import LibraryTask


def proof_of(known: LibraryTask) -> dict[str, object]:
    """The proof of a sample solution, with the mark of what was asked."""
    asked = proofs.of_known(known)
    task, steps = asked.task, asked.steps
    found = shown(prove(task, steps, asked.answer), task, steps, asked.names)
    return {"asked": shipped.mark_of(asked), "shown": found}


def fewest_of(known: LibraryTask, seconds: float) -> dict[str, object]:
    """What a search found of the fewest moves, with the mark of the task."""
    document = known.document()
    found = fewest(read_task(document), known.moves, seconds)
    return {
        "task": shipped.mark_of_task(document),
        "moves": found.moves,
        "excluded": found.excluded,
        "arbitrary": found.arbitrary,
        "states": found.states,
        "steps": [write_step(step) for step in found.steps],
    }


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    asked.add_argument("--seconds", type=float, default=20.0, help="for the fewest moves of each task; 0 leaves them")
    wanted = asked.parse_args()
    kept = json.loads(shipped.FILE.read_text()) if shipped.FILE.exists() else {}
    for number, (key, known) in enumerate(LIBRARY.items(), 1):
        print(f"{number} of {len(LIBRARY)}: {key}", flush=True)
        entry = {"proof": proof_of(known), "fewest": kept.get(key, {}).get("fewest")}
        if wanted.seconds:
            entry["fewest"] = fewest_of(known, wanted.seconds)
        kept[key] = entry
        shipped.FILE.write_text(json.dumps({one: kept[one] for one in LIBRARY if one in kept}, separators=(",", ":")))


if __name__ == "__main__":
    main()
