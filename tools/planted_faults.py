"""Do the tests find faults? A seeded sample of small ones is planted, one at a time, and the tests that run it are run.

``bin/widepin tool planted_faults [--sample N] [--seed N] [PACKAGE ...]``; packages as ``plane`` or ``school/tasks``, by
default the core and the school. Faults are those of the package cosmic-ray: a comparison turned round, ``and`` for
``or``, a number changed by one, a statement left out. First all tests run once and coverage notes which test runs
which line; then each fault is planted in a copy of the program and looked for by tests that run its line, those of the
same name first. It says how many were found, and lists the others.
"""

from __future__ import annotations

import argparse
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import Queue

from cosmic_ray.ast import ast_nodes, get_ast
from cosmic_ray.mutating import mutate_code
from cosmic_ray.plugins import get_operator
from coverage import CoverageData

ROOT = Path(__file__).parents[1]
PACKAGES = ("plane", "judge", "reason", "documents", "school")

COMPARED = ("Eq NotEq", "NotEq Eq", "Lt LtE", "Lt GtE", "LtE Lt", "LtE Gt", "Gt GtE", "Gt LtE", "GtE Gt", "GtE Lt")

OPERATORS = [
    *(f"core/ReplaceComparisonOperator_{pair.replace(' ', '_')}" for pair in (*COMPARED, "Is IsNot", "IsNot Is")),
    *(f"core/ReplaceBinaryOperator_{pair}" for pair in ("Add_Sub", "Sub_Add", "Mul_Div", "Div_Mul")),
    *(f"core/ReplaceUnaryOperator_{pair}" for pair in ("Delete_Not", "USub_UAdd")),
    *(f"core/Replace{pair}" for pair in ("TrueWithFalse", "FalseWithTrue", "AndWithOr", "OrWithAnd")),
    *(f"core/{name}" for name in ("ReplaceBreakWithContinue", "ReplaceContinueWithBreak", "NumberReplacer")),
    "core/ZeroIterationForLoop",
]
"""The kinds of faults, by their names in cosmic-ray: those that people make."""

PYTEST = (sys.executable, "-m", "pytest", "-q")

LEFT_BEHIND = (".git", ".venv", "node_modules", "var", "__pycache__")
"""Folders that the copies do without."""

MOST_TESTS, SECONDS = 80, 120
"""Tests that look for one fault, and for how long; a fault that makes them hang is found."""


@dataclass(frozen=True)
class Fault:
    """A fault: where, what kind, and the number of the place among those of its kind."""

    path: str
    operator: str
    occurrence: int
    line: int
    what: str


def faults(path: Path) -> Iterator[Fault]:
    """All faults that can be planted in a module."""
    source = path.read_text()
    tree = get_ast(source)
    lines = source.splitlines()
    for name in OPERATORS:
        operator = get_operator(name)()
        count = 0
        for node in ast_nodes(tree):
            for start, _end in operator.mutation_positions(node):
                line = lines[start[0] - 1].strip()
                # Nothing that is right depends on zip's own check of lengths.
                is_idle = name == "core/ReplaceTrueWithFalse" and "strict=" in line
                if not is_idle and not line.startswith(('"', "#", "from ", "import ", "@")):
                    yield Fault(str(path.relative_to(ROOT)), name, count, start[0], line)
                count += 1


def contexts(folder: Path) -> dict[str, dict[int, list[str]]]:
    """Module -> line -> the tests that run it, from one run of all tests but those of the browser and of running it."""
    parallel = ("-n", "2", "--dist", "loadscope", "-p", "no:randomly")
    covered = ("--cov=src/widepin", "--cov-context=test", "--cov-report=", "--cov-fail-under=0")
    subprocess.run(
        [*PYTEST, *parallel, *covered, "tests", "--ignore=tests/browser", "--ignore=tests/running"],
        cwd=ROOT,
        env=environment(ROOT) | {"COVERAGE_FILE": str(folder / "coverage")},
        stdout=sys.stderr,
        check=False,
    )
    return read(folder)


