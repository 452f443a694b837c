"""Forms as people fill them in: read into models, as documents are, with what is wrong said by the field's name."""

from __future__ import annotations

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Annotated, Any, Protocol, Self, get_origin

from pydantic import BaseModel, BeforeValidator, ConfigDict, ValidationError

from . import clock
from .reading import Unreadable, from_validation

FIRST_YEAR, LAST_YEAR = 2000, 2199


class Fields(Protocol):
    """What was filled in: the last value of a field, or all of them."""

    def get(self, name: str) -> str | None:
        """The value of a field, None where it was not sent."""

    def getlist(self, name: str) -> list[str]:
        """All values of a field that may be sent several times."""


class Form(BaseModel):
    """A form. Fields that were not sent, or left empty, have their defaults; others than its own are not read.

    A field's ``title`` is what it is called where it is wrong; its ``description``, if any, what it must be.
    """

    model_config = ConfigDict(extra="ignore", frozen=True)

    @classmethod
    def read(cls, sent: Fields) -> Self:
        """The form as it was filled in. Raises Unreadable, whose place is the title of the field."""
        values: dict[str, Any] = {}
        for name, field in cls.model_fields.items():
            if get_origin(field.annotation) is list:
                values[name] = sent.getlist(name)
            elif text := (sent.get(name) or "").strip():
                values[name] = text
        try:
            return cls.model_validate(values)
        except ValidationError as error:
            wrong = from_validation(error)
            field = cls.model_fields[str(error.errors()[0]["loc"][0])]
            raise Unreadable(field.title or wrong.place, field.description or wrong.remedy) from None


def _utc(value: object, of_naive: Callable[[datetime], datetime]) -> datetime:
    """A time in UTC, without a zone, as the database keeps it; ``of_naive`` makes it of one that names no zone."""
    try:
        at = value if isinstance(value, datetime) else datetime.fromisoformat(str(value))
        at = of_naive(at) if at.tzinfo is None else at.astimezone(UTC).replace(tzinfo=None)
    except (ValueError, OverflowError):
        raise ValueError("is no date and time") from None
    if not FIRST_YEAR <= at.year <= LAST_YEAR:
        raise ValueError(f"must lie between the years {FIRST_YEAR} and {LAST_YEAR}")
    return at


Moment = Annotated[datetime, BeforeValidator(lambda value: _utc(value, lambda at: at))]
"""A time in UTC; one with another time zone is turned into UTC."""

ClockTime = Annotated[datetime, BeforeValidator(lambda value: _utc(value, clock.utc))]
"""A time in UTC that was typed on the school's clock."""

Line = Annotated[str, BeforeValidator(lambda value: " ".join(str(value).split()))]
"""A text of one line, with single spaces."""
