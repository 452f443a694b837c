"""Reading JSON, and saying in one sentence where it is wrong."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any

from pydantic import ValidationError


class Unreadable(Exception):
    """A document cannot be used. ``place``: where, as ``given[2].from[0]``; ``remedy``: what is wrong, what to do."""

    def __init__(self, place: str, remedy: str):
        super().__init__(f"{place}: {remedy}" if place else remedy)
        self.place = place
        self.remedy = remedy

    def inside(self, outer: str) -> Unreadable:
        """The same, seen from the document around it."""
        return Unreadable(joined(outer, self.place), self.remedy)


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
}


def parse_json(text: str | bytes) -> Any:
    """The value of a JSON text. Raises Unreadable with line and column."""
    try:
        return json.loads(text)
    except json.JSONDecodeError as error:
        raise Unreadable(
            f"line {error.lineno}, column {error.colno}", f"not JSON ({error.msg}); mend the text there"
        ) from None
    except RecursionError:
        raise Unreadable("", "nested too deeply; a document has no more than a few levels") from None
    except UnicodeDecodeError:
        raise Unreadable("", "not UTF-8; save the file in that encoding") from None
    except ValueError:
        raise Unreadable("", "a number has too many digits; shorten it") from None


def from_validation(error: ValidationError) -> Unreadable:
    """The first of pydantic's complaints as one sentence with its place."""
    first = error.errors(include_url=False, include_input=False)[0]
    message = first["msg"].removeprefix("Value error, ")
    remedy = REMEDIES.get(first["type"], message[:1].lower() + message[1:])
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
