"""An instance of a rule: the row, and which points and lines its letters stand for."""

from __future__ import annotations

from ..facts import Term
from ..rules import Bindings, Rule

Instance = tuple[Rule, Bindings]

Named = dict[str, Term]
"""Letters of a rule -> points and lines of the figure."""

Rows = list[tuple[str, str, str]]
"""Triangles, by their corners."""
