"""Rules that a construction can break, as data; their words stand in ``documents/wording/rule_words.py``."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any


class StepRule(StrEnum):
    """What makes a step well formed."""

    TOO_MANY_STEPS = "too many steps"  # count, most
    NO_ID = "no id"  # id
    ID_TAKEN = "id taken"  # id
    NO_MAKE = "no make"  # make, makes
    HOW_MANY_SOURCES = "how many sources"  # make, roles, count
    SOURCE_NOT_BEFORE = "source not before"  # source
    KIND_OF_SOURCE = "kind of source"  # source, kind, role
    MEETS_ITSELF = "meets itself"  # source
    NO_PLACE = "no place"  # make
    TOO_FAR = "too far"  # value, most
    NO_CHOICE = "no choice"  # choices
    PICK = "pick"  # pick
    REFERENCE_NOT_BEFORE = "reference not before"  # reference
    REFERENCE_NO_POINT = "reference no point"  # reference, kind
    MEET_ONCE = "meet once"
    NOT_ON_BOTH = "not on both"  # reference, source


@dataclass(frozen=True)
class Broken:
    """A rule that is broken, and the values that its words speak of, by name."""

    rule: StrEnum
    values: Mapping[str, Any] = field(default_factory=dict)

    def __str__(self) -> str:
        """For whoever reads a traceback: the rule and its values."""
        return f"{self.rule} ({', '.join(f'{name}={value}' for name, value in self.values.items())})"


def broken(rule: StrEnum, **values: Any) -> Broken:
    """A rule that is broken, with these values."""
    return Broken(rule, values)
