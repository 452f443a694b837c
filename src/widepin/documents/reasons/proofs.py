"""Proofs as documents, and as screens and paper show them."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from functools import cache

from ...judge.task import MODEL, Task, Work
from ...judge.verdict import Outcome, Verdict
from ...plane.steps import Step
from ...reason.facts import Fact, Rel, Term
from ...reason.proof import Line, Proof
from ...reason.proving import prove
from ...reason.rules import PARTS, RULES, Rule, RuleName
from ..language import gettext as _
from ..reading import JsonObject
from ..wording.words import Words
from .proof_words import REASON_WORDS, Reasons, case_in_words, fact_in_words
from .reason_cards import anchor_of

N = RuleName


def proof_of(task: Task, work: Work, verdict: Verdict) -> Proof | None:
    """The proof of a work that was judged sound; None for any other, and where some condition has none."""
    proof = proof_in_part_of(task, work, verdict)
    return proof if proof is not None and proof.is_whole else None


def proof_in_part_of(task: Task, work: Work, verdict: Verdict) -> Proof | None:
    """The proof of a work that was judged sound, as far as there is one; None for any other."""
    if verdict.outcome is not Outcome.SOUND or verdict.answer is None:
        return None
    return prove(task, work.steps, verdict.answer)


def write_proof(proof: Proof) -> list[JsonObject]:
    """The lines of a proof in JSON, as docs/formats.md has them."""
    return [write_line(number, line) for number, line in enumerate(proof.lines, 1)]


def write_line(number: int, line: Line) -> JsonObject:
    """One line of a proof."""
    said: JsonObject = {"rel": line.fact.rel.value, "of": [written(term) for term in line.fact.of]}
    if line.fact.ratio is not None:
        said["is"] = list(line.fact.ratio)
    return {
        "n": number,
        "fact": said,
        "reason": line.rule.value,
        "because": list(line.because),
        "steps": _own(line.steps),
    } | given_of(line)


def given_of(line: Line) -> JsonObject:
    """Which condition a line is, and for which positions it is said, where that is so."""
    more: JsonObject = {} if line.condition is None else {"condition": line.condition}
    if line.case is not None:
        more["case"] = {"reads": line.case.word, "of": list(line.case.points), "holds": line.case.holds}
    return more


def written(term: Term) -> str | list[str]:
    """A term: a name, or a list of points; a line that nobody drew is two of its points."""
    if isinstance(term, str):
        return term.split(" ") if " " in term else term
    return list(term)


def explained_proof(
    proof: Proof, task: Task, steps: Sequence[Step] = (), names: Mapping[str, str] | None = None
) -> list[JsonObject]:
    """The lines of a proof for a screen: in words, with the objects that each is about and the marks that show it.

    ``steps``: of the work; ``names``: what its objects are called, where that is not their id.
    """
    lines = proof.lines
    reasons = Reasons(lines, Words(task), made_in(task, steps), with_helpers(proof, task, steps, names or {}))
    words, called = reasons.words, reasons.called
    return [
        {
            "n": number,
            "words": fact_in_words(line.fact, words, called),
            "reason": reasons.of(number),
            "rule": line.rule.value,
            "rel": line.fact.rel.value,
            "others": {rule: _(REASON_WORDS[rule]) for rule in that_could_be_meant(line.fact.rel) if rule != line.rule},
            "because_of": reasons.rule(line),
            "elements": RULES[line.rule].elements,
            "card": anchor_of(line.rule),
            "because": list(line.because),
            "steps": _own(line.steps),
            "condition": line.condition,
            "case": case_in_words(line.case, called) if line.case else "",
            "objects": sorted(
                {part for name in line.fact.names if not name.startswith(MODEL) for part in name.split(" ")}
            ),
            "equal": [list(term) for term in line.fact.of] if line.fact.rel in MARKED else [],
            "right": right_angles(line.fact),
            "triangles": [list(term) for term in line.fact.of] if line.fact.rel in TRIANGLES else [],
        }
        for number, line in enumerate(lines, 1)
    ]


def _own(steps: Sequence[str]) -> list[str]:
    """The steps of the work: neither lines that nobody drew, nor what only the sample solution has."""
    return [step for step in steps if " " not in step and not step.startswith(MODEL)]


def made_in(task: Task, steps: Sequence[Step]) -> dict[str, Step]:
    """Every object that a proof may speak of, by its id, with the step that made it."""
    return {step.id: step for step in (*task.done, *steps, *task.model_steps)}


def with_helpers(proof: Proof, task: Task, steps: Sequence[Step], names: Mapping[str, str]) -> dict[str, str]:
    """What objects are called, those of the sample solution by names that nothing else has: D, or D′."""
    called = dict(names)
    taken = {called.get(step.id, step.id) for step in (*task.done, *steps)}
    for helper in proof.helpers:
        name = helper.removeprefix(MODEL)
        while name in taken:
            name += "′"
        called[helper] = name
        taken.add(name)
    return called


def said_after(lines: Sequence[JsonObject], steps: Sequence[str]) -> list[int]:
    """For each line how many steps have to be drawn before it is said: all that it is about, and all that it rests on.

    ``lines``: as explained. ``steps``: ids in the order of drawing.
    """
    place = {step: number for number, step in enumerate(steps, 1)}
    found: list[int] = []
    for line in lines:
        own = (place.get(name, 0) for name in (*line["objects"], *line["steps"]))
        found.append(max([0, *own, *(found[cited - 1] for cited in line["because"])]))
    return found


ALSO_OF = {
    Rel.EQUAL_LENGTH: (N.RADII, N.TRANSITIVE),
    Rel.EQUAL_ANGLE: (N.TRANSITIVE,),
    Rel.PARALLEL: (N.DIRECTIONS,),
    Rel.PERPENDICULAR: (N.DIRECTIONS,),
    Rel.COLLINEAR: (N.SAME_LINE,),
    Rel.EQUAL_AREA: (N.TRANSITIVE,),
}
"""Rules without a pattern of their conclusion, by the facts that they give."""


@cache
def that_could_be_meant(rel: Rel) -> tuple[RuleName, ...]:
    """The rules by which a fact of this relation can follow, where one is to be chosen; those that say of which objects
    they speak are not among them.
    """
    by_pattern = [name for name, rule in RULES.items() if rule.conclusion and _concludes(rule) is rel]
    every = dict.fromkeys((*ALSO_OF.get(rel, ()), *map(RuleName, by_pattern)))
    return tuple(name for name in every if not re.search(r"[{%]", REASON_WORDS[name]))


def _concludes(rule: Rule) -> Rel:
    word = rule.conclusion_pattern[0]
    return Rel.RATIO if word in PARTS else Rel(word)


TRIANGLES = (Rel.CONGRUENT, Rel.SIMILAR, Rel.EQUAL_AREA)
"""Facts about two triangles, which are filled."""


def right_angles(one: Fact) -> list[list[str]]:
    """Where a fact says that there is a right angle: three points, the vertex second, or two lines that cross there."""
    match one.rel:
        case Rel.RIGHT_ANGLE:
            return [list(term) for term in one.of]
        case Rel.PERPENDICULAR:
            first, second = map(written, one.of)
            if isinstance(first, list) and isinstance(second, list) and len(shared := {*first} & {*second}) == 1:
                (vertex,) = shared
                return [[next(p for p in first if p != vertex), vertex, next(p for p in second if p != vertex)]]
            return [[first, second]] if isinstance(first, str) and isinstance(second, str) else []
    return []


MARKED = (Rel.EQUAL_LENGTH, Rel.EQUAL_ANGLE)
"""Facts that equality marks show."""


def how_far(works: Sequence[tuple[str, Proof | None]]) -> JsonObject:
    """Counts over proofs: how many there are, how many had nothing to prove, and the lines of the others."""
    found = [proof for _name, proof in works if proof is not None]
    lengths = sorted(len(proof.lines) for proof in found if not proof.trivial)
    return {
        "works": len(works),
        "proved": len(found),
        "nothing to prove": sum(proof.trivial for proof in found),
        "lines": lengths,
        "most cited": max((len(line.because) for proof in found for line in proof.lines), default=0),
    }
