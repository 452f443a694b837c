"""All that is said of a work, and of a task, in a form that can be compared."""

from __future__ import annotations

import json
import math
from collections.abc import Iterable, Iterator
from pathlib import Path

from tests.judge.generated import some
from widepin.documents.formats.bundle import read_bundle
from widepin.documents.formats.construction import write_step
from widepin.documents.formats.demonstration import demonstration_of, with_reasons
from widepin.documents.formats.task import read_task, read_work
from widepin.documents.formats.verdict import judge_document, write_verdict
from widepin.documents.pictures.svg import picture
from widepin.documents.reasons.proofs import proof_in_part_of, write_line
from widepin.documents.reasons.shown_proofs import shown
from widepin.documents.wording.explaining import explained, mend_in_words, what_stays_true
from widepin.documents.wording.words import Words, instruction
from widepin.judge.judging import judge
from widepin.judge.suggesting import suggestions
from widepin.judge.task import Task, Work
from widepin.judge.task_check import check_task
from widepin.school.tasks.library import LIBRARY

HERE = Path(__file__).parent
CASES = HERE.parent / "cases"

WRONG_OR_NOT = 300
"""Works of the library and the demo, right and wrong ones."""

PROVED = (
    *("bisect-an-angle", "carry-a-length", "circumcircle", "equilateral-in-a-circle", "geometric-mean", "incircle"),
    *("lost-centre", "midpoint", "parallelogram", "rectangle", "square-on-a-side", "tangent-from-a-point"),
    *("third-of-a-segment", "thirty-degrees", "trapezium"),
)
"""Tasks with several sound works whose proofs are kept."""

TRIED = (
    *("perpendicular-bisector", "centroid", "tangent-from-a-point", "rhombus", "lost-centre", "triangle-sas"),
    *("copy-an-angle", "incircle", "shortest-path", "square-on-a-side", "third-of-a-segment", "mirror-a-point"),
)
"""Tasks that are tried as their author would."""


def plain(value: object) -> object:
    """A value with its numbers to four digits, and without places: those may differ with the processor."""
    match value:
        case float():
            return float(f"{value:.4g}") if abs(value) > 1e-9 else 0.0
        case dict():
            return {key: plain(one) for key, one in value.items() if key not in ("from", "to", "path", "at")}
        case list() | tuple():
            return [plain(one) for one in value]
    return value


def of_work(task: Task, value: object) -> dict[str, object]:
    """What a work is told: its verdict with the report, in numbers and in words."""
    verdict = judge_document(task, value)
    report = verdict.report
    return {
        "verdict": plain(write_verdict(verdict)),
        "words": explained(verdict, task),
        "mends": [mend_in_words(mend) for mend in report.mends] if report else [],
        "stays true": what_stays_true(report, task) if report else [],
    }


def of_bundles() -> Iterator[tuple[str, dict[str, object]]]:
    """Works that were judged wrongly once."""
    for path in sorted((CASES / "faults").glob("*.json")):
        bundle = read_bundle(path)
        for name, value in bundle.works:
            yield f"{path.stem}: {name}", of_work(bundle.task, value)


def of_slips() -> Iterator[tuple[str, dict[str, object]]]:
    """Works as students make them. No hints: how far these are looked for is a matter of time."""
    for case in some(WRONG_OR_NOT, seed=36):
        value = {"steps": [write_step(step) for step in case.work.steps]}
        yield case.name, of_work(case.task, value)


def of_proofs() -> Iterator[tuple[str, dict[str, object]]]:
    """Sound works and why they are."""
    for stem in PROVED:
        bundle = read_bundle(CASES / "ways" / f"{stem}.json")
        for name, value in bundle.works:
            work = read_work(value)
            verdict = judge(bundle.task, work, report=False)
            proof = proof_in_part_of(bundle.task, work, verdict)
            assert proof is not None, name
            page = shown(proof, bundle.task, work.steps, {})
            lines = [write_line(number, line) for number, line in enumerate(proof.lines, 1)]
            spoken = [[line["words"], line["because_of"], line["after"]] for line in page["lines"]]
            yield f"{stem}: {name}", {"lines": lines, "said": page["said"], "words": spoken}


def of_tasks() -> Iterator[tuple[str, dict[str, object]]]:
    """What the author of a task is told."""
    for key in TRIED:
        task = read_task(LIBRARY[key].document())
        found = check_task(task)
        proposed = suggestions(task.given, task.model, [one.name for one in task.wanted])
        yield (
            key,
            {
                "conditions": Words(task).conditions(),
                "suggested": [[[one.rel, one.of] for one in row.conditions] + [row.pins] for row in proposed],
                "passing": [[mutant.changed, mutant.by_eye] for mutant in found.passing],
                "rejected": [len(steps) for steps in found.rejected],
                "looser": [[one.rel, one.of] for one in found.looser],
                "attainable": found.attainable,
                "stands empty": found.stands_empty,
                "refusal": str(found.refusal) if found.refusal else None,
                "misfits": [str(one) for one in found.misfits],
            },
        )


def of_figures() -> Iterator[tuple[str, dict[str, object]]]:
    """How tasks are told, drawn and demonstrated."""
    for key, one in LIBRARY.items():
        task = read_task(one.document())
        words: dict[str, object] = {
            "conditions": Words(task).conditions(),
            "steps": [instruction(step) for step in task.model],
        }
        if key not in TRIED:
            yield key, words
            continue
        verdict = judge(task, Work(task.model), report=False)
        proof = proof_in_part_of(task, Work(task.model), verdict)
        assert proof is not None, key
        lines = shown(proof, task, task.model, {})["lines"]
        drawn = picture(task.given, task.model, verdict.answer.values() if verdict.answer else (), arcs=True)
        yield key, words | {"drawn": drawn, "shown": with_reasons(demonstration_of(task), lines)}


RECORDS = {"figures": of_figures, "faults": of_bundles, "slips": of_slips, "proofs": of_proofs, "tasks": of_tasks}


def recorded(name: str) -> dict[str, object]:
    """What was recorded, by what it is of."""
    return dict(json.loads((HERE / f"{name}.json").read_text()))


def write(name: str, every: Iterable[tuple[str, dict[str, object]]]) -> None:
    """Write a record anew, a line for each thing that is said."""
    works = []
    for what, said in every:
        lines = [f"  {_written(key)}: {_written(value)}" for key, value in said.items()]
        works.append(f"{_written(what)}: {{\n" + ",\n".join(lines) + "\n}")
    (HERE / f"{name}.json").write_text("{\n" + ",\n".join(works) + "\n}\n")


def compare(name: str, every: Iterable[tuple[str, dict[str, object]]]) -> None:
    """Whether all is said as it was when it was recorded."""
    before, seen = recorded(name), set()
    for what, said in every:
        now = json.loads(json.dumps(said))
        assert alike(now, before[what]), f"{what}: see tests/recorded/__init__.py\n{now}\n{before[what]}"
        seen.add(what)
    assert seen == set(before)


def alike(one: object, other: object) -> bool:
    """Whether two values in JSON are the same, numbers to a thousandth: processors round the last digit otherwise."""
    match one, other:
        case float(), float() | int():
            return math.isclose(one, other, rel_tol=1e-3, abs_tol=1e-6)
        case dict(), dict():
            return one.keys() == other.keys() and all(alike(value, other[key]) for key, value in one.items())
        case list(), list():
            return len(one) == len(other) and all(map(alike, one, other))
    return one == other


def _written(value: object) -> str:
    return json.dumps(value, ensure_ascii=False)
