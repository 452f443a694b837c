"""Every command in the docs is there as it is written: those that only read are run, the others are understood."""

import re
import shlex
import subprocess
import sys
from pathlib import Path

import click
import pytest

from widepin.cli import main

ROOT = Path(__file__).parents[1]
PAGES = [
    *sorted((ROOT / "docs").rglob("*.md")),
    *(ROOT / name for name in ("README.md", "CONTRIBUTING.md", "CHANGELOG.md")),
]
COMMAND = re.compile(r"bin/widepin(?: [^`\n#]*)?")

OF_THE_ENTRY = ("test", "tool", "develop", "install")
"""Commands that bin/widepin does itself."""


def commands():
    """Every command of ours that a page names, with the page."""
    for page in PAGES:
        text = page.read_text().replace("\\\n", " ")
        for found in COMMAND.findall(text):
            words = found.strip().rstrip(".,;:)").split("  ")[0]
            yield page.relative_to(ROOT).as_posix(), " ".join(words.split())


EVERY = sorted(set(commands()))


@pytest.mark.parametrize(("page", "line"), EVERY, ids=[f"{page}: {line}" for page, line in EVERY])
def test_a_command_is_understood(page, line):
    words = shlex.split(line)[1:]
    if not words or words[0] == "--help":
        return
    name, *rest = words
    if name in OF_THE_ENTRY:
        assert re.search(rf"\b{name}\b", (ROOT / "bin/widepin").read_text())
        if name == "tool":
            assert (ROOT / "tools" / f"{rest[0]}.py").exists() or rest[0].isupper(), line
        for path in rest if name == "test" else ():
            assert path.startswith("-") or (ROOT / path).exists(), line
        return
    command: click.Command = main
    for word in words:
        if not isinstance(command, click.Group):
            break
        assert word in command.commands, line
        command = command.commands[word]
    known = {option for parameter in command.params for option in parameter.opts}
    for word in words:
        assert not word.startswith("-") or word.split("=")[0] in known | {"--help"}, line


def test_those_that_only_read_do_what_is_said():
    case = ROOT / "tests/cases/perpendicular-bisector.json"
    for command in (["check", case], ["prove", case], ["--help"]):
        done = subprocess.run(
            [sys.executable, "-m", "widepin.cli", *map(str, command)], capture_output=True, cwd=ROOT / "src"
        )
        assert done.returncode == 0 and done.stdout, done.stderr


def test_the_version_is_the_same_everywhere():
    from widepin import version

    assert re.search(r'^version = "(.*)"', (ROOT / "pyproject.toml").read_text(), re.M)[1] == version()
    assert re.search(r"^## (\S+)", (ROOT / "CHANGELOG.md").read_text(), re.M)[1] == version()


def test_links_between_pages_lead_somewhere():
    for page in PAGES:
        for target in re.findall(r"\]\(([^)#:]+)(?:#[^)]*)?\)", page.read_text()):
            assert (page.parent / target).exists(), f"{page.name}: {target}"


def test_files_that_pages_name_are_there():
    """Paths with a folder, as they are written in the docs, from one of the places from which they are said."""
    places = [ROOT, ROOT / "src/widepin", ROOT / "src/widepin/web/static", ROOT / "tests", ROOT / "src/widepin/web"]
    missing = []
    for page in PAGES:
        for path in re.findall(r"`([a-z_]+(?:/[a-z_0-9-]+)+\.(?:py|js|html|css|txt))`", page.read_text()):
            if not any((place / path).exists() for place in places):
                missing.append(f"{page.relative_to(ROOT)}: {path}")
    assert missing == []
