"""Do the tests of the browser find faults of scripts? As ``planted_faults``, for the board and the figure.

``bin/widepin tool planted_script_faults [--sample N] [--seed N] [--known FOLDER] [FOLDER ...]``; folders as ``board``
or ``figure``. First all tests of the browser run once on a copy of the program whose functions note that they run; then
each fault is planted and looked for by the record of the board and by tests that run its function: those of the modules
alone first, then those whose file is named like the module, then others. Needs node and ``npm ci``.
"""

from __future__ import annotations

import argparse
import json
import random
import shutil
import subprocess
import sys
import tempfile
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from tools.planted_faults import LEFT_BEHIND, PYTEST, ROOT, do_fail, environment

STATIC = Path("src/widepin/web/static")
FOLDERS = ("board", "figure")

RECORD = "tests/browser/test_recorded_board.py"

MOST_TESTS, SECONDS = 25, 900
"""Tests that look for one fault, and for how long; a fault that makes them hang is found."""


@dataclass(frozen=True)
class ScriptFault:
    """A fault: the text between two places of a module, what is written instead, and where its function begins."""

    path: Path
    line: int
    start: int
    end: int
    instead: str
    function: int

    def planted(self, text: str) -> str:
        """The module with the fault."""
        return text[: self.start] + self.instead + text[self.end :]

    def told(self) -> str:
        """The fault as a line."""
        before = (ROOT / self.path).read_text()
        line = before.splitlines()[self.line - 1].strip()
        change = f"{before[self.start : self.end][:50]!r} -> {self.instead!r}"
        return f"{self.path.relative_to(STATIC)}:{self.line} {change}: {line}"


def node(root: Path, what: str, path: Path) -> str:
    """What ``script_faults.mjs`` prints of a module."""
    command = ["node", str(ROOT / "tools" / "script_faults.mjs"), what, str(path)]
    return subprocess.run(command, cwd=root, capture_output=True, text=True, check=True).stdout


def faults(path: Path) -> Iterator[ScriptFault]:
    """All faults that can be planted in a module."""
    for one in json.loads(node(ROOT, "faults", path)):
        yield ScriptFault(path, one["line"], one["start"], one["end"], one["instead"], one["in"])


def copied(folder: Path) -> Path:
    """A copy of the program."""
    shutil.copytree(ROOT, folder, ignore=shutil.ignore_patterns(*LEFT_BEHIND), dirs_exist_ok=True)
    return folder


def modules(folders: list[str]) -> list[Path]:
    """The modules of these folders, without those that hold types alone."""
    every = (path for folder in folders for path in sorted((ROOT / STATIC / folder).glob("*.js")))
    return [path.relative_to(ROOT) for path in every if path.name != "types.js"]


def note(folder: Path) -> None:
    """Run all tests of the browser once, and note in the folder which functions each of them runs."""
    with tempfile.TemporaryDirectory() as temporary:
        copy = copied(Path(temporary) / "noting")
        for path in modules(list(FOLDERS)):
            (copy / path).write_text(node(copy, "noting", path))
        subprocess.run(
            [*PYTEST, "-p", "tools.script_notes", "-n", "2", "--dist", "loadscope", "tests/browser"],
            cwd=copy,
            env=environment(copy) | {"WIDEPIN_NOTES": str(folder)},
            stdout=sys.stderr,
            check=False,
        )


def read(folder: Path) -> dict[str, list[str]]:
    """Function -> the tests that run it; a function is its module and the place where it begins."""
    known = defaultdict(list)
    for file in folder.glob("ran-*.jsonl"):
        for line in file.read_text().splitlines():
            noted = json.loads(line)
            for function in noted["ran"]:
                known[function].append(noted["test"])
    return known


def tests_for(fault: ScriptFault, known: dict[str, list[str]], rng: random.Random) -> list[str]:
    """The tests that look for a fault; of what runs whenever a module is there, those that run anything of it."""
    if fault.function >= 0:
        every = list(known.get(f"{fault.path}:{fault.function}", []))
    else:
        every = sorted({test for one, tests in known.items() if one.startswith(f"{fault.path}:") for test in tests})
    rng.shuffle(every)
    words = fault.path.stem.split("-")
    every.sort(key=lambda test: ("modules" not in test, not any(word in test for word in words)))
    return [RECORD, *every[:MOST_TESTS]]


def main() -> None:
    """Note, plant, look, and tell."""
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("folders", nargs="*", default=FOLDERS)
    asked.add_argument("--sample", type=int, default=60)
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--known", type=Path, help="a folder with the notes of an earlier run, or for those of this one")
    given = asked.parse_args()
    with tempfile.TemporaryDirectory() as temporary:
        folder = given.known or Path(temporary)
        if not any(folder.glob("ran-*.jsonl")):
            note(folder)
        known = read(folder)
        every = [fault for path in modules(given.folders) for fault in faults(path)]
        chosen = random.Random(given.seed).sample(every, min(given.sample, len(every)))
        copy = copied(Path(temporary) / "copy")
        survived = []
        for number, fault in enumerate(chosen, 1):
            tests = tests_for(fault, known, random.Random(number))
            path = copy / fault.path
            if not do_fail(tests, copy, path, fault.planted(path.read_text()), SECONDS):
                survived.append(fault)
                print(f"{number}: {fault.told()} ({len(tests)} tests)", flush=True)
    share = 1 - len(survived) / len(chosen)
    print(f"{len(chosen) - len(survived)} of {len(chosen)} found ({share:.0%}), of {len(every)} that there are")


if __name__ == "__main__":
    main()
