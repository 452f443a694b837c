"""The people and courses of the pretend systems: those of the stone-carvers' school that the demo shows."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(frozen=True)
class Somebody:
    """A person of the pretend school. ``id``: what its systems call the person."""

    id: str
    given: str
    family: str

    @property
    def name(self) -> str:
        """The whole name."""
        return f"{self.given} {self.family}"


PEOPLE = {
    one.id: one
    for one in (
        Somebody("t-101", "Maud", "Ellery"),
        Somebody("t-102", "Jory", "Penwarden"),
        Somebody("s-201", "Anselm", "Rook"),
        Somebody("s-202", "Bettany", "Crane"),
        Somebody("s-203", "Cuthbert", "Vane"),
        Somebody("s-204", "Delphine", "Marsh"),
        Somebody("s-205", "Edmund", "Thrale"),
        Somebody("s-206", "Frideswide", "Lowe"),
    )
}


@dataclass
class Course:
    """A course: who teaches it, who learns in it. ``links``: what was placed in it, by its number."""

    id: str
    title: str
    teachers: list[str]
    students: list[str]
    links: dict[int, Link] = field(default_factory=dict)


@dataclass
class Link:
    """A link to a tool in a course, with its column of scores. ``results``: by person."""

    number: int
    title: str
    custom: dict[str, str]
    due: str = ""
    results: dict[str, dict[str, object]] = field(default_factory=dict)


def courses() -> dict[str, Course]:
    """The two courses, with nothing placed in them yet."""
    found = (
        Course("c-1", "Setting out, first year", ["t-101"], ["s-201", "s-202", "s-203", "s-204"]),
        Course("c-2", "Rose windows", ["t-101", "t-102"], ["s-203", "s-204", "s-205", "s-206"]),
    )
    return {one.id: one for one in found}
