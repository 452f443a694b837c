"""Docstrings: everything public has one, and what computes has an example that runs."""

import ast
from pathlib import Path

import pytest

SRC = Path(__file__).parents[1] / "src/widepin"
COMPUTING = (
    "plane/makes.py",
    "plane/intersections.py",
    "plane/measurement.py",
    "plane/predicates.py",
    "judge/positions/drags.py",
    "judge/trials/breaks.py",
    "judge/trials/certifying.py",
)
HELPERS = {"spanned", "directed", "round_about"} | {  # steps of others, which have examples themselves
    f"Certifier.{name}" for name in ("seen_by_floats", "holds_in_balls", "shapes_in_balls", "finding")
}


def public(path):
    """Public functions and classes of a module, with those of its public classes, by name."""
    waiting = [("", ast.parse(path.read_text()))]
    while waiting:
        prefix, node = waiting.pop()
        for child in node.body:
            if isinstance(child, ast.FunctionDef | ast.ClassDef) and not child.name.startswith("_"):
                yield f"{prefix}{child.name}", child
                if isinstance(child, ast.ClassDef):
                    waiting.append((f"{prefix}{child.name}.", child))


def is_overridden(name):
    """Methods that say what their protocol says: ``NumberSystem`` has their docstrings."""
    return name.split(".")[0] in ("Arrays", "Balls", "Tape", "Register", "Python", "Strings", "Magnitudes")


@pytest.mark.parametrize("package", ["plane", "judge", "reason", "economy", "documents", "school", "web", "running"])
def test_everything_public_has_a_docstring(package):
    missing = [
        f"{path.relative_to(SRC)}: {name}"
        for path in sorted((SRC / package).rglob("*.py"))
        for name, node in public(path)
        if not ast.get_docstring(node) and not is_overridden(name)
    ]
    assert missing == []


@pytest.mark.parametrize("module", COMPUTING)
def test_what_computes_has_an_example(module):
    missing = [
        name
        for name, node in public(SRC / module)
        if isinstance(node, ast.FunctionDef) and name not in HELPERS and ">>>" not in (ast.get_docstring(node) or "")
    ]
    assert missing == []


def test_every_relation_has_an_example():
    from widepin.judge.conditions import RELATIONS

    functions = dict(public(SRC / "judge/conditions.py"))
    assert [
        relation.check.__name__
        for relation in RELATIONS.values()
        if ">>>" not in ast.get_docstring(functions[relation.check.__name__])
    ] == []
