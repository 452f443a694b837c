"""Reading JSON, and saying in one sentence where it is wrong."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any

from pydantic import ValidationError

from ..plane.errors import CoreError

JsonObject = dict[str, Any]
"""A JSON object, of a document of ours or on the way to one."""


class Unreadable(CoreError):
    """A document cannot be used. ``place``: where, as ``given[2].from[0]``; ``remedy``: what is wrong, what to do."""

    def __init__(self, place: str, remedy: str):
        self.place, self.remedy = map(in_one_line, (place, remedy))
        super().__init__(f"{self.place}: {self.remedy}" if place else self.remedy)

    def __reduce__(self) -> tuple[type[Unreadable], tuple[str, str]]:
        return type(self), (self.place, self.remedy)

    def inside(self, outer: str) -> Unreadable:
        """The same, seen from the document around it."""
        return Unreadable(joined(outer, self.place), self.remedy)


def in_one_line(text: str) -> str:
    r"""A text with what no line can show written out, since messages quote what documents contain.

    >>> in_one_line("A\nB") == r"A\nB"
    True
    """
    return "".join(letter if letter.isprintable() else ascii(letter)[1:-1] for letter in text)


REMEDIES = {
    "missing": "is missing; add it",
    "extra_forbidden": "is not a field of this document; remove it",
    "string_type": "must be a text in quotes",
    "int_type": "must be a whole number",
    "float_type": "must be a number",
    "finite_number": "must be a finite number",
    "bool_type": "must be true or false",
    "list_type": "must be a list in square brackets",
    "tuple_type": "must be a list in square brackets",
    "model_type": "must be an object in curly braces",
    "model_attributes_type": "must be an object in curly braces",
    "dict_type": "must be an object in curly braces",
    "int_parsing": "must be a whole number",
    "int_parsing_size": "must be a whole number with fewer digits",
    "greater_than_equal": "must be {ge} or more",
    "less_than_equal": "must be {le} or less",
    "string_too_long": "has {max_length} characters at most",
    "literal_error": "must be {expected}",
    "enum": "must be {expected}",
}


def parse_json(text: str | bytes) -> Any:
    """The value of a JSON text. Raises Unreadable with line and column."""
    try:
        return json.loads(text)
    except json.JSONDecodeError as error:
        raise Unreadable(
            f"line {error.lineno}, column {error.colno}", f"not JSON ({error.msg}); correct the text there"
        ) from None
    except RecursionError:
        raise Unreadable("", "nested too deeply; a document has no more than a few levels") from None
    except UnicodeDecodeError:
        raise Unreadable("", "not UTF-8; save the file in that encoding") from None
    except ValueError:
        raise Unreadable("", "a number has too many digits; shorten it") from None


DEEPEST, LARGEST = 24, 1e300
"""Levels of a document, and numbers in it, that are taken; those that are meant stay far below."""


def check_plain(value: object) -> None:
    """That a JSON value can be kept: finite numbers, texts of whole characters, not too deep. Raises Unreadable."""
    left: list[tuple[object, str, int]] = [(value, "", 0)]
    while left:
        one, place, depth = left.pop()
        if depth > DEEPEST:
            raise Unreadable(place[:80], "is nested too deeply; a document has no more than a few levels")
        if isinstance(one, dict):
            for name, inner in one.items():
                left += [(name, place, depth), (inner, joined(place, name), depth + 1)]
        elif isinstance(one, list):
            left += [(inner, f"{place}[{number}]", depth + 1) for number, inner in enumerate(one)]
        elif isinstance(one, str) and not _whole(one):
            raise Unreadable(place if _whole(place) else "", "has half a character in it; write it anew")
        elif isinstance(one, int | float) and not abs(one) <= LARGEST:
            raise Unreadable(place, "must be a finite number")


def _whole(text: str) -> bool:
    """Whether a text has no lone surrogates, which no file or database takes."""
    try:
        text.encode()
    except UnicodeEncodeError:
        return False
    return True


def from_validation(error: ValidationError) -> Unreadable:
    """The first of pydantic's complaints as one sentence with its place."""
    first = error.errors(include_url=False, include_input=False)[0]
    message = first["msg"].removeprefix("Value error, ")
    remedy = REMEDIES.get(first["type"])
    remedy = remedy.format_map(first.get("ctx", {})) if remedy else message[:1].lower() + message[1:]
    return Unreadable(place_of(first["loc"]), remedy)


def place_of(location: Sequence[str | int]) -> str:
    """A location as it is written in the document: given[2].from[0]."""
    place = ""
    for part in location:
        place = f"{place}[{part}]" if isinstance(part, int) else joined(place, str(part))
    return place


def joined(outer: str, inner: str) -> str:
    """A place inside another."""
    if not outer or not inner:
        return outer or inner
    return f"{outer}{inner}" if inner.startswith("[") else f"{outer}.{inner}"
