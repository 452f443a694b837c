"""A proof as a page shows it: its lines in words, and what is to be said of them as a whole."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ...judge.task import Task
from ...plane.steps import Step
from ...reason.proof import Proof
from ...reason.rules import RuleName
from ..language import gettext as _
from ..language import ngettext
from ..reading import JsonObject
from ..wording.words import Words
from .proof_words import case_in_words
from .proofs import explained_proof, said_after


def shown(proof: Proof, task: Task, steps: Sequence[Step], names: Mapping[str, str]) -> JsonObject:
    """``lines``, each in words and with the step after which it can be said (``after``), and what is ``said`` of them.

    ``steps``: of the work; ``names``: what its objects are called, where that is not their id.
    """
    lines = explained_proof(proof, task, steps, names)
    for line, after in zip(lines, said_after(lines, [step.id for step in steps]), strict=True):
        line["after"] = after
    if proof.open_case is not None:
        return {
            "lines": lines,
            "said": _(
                "This is a proof in part: %(case)s, none in school terms was found. It was checked exactly there too.",
                case=case_in_words(proof.open_case, names),
            ),
        }
    if not proof.is_whole and lines:
        words = Words(task)
        still_open = "; ".join(words.condition(task.conditions[place]) for place in proof.open)
        return {
            "lines": lines,
            "said": _(
                "This is a proof in part. Checked exactly in many random positions, but without a proof in school"
                " terms: %(open)s.",
                open=still_open,
            ),
        }
    if not proof.is_whole:
        return {
            "lines": [],
            "said": _(
                "It was checked exactly in many random positions. A proof in school terms was not found;"
                " what stays true is a beginning of one."
            ),
        }
    if proof.trivial:
        made = [line for line in lines if line["rule"] != RuleName.THERE_IS_ONE]  # none of them cites another
        return {
            "lines": [line | {"n": number} for number, line in enumerate(made, 1)],
            "said": _("There is nothing to prove: it was made just as the task asks for it."),
        }
    said = ngettext(
        "%(n)s line, which holds in every position.", "%(n)s lines, which hold in every position.", len(lines)
    )
    return {"lines": lines, "said": said}


def nothing_to_prove_yet() -> JsonObject:
    """What is shown where the sample solution does not solve its task."""
    return {"lines": [], "said": _("The sample solution does not solve the task, so there is nothing to prove yet.")}


def for_reader(proof: JsonObject, elements: bool) -> JsonObject:
    """A proof as it is shown, with the places in the Elements or without."""
    if elements:
        return proof
    return {**proof, "lines": [{**line, "elements": ""} for line in proof["lines"]]}
