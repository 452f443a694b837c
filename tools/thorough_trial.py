"""The tests that usually look at few works and figures, with all that there are: some ten minutes on two cores.

``bin/widepin tool thorough_trial``; arguments go to pytest.
"""

from __future__ import annotations

import os
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parents[1]


def modules() -> list[str]:
    """The test modules that ask ``tests/amount.py`` how many they should look at."""
    every = sorted((ROOT / "tests").rglob("test_*.py"))
    return [str(path.relative_to(ROOT)) for path in every if "tests.amount import" in path.read_text()]


def main() -> int:
    """Run them; the exit code is pytest's."""
    command = [sys.executable, "-m", "pytest", "-n", "auto", *modules(), *sys.argv[1:]]
    return subprocess.call(command, cwd=ROOT, env={**os.environ, "WIDEPIN_THOROUGH": "1"})


if __name__ == "__main__":
    sys.exit(main())
