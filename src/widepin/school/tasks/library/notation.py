"""A short notation for tasks: steps are written a line each, ``id make from... option=value``."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from ....documents.language import gettext
from ....documents.reading import JsonObject

RULER_AND_COMPASS = ["points", "line", "ray", "segment", "circle", "circle_radius"]


@dataclass(frozen=True, kw_only=True)
class LibraryTask:
    """A task of the library: its document, and what teachers choose by.

    ``level``: 1 to 4, of ``LEVELS``. ``elements``: where it stands in Euclid's Elements, if it does. ``terms``: what
    people may search for besides the words of title and text, with commas between. ``mistake``: what students
    typically do wrong. ``prerequisites``: keys of the tasks that should be solved before. ``shows``: where the conditions
    only ask for what the sample solution makes, the property by which that is right, in names of the sample solution.
    ``limit``: moves of the way that is taught, where the sample solution is a shorter one.
    """

    key: str
    topic: str
    title: str
    text: str
    level: int
    elements: str = ""
    terms: str
    mistake: str
    given: str
    wanted: list[str]
    conditions: list[JsonObject]
    model: str
    moves: int
    limit: int = 0
    tools: list[Any] = field(default_factory=lambda: list(RULER_AND_COMPASS))
    prerequisites: tuple[str, ...] = ()
    shows: list[JsonObject] = field(default_factory=list)

    def document(self) -> JsonObject:
        """The task document."""
        return task_document(
            gettext(self.title),
            gettext(self.text),
            self.given,
            self.tools,
            self.wanted,
            self.conditions,
            self.model,
            self.limit or self.moves,
        )


def task_document(
    title: str,
    text: str,
    given: str,
    tools: list[Any],
    wanted: list[str],
    conditions: list[JsonObject],
    model: str = "",
    moves: int | None = None,
) -> JsonObject:
    """A task document. ``wanted``: kind and name each; ``given`` and ``model``: steps as lines."""
    document = {
        "format": "widepin.task/1",
        "title": title,
        "text": text,
        "given": steps(given),
        "tools": tools,
        "wanted": [dict(zip(("kind", "name"), one.split(), strict=True)) for one in wanted],
        "conditions": conditions,
        "model": steps(model),
    }
    return document | ({"budget": {"moves": moves}} if moves else {})


def steps(lines: str) -> list[JsonObject]:
    """Steps from their lines.

    >>> steps("C point_on s at=1,2")
    [{'id': 'C', 'make': 'point_on', 'from': ['s'], 'at': [1.0, 2.0]}]
    """
    made = []
    for line in filter(None, map(str.strip, lines.splitlines())):
        id_, make, *rest = line.split()
        step: JsonObject = {"id": id_, "make": make}
        if sources := [word for word in rest if "=" not in word]:
            step["from"] = sources
        for name, value in (word.split("=") for word in rest if "=" in word):
            step[name] = [float(x) for x in value.split(",")] if name == "at" else value
            if name == "pick":
                step[name] = int(value)
        made.append(step)
    return made


def rel(name: str, *of: Any) -> JsonObject:
    """A condition; terms of several names are written with hyphens, A-B."""
    return {"rel": name, "of": [term.split("-") if "-" in term else term for term in of]}


SEGMENT = """
A free_point at=2,3
B free_point at=8,4
s segment A B
"""

TRIANGLE = """
A free_point at=1,1
B free_point at=10,1.2
C free_point at=4,7.5
c segment A B
a segment B C
b segment C A
"""

ANGLE = """
A free_point at=2,2
B free_point at=8,2.5
C free_point at=5,7
r ray A B
q ray A C
"""

LINE = """
A free_point at=1.5,2
B free_point at=8.5,2.8
g line A B
"""

CIRCLE = """
O free_point at=5,5
A free_point at=8,5.8
k circle O A
"""

OBTUSE_TRIANGLE = """
A free_point at=4.5,2
B free_point at=9,2.4
C free_point at=2.5,6.5
c segment A B
a segment B C
b segment C A
"""
