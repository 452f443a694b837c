"""Large content in parts, a row for each: no statement is to be larger than a database takes at once."""

from __future__ import annotations

PART = 1 << 19
"""Bytes of a part."""


def parts_of(content: bytes) -> list[bytes]:
    """The parts of content, in order; one that is empty for no content.

    >>> [len(part) for part in parts_of(bytes(PART + 1))], parts_of(b"")
    ([524288, 1], [b''])
    """
    return [content[begin : begin + PART] for begin in range(0, max(1, len(content)), PART)]
