"""The base of every error that the core raises on purpose; a class per meaning stands where it arises."""

from __future__ import annotations


class CoreError(Exception):
    """Something that was asked for cannot be. The message says what is wrong and what to do, in a sentence.

    The web layer has one handler for all (``web/errors.py``); views catch those for which their page has a place.
    """
