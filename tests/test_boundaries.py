"""Imports go down only: web -> school -> documents -> economy -> reason -> judge -> plane; the core reaches no server, store or socket."""

import ast
import re
from functools import cache
from pathlib import Path

import pytest

SRC = Path(__file__).resolve().parents[1] / "src"
LAYERS = ["plane", "judge", "reason", "economy", "documents", "school", "web"]
FORBIDDEN_IN_CORE = {"flask", "sqlalchemy", "socket", "http", "urllib", "requests", "pymysql", "werkzeug"}


def modules(layer):
    return sorted((SRC / "widepin" / layer).rglob("*.py"))


@cache
def imports(path):
    """Absolute names of all modules that a module imports, wherever in it."""
    return list(_imports(path))


def _imports(path):
    package = path.relative_to(SRC).with_suffix("").parts
    package = package[:-1]
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom):
            base = ".".join(package[: len(package) - node.level + 1]) if node.level else ""
            target = ".".join(filter(None, [base, node.module]))
            yield target
            yield from (f"{target}.{alias.name}" for alias in node.names)


@cache
def file_of(module):
    base = SRC.joinpath(*module.split("."))
    for candidate in (base.with_suffix(".py"), base / "__init__.py"):
        if candidate.exists():
            return candidate
    return None


def reached(path):
    """Everything that a module imports, directly or through modules of this project."""
    seen, waiting = set(), [path]
    while waiting:
        for module in imports(waiting.pop()):
            if module not in seen:
                seen.add(module)
                if module.startswith("widepin") and (found := file_of(module)):
                    waiting.append(found)
    return seen


@pytest.mark.parametrize("layer", LAYERS)
def test_a_layer_only_imports_those_below(layer):
    above = set(LAYERS[LAYERS.index(layer) + 1 :]) | {"running", "cli"}
    for path in modules(layer):
        for module in reached(path):
            parts = module.split(".")
            assert not (parts[0] == "widepin" and len(parts) > 1 and parts[1] in above), f"{path} reaches {module}"


ROOMS = ["people", "tasks", "works", "results", "lessons", "demo"]
"""The rooms of the school, from the ground up."""


@pytest.mark.parametrize("room", ROOMS)
def test_a_room_of_the_school_only_imports_those_below(room):
    above = {f"widepin.school.{name}" for name in ROOMS[ROOMS.index(room) + 1 :]}
    for path in modules(f"school/{room}"):
        for module in imports(path):
            assert ".".join(module.split(".")[:3]) not in above, f"{path} imports {module}"


def test_every_room_of_the_school_has_its_floor():
    assert {path.parent.name for path in (SRC / "widepin/school").glob("*/__init__.py")} == set(ROOMS)


@pytest.mark.parametrize("layer", ["plane", "judge", "reason", "economy", "documents"])
def test_the_core_reaches_no_server_store_or_socket(layer):
    for path in modules(layer):
        assert not {module.split(".")[0] for module in reached(path)} & FORBIDDEN_IN_CORE, path


def test_pages_hold_no_queries():
    """Where data are asked for, and by which query, is the school's matter."""
    allowed = {"database.py", "errors.py"}  # sessions, and what is said when the database does not answer
    asking = [
        str(path.relative_to(SRC))
        for path in modules("web")
        if path.name not in allowed and any(module.startswith("sqlalchemy") for module in imports(path))
    ]
    assert asking == []


SCRIPTS = SRC / "widepin/web/static"

BELOW = {
    "board": {"board", "figure", "look", "vendor"},
    "desk": {"desk", "figure", "look", "vendor"},
    "figure": {"figure", "look", "vendor"},
    "look": {"look", "vendor"},
}
"""Folders of scripts, and those whose modules they may import."""


@pytest.mark.parametrize("folder", BELOW)
def test_scripts_only_import_those_below(folder):
    wrong = []
    for script in (SCRIPTS / folder).glob("*.js"):
        for path in re.findall(r'^(?:import|\} from)\b.*?"(\.[^"]+)"', script.read_text(), re.M):
            target = (script.parent / path).resolve()
            assert target.is_file(), f"{script.name} imports {path}, which is not there"
            if target.relative_to(SCRIPTS).parts[0] not in BELOW[folder]:
                wrong.append(f"{script.name} imports {path}")
    assert not wrong