def read(folder: Path) -> dict[str, dict[int, list[str]]]:
    """Module -> line -> the tests that run it, as a run has noted it."""
    data = CoverageData(str(folder / "coverage"))
    data.read()
    return {
        str(Path(name).relative_to(ROOT)): {
            line: sorted({test.partition("|")[0] for test in tests if test})
            for line, tests in data.contexts_by_lineno(name).items()
        }
        for name in data.measured_files()
    }


def environment(root: Path) -> dict[str, str]:
    """How tests are run on the program in a folder."""
    here = {"PYTHONPATH": f"{root / 'src'}:{root}", "PYTHONDONTWRITEBYTECODE": "1"}
    return {**os.environ, **here, "PYDANTIC_DISABLE_PLUGINS": "__all__"}


def tests_for(fault: Fault, known: dict[str, dict[int, list[str]]], rng: random.Random) -> list[str]:
    """The tests that look for a fault: the module's own examples, and those that run its line: first of the module,
    then of its package, then others.
    """
    every = known.get(fault.path, {}).get(fault.line, [])
    module, package = Path(fault.path).stem, f"tests/{Path(fault.path).parts[2]}/"
    rng.shuffle(every)
    every.sort(key=lambda test: (module not in test, not test.startswith(package)))
    return [fault.path, *every[:MOST_TESTS]]


def is_found(fault: Fault, tests: list[str], copy: Path) -> bool:
    """Whether one of the tests fails on a copy of the program in which the fault is planted."""
    path = copy / fault.path
    before = path.read_text()
    planted = mutate_code(before, get_operator(fault.operator)(), fault.occurrence)
    return planted is None or planted == before or do_fail(tests, copy, path, planted, SECONDS)


def do_fail(tests: list[str], copy: Path, path: Path, planted: str, seconds: float) -> bool:
    """Whether one of the tests fails, or all of them take too long, on a copy of the program with another text of a
    module; the text that was there is put back.
    """
    before = path.read_text()
    path.write_text(planted)
    try:
        done = subprocess.run(
            [*PYTEST, "-x", "-p", "no:randomly", "-p", "no:cacheprovider", *tests],
            cwd=copy,
            env=environment(copy),
            capture_output=True,
            timeout=seconds,
        )
        return done.returncode not in (0, 5)
    except subprocess.TimeoutExpired:
        return True
    finally:
        path.write_text(before)


def told(fault: Fault) -> str:
    """A fault as a line."""
    return f"{fault.path}:{fault.line} {fault.operator.removeprefix('core/')}: {fault.what}"


def main() -> None:
    """Plant, look, and tell."""
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("packages", nargs="*", default=PACKAGES)
    asked.add_argument("--sample", type=int, default=300)
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--known", type=Path, help="a folder with the coverage of an earlier run")
    given = asked.parse_args()
    rng = random.Random(given.seed)
    with tempfile.TemporaryDirectory() as temporary:
        folder = given.known or Path(temporary)
        known = contexts(folder) if not (folder / "coverage").exists() else read(folder)
        every = [
            fault
            for package in given.packages
            for path in sorted((ROOT / "src/widepin" / package).rglob("*.py"))
            for fault in faults(path)
            if known.get(str(path.relative_to(ROOT)), {}).get(fault.line)
        ]
        chosen = rng.sample(every, min(given.sample, len(every)))
        copies: Queue[Path] = Queue()
        for number in range(2):
            copy = Path(temporary) / f"copy-{number}"
            shutil.copytree(ROOT, copy, ignore=shutil.ignore_patterns(*LEFT_BEHIND))
            copies.put(copy)

        def look(numbered: tuple[int, Fault]) -> tuple[Fault, bool]:
            number, fault = numbered
            copy = copies.get()
            try:
                found = is_found(fault, tests_for(fault, known, random.Random(number)), copy)
            finally:
                copies.put(copy)
            print("." if found else f"\n{told(fault)}", end="" if found else "\n", file=sys.stderr, flush=True)
            return fault, found

        with ThreadPoolExecutor(2) as workers:
            results = list(workers.map(look, enumerate(chosen)))
    survived = [fault for fault, found in results if not found]
    share = 1 - len(survived) / len(results)
    print(f"\n{len(results) - len(survived)} of {len(results)} found ({share:.0%}), of {len(every)} that there are")
    for fault in survived:
        print(told(fault))


if __name__ == "__main__":
    main()
