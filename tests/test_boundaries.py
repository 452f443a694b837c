"""Imports go down only: web -> school -> joining -> documents -> economy -> reason -> judge -> plane; the core reaches no server, store or socket."""

import ast
import re
from functools import cache
from pathlib import Path

import pytest

SRC = Path(__file__).resolve().parents[1] / "src"
LAYERS = ["plane", "judge", "reason", "economy", "documents", "joining", "school", "web"]
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


ROOMS = {
    "documents": ["pictures", "wording", "reasons", "formats"],
    "school": ["people", "tasks", "works", "results", "lessons", "joining", "moving", "demo"],
}
"""The rooms of layers that have some, from the ground up."""


@pytest.mark.parametrize(("layer", "room"), [(layer, room) for layer, rooms in ROOMS.items() for room in rooms])
def test_a_room_only_imports_those_below(layer, room):
    rooms = ROOMS[layer]
    above = {f"widepin.{layer}.{name}" for name in rooms[rooms.index(room) + 1 :]}
    for path in modules(f"{layer}/{room}"):
        for module in imports(path):
            assert ".".join(module.split(".")[:3]) not in above, f"{path} imports {module}"


@pytest.mark.parametrize("layer", ROOMS)
def test_every_room_has_its_floor(layer):
    assert {path.parent.name for path in (SRC / "widepin" / layer).glob("*/__init__.py")} == set(ROOMS[layer])


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
    for script in (SCRIPTS / folder).rglob("*.js"):
        for path in re.findall(r'^(?:import|\} from)\b.*?"(\.[^"]+)"', script.read_text(), re.M):
            target = (script.parent / path).resolve()
            assert target.is_file(), f"{script.name} imports {path}, which is not there"
            if target.relative_to(SCRIPTS).parts[0] not in BELOW[folder]:
                wrong.append(f"{script.name} imports {path}")
    assert not wrong


BOARD = ["construction", "examining", "objects", "paper", "tools", "task"]
"""The rooms of the board, from the ground up; what stands on its floor brings them together."""


@pytest.mark.parametrize("room", BOARD)
def test_a_room_of_the_board_only_imports_those_below(room):
    below = BOARD[: BOARD.index(room) + 1]
    for script in (SCRIPTS / "board" / room).glob("*.js"):
        for path in re.findall(r'^(?:import|\} from)\b.*?"(\.[^"]+)"', script.read_text(), re.M):
            target = (script.parent / path).resolve().relative_to(SCRIPTS)
            assert target.parts[0] != "board" or target.parts[1] in below, f"{script.name} imports {path}"


def test_no_large_room_has_more_than_twenty_files_on_a_floor():
    """Whoever comes to a room of more than five thousand lines finds its parts, not a heap."""
    folders = {path.parent for path in (SRC / "widepin").rglob("*.py")} | {
        path.parent for path in SCRIPTS.rglob("*.js")
    }
    for folder in folders - {SCRIPTS / "vendor"}:
        for kind in ("py", "js"):
            files = [path for path in folder.rglob(f"*.{kind}") if "vendor" not in path.parts]
            if sum(len(path.read_text().splitlines()) for path in files) > 5000:
                assert len([path for path in files if path.parent == folder]) <= 20, folder
