"""How long tests take, part by part, as docs/tests.md says it.

``bin/widepin tool test_times [JUNIT.xml]``: from what a run has written with ``--junitxml``, or from a run made now.
"""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
import time
from collections import Counter, defaultdict
from pathlib import Path
from xml.etree import ElementTree

ROOT = Path(__file__).parents[1]
PAGE = ROOT / "docs/tests.md"
PARTS = ("plane", "judge", "reason", "documents", "school", "web", "browser", "running")
MOST_MODULES = 12


def seconds_of_a_loop() -> float:
    """How long this machine takes for twenty million additions: what its seconds are worth beside another's."""
    begin, total = time.perf_counter(), 0
    for number in range(20_000_000):
        total += number
    return time.perf_counter() - begin


def written(results: Path) -> str:
    """The page: seconds and tests per part and of the slowest modules."""
    suite = ElementTree.parse(results).getroot()
    suite = suite if suite.tag == "testsuite" else suite[0]
    seconds: defaultdict[str, float] = defaultdict(float)
    modules: defaultdict[str, float] = defaultdict(float)
    tests = Counter[str]()
    for case in suite.iter("testcase"):
        names = (case.get("classname") or "").split(".")
        part = next((name for name in names[1:2] if name in PARTS), "others")
        took = float(case.get("time") or 0)
        seconds[part] += took
        tests[part] += 1
        modules["/".join(name for name in names if not name[:1].isupper()) + ".py"] += took
    whole = float(suite.get("time") or 0)
    work = sum(seconds.values())
    lines = [
        "# Tests",
        "",
        f"All tests: {sum(tests.values()):,} in {whole:,.0f} s on {os.cpu_count()} cores, {work:,.0f} s of work.",
        f"This machine was so fast that twenty million additions in Python took {seconds_of_a_loop():.1f} s.",
        "Made by `bin/widepin tool test_times`; what counts are the shares, since machines differ.",
        "",
        "| part | tests | seconds of work | share |",
        "|---|---|---|---|",
    ]
    for part, took in sorted(seconds.items(), key=lambda row: -row[1]):
        lines.append(f"| {part} | {tests[part]:,} | {took:,.0f} | {took / work:.0%} |")
    lines += ["", "| slowest modules | seconds of work |", "|---|---|"]
    lines += [
        f"| `{name}` | {took:,.0f} |" for name, took in sorted(modules.items(), key=lambda row: -row[1])[:MOST_MODULES]
    ]
    lines += [
        "",
        "`bin/widepin test --quick` runs `tests/quick.txt`: every layer, one browser flow of each kind. What looks at",
        "few works and figures in a usual run (`tests/amount.py`) looks at all in `bin/widepin tool thorough_trial`;",
        "whether tests find faults is tried by `bin/widepin tool planted_faults` and `planted_script_faults`.",
        "",
    ]
    return "\n".join(lines)


def main() -> None:
    """Write the page."""
    if len(sys.argv) > 1:
        PAGE.write_text(written(Path(sys.argv[1])))
        return
    with tempfile.TemporaryDirectory() as folder:
        results = Path(folder) / "results.xml"
        command = [sys.executable, "-m", "pytest", "-n", "auto", "--dist", "loadscope", f"--junitxml={results}"]
        subprocess.run(command, cwd=ROOT, check=True)
        PAGE.write_text(written(results))


if __name__ == "__main__":
    main()
