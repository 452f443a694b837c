"""What is loaded, and computed once, before jobs are forked (``apart.py``)."""

from __future__ import annotations

from ...documents.formats.task import read_task
from ...judge.judging import judge
from ...judge.task import Work
from ...school.tasks.library import LIBRARY
from ..printed import paper

# The first verdict of a process compiles the makes, the first paper reads the typefaces.
_task = read_task(LIBRARY["midpoint"].document())
judge(_task, Work(_task.model))
paper.ready()
