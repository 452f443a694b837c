"""What browsers send: one reader for every JSON body, and the numbers of things in addresses and forms."""

from __future__ import annotations

import re
from enum import StrEnum
from typing import TypeVar

from flask import abort, request
from pydantic import BaseModel, ConfigDict, ValidationError
from werkzeug.routing import IntegerConverter

from ..documents.language import gettext as _
from ..documents.reading import Unreadable, check_plain, from_validation, parse_json

Choice = TypeVar("Choice", bound=StrEnum)
Body = TypeVar("Body", bound="JsonBody")


class JsonBody(BaseModel):
    """What a script of ours sends."""

    model_config = ConfigDict(extra="forbid")


DIGITS = 9
"""Of the number of anything in the database."""


class NumberConverter(IntegerConverter):
    """The number of something in an address; longer ones are no numbers of anything."""

    regex = rf"[0-9]{{1,{DIGITS}}}"


def for_script() -> bool:
    """Whether a script or a program asks, which is answered in JSON."""
    return request.path.startswith("/api/") or request.accept_mimetypes.best == "application/json"


WORD = re.compile(r"[a-z]{2,}(?=[ ,])")
"""A word that begins a sentence: no name of an object, and no place in a document."""


def sentence(said: object) -> str:
    """What is said, with a capital letter and a full stop; names and places at its start stay as they are.

    >>> sentence("there is no name in it"), sentence("c is a line!"), sentence("given[2]: no id")
    ('There is no name in it.', 'c is a line!', 'given[2]: no id.')
    """
    text = str(said).strip()
    if WORD.match(text):
        text = text[0].upper() + text[1:]
    return text if not text or text[-1] in ".!?…" else f"{text}."


def number_of(text: str | None) -> int:
    """The number of something, as it stands in a form; 0, which nothing has, where that is none."""
    text = text or ""
    return int(text) if text.isascii() and text.isdecimal() and len(text) <= DIGITS else 0


def choice_of(choices: type[Choice], name: str) -> Choice:
    """What the address asks for, the first of the choices where it does not say; 404 for anything else."""
    try:
        return choices(request.args.get(name, next(iter(choices))))
    except ValueError:
        abort(404)


def json_body(kind: type[Body]) -> Body:
    """The body of this request. Answers 400 where it is no JSON, 422 with the field's name where its form is wrong."""
    if not request.is_json:
        abort(400, _("This address takes JSON."))
    try:
        value = parse_json(request.get_data())
    except Unreadable as wrong:
        abort(400, _("This is no JSON: %(wrong)s.", wrong=wrong))
    try:
        check_plain(value)
        return kind.model_validate(value)
    except Unreadable as wrong:
        abort(422, f"{wrong}.")
    except ValidationError as error:
        abort(422, f"{from_validation(error)}.")
