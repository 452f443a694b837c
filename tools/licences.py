"""docs/licences.md: under which licence everything stands that the program takes along.

``bin/widepin tool licences``: from the installed Python packages of both lock files, from package-lock.json, and from
what is vendored.
"""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from importlib.metadata import PackageNotFoundError, metadata
from pathlib import Path
from typing import Any

ROOT = Path(__file__).parents[1]
PAGE = ROOT / "docs/licences.md"
VENDOR = ROOT / "src/widepin/web/static/vendor"

Row = tuple[str, str, str]
"""Name, version, licence."""


def python_packages(lock: str) -> dict[str, str]:
    """Name -> version of what a lock file holds."""
    pinned = re.findall(r"^([a-z0-9-]+)==([^ ;\\]+)", (ROOT / lock).read_text(), re.M)
    return dict(pinned)


def licence_of(name: str) -> str:
    """The licence of an installed Python package, as its makers say it."""
    try:
        about: Any = metadata(name)  # a message of the email package, whose methods the type leaves out
    except PackageNotFoundError:
        return "not needed on this system"
    expression = about.get("License-Expression")
    if expression:
        return str(expression)
    classified = [one.split(" :: ")[-1] for one in about.get_all("Classifier") or () if one.startswith("License ::")]
    said = str(about.get("License") or "").strip().splitlines()
    return ", ".join(classified) or (said[0] if said else "not said")


def node_packages() -> Iterator[Row]:
    """What package-lock.json holds: checks of scripts and styles, which neither the app nor its tests need."""
    locked = json.loads((ROOT / "package-lock.json").read_text())["packages"]
    for path, about in sorted(locked.items()):
        if path:
            yield path.rpartition("node_modules/")[2], about.get("version", ""), str(about.get("license", "not said"))


def table(rows: Iterator[Row] | list[Row]) -> list[str]:
    """Rows as a table."""
    return ["| package | version | licence |", "|---|---|---|", *(f"| {' | '.join(row)} |" for row in rows), ""]


def written() -> str:
    """The page."""
    served, develop = python_packages("requirements.lock"), python_packages("requirements-dev.lock")
    vendored = sorted(path.relative_to(VENDOR).as_posix() for path in VENDOR.rglob("*") if "licen" in path.name.lower())
    return "\n".join(
        [
            "# Licences",
            "",
            "What Wide Pin takes along, and under which licence. Made by `bin/widepin tool licences`. Which licence",
            "Wide Pin itself gets is open: its owner decides.",
            "",
            "## What a school installs",
            "",
            *table([(name, version, licence_of(name)) for name, version in served.items()]),
            "Debian's packages (MariaDB, Pango, HarfBuzz, Fontconfig, DejaVu fonts) bring theirs in `/usr/share/doc`.",
            "",
            "## What ships with the app",
            "",
            *(f"- `static/vendor/{path}`" for path in vendored),
            "",
            "## For tests and checks of Python",
            "",
            *table([(name, version, licence_of(name)) for name, version in develop.items() if name not in served]),
            "## For checks of scripts and styles",
            "",
            *table(list(node_packages())),
        ]
    )


if __name__ == "__main__":
    PAGE.write_text(written())
