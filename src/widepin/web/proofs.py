"""Proofs for screens: found in a process of their own, and kept, since the same structure has the same proof."""

from __future__ import annotations

from functools import lru_cache
from json import dumps, loads

from ..documents.construction import read_steps
from ..documents.language import gettext as _
from ..documents.proofs import explained_proof
from ..documents.reading import JsonObject
from ..documents.task import read_task
from ..reason.proving import prove
from .judging import apart


def why(task: JsonObject, steps: list[JsonObject], answer: dict[str, str]) -> JsonObject:
    """The lines of the proof that an answer is right, in words, and what is to be said of them.

    ``task``: a task document; ``steps``: of the work, or of the sample solution.
    """
    named = {step["id"]: step["label"] for step in [*task["given"], *steps] if step.get("label")}
    return _found(dumps(task), dumps(steps), dumps(answer, sort_keys=True), dumps(named, sort_keys=True))


@lru_cache(maxsize=512)
def _found(task_text: str, steps_text: str, answer_text: str, names_text: str) -> JsonObject:
    task, names = read_task(loads(task_text)), loads(names_text)
    proof = apart(prove, task, read_steps(loads(steps_text)), loads(answer_text))
    if not proof.is_whole:
        return {
            "lines": [],
            "said": _(
                "It was checked exactly in many random positions. A proof in school terms was not found;"
                " what stays true is a beginning of one."
            ),
        }
    if proof.trivial:
        return {"lines": explained_proof(proof, task, names), "said": _("It is so by construction.")}
    return {"lines": explained_proof(proof, task, names), "said": ""}
