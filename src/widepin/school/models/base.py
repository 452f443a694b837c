"""What all tables share: how constraints are named, how enumerations and times are kept."""

from __future__ import annotations

from datetime import UTC, datetime
from enum import StrEnum

from sqlalchemy import Enum, MetaData
from sqlalchemy.orm import DeclarativeBase


def members(enumeration: type[StrEnum]) -> Enum:
    """The column type of an enumeration, which stores the values of its members."""
    name = "".join(f"_{letter.lower()}" if letter.isupper() else letter for letter in enumeration.__name__).lstrip("_")
    return Enum(enumeration, values_callable=lambda kinds: [kind.value for kind in kinds], name=name)


def now() -> datetime:
    """The present, in UTC, as the database keeps it."""
    return datetime.now(UTC).replace(tzinfo=None)


BYTES = "utf8mb4_bin"
"""The collation of what people and programs are known by: byte by byte, so that nothing passes for another."""


class Base(DeclarativeBase):
    """All tables. Constraints get predictable names, so that migrations can name them."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(column_0_label)s",
            "uq": "uq_%(table_name)s_%(column_0_name)s",
            "ck": "ck_%(table_name)s_%(constraint_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
            "pk": "pk_%(table_name)s",
        }
    )
