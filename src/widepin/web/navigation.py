"""The main navigation, put together from what the features say of themselves in their ``blueprint.py``."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from types import ModuleType

from ..school.models import Person
from ..school.states import Role


@dataclass(frozen=True)
class Entry:
    """An entry of the main navigation: what it says, where it leads, for whom, and under which features it is current.

    ``words``: marked for translation. ``place``: entries stand in this order.
    """

    words: str
    endpoint: str
    role: Role
    blueprints: tuple[str, ...]
    place: int = 0
    administrators_only: bool = False


class Navigation:
    """What the main navigation holds for whom."""

    def __init__(self, features: Iterable[ModuleType]):
        found = [entry for feature in features for entry in getattr(feature, "NAVIGATION", ())]
        self.entries = sorted(found, key=lambda entry: entry.place)

    def __call__(self, person: Person) -> list[Entry]:
        """The entries for somebody."""
        return [
            entry
            for entry in self.entries
            if entry.role is person.role and (person.administrator or not entry.administrators_only)
        ]

    def current(self, person: Person, endpoint: str | None) -> Entry | None:
        """The entry under which a page stands: the one that leads to it, else the first that has its feature."""
        entries, feature = self(person), (endpoint or "").partition(".")[0]
        leading = (entry for entry in entries if entry.endpoint == endpoint)
        return next(leading, next((entry for entry in entries if feature in entry.blueprints), None))
